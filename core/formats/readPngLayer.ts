import { bad, good, type Answer } from '../answer'
import type { Runs } from '../raster/raster'
import { RunBuilder } from '../raster/runBuilder'
import { crc32 } from './crc32'
import { inflateRuns } from './runInflate'
import { message } from '../words/message'
import type { Said } from '../words/say'

export interface PngLayer {
  runs: Runs
  /** mm per pixel in x and y where the file says so */
  pitch: [number, number] | null
}

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]
/** Channels of a colour type: grey, RGB, palette, grey with alpha, RGBA. */
const CHANNELS: Record<number, number> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 }
const MAX_SIDE = 65_535

/**
 * A layer's picture as runs of light, read row by row: the bitmap is never held, and where the file has runs itself (grey bytes
 * without a filter, as `encodeLayer` writes them) its pixels are never even counted out. Any PNG that is not interlaced; colour counts
 * by its luminance (ITU-R BT.601), what is transparent as dark. Every chunk must pass its checksum, and the picture must
 * have just the rows that it declares.
 */
export function readPngLayer(bytes: Uint8Array): Answer<PngLayer> {
  const damaged = (what: Said): Answer<never> =>
    bad('layer-damaged', message('problems.readPngLayer.isNoSoundPng', { what }))
  if (bytes.length < 45 || SIGNATURE.some((b, i) => bytes[i] !== b))
    return damaged(message('problems.readPngLayer.itDoesNotStartLike'))
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let rows: Rows | null = null
  let palette: Uint8Array | null = null
  let pitch: [number, number] | null = null
  let ended = false
  const parts: Uint8Array[] = []
  for (let at = 8; at + 12 <= bytes.length && !ended;) {
    const length = view.getUint32(at),
      type = String.fromCharCode(...bytes.subarray(at + 4, at + 8)),
      from = at + 8
    if (from + length + 4 > bytes.length) return damaged(message('problems.readPngLayer.itEndsTooEarly'))
    if (crc32(bytes, at + 4, from + length) !== view.getUint32(from + length))
      return damaged(message('problems.readPngLayer.itsIsDamaged', { type }))
    if (type === 'IHDR') {
      const [width, height] = [view.getUint32(from), view.getUint32(from + 4)]
      const [depth, colour, , , interlaced] = bytes.subarray(from + 8, from + 13) as unknown as number[]
      const channels = CHANNELS[colour!]
      if (width === 0 || height === 0 || width > MAX_SIDE || height > MAX_SIDE)
        return damaged(message('problems.readPngLayer.pixelsAreNoLayer', { width, height }))
      if (channels === undefined || ![1, 2, 4, 8, 16].includes(depth!))
        return damaged(message('problems.readPngLayer.itsKindOfPixelIs'))
      if (interlaced !== 0) return bad('layer-interlaced', message('problems.readPngLayer.isAnInterlacedPngWhich'))
      rows = new Rows(width, height, depth!, colour!, channels)
    } else if (type === 'PLTE') palette = bytes.subarray(from, from + length)
    else if (type === 'pHYs' && length === 9 && bytes[from + 8] === 1) {
      const [x, y] = [view.getUint32(from), view.getUint32(from + 4)]
      if (x > 0 && y > 0) pitch = [1000 / x, 1000 / y]
    } else if (type === 'IDAT') parts.push(bytes.subarray(from, from + length))
    else if (type === 'IEND') ended = true
    at = from + length + 4
  }
  if (!rows || !ended) return damaged(message('problems.readPngLayer.itEndsTooEarly'))
  if (rows.colour === 3 && !palette) return damaged(message('problems.readPngLayer.itsPaletteIsMissing'))
  rows.palette = palette
  const reader = rows
  if (inflateRuns(joined(parts), (value, n) => reader.push(value, n)) === 'damaged' && !reader.over)
    return damaged(message('problems.readPngLayer.itsPixelsCannotBeUnpacked'))
  if (reader.over) return damaged(message('problems.readPngLayer.itHasMorePixelsThan'))
  if (reader.bad) return damaged(message('problems.readPngLayer.itsRowsAreFilteredIn'))
  if (!reader.complete) return damaged(message('problems.readPngLayer.itHasFewerPixelsThan'))
  return good({ runs: reader.runs(), pitch })
}

/** Takes unpacked bytes as runs, undoes each row's filter, and keeps only its runs. */
class Rows {
  palette: Uint8Array | null = null
  over = false
  bad = false
  private readonly stride: number
  private readonly step: number
  private before: Uint8Array
  private now: Uint8Array
  private filled = -1
  private filter = 0
  private row = 0
  private readonly out: RunBuilder
  /** bytes are pixels as they are to be */
  private readonly plain: boolean
  /** the row before was not written out: it is to be had from its runs */
  private owed = false

  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly depth: number,
    readonly colour: number,
    private readonly channels: number,
  ) {
    this.stride = Math.ceil((width * depth * channels) / 8)
    this.step = Math.max(1, (depth * channels) >> 3)
    this.before = new Uint8Array(this.stride)
    this.now = new Uint8Array(this.stride)
    this.out = new RunBuilder(width, height)
    this.plain = depth === 8 && colour === 0
  }

  get complete(): boolean {
    return this.row === this.height && this.filled === -1
  }

  /** The next n bytes, all alike. False when there are more than the picture has. */
  push(value: number, n: number): boolean {
    while (n > 0) {
      if (this.row === this.height) {
        this.over = true
        return false
      }
      if (this.filled < 0) {
        this.filter = value
        this.filled = 0
        n--
        if (this.filter > 1 && this.owed) this.writeOut()
        continue
      }
      const m = Math.min(n, this.stride - this.filled)
      if (this.filter === 0 && this.plain) this.out.add(this.filled, m, value)
      else this.now.fill(value, this.filled, this.filled + m)
      this.filled += m
      n -= m
      if (this.filled === this.stride) this.endRow()
    }
    return true
  }

  private writeOut(): void {
    this.before.fill(0)
    this.out.lastRow((x, length, value) => this.before.fill(value, x, x + length))
    this.owed = false
  }

  private endRow(): void {
    if (this.filter === 0 && this.plain) {
      this.out.endRow()
      this.owed = true
      this.filled = -1
      this.row++
      return
    }
    const { now, before, step, stride } = this
    switch (this.filter) {
      case 0:
        break
      case 1:
        for (let i = step; i < stride; i++) now[i]! += now[i - step]!
        break
      case 2:
        for (let i = 0; i < stride; i++) now[i]! += before[i]!
        break
      case 3:
        for (let i = 0; i < stride; i++) now[i]! += ((i < step ? 0 : now[i - step]!) + before[i]!) >> 1
        break
      case 4:
        for (let i = 0; i < stride; i++)
          now[i]! += i < step ? before[i]! : paeth(now[i - step]!, before[i]!, before[i - step]!)
        break
      default:
        this.bad = true
    }
    this.collect()
    this.before = now
    this.now = before
    this.owed = false
    this.filled = -1
    this.row++
  }

  private collect(): void {
    for (let p = 0; p < this.width; p++) this.out.add(p, 1, this.light(p))
    this.out.endRow()
  }

  /** 0 to 255 of pixel p in the row in hand. */
  private light(p: number): number {
    const { now, depth, channels, colour } = this
    if (depth < 8) {
      const bit = p * depth
      const raw = (now[bit >> 3]! >> (8 - depth - (bit & 7))) & ((1 << depth) - 1)
      return colour === 3 ? this.swatch(raw) : Math.round((raw * 255) / ((1 << depth) - 1))
    }
    const size = depth >> 3,
      at = p * channels * size
    if (colour === 3) return this.swatch(now[at]!)
    const grey = channels < 3 ? now[at]! : luma(now[at]!, now[at + size]!, now[at + 2 * size]!)
    return channels === 2 || channels === 4 ? Math.round((grey * now[at + (channels - 1) * size]!) / 255) : grey
  }
  private swatch(index: number): number {
    const p = this.palette!
    return index * 3 + 2 < p.length ? luma(p[index * 3]!, p[index * 3 + 1]!, p[index * 3 + 2]!) : 0
  }

  runs(): Runs {
    return this.out.done()
  }
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  if (parts.length === 1) return parts[0]!
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of parts) {
    all.set(p, at)
    at += p.length
  }
  return all
}

const luma = (r: number, g: number, b: number): number => Math.round(0.299 * r + 0.587 * g + 0.114 * b)

function paeth(a: number, b: number, c: number): number {
  const p = a + b - c
  const pa = Math.abs(p - a),
    pb = Math.abs(p - b),
    pc = Math.abs(p - c)
  return pa <= pb && pa <= pc ? a : pb <= pc ? b : c
}
