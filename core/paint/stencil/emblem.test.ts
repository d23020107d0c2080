import { describe, expect, it } from 'vitest'
import { svgOutlines } from '../../formats/svgPath'
import { contourLength } from '../../mesh/contours'
import { sheetBody, sphereBody } from '../../testBodies'
import { circleOutline, placeEmblem, sized } from './emblem'
import { say } from '../../words/say'

const R = 12
const tube = sheetBody(160, 80, (u, v) => [R * Math.cos(2.4 * u - 1.2), R * Math.sin(2.4 * u - 1.2), 30 * v])
/** A face of the tube that has the place at its middle, about. */
const faceNear = (x: number, y: number, z: number): number => {
  let best = 0,
    least = Infinity
  for (let f = 0; f < tube.triangles.length / 3; f++) {
    const m = [0, 1, 2].map((k) =>
      [0, 1, 2].reduce((s, j) => s + tube.positions[3 * tube.triangles[3 * f + j]! + k]! / 3, 0),
    )
    const d = Math.hypot(m[0]! - x, m[1]! - y, m[2]! - z)
    if (d < least) {
      least = d
      best = f
    }
  }
  return best
}

describe('a mark on the skin', () => {
  it('keeps its size round a cylinder, and stands upright', () => {
    const at = [R, 0, 15] as const
    const got = placeEmblem(tube, at, faceNear(...at), [circleOutline(5)], 0)
    if (!got.ok) throw new Error(say(got.problem.message))
    const { lines, inside, stretch } = got.value
    expect(stretch).toBeLessThan(0.005)
    expect(Math.abs(contourLength(lines[0]!) / (10 * Math.PI) - 1)).toBeLessThan(0.006)
    // On the unrolled sheet every place of it lies 5 mm from the middle.
    const p = lines[0]!.points
    for (let i = 0; i < p.length; i += 3) {
      const round = R * Math.atan2(p[i + 1]!, p[i]!)
      expect(Math.abs(Math.hypot(round, p[i + 2]! - 15) - 5)).toBeLessThan(0.06)
    }
    for (let v = 0; v < inside.length; v++) {
      const round = R * Math.atan2(tube.positions[3 * v + 1]!, tube.positions[3 * v]!)
      const d = Math.hypot(round, tube.positions[3 * v + 2]! - 15)
      if (Math.abs(d - 5) > 0.1) expect(inside[v]).toBe(d < 5 ? 1 : 0)
    }
    // A tall bar stands along the height; turned by a quarter it lies round.
    const bar = [Float64Array.from([-0.5, -4, 0.5, -4, 0.5, 4, -0.5, 4])]
    const tall = (turn: number): number => {
      const g = placeEmblem(tube, at, faceNear(...at), bar, turn)
      if (!g.ok) throw new Error(say(g.problem.message))
      const z = [...g.value.lines[0]!.points].filter((_, i) => i % 3 === 2)
      return Math.max(...z) - Math.min(...z)
    }
    expect(tall(0)).toBeCloseTo(8, 1)
    expect(tall(90)).toBeLessThan(1.2)
  })
  it('is refused in words where the skin bulges too much or ends', () => {
    const ball = sphereBody(6, 4)
    const big = placeEmblem(ball, [0, 0, 6], 0, [circleOutline(7)], 0)
    expect(big.ok).toBe(false)
    const at = [R, 0, 28] as const
    const off = placeEmblem(tube, at, faceNear(...at), [circleOutline(5)], 0)
    expect(!off.ok && say(off.problem.message)).toContain('extends past the surface')
  })
  it('is read from the paths of a drawing, curves and all', () => {
    const got = svgOutlines(
      '<svg viewBox="0 0 20 20"><path d="M10 0C15.523 0 20 4.477 20 10S15.523 20 10 20 0 15.523 0 10 4.477 0 10 0Z"/><path class="x" d="m8 8 h4v4h-4z"/></svg>',
    )
    if (!got.ok) throw new Error(say(got.problem.message))
    expect(got.value).toHaveLength(2)
    const [round, square] = sized(got.value, 10)
    for (let i = 0; i < round!.length; i += 2)
      expect(Math.abs(Math.hypot(round![i]!, round![i + 1]!) - 5)).toBeLessThan(0.01)
    expect([...square!].map((v) => Math.abs(v))).toEqual(Array.from({ length: square!.length }, () => 1))
    for (const [bad, says] of [
      ['<html/>', 'no SVG'],
      ['<svg><circle r="3"/></svg>', 'no closed path'],
      ['<svg><g transform="scale(2)"><path d="M0 0L1 0L1 1Z"/></g></svg>', 'transform'],
      ['<svg><path d="M0 0A1 1 0 0 0 2 2Z"/></svg>', 'not read'],
      ['<svg><path d="M0 0L1 Z"/></svg>', 'broken off'],
    ] as const) {
      const r = svgOutlines(bad)
      expect(!r.ok && say(r.problem.message)).toContain(says)
    }
  })
})
