import { Inflate } from 'fflate'
import { bad, good, type Answer } from '../answer'
import { message } from '../words/message'

/** Bytes that are read by their place, so that a large archive is never held whole. */
export interface ByteSource {
  size: number
  read(from: number, length: number): Promise<Uint8Array>
}
export interface ZipEntry {
  name: string
  /** of its local header */
  offset: number
  packed: number
  size: number
  /** 0 stored, 8 deflated */
  method: number
  crc: number
}

const MAX_ENTRIES = 200_000
const MAX_DIRECTORY = 200_000_000
const END = 0x06054b50,
  END64 = 0x06064b50,
  LOCATOR64 = 0x07064b50,
  ENTRY = 0x02014b50,
  LOCAL = 0x04034b50
/** Longest comment after the end record. */
const TAIL = 65_557

/**
 * The directory of a ZIP (APPNOTE 6.3, with ZIP64), in its own order. Names are only ever looked up, never used as paths.
 * Every place that it names must lie in the file.
 */
export async function zipDirectory(source: ByteSource): Promise<Answer<ZipEntry[]>> {
  const damaged = bad('archive-damaged', message('problems.zipDirectory.theArchiveIsDamagedOr'))
  if (source.size < 22) return damaged
  const tailAt = Math.max(0, source.size - TAIL)
  const tail = viewOf(await source.read(tailAt, source.size - tailAt))
  let end = tail.byteLength - 22
  while (end >= 0 && tail.getUint32(end, true) !== END) end--
  if (end < 0) return damaged
  let count = tail.getUint16(end + 10, true),
    length = tail.getUint32(end + 12, true),
    start = tail.getUint32(end + 16, true)
  if (end >= 20 && tail.getUint32(end - 20, true) === LOCATOR64) {
    const at = Number(tail.getBigUint64(end - 12, true))
    if (at + 56 > source.size) return damaged
    const record = viewOf(await source.read(at, 56))
    if (record.getUint32(0, true) !== END64) return damaged
    count = Number(record.getBigUint64(32, true))
    length = Number(record.getBigUint64(40, true))
    start = Number(record.getBigUint64(48, true))
  }
  if (count > MAX_ENTRIES || length > MAX_DIRECTORY)
    return bad('archive-too-many', message('problems.zipDirectory.thereAreMoreThanFiles', { max_entries: MAX_ENTRIES }))
  if (start + length > source.size) return damaged
  const bytes = await source.read(start, length)
  const view = viewOf(bytes),
    text = new TextDecoder()
  const out: ZipEntry[] = []
  for (let at = 0; at + 46 <= bytes.length && out.length < count;) {
    if (view.getUint32(at, true) !== ENTRY) return damaged
    const name = view.getUint16(at + 28, true),
      extra = view.getUint16(at + 30, true),
      note = view.getUint16(at + 32, true)
    if (at + 46 + name + extra + note > bytes.length) return damaged
    const entry: ZipEntry = {
      name: text.decode(bytes.subarray(at + 46, at + 46 + name)),
      method: view.getUint16(at + 10, true),
      crc: view.getUint32(at + 16, true),
      packed: view.getUint32(at + 20, true),
      size: view.getUint32(at + 24, true),
      offset: view.getUint32(at + 42, true),
    }
    widen(entry, view, at + 46 + name, extra)
    if (entry.offset + 30 + entry.packed > source.size) return damaged
    out.push(entry)
    at += 46 + name + extra + note
  }
  return out.length === count ? good(out) : damaged
}

/** Sizes and places beyond 4 GB stand in an extra field, in a fixed order, only those that did not fit. */
function widen(entry: ZipEntry, view: DataView, from: number, length: number): void {
  for (let at = from; at + 4 <= from + length;) {
    const id = view.getUint16(at, true),
      size = view.getUint16(at + 2, true)
    let next = at + 4
    if (id === 1)
      for (const field of ['size', 'packed', 'offset'] as const) {
        if (entry[field] !== 0xffffffff || next + 8 > at + 4 + size) continue
        entry[field] = Number(view.getBigUint64(next, true))
        next += 8
      }
    at += 4 + size
  }
}

/** Where an entry's bytes begin. */
export async function entryStart(source: ByteSource, entry: ZipEntry): Promise<number | null> {
  const head = viewOf(await source.read(entry.offset, 30))
  if (head.byteLength < 30 || head.getUint32(0, true) !== LOCAL) return null
  return entry.offset + 30 + head.getUint16(26, true) + head.getUint16(28, true)
}

/**
 * An entry's content. It is unpacked only as far as `most` bytes: one that goes on is refused, whatever its header says.
 */
export async function readEntry(source: ByteSource, entry: ZipEntry, most: number): Promise<Answer<Uint8Array>> {
  const damaged = bad(
    'archive-damaged',
    message('problems.zipDirectory.inTheArchiveIsDamaged', { name: short(entry.name) }),
  )
  const large = bad('archive-bomb', message('problems.zipDirectory.inTheArchiveIsLarger', { name: short(entry.name) }))
  if (entry.method !== 0 && entry.method !== 8)
    return bad('archive-method', message('problems.zipDirectory.theArchiveIsPackedBy'))
  if (entry.packed > most) return large
  const start = await entryStart(source, entry)
  if (start === null || start + entry.packed > source.size) return damaged
  const packed = await source.read(start, entry.packed)
  if (entry.method === 0) return good(packed)
  const parts: Uint8Array[] = []
  let total = 0
  const inflate = new Inflate((chunk) => {
    total += chunk.length
    if (total <= most) parts.push(chunk)
  })
  try {
    for (let at = 0; at < packed.length && total <= most; at += 1 << 16)
      inflate.push(packed.subarray(at, at + (1 << 16)), at + (1 << 16) >= packed.length)
  } catch {
    return damaged
  }
  if (total > most) return large
  const whole = new Uint8Array(total)
  let at = 0
  for (const p of parts) {
    whole.set(p, at)
    at += p.length
  }
  return good(whole)
}

const short = (name: string): string => name.replace(/^.*[\\/]/, '').slice(0, 60)
const viewOf = (b: Uint8Array): DataView => new DataView(b.buffer, b.byteOffset, b.byteLength)
