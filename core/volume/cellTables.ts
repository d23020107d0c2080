/**
 * How the surface runs through one grid cell, for each of the 256 sign patterns of its corners, derived here
 * rather than copied: every crossed edge is joined to two others across the two faces it lies on, which closes
 * into cycles; each cycle is one sheet of surface and gets one vertex (dual marching cubes, Nielson 2004).
 *
 * Corner c stands at (c & 1, c >> 1 & 1, c >> 2). Edge 4·axis + i runs along `axis`; bit 0 of i is the offset
 * along the next axis (cyclic), bit 1 along the one after. A set bit in a pattern means solid.
 */
export interface CellSheets {
  count: number
  /** sheet number per edge, −1 where the edge is not crossed */
  sheet: Int8Array
  /** bit per face: an ambiguous face whose two strands belong to the same sheet */
  pinched: number
}

/** Corner pair of each edge. */
export const EDGE_CORNERS: readonly (readonly [number, number])[] = Array.from({ length: 12 }, (_, e) => {
  const axis = e >> 2,
    u = (axis + 1) % 3,
    v = (axis + 2) % 3
  const a = ((e & 1) << u) | (((e >> 1) & 1) << v)
  return [a, a | (1 << axis)] as const
})

/** Face 2·axis + side: its corners in cyclic order. */
const FACE_CORNERS = Array.from({ length: 6 }, (_, f) => {
  const axis = f >> 1,
    u = (axis + 1) % 3,
    v = (axis + 2) % 3,
    s = (f & 1) << axis
  return [s, s | (1 << u), s | (1 << u) | (1 << v), s | (1 << v)]
})
const edgeBetween = (a: number, b: number): number =>
  EDGE_CORNERS.findIndex(([p, q]) => (p === a && q === b) || (p === b && q === a))
const FACE_EDGES = FACE_CORNERS.map((c) => c.map((a, i) => edgeBetween(a, c[(i + 1) % 4]!)))

/**
 * @param pattern corner signs, bit set = solid
 * @param flipped bit per face: ambiguous faces on which the solid corners join instead of staying apart
 */
export function cellSheets(pattern: number, flipped: number): CellSheets {
  const links: number[][] = Array.from({ length: 12 }, () => [])
  const strands: [number, number][][] = []
  for (let f = 0; f < 6; f++) {
    const corners = FACE_CORNERS[f]!,
      edges = FACE_EDGES[f]!
    const solid = corners.map((c) => (pattern >> c) & 1)
    const crossed = edges.filter((_, i) => solid[i] !== solid[(i + 1) % 4])
    strands[f] = []
    if (crossed.length === 2) strands[f]!.push([crossed[0]!, crossed[1]!])
    if (crossed.length === 4) {
      // Edges i − 1 and i meet at corner i; each strand cuts off one of the corners that stay apart.
      const apart = (flipped >> f) & 1 ? 0 : 1
      for (let i = 0; i < 4; i++) if (solid[i] === apart) strands[f]!.push([edges[(i + 3) % 4]!, edges[i]!])
    }
    for (const [a, b] of strands[f]!) {
      links[a]!.push(b)
      links[b]!.push(a)
    }
  }
  const sheet = new Int8Array(12).fill(-1)
  let count = 0
  for (let e = 0; e < 12; e++) {
    if (links[e]!.length === 0 || sheet[e] !== -1) continue
    const todo = [e]
    while (todo.length > 0) {
      const x = todo.pop()!
      if (sheet[x] !== -1) continue
      sheet[x] = count
      todo.push(...links[x]!)
    }
    count++
  }
  let pinched = 0
  for (let f = 0; f < 6; f++) {
    const s = strands[f]!
    if (s.length === 2 && sheet[s[0]![0]] === sheet[s[1]![0]]) pinched |= 1 << f
  }
  return { count, sheet, pinched }
}

/** All patterns with no face flipped. */
export const SHEETS: readonly CellSheets[] = Array.from({ length: 256 }, (_, p) => cellSheets(p, 0))
