import { describe, expect, it } from 'vitest'
import type { Mesh } from '../../mesh/mesh'
import { simplify } from '../../mesh/simplify'
import { identity3 } from '../../math/vectors'
import { transformed } from '../../mesh/transform'
import { boxBody, sphereBody } from '../../testBodies'
import { transferLabels } from './regions'
import { restingPlaces } from './resting'

/** A limb of 20 × 20 × 100 mm, and the same folded over at its half until its halves lie beside each other. */
const STRAIGHT = ((): Mesh => {
  const ball = sphereBody(1, 5)
  return {
    ...ball,
    positions: ball.positions.map((v, i) => v * [10, 10, 50][i % 3]!),
  }
})()
const folded = (m: Mesh): Mesh => ({
  ...m,
  positions: Float32Array.from({ length: m.positions.length }, (_, i) => {
    const v = 3 * Math.floor(i / 3)
    const [x, y, z] = [m.positions[v]!, m.positions[v + 1]!, m.positions[v + 2]!]
    if (z <= 0) return [x, y, z][i % 3]!
    // Rolled up about an axis 16 mm beside it: half a turn over the first 40 mm, straight down from there.
    const turn = Math.min(Math.PI, (z / 40) * Math.PI),
      r = 16 - x,
      rest = Math.max(0, z - 40)
    return [16 - r * Math.cos(turn), y, r * Math.sin(turn) - rest][i % 3]!
  }),
})
/** Bands of 25 mm along it. */
const bands = (m: Mesh): Uint8Array =>
  Uint8Array.from({ length: m.positions.length / 3 }, (_, v) => Math.floor((m.positions[3 * v + 2]! + 50) / 25))

describe('places at rest', () => {
  it('bring labels through a pose and a change of size, where the nearest skin is another', async () => {
    const posed = folded(STRAIGHT),
      large = transformed(posed, identity3.map((v) => 1.7 * v) as unknown as typeof identity3, [3, 4, 5])
    const copy = await simplify(large, 4000, 0.5)
    const rest = restingPlaces(copy, [large, posed, STRAIGHT])
    const truth = bands({ ...copy, positions: rest })
    const anchored = transferLabels(STRAIGHT, bands(STRAIGHT), { ...copy, positions: rest }),
      nearest = transferLabels(STRAIGHT, bands(STRAIGHT), copy)
    const wrong = (labels: Uint8Array): number => labels.filter((l, i) => l !== truth[i]).length / labels.length
    expect(anchored.by).toBe('place')
    expect(anchored.fresh).toBe(0)
    expect(wrong(anchored.labels)).toBeLessThan(0.05)
    expect(wrong(nearest.labels)).toBeGreaterThan(0.2)
    // They lie on the sculpt: within what the copy was made coarser by, at its size.
    const off = Math.max(
      ...Array.from({ length: rest.length / 3 }, (_, v) =>
        Math.abs(Math.hypot(rest[3 * v]! / 10, rest[3 * v + 1]! / 10, rest[3 * v + 2]! / 50) - 1),
      ),
    )
    expect(off).toBeLessThan(0.02)
  })
  it('stay where they are through a step that makes other faces, and are exact where none was taken', () => {
    const a = boxBody(10, 10, 10),
      b = sphereBody(9, 2)
    expect(restingPlaces(a, [a, b])).toEqual(a.positions)
    expect(restingPlaces(a, [a])).toEqual(a.positions)
    const flat: Mesh = { positions: new Float32Array(9), triangles: Uint32Array.of(0, 1, 2) }
    expect([...restingPlaces(flat, [flat, { ...flat, positions: new Float32Array(9).fill(2) }])]).toEqual(
      Array(9).fill(2),
    )
  })
})
