/** Beyond this many cells a lone point asks all others: there are few such, and rings grow with the cube. */
const FARTHEST_RING = 6

/**
 * The k nearest other points of every point, nearest first, by a hashed grid. Fewer where there are not so many: the
 * rest is filled with the point itself.
 *
 * @param positions 3 per point, mm; thinned before, or places with thousands of equal points take their square
 * @returns k indices per point
 */
export function nearestNeighbours(positions: Float32Array, k: number): Uint32Array {
  const n = positions.length / 3
  const out = new Uint32Array(n * k)
  if (n === 0) return out
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity]
  for (let i = 0; i < positions.length; i++) {
    lo[i % 3] = Math.min(lo[i % 3]!, positions[i]!)
    hi[i % 3] = Math.max(hi[i % 3]!, positions[i]!)
  }
  // Points of a scan lie on a surface: cells so large that one holds a few of them there.
  const extent = [0, 1, 2].map((a) => Math.max(1e-6, hi[a]! - lo[a]!)).sort((a, b) => b - a)
  const cell = Math.max(extent[0]! / 2000, Math.sqrt((2 * extent[0]! * extent[1]! * Math.max(3, k / 3)) / n))
  const size = [0, 1, 2].map((a) => Math.floor((hi[a]! - lo[a]!) / cell) + 1)
  let capacity = 1024
  while (capacity < n) capacity *= 2
  const slot = (x: number, y: number, z: number): number => {
    const h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77) ^ Math.imul(z, 0xc2b2ae3d)
    return (h ^ (h >>> 15)) & (capacity - 1)
  }
  const cellOf = new Int32Array(n * 3)
  const starts = new Uint32Array(capacity + 1)
  for (let i = 0; i < n; i++) {
    for (let a = 0; a < 3; a++) cellOf[i * 3 + a] = Math.floor((positions[i * 3 + a]! - lo[a]!) / cell)
    starts[slot(cellOf[i * 3]!, cellOf[i * 3 + 1]!, cellOf[i * 3 + 2]!) + 1]!++
  }
  for (let s = 0; s < capacity; s++) starts[s + 1]! += starts[s]!
  const fill = starts.slice(0, capacity),
    sorted = new Uint32Array(n)
  for (let i = 0; i < n; i++) sorted[fill[slot(cellOf[i * 3]!, cellOf[i * 3 + 1]!, cellOf[i * 3 + 2]!)]!++] = i

  const distance = new Float64Array(k)
  const take = (i: number, j: number, x: number, y: number, z: number): void => {
    const d = (positions[j * 3]! - x) ** 2 + (positions[j * 3 + 1]! - y) ** 2 + (positions[j * 3 + 2]! - z) ** 2
    if (j === i || d >= distance[k - 1]!) return
    let p = k - 1
    for (; p > 0 && distance[p - 1]! > d; p--) {
      distance[p] = distance[p - 1]!
      out[i * k + p] = out[i * k + p - 1]!
    }
    distance[p] = d
    out[i * k + p] = j
  }
  for (let i = 0; i < n; i++) {
    const x = positions[i * 3]!,
      y = positions[i * 3 + 1]!,
      z = positions[i * 3 + 2]!
    distance.fill(Infinity)
    out.fill(i, i * k, i * k + k)
    // Rings of cells outward; whoever lies beyond ring r is farther than r cells.
    let ring = 0
    for (; ring <= FARTHEST_RING; ring++) {
      if (ring > 0 && distance[k - 1]! <= ((ring - 1) * cell) ** 2) break
      for (let dz = -ring; dz <= ring; dz++)
        for (let dy = -ring; dy <= ring; dy++) {
          const step = ring === 0 || Math.abs(dz) === ring || Math.abs(dy) === ring ? 1 : 2 * ring
          for (let dx = -ring; dx <= ring; dx += step) {
            const cx = cellOf[i * 3]! + dx,
              cy = cellOf[i * 3 + 1]! + dy,
              cz = cellOf[i * 3 + 2]! + dz
            if (cx < 0 || cy < 0 || cz < 0 || cx >= size[0]! || cy >= size[1]! || cz >= size[2]!) continue
            const s = slot(cx, cy, cz)
            for (let at = starts[s]!; at < starts[s + 1]!; at++) {
              const j = sorted[at]!
              if (cellOf[j * 3] === cx && cellOf[j * 3 + 1] === cy && cellOf[j * 3 + 2] === cz) take(i, j, x, y, z)
            }
          }
        }
    }
    if (ring <= FARTHEST_RING || distance[k - 1]! <= ((ring - 1) * cell) ** 2) continue
    distance.fill(Infinity)
    for (let j = 0; j < n; j++) take(i, j, x, y, z)
  }
  return out
}
