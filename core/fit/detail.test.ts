import { describe, expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import { boxBody, cylinderBody, sphereBody } from '../testBodies'
import { thicken } from '../shape/thicken'
import { acceptedAsSolid } from '../shape/solid'
import { closingBy, drawnClearance } from './clearance'
import { detailMap, detailShares, reliefOf } from './detail'
import { statureAlong } from './stature'
import { thicknessMap } from './thicknessMap'
import { say } from '../words/say'

/** A plate 60 × 40 mm whose top is waved along x: crest to hollow 2a, n waves. */
function waved(a: number, waves: number, cells = 240): Mesh {
  const positions: number[] = [],
    triangles: number[] = []
  const rows = 160
  for (let j = 0; j <= rows; j++)
    for (let i = 0; i <= cells; i++)
      positions.push((60 * i) / cells, (40 * j) / rows, a * Math.cos((2 * Math.PI * waves * i) / cells))
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < cells; i++) {
      const v = j * (cells + 1) + i
      triangles.push(v, v + 1, v + cells + 2, v, v + cells + 2, v + cells + 1)
    }
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) }
}
const middle = (mesh: Mesh, values: Float32Array): number[] =>
  [...values].filter((_, v) => {
    const [x, y] = [mesh.positions[v * 3]!, mesh.positions[v * 3 + 1]!]
    return x > 12 && x < 48 && y > 12 && y < 28
  })

describe('detail', () => {
  it('is the height of fine waves, and nothing of a long swell or a ball', () => {
    const fine = waved(0.1, 40)
    expect(Math.max(...middle(fine, reliefOf(fine, 1.2)))).toBeCloseTo(0.2, 1)
    const swell = waved(0.1, 2)
    expect(Math.max(...middle(swell, reliefOf(swell, 1.2)))).toBeLessThan(0.02)
    const ball = sphereBody(20, 5)
    expect(Math.max(...reliefOf(ball, 1.2))).toBeLessThan(0.02)
  })
  it('drowns as the sculpt is made smaller, and under paint', () => {
    const fine = waved(0.1, 40)
    const limits = { layerHeight: 0.05, pitch: 0.03, film: 0.04 }
    const [full, third] = detailShares(fine, [1, 1 / 3], limits)
    expect(full!.survives).toBeGreaterThan(0.7)
    // A third of 0.2 mm is less than a layer of 0.05 and 0.04 of film.
    expect(third!.survives).toBeLessThan(0.1)
    expect(detailShares(fine, [1], { ...limits, film: 0.3 })[0]!.survives).toBe(0)
    const map = middle(fine, detailMap(fine, fine, 1, limits))
    expect(Math.max(...map.filter((v) => v === v))).toBeCloseTo(0.2 / 0.09, 0)
  })
})

describe('thickness and thickening', () => {
  it('is a plate’s and a ball’s own, everywhere', () => {
    const ball = sphereBody(10, 4)
    for (const t of thicknessMap(ball)) expect(Math.abs(t - 18)).toBeLessThan(2.2)
  })
  it('grows where the brush went by what was asked, and nowhere else', async () => {
    const rod = cylinderBody(2, 60, 48)
    const r = await thicken(rod, {
      dabs: [
        { point: [2, 0, 30], radius: 12 },
        { point: [-2, 0, 30], radius: 12 },
      ],
      by: 0.5,
      voxel: 0.15,
    })
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(await acceptedAsSolid(r.value.mesh)).toBe(true)
    expect(r.value.report.added).toBeGreaterThan(Math.PI * (2.5 ** 2 - 2 ** 2) * 8)
    const p = r.value.mesh.positions
    let waist = 0
    for (let i = 0; i < p.length; i += 3) {
      const radius = Math.hypot(p[i]!, p[i + 1]!)
      if (Math.abs(p[i + 2]! - 30) < 2) waist = Math.max(waist, radius)
      if (Math.abs(p[i + 2]! - 30) > 12.6) expect(radius).toBeLessThan(2.001)
      expect(radius).toBeLessThan(2.56)
    }
    expect(waist).toBeCloseTo(2.5, 1)
    expect(measure(r.value.mesh).box.max[2]).toBeCloseTo(60, 4)
  })
  it('answers a brush that met nothing', async () => {
    const r = await thicken(boxBody(5, 5, 5), { dabs: [{ point: [40, 0, 0], radius: 2 }], by: 0.3, voxel: 0.2 })
    expect(!r.ok && r.problem.code).toBe('brush-misses')
  })
})

describe('clearance and stature', () => {
  it('draws wider what the machine closes, never into one another', () => {
    const print = { peg: { drawn: 10, measured: 10.06 }, hole: { drawn: 10, measured: 9.92 } }
    expect(closingBy(print)).toBeCloseTo(0.07, 9)
    expect(drawnClearance(0.1, print)).toBeCloseTo(0.17, 9)
    expect(drawnClearance(0.1, null)).toBe(0.1)
    expect(drawnClearance(0.05, { peg: { drawn: 10, measured: 9.8 }, hole: { drawn: 10, measured: 10.2 } })).toBe(0)
  })
  it('is the same standing and crouching', () => {
    const points = [0, 50, 95, 150, 175].map((z) => [0, 0, z] as const)
    const crouching = [
      [0, 0, 0],
      [0, -40, 30],
      [0, 5, 30],
      [0, -28, 74],
      [0, -28, 99],
    ] as const
    expect(statureAlong(points)).toBe(175)
    expect(statureAlong(crouching)).toBeCloseTo(175, 9)
    expect(statureAlong(points, [1, 1, 0.5])).toBe(87.5)
  })
})
