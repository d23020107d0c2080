import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { concatenate, reversed } from '../../mesh/mesh'
import { refine } from '../../mesh/refine'
import { boxBody, sphereBody } from '../../testBodies'
import { subtract } from '../../shape/solid'
import { tube } from '../../shape/cylinder'
import { cupEstimate } from '../resin/cupEstimate'
import { scarImportance, WEIGHT } from './importance'
import { COSTS, scoreOrientations } from './orientation'
import { whyThisWay } from './orientationWords'
import { paretoFront } from '../../math/pareto'
import { stepsMap } from './stepsMap'
import { say } from '../../words/say'

const volume: [number, number, number] = [200, 200, 200]

describe('the front of the choices', () => {
  it('holds every choice that none beats, and no other', () => {
    const list = fc.array(fc.tuple(fc.nat(9), fc.nat(9), fc.nat(9)), { maxLength: 40 })
    fc.assert(
      fc.property(list, (costs) => {
        const front = new Set(paretoFront(costs))
        const beats = (a: number[], b: number[]): boolean => a.every((c, k) => c <= b[k]!) && a.join() !== b.join()
        for (const [i, c] of costs.entries()) {
          const beaten = costs.some((o) => beats(o, c))
          if (front.has(i)) expect(beaten).toBe(false)
          else expect(beaten || [...front].some((j) => costs[j]!.join() === c.join())).toBe(true)
        }
      }),
      { seed: 5 },
    )
  })
})

describe('what a scar costs', () => {
  it('is most on focal areas, nothing under another part, little where no eye reaches', () => {
    const shell = concatenate([
      refine(boxBody(30, 30, 30), 4, 50_000),
      reversed(refine(boxBody(24, 24, 24, 3, 3, 3), 4, 50_000)),
    ])
    const lid = boxBody(30, 30, 2, 0, 0, 30.1)
    const { weights, focal } = scarImportance(shell, [{ point: [15, 0, 15], radius: 12 }], [lid])
    const { positions: p, triangles: t } = shell
    const faceAt = (x: number, y: number, z: number): number => {
      let best = 0,
        least = Infinity
      for (let f = 0; f < weights.length; f++) {
        const d = Math.hypot(
          ...[x, y, z].map(
            (c, k) => c - (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3,
          ),
        )
        if (d < least) {
          least = d
          best = f
        }
      }
      return best
    }
    expect(weights[faceAt(15, 0, 15)]).toBe(WEIGHT.focal)
    expect(focal[faceAt(15, 0, 15)]).toBe(1)
    expect(weights[faceAt(15, 15, 30)]).toBe(WEIGHT.covered)
    expect(weights[faceAt(30, 15, 15)]).toBe(1)
    expect(weights[faceAt(15, 3, 15)]).toBeCloseTo(WEIGHT.hidden, 5)
    expect(focal[faceAt(15, 3, 15)]).toBe(0)
  })
})

describe('the search for an orientation', () => {
  /** A ball on a stalk on a slab: something to hang, something flat. */
  const body = concatenate([
    boxBody(40, 30, 4, -20, -15, 0),
    tube(
      [
        [0, 0, 4],
        [0, 0, 30],
      ],
      [3, 3],
      24,
    ),
    sphereBody(11, 4, [0, 0, 38]),
  ])
  it('keeps tips off what was brushed as focal, at least halving it against upright', () => {
    const dabs = [{ point: [0, -11, 34] as const, radius: 14 }]
    const scores = scoreOrientations(body, { limit: 40, volume, importance: scarImportance(body, dabs) })
    const upright = scores.find((s) => s.up[2] > 1 - 1e-9)!
    expect(upright.focal).toBeGreaterThan(20)
    expect(scores[0]!.focal).toBeLessThan(0.5 * upright.focal)
    expect(scores[0]!.front).toBe(true)
    expect(say(whyThisWay(scores[0]!, upright, 'upright'))).toContain('focal areas')
    for (const s of scores.filter((x) => x.front))
      expect(scores.some((o) => o.fits && COSTS.every((c) => c(o) < c(s) - 1e-9))).toBe(false)
  })
  it('stays within what is to look up', () => {
    const scores = scoreOrientations(body, { limit: 40, volume, keep: { direction: [0, -1, 0], within: 30 } })
    expect(scores.length).toBeGreaterThan(40)
    for (const s of scores) expect(-s.up[1]).toBeGreaterThan(Math.cos((30.01 * Math.PI) / 180))
  })
  it('sees the cup of a bell that hangs mouth up, and none when its mouth looks at the plate', async () => {
    const bell = await subtract(
      tube(
        [
          [0, 0, 0],
          [0, 0, 30],
        ],
        [12, 12],
        48,
      ),
      [
        tube(
          [
            [0, 0, -1],
            [0, 0, 26],
          ],
          [9, 9],
          48,
        ),
      ],
    )
    if (!bell.ok) throw new Error(say(bell.problem.message))
    const cup = cupEstimate(bell.value)
    // Printed from its closed end, every layer of the mouth closes it again: π·9² mm².
    expect(cup([0, 0, -1]) / (Math.PI * 81)).toBeCloseTo(1, 0.7)
    expect(cup([0, 0, 1])).toBe(0)
    const scores = scoreOrientations(bell.value, { limit: 40, volume, cups: cup })
    expect(scores[0]!.cup).toBeLessThan(60)
  })
})

it('maps steps: none on walls and flats, the layer’s own height just off flat, its half at 60°', () => {
  const ball = sphereBody(20, 6)
  const map = stepsMap(ball, [0, 0, 1], 0.05)
  for (let v = 0; v < map.length; v += 17) {
    const c = Math.abs(ball.positions[v * 3 + 2]!) / 20
    if (c < 0.99) expect(Math.abs(map[v]! - 0.05 * c)).toBeLessThan(0.0015)
  }
  expect(Math.max(...stepsMap(boxBody(10, 10, 10), [0, 0, 1], 0.05))).toBe(0)
})
