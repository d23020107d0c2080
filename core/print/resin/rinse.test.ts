import { describe, expect, it } from 'vitest'
import { concatenate, reversed, type Mesh } from '../../mesh/mesh'
import { boxBody } from '../../testBodies'
import { tube } from '../../shape/cylinder'
import { subtract, unite } from '../../shape/solid'
import { rinse } from './rinse'
import { say } from '../../words/say'

const must = (r: Awaited<ReturnType<typeof subtract>>): Mesh => {
  if (!r.ok) throw new Error(say(r.problem.message))
  return r.value
}
const bore = (a: [number, number, number], b: [number, number, number], r = 2): Mesh => tube([a, b], [r, r], 24)

describe('rinsing a cavity', () => {
  it('sweeps a straight pipe from hole to hole, and leaves a side room beside it still', async () => {
    // A channel along x with a blind room that hangs on it by a narrow neck.
    const block = boxBody(60, 30, 16)
    const pipe = boxBody(50, 8, 8, 5, 4, 4),
      room = boxBody(12, 10, 8, 24, 16, 4),
      neck = boxBody(3, 6, 3, 28, 11, 6.5)
    const cavity = must(await unite([pipe, room, neck]))
    const shell = concatenate([block, reversed(cavity)])
    const drilled = must(await subtract(shell, [bore([-2, 8, 8], [8, 8, 8]), bore([52, 8, 8], [62, 8, 8])]))
    const r = rinse(drilled)
    expect(r.openings).toHaveLength(2)
    expect(r.enter).toBeGreaterThanOrEqual(0)
    expect(r.deadEnds.length).toBeGreaterThan(0)
    const dead = r.deadEnds[0]!
    expect(Math.hypot(dead.at[0] - 30, dead.at[1] - 21, dead.at[2] - 8)).toBeLessThan(4)
    expect(dead.volume / (12 * 10 * 8)).toBeGreaterThan(0.6)
    expect(dead.volume / (12 * 10 * 8)).toBeLessThan(1.3)
    // Streams run the whole length.
    for (const s of r.streams) expect(Math.abs(s.at(-1)![0] - s[0]![0])).toBeGreaterThan(35)
    expect((r.swept + r.still) / (50 * 8 * 8 + 12 * 10 * 8)).toBeCloseTo(1, 0)
  })
  it('knows each hole for itself where two lie in one fold', async () => {
    // A box with a deep groove along it; two holes lead from the groove's floor into the cavity, one from below.
    const body = must(await subtract(boxBody(24, 24, 18), [boxBody(18, 3, 12, 3, 18, 8)]))
    const shell = concatenate([body, reversed(boxBody(18, 12, 12, 3, 3, 3))])
    const holes = [
      { point: [7, 18, 14], direction: [0, -1, 0], diameter: 3 },
      { point: [17, 18, 14], direction: [0, -1, 0], diameter: 3 },
      { point: [12, 9, 0], direction: [0, 0, 1], diameter: 3 },
    ] as const
    const drilled = must(
      await subtract(shell, [
        bore([7, 19, 14], [7, 13, 14], 1.5),
        bore([17, 19, 14], [17, 13, 14], 1.5),
        bore([12, 9, -1], [12, 9, 5], 1.5),
      ]),
    )
    const r = rinse(drilled, holes)
    expect(r.openings.map((o) => o.hole).sort()).toEqual([0, 1, 2])
    for (const o of r.openings)
      expect(Math.hypot(...holes[o.hole!]!.point.map((v, k) => v - o.at[k]!))).toBeLessThan(1.5)
    expect((r.swept + r.still) / (18 * 12 * 12)).toBeGreaterThan(0.9)
    // What leaves, leaves by a hole.
    for (const s of r.streams)
      expect(Math.min(...holes.map((h) => Math.hypot(...h.point.map((v, k) => v - s.at(-1)![k]!))))).toBeLessThan(2.5)
  })
  it('cannot flush what has one hole', async () => {
    const shell = concatenate([boxBody(30, 30, 30), reversed(boxBody(24, 24, 24, 3, 3, 3))])
    const one = rinse(must(await subtract(shell, [bore([-2, 15, 15], [6, 15, 15])])))
    expect(one).toMatchObject({ enter: -1, swept: 0, streams: [] })
    expect(one.openings).toHaveLength(1)
  })
})
