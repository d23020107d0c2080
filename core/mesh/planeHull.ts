type Flat = readonly [number, number]

/**
 * Convex hull of places in a plane, counter-clockwise, without places on its sides (monotone chain, Andrew 1979).
 *
 * @param slack twice the area (mm²) below which a corner counts as straight
 */
export function planeHull(points: readonly Flat[], slack = 1e-9): [number, number][] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1])
  const turn = (o: Flat, a: Flat, b: Flat): number => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0])
  const half = (list: readonly Flat[]): [number, number][] => {
    const chain: [number, number][] = []
    for (const p of list) {
      while (chain.length > 1 && turn(chain.at(-2)!, chain.at(-1)!, p) <= slack) chain.pop()
      chain.push([...p])
    }
    return chain.slice(0, -1)
  }
  return [...half(sorted), ...half(sorted.reverse())]
}
