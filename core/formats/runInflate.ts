/** Bytes back to which a match may reach (RFC 1951). */
const WINDOW = 32_768
const MASK = WINDOW - 1

/** First lengths and extra bits of the length symbols 257 to 285, and of the distance symbols 0 to 29 (RFC 1951, 3.2.5). */
const LENGTHS = table(29, 3, (i) => (i < 8 || i === 28 ? 0 : (i >> 2) - 1))
LENGTHS.first[28] = 258
const DISTANCES = table(30, 1, (i) => (i < 4 ? 0 : (i >> 1) - 1))
const CODE_ORDER = [16, 17, 18, 0, 8, 7, 9, 6, 10, 5, 11, 4, 12, 3, 13, 2, 14, 1, 15]

function table(n: number, start: number, extra: (i: number) => number): { first: Uint16Array; extra: Uint8Array } {
  const made = { first: new Uint16Array(n), extra: new Uint8Array(n) }
  for (let i = 0, at = start; i < n; i++) {
    made.first[i] = at
    made.extra[i] = extra(i)
    at += 1 << made.extra[i]!
  }
  return made
}

/**
 * Unpacks a zlib stream (RFC 1950, 1951) into runs of equal bytes. A match at distance 1 is a run as it stands: it is passed
 * on by its length and never written out, so that a picture of a few outlines costs by its packed bytes and not by its
 * pixels. The window is kept up only as far as a farther match asks for it.
 *
 * @param take told of each run; answers false when it has had enough
 * @returns null when all is well, or what is wrong
 */
export function inflateRuns(
  bytes: Uint8Array,
  take: (value: number, n: number) => boolean,
): 'damaged' | 'stopped' | null {
  const r = new RunInflate(bytes, take)
  try {
    return r.all() ? null : 'stopped'
  } catch (e) {
    if (e instanceof Damaged) return 'damaged'
    throw e
  }
}

class Damaged extends Error {}

/** A canonical Huffman code: counts by length and symbols in order, with a table of the codes up to `FAST` bits. */
interface Code {
  fast: Int16Array
  count: Uint16Array
  symbol: Uint16Array
}
const FAST = 10

function code(lengths: Uint8Array): Code {
  const count = new Uint16Array(16),
    offset = new Uint16Array(17),
    symbol = new Uint16Array(lengths.length)
  for (const l of lengths) count[l]!++
  count[0] = 0
  let left = 1
  for (let l = 1; l < 16; l++) {
    left = left * 2 - count[l]!
    if (left < 0) throw new Damaged()
    offset[l + 1] = offset[l]! + count[l]!
  }
  for (let s = 0; s < lengths.length; s++) if (lengths[s]) symbol[offset[lengths[s]!]!++] = s
  // Entry: length in the low four bits, symbol above; −1 where the code is longer, or none.
  const fast = new Int16Array(1 << FAST).fill(-1)
  let at = 0,
    next = 0
  for (let l = 1; l <= FAST; l++) {
    next <<= 1
    for (let k = 0; k < count[l]!; k++, next++) {
      let reversed = 0
      for (let b = 0; b < l; b++) reversed |= ((next >> b) & 1) << (l - 1 - b)
      for (let i = reversed; i < 1 << FAST; i += 1 << l) fast[i] = (symbol[at]! << 4) | l
      at++
    }
  }
  return { fast, count, symbol }
}

/** Bits of a symbol's code and how many they are; 0 of them where the code is not in the table. */
function patternOf({ fast }: Code, symbol: number): [number, number] {
  const at = fast.findIndex((e) => e >= 0 && e >> 4 === symbol)
  return at < 0 ? [0, 0] : [at, fast[at]! & 15]
}

let fixed: [Code, Code] | undefined
function fixedCodes(): [Code, Code] {
  const l = new Uint8Array(288).fill(8)
  l.fill(9, 144, 256).fill(7, 256, 280)
  return (fixed ??= [code(l), code(new Uint8Array(30).fill(5))])
}

class RunInflate {
  private at = 2
  private hold = 0
  private held = 0
  private readonly window = new Uint8Array(WINDOW)
  private end = 0
  /** bytes unpacked in all, and the run that is not yet passed on nor in the window */
  private total = 0
  private value = 0
  private run = 0
  private a = 1
  private b = 0

  constructor(
    private readonly bytes: Uint8Array,
    private readonly take: (value: number, n: number) => boolean,
  ) {}

  /** True when the stream was read to its end. */
  all(): boolean {
    const { bytes } = this
    if (bytes.length < 6 || (bytes[0]! & 15) !== 8 || ((bytes[0]! << 8) | bytes[1]!) % 31 !== 0 || bytes[1]! & 32)
      throw new Damaged()
    for (let last = false; !last;) {
      last = this.bits(1) === 1
      const kind = this.bits(2)
      const on =
        kind === 0 ? this.stored() : kind === 3 ? this.refuse() : this.block(kind === 1 ? fixedCodes() : this.codes())
      if (!on) return false
    }
    if (!this.flush()) return false
    this.at -= this.held >> 3
    const sum = ((this.b << 16) | this.a) >>> 0
    const said = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
    if (this.at + 4 > bytes.length || said.getUint32(this.at) !== sum) throw new Damaged()
    return true
  }

  private refuse(): never {
    throw new Damaged()
  }

  private bits(n: number): number {
    while (this.held < n) this.more()
    const v = this.hold & ((1 << n) - 1)
    this.hold >>>= n
    this.held -= n
    return v
  }

  private more(): void {
    if (this.at >= this.bytes.length) throw new Damaged()
    this.hold |= this.bytes[this.at++]! << this.held
    this.held += 8
  }

  private symbol(c: Code): number {
    // Near the end there may be fewer bits than the table is wide; what is missing reads as zeros.
    while (this.held < FAST && this.at < this.bytes.length) this.more()
    const entry = c.fast[this.hold & ((1 << FAST) - 1)]!
    if (entry >= 0) {
      const l = entry & 15
      if (l > this.held) throw new Damaged()
      this.hold >>>= l
      this.held -= l
      return entry >> 4
    }
    let word = 0,
      first = 0,
      index = 0
    for (let l = 1; l < 16; l++) {
      word |= this.bits(1)
      const n = c.count[l]!
      if (word - n < first) return c.symbol[index + word - first]!
      index += n
      first = (first + n) << 1
      word <<= 1
    }
    throw new Damaged()
  }

  private codes(): [Code, Code] {
    const literals = this.bits(5) + 257,
      distances = this.bits(5) + 1,
      n = this.bits(4) + 4
    if (literals > 286 || distances > 30) throw new Damaged()
    const of = new Uint8Array(19)
    for (let i = 0; i < n; i++) of[CODE_ORDER[i]!] = this.bits(3)
    const c = code(of)
    const lengths = new Uint8Array(literals + distances)
    for (let i = 0; i < lengths.length;) {
      const s = this.symbol(c)
      if (s < 16) {
        lengths[i++] = s
        continue
      }
      if (s === 16 && i === 0) throw new Damaged()
      const again = s === 16 ? 3 + this.bits(2) : s === 17 ? 3 + this.bits(3) : 11 + this.bits(7)
      if (i + again > lengths.length) throw new Damaged()
      lengths.fill(s === 16 ? lengths[i - 1]! : 0, i, (i += again))
    }
    return [code(lengths.subarray(0, literals)), code(lengths.subarray(literals))]
  }

  private stored(): boolean {
    this.at -= this.held >> 3
    this.hold = this.held = 0
    const { bytes } = this
    if (this.at + 4 > bytes.length) throw new Damaged()
    const n = bytes[this.at]! | (bytes[this.at + 1]! << 8)
    if ((n ^ 0xffff) !== (bytes[this.at + 2]! | (bytes[this.at + 3]! << 8))) throw new Damaged()
    this.at += 4
    if (this.at + n > bytes.length) throw new Damaged()
    for (const last = this.at + n; this.at < last; this.at++) if (!this.put(bytes[this.at]!, 1)) return false
    return true
  }

  private block([literals, distances]: [Code, Code]): boolean {
    // The longest match at distance 1, its two codes at once: most of what a picture of runs consists of.
    const [longest, l] = patternOf(literals, 285),
      [near, m] = patternOf(distances, 0)
    const width = l > 0 && m > 0 ? l + m : 0,
      mask = (1 << width) - 1,
      pattern = longest | (near << l)
    for (;;) {
      while (this.held < 20 && this.at < this.bytes.length) this.more()
      if (width > 0 && width <= this.held && (this.hold & mask) === pattern && this.total > 0) {
        this.hold >>>= width
        this.held -= width
        if (!this.put(this.value, 258)) return false
        continue
      }
      const s = this.symbol(literals)
      if (s < 256) {
        if (!this.put(s, 1)) return false
        continue
      }
      if (s === 256) return true
      if (s > 285) throw new Damaged()
      const length = LENGTHS.first[s - 257]! + this.bits(LENGTHS.extra[s - 257]!)
      const d = this.symbol(distances)
      if (d > 29) throw new Damaged()
      const distance = DISTANCES.first[d]! + this.bits(DISTANCES.extra[d]!)
      if (distance > this.total) throw new Damaged()
      if (distance === 1) {
        if (!this.put(this.value, length)) return false
        continue
      }
      for (let i = 0; i < length; i++) if (!this.put(this.back(distance), 1)) return false
    }
  }

  /** The byte that came `distance` before the next one. */
  private back(distance: number): number {
    if (distance <= this.run) return this.value
    return this.window[(this.end - (distance - this.run)) & MASK]!
  }

  private put(value: number, n: number): boolean {
    this.total += n
    if (value === this.value && this.run > 0) {
      this.run += n
      return true
    }
    const on = this.flush()
    this.value = value
    this.run = n
    return on
  }

  /** Passes the run in hand on, and writes as much of it into the window as that holds. */
  private flush(): boolean {
    const { run: n, value, window } = this
    if (n === 0) return true
    // Adler-32 of n equal bytes in closed form; the sums stay exact below 2^53.
    this.b = (this.b + n * this.a + (value === 0 ? 0 : (value * n * (n + 1)) / 2)) % 65_521
    this.a = (this.a + value * n) % 65_521
    const from = (this.end + Math.max(0, n - WINDOW)) & MASK,
      m = Math.min(n, WINDOW)
    if (from + m <= WINDOW) window.fill(value, from, from + m)
    else {
      window.fill(value, from)
      window.fill(value, 0, from + m - WINDOW)
    }
    this.end = (this.end + n) & MASK
    this.run = 0
    return this.take(value, n)
  }
}
