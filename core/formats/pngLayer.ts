import type { Runs } from '../raster/raster'
import { crc32 } from './crc32'

/**
 * Writes a layer's runs straight to the bytes of an 8-bit grey PNG, without ever holding the bitmap.
 *
 * One deflate block with a fixed, precomputed Huffman code: the longest match (258 bytes at distance 1) has the
 * one-bit code 0, and the only distance code is 0 too, so 258 equal pixels are two zero bits: a blank stretch of
 * any length is written by moving the write position over a zeroed buffer. Adler-32 of a run has a closed form.
 */
const MATCH_MAX = 258

interface Code {
  lengths: Uint8Array
  codes: Uint16Array
}

const LITERALS = buildCode(
  (() => {
    const weight = new Float64Array(286).fill(1)
    weight[0] = 64
    weight[255] = 64
    weight[285] = 1500
    for (let i = 257; i < 285; i++) weight[i] = 16
    return weight
  })(),
)

/** Length symbols of deflate: first length, extra bits. */
const LENGTH_BASE: number[] = [],
  LENGTH_EXTRA: number[] = []
for (let i = 0, length = 3; i < 28; i++) {
  const extra = i < 8 ? 0 : (i >> 2) - 1
  LENGTH_BASE.push(length)
  LENGTH_EXTRA.push(extra)
  length += 1 << extra
}
const SYMBOL_OF_LENGTH = new Uint8Array(MATCH_MAX + 1)
for (let n = 3; n < MATCH_MAX; n++) SYMBOL_OF_LENGTH[n] = LENGTH_BASE.findLastIndex((b) => b <= n)

class BitWriter {
  bytes = new Uint8Array(1 << 16)
  private at = 0
  private hold = 0
  private held = 0

  put(bits: number, count: number): void {
    this.hold |= bits << this.held
    this.held += count
    if (this.at + 8 > this.bytes.length) this.room(8)
    while (this.held >= 8) {
      this.bytes[this.at++] = this.hold & 255
      this.hold >>>= 8
      this.held -= 8
    }
  }

  zeros(count: number): void {
    const total = this.held + count
    if (total < 8) {
      this.held = total
      return
    }
    this.room((total >> 3) + 1)
    this.bytes[this.at] = this.hold & 255
    this.at += total >> 3
    this.hold = 0
    this.held = total & 7
  }

  finish(): Uint8Array {
    if (this.held > 0) {
      this.room(1)
      this.bytes[this.at++] = this.hold & 255
    }
    return this.bytes.subarray(0, this.at)
  }

  private room(n: number): void {
    if (this.at + n <= this.bytes.length) return
    const more = new Uint8Array(Math.max(this.bytes.length * 2, this.at + n))
    more.set(this.bytes)
    this.bytes = more
  }
}

/** PNG bytes of the layer, decodable by any reader. O(runs + rows). */
export function encodeLayer(runs: Runs): Uint8Array {
  const out = new BitWriter()
  out.put(0x78, 8)
  out.put(0x01, 8)
  writeBlockHeader(out)
  let a = 1,
    b = 0,
    last = -1
  let pendingZeros = 0

  const emit = (value: number, n: number): void => {
    if (n === 0) return
    // Zero runs can be as long as the picture; the sums stay exact below 2^53.
    b = (b + n * a + (value === 0 ? 0 : (value * n * (n + 1)) / 2)) % 65521
    a = (a + value * n) % 65521
    let left = n
    if (value !== last) {
      out.put(LITERALS.codes[value]!, LITERALS.lengths[value]!)
      left--
      last = value
    }
    const full = Math.floor(left / MATCH_MAX)
    if (full > 0) {
      out.zeros(full * 2)
      left -= full * MATCH_MAX
    }
    if (left >= 3) {
      const s = SYMBOL_OF_LENGTH[left]!
      out.put(LITERALS.codes[257 + s]!, LITERALS.lengths[257 + s]!)
      if (LENGTH_EXTRA[s]! > 0) out.put(left - LENGTH_BASE[s]!, LENGTH_EXTRA[s]!)
      out.zeros(1)
    } else for (; left > 0; left--) out.put(LITERALS.codes[value]!, LITERALS.lengths[value]!)
  }

  for (let row = 0; row < runs.height; row++) {
    pendingZeros++ // the row's filter byte: none
    let x = 0
    for (let i = runs.rowStart[row]!; i < runs.rowStart[row + 1]!; i++) {
      pendingZeros += runs.x[i]! - x
      emit(0, pendingZeros)
      pendingZeros = 0
      emit(runs.value[i]!, runs.length[i]!)
      x = runs.x[i]! + runs.length[i]!
    }
    pendingZeros += runs.width - x
  }
  emit(0, pendingZeros)
  out.put(LITERALS.codes[256]!, LITERALS.lengths[256]!)
  const deflated = out.finish()

  const data = deflated.length + 4
  const png = new Uint8Array(8 + 25 + 12 + data + 12)
  const view = new DataView(png.buffer)
  png.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
  view.setUint32(8, 13)
  png.set([0x49, 0x48, 0x44, 0x52], 12)
  view.setUint32(16, runs.width)
  view.setUint32(20, runs.height)
  png.set([8, 0, 0, 0, 0], 24)
  view.setUint32(29, crc32(png, 12, 29))
  view.setUint32(33, data)
  png.set([0x49, 0x44, 0x41, 0x54], 37)
  png.set(deflated, 41)
  view.setUint32(41 + deflated.length, ((b << 16) | a) >>> 0)
  view.setUint32(41 + data, crc32(png, 37, 41 + data))
  view.setUint32(45 + data, 0)
  png.set([0x49, 0x45, 0x4e, 0x44], 49 + data)
  view.setUint32(53 + data, crc32(png, 49 + data, 53 + data))
  return png
}

/** Dynamic block header (RFC 1951, 3.2.7) that spells out the fixed code. */
function writeBlockHeader(out: BitWriter): void {
  const lengths = [...LITERALS.lengths, 1]
  out.put(1, 1)
  out.put(2, 2)
  out.put(286 - 257, 5)
  out.put(0, 5)
  out.put(15, 4)
  // Code-length code: symbols 0..15 with four bits each; 16 to 18 are not used.
  const order = [16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15]
  for (const s of order) out.put(s < 16 ? 4 : 0, 3)
  for (const l of lengths) out.put(reverse(l, 4), 4)
}

function reverse(bits: number, count: number): number {
  let r = 0
  for (let i = 0; i < count; i++) r |= ((bits >> i) & 1) << (count - 1 - i)
  return r
}

/** Huffman lengths from weights, then canonical codes, bit-reversed for deflate's order. */
function buildCode(weights: Float64Array): Code {
  const n = weights.length
  interface Node {
    weight: number
    symbols: number[]
  }
  let nodes: Node[] = Array.from(weights, (weight, s) => ({ weight, symbols: [s] }))
  const lengths = new Uint8Array(n)
  while (nodes.length > 1) {
    nodes.sort((a, b) => a.weight - b.weight)
    const [x, y] = nodes as [Node, Node]
    for (const s of x.symbols) lengths[s]!++
    for (const s of y.symbols) lengths[s]!++
    nodes = [{ weight: x.weight + y.weight, symbols: x.symbols.concat(y.symbols) }, ...nodes.slice(2)]
  }
  const codes = new Uint16Array(n)
  let code = 0
  for (let length = 1; length <= 15; length++) {
    for (let s = 0; s < n; s++) if (lengths[s] === length) codes[s] = reverse(code++, length)
    code <<= 1
  }
  return { lengths, codes }
}
