/**
 * Plates that bodies of some footprints fill at least, set side by side in rows, tallest row first (next-fit decreasing
 * height): an estimate for comparing sizes, before true outlines are nested.
 *
 * @param footprints mm, width and depth with their margin
 * @returns null when one of them fits no plate
 */
export function plateCount(
  footprints: readonly (readonly [number, number])[],
  plate: readonly [number, number],
): number | null {
  const [w, d] = [Math.max(...plate), Math.min(...plate)]
  const lying = footprints.map(([a, b]) => (a >= b ? [a, b] : [b, a]) as [number, number])
  if (lying.some(([a, b]) => a > w || b > d)) return null
  lying.sort((p, q) => q[1] - p[1])
  let plates = 0,
    x = Infinity,
    row = Infinity,
    y = Infinity
  for (const [a, b] of lying) {
    if (x + a > w) {
      y += row
      x = 0
      row = b
    }
    if (y + b > d) {
      plates++
      x = 0
      y = 0
      row = b
    }
    x += a
  }
  return plates
}
