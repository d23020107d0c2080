import type { Mesh } from '../mesh/mesh'
import { weldIdentical } from '../mesh/weld'

/** A closed outline in a plane, counter-clockwise seen from above, 2 per corner, mm. */
export type Outline = Float64Array

/**
 * Closed solid between outlines of equal corner count at rising heights, capped by fans from their middles: for
 * outlines that are star-shaped about the middle, as those of bases and keys are. The solid is closed and oriented.
 *
 * @param place maps (x, y, height) to the world
 */
export function loft(
  rings: readonly { outline: Outline; height: number }[],
  place: (x: number, y: number, z: number) => readonly [number, number, number] = (x, y, z) => [x, y, z],
): Mesh {
  const n = rings[0]!.outline.length / 2
  const positions: number[] = [],
    triangles: number[] = []
  for (const { outline, height } of rings)
    for (let i = 0; i < n; i++) positions.push(...place(outline[i * 2]!, outline[i * 2 + 1]!, height))
  for (let r = 0; r + 1 < rings.length; r++)
    for (let i = 0; i < n; i++) {
      const a = r * n + i,
        b = r * n + ((i + 1) % n)
      triangles.push(a, b, b + n, a, b + n, a + n)
    }
  const cap = (r: number, up: boolean): void => {
    const { outline, height } = rings[r]!
    let x = 0,
      y = 0
    for (let i = 0; i < n; i++) {
      x += outline[i * 2]! / n
      y += outline[i * 2 + 1]! / n
    }
    const middle = positions.length / 3
    positions.push(...place(x, y, height))
    for (let i = 0; i < n; i++) {
      const a = r * n + i,
        b = r * n + ((i + 1) % n)
      triangles.push(middle, ...(up ? [a, b] : [b, a]))
    }
  }
  cap(0, false)
  cap(rings.length - 1, true)
  // Rings that shrink to a point would leave faces without area.
  const mesh = weldIdentical({ positions: new Float32Array(positions), triangles: new Uint32Array(triangles) })
  const t = mesh.triangles
  const kept: number[] = []
  for (let i = 0; i < t.length; i += 3)
    if (t[i] !== t[i + 1] && t[i + 1] !== t[i + 2] && t[i + 2] !== t[i]) kept.push(t[i]!, t[i + 1]!, t[i + 2]!)
  return { positions: mesh.positions, triangles: new Uint32Array(kept) }
}

/** Ellipse with half axes a and b. */
export function ellipse(a: number, b: number, corners: number): Outline {
  const out = new Float64Array(corners * 2)
  for (let i = 0; i < corners; i++) {
    const t = (2 * Math.PI * i) / corners
    out[i * 2] = a * Math.cos(t)
    out[i * 2 + 1] = b * Math.sin(t)
  }
  return out
}

/** Rectangle of half sides a and b with round corners; `corners` is a multiple of four. */
export function roundedRectangle(a: number, b: number, radius: number, corners: number): Outline {
  const r = Math.max(0, Math.min(radius, a, b))
  const q = corners / 4
  const out = new Float64Array(corners * 2)
  for (let i = 0; i < corners; i++) {
    const side = Math.floor(i / q)
    const t = ((side + (i % q) / (q - 1)) * Math.PI) / 2
    const cx = (side === 0 || side === 3 ? 1 : -1) * (a - r),
      cy = (side < 2 ? 1 : -1) * (b - r)
    out[i * 2] = cx + r * Math.cos(t)
    out[i * 2 + 1] = cy + r * Math.sin(t)
  }
  return out
}

/** Circle of radius r flattened on one side, so that it goes in one way round only. */
export function dShape(r: number, corners: number): Outline {
  const flat = -0.6 * r
  const out = ellipse(r, r, corners)
  for (let i = 1; i < out.length; i += 2) if (out[i]! < flat) out[i] = flat
  return out
}
