import type { Placed } from './types'

type Point = readonly [number, number, number]
/**
 * The part of a plate at a place, by the borders of their shadows, and where that is on the part itself.
 *
 * @param place mm from the plate's middle
 * @param shapes borders about each part's own origin, mm; within a border by the even-odd rule
 */
export function partAt(
  parts: readonly Placed[],
  shapes: readonly { id: string; loops: readonly (readonly [number, number])[][] }[],
  place: Point,
): { id: string; place: [number, number, number] } | null {
  for (const p of parts) {
    const c = Math.cos(p.angle),
      s = Math.sin(p.angle),
      dx = place[0] - p.x,
      dy = place[1] - p.y
    const own: [number, number, number] = [c * dx + s * dy, c * dy - s * dx, place[2]]
    if (shapes.find((x) => x.id === p.id)?.loops.some((l) => within(l, own))) return { id: p.id, place: own }
  }
  return null
}

function within(loop: readonly (readonly [number, number])[], [x, y]: Point): boolean {
  let inside = false
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const [ax, ay] = loop[i]!,
      [bx, by] = loop[j]!
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside
  }
  return inside
}
