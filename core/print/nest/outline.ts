import type { BitGrid } from './bitGrid'

/**
 * Borders of what is set in a picture, along the edges of its cells: closed loops of corners, counter-clockwise round what is
 * set and clockwise round its holes, without corners on a straight way.
 */
export function outlines(grid: BitGrid): [number, number][][] {
  const { width, height } = grid
  const set = (x: number, y: number): boolean => x >= 0 && y >= 0 && x < width && y < height && grid.has(x, y)
  // Edges leave their corner; a corner has two of them where two cells touch by their tips.
  const leaving = new Map<number, number[]>()
  const key = (x: number, y: number): number => y * (width + 1) + x
  const edge = (ax: number, ay: number, bx: number, by: number): void => {
    const from = key(ax, ay)
    const list = leaving.get(from)
    if (list) list.push(key(bx, by))
    else leaving.set(from, [key(bx, by)])
  }
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!set(x, y)) continue
      if (!set(x, y - 1)) edge(x, y, x + 1, y)
      if (!set(x + 1, y)) edge(x + 1, y, x + 1, y + 1)
      if (!set(x, y + 1)) edge(x + 1, y + 1, x, y + 1)
      if (!set(x - 1, y)) edge(x, y + 1, x, y)
    }
  const at = (k: number): [number, number] => [k % (width + 1), Math.floor(k / (width + 1))]
  const loops: [number, number][][] = []
  for (const [start, list] of leaving) {
    while (list.length > 0) {
      const loop: [number, number][] = []
      let now = start,
        came: [number, number] | null = null
      do {
        const ways: number[] = leaving.get(now)!
        const [x, y] = at(now)
        // Where tips touch, the sharper turn to the left keeps the cells apart.
        const left = (k: number): number => {
          const [bx, by] = at(k)
          return came ? came[0] * (by - y) - came[1] * (bx - x) : 0
        }
        const best = ways.length > 1 ? ways.reduce((a, b) => (left(b) > left(a) ? b : a)) : ways[0]!
        ways.splice(ways.indexOf(best), 1)
        const [bx, by] = at(best)
        const way: [number, number] = [bx - x, by - y]
        if (!came || came[0] !== way[0] || came[1] !== way[1]) loop.push([x, y])
        came = way
        now = best
      } while (now !== start)
      // The first corner may lie on a straight way.
      const [a, b, z] = [loop[0]!, loop[1]!, loop.at(-1)!]
      if ((a[0] === b[0] && a[0] === z[0]) || (a[1] === b[1] && a[1] === z[1])) loop.shift()
      loops.push(loop)
    }
  }
  return loops
}

type Loop = readonly (readonly [number, number])[]
/** Whether two shapes on the plate meet: an edge of one crosses one of the other, or one lies in the other. */
export function shapesMeet(a: readonly Loop[], b: readonly Loop[]): boolean {
  for (const p of a)
    for (const q of b) {
      if (apart(boxOf(p), boxOf(q))) continue
      for (let i = 0; i < p.length; i++)
        for (let j = 0; j < q.length; j++)
          if (crosses(p[i]!, p[(i + 1) % p.length]!, q[j]!, q[(j + 1) % q.length]!)) return true
    }
  return (a.length > 0 && within(a[0]![0]!, b)) || (b.length > 0 && within(b[0]![0]!, a))
}

type Box = [number, number, number, number]
function boxOf(loop: Loop): Box {
  const box: Box = [Infinity, Infinity, -Infinity, -Infinity]
  for (const [x, y] of loop) {
    if (x < box[0]) box[0] = x
    if (y < box[1]) box[1] = y
    if (x > box[2]) box[2] = x
    if (y > box[3]) box[3] = y
  }
  return box
}
const apart = (a: Box, b: Box): boolean => a[0] > b[2] || b[0] > a[2] || a[1] > b[3] || b[1] > a[3]
type P = readonly [number, number]
const side = (a: P, b: P, p: P): number => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])
const crosses = (a: P, b: P, c: P, d: P): boolean =>
  side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0

/** Even-odd over all loops, so that a hole is outside. */
function within([x, y]: P, loops: readonly Loop[]): boolean {
  let inside = false
  for (const loop of loops)
    for (let i = 0; i < loop.length; i++) {
      const a = loop[i]!,
        b = loop[(i + 1) % loop.length]!
      if (a[1] > y !== b[1] > y && x < a[0] + ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1])) inside = !inside
    }
  return inside
}
