/**
 * A section's segments joined end to start into closed loops, solid on the left: outlines run counter-clockwise, holes
 * clockwise. Neighbouring faces compute their common crossing bit for bit alike (see `Sections`), so ends are matched exactly.
 *
 * @param segments 4 per segment: x0 y0 x1 y1
 * @returns `loops`: 2 numbers a corner; `open`: ways that find no end, as a torn body leaves them, left out
 */
export function loopsOf(segments: Float64Array, count: number): { loops: Float64Array[]; open: number } {
  const starts = new Map<number, number[]>()
  for (let s = 0; s < count; s++) {
    const k = hash(segments[s * 4]!, segments[s * 4 + 1]!)
    const list = starts.get(k)
    if (list) list.push(s)
    else starts.set(k, [s])
  }
  const used = new Uint8Array(count)
  const follow = (s: number): number => {
    const x = segments[s * 4 + 2]!,
      y = segments[s * 4 + 3]!
    for (const n of starts.get(hash(x, y)) ?? [])
      if (!used[n] && segments[n * 4] === x && segments[n * 4 + 1] === y) return n
    return -1
  }
  const loops: Float64Array[] = []
  let open = 0
  for (let first = 0; first < count; first++) {
    if (used[first]) continue
    const corners: number[] = []
    let s = first
    for (;;) {
      used[s] = 1
      const x = segments[s * 4]!,
        y = segments[s * 4 + 1]!
      // A face that the plane just touches gives a segment of no length.
      if (x !== segments[s * 4 + 2] || y !== segments[s * 4 + 3]) corners.push(x, y)
      const closed = segments[s * 4 + 2] === segments[first * 4] && segments[s * 4 + 3] === segments[first * 4 + 1]
      if (closed) {
        if (corners.length >= 6) loops.push(new Float64Array(corners))
        break
      }
      s = follow(s)
      if (s < 0) {
        open++
        break
      }
    }
  }
  return { loops, open }
}

const two = new Float64Array(2),
  bits = new Uint32Array(two.buffer)
function hash(x: number, y: number): number {
  // +0 and −0 are one place.
  two[0] = x + 0
  two[1] = y + 0
  let h = Math.imul(bits[0]!, 0x9e3779b1) ^ Math.imul(bits[1]!, 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 15), 0xc2b2ae35) ^ Math.imul(bits[2]!, 0x27d4eb2f)
  return (Math.imul(h ^ (h >>> 13), 0x165667b1) ^ bits[3]!) >>> 0
}
