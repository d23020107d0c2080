/** Whether a closed outline crosses itself: its sides are met by a sweep over x, so that only near ones are compared. */
export function crosses(outline: ArrayLike<number>): boolean {
  const n = outline.length / 2
  const x = (i: number): number => outline[2 * (i % n)]!,
    y = (i: number): number => outline[2 * (i % n) + 1]!
  const order = Array.from({ length: n }, (_, i) => i).sort((a, b) => left(a) - left(b))
  function left(i: number): number {
    return Math.min(x(i), x(i + 1))
  }
  const right = (i: number): number => Math.max(x(i), x(i + 1))
  let active: number[] = []
  for (const i of order) {
    active = active.filter((j) => right(j) >= left(i))
    for (const j of active) {
      const apart = Math.abs(i - j)
      // Sides that follow each other share a point.
      if (apart <= 1 || apart === n - 1) continue
      if (meet(i, j)) return true
    }
    active.push(i)
  }
  return false

  function meet(i: number, j: number): boolean {
    const turn = (a: number, b: number, c: number): number =>
      (x(b) - x(a)) * (y(c) - y(a)) - (y(b) - y(a)) * (x(c) - x(a))
    const a = turn(i, i + 1, j),
      b = turn(i, i + 1, j + 1),
      c = turn(j, j + 1, i),
      d = turn(j, j + 1, i + 1)
    return a * b < 0 && c * d < 0
  }
}
