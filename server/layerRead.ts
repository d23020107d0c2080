import { QueryTypes } from 'sequelize'
import { layerName } from '../core/print/slice'
import { blobSize } from './blobs'
import { database } from './database'

const CHUNK = 4 * 1024 * 1024
interface Entry {
  offset: number
  size: number
}
/** Directories of the archives looked at last, so that scrubbing reads each only once. */
const directories = new Map<string, Map<string, Entry>>()

/** One layer of a stored archive, read by its place, without touching the rest. Null when there is no such layer. */
export async function layerOf(hash: string, index: number): Promise<Uint8Array | null> {
  let directory = directories.get(hash)
  if (!directory) {
    directory = await readDirectory(hash)
    directories.set(hash, directory)
    if (directories.size > 8) directories.delete(directories.keys().next().value!)
  }
  const entry = directory.get(layerName(index))
  if (!entry) return null
  const head = await range(hash, entry.offset, 30)
  const view = new DataView(head.buffer, head.byteOffset)
  return range(hash, entry.offset + 30 + view.getUint16(26, true) + view.getUint16(28, true), entry.size)
}

async function readDirectory(hash: string): Promise<Map<string, Entry>> {
  const size = await blobSize(hash)
  const out = new Map<string, Entry>()
  if (size === null || size < 22) return out
  const tail = await range(hash, Math.max(0, size - 1024), Math.min(1024, size))
  const view = new DataView(tail.buffer, tail.byteOffset, tail.byteLength)
  let end = tail.length - 22
  while (end >= 0 && view.getUint32(end, true) !== 0x06054b50) end--
  if (end < 0) return out
  const length = view.getUint32(end + 12, true),
    start = view.getUint32(end + 16, true)
  const bytes = await range(hash, start, length)
  const list = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const text = new TextDecoder()
  for (let at = 0; at + 46 <= bytes.length && list.getUint32(at, true) === 0x02014b50;) {
    const name = list.getUint16(at + 28, true),
      extra = list.getUint16(at + 30, true),
      note = list.getUint16(at + 32, true)
    out.set(text.decode(bytes.subarray(at + 46, at + 46 + name)), {
      offset: list.getUint32(at + 42, true),
      size: list.getUint32(at + 20, true),
    })
    at += 46 + name + extra + note
  }
  return out
}

/** Bytes from..from + length of a blob, from the chunks that hold them. */
async function range(hash: string, from: number, length: number): Promise<Uint8Array> {
  const first = Math.floor(from / CHUNK),
    last = Math.floor((from + length - 1) / CHUNK)
  const rows = await database.query<{ bytes: Buffer }>(
    `SELECT CASE WHEN $2::int = $3::int THEN substring(c.bytes from $4::int for $5::int) ELSE c.bytes END AS bytes
     FROM blob b JOIN blob_chunk c ON c.id = b.id WHERE b.hash = $1 AND c.n BETWEEN $2 AND $3 ORDER BY c.n`,
    { bind: [hash, first, last, from - first * CHUNK + 1, length], type: QueryTypes.SELECT },
  )
  const all = Buffer.concat(rows.map((r) => r.bytes))
  return new Uint8Array(first === last ? all : all.subarray(from - first * CHUNK, from - first * CHUNK + length))
}
