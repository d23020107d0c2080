import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Vector3 } from '../../math/vectors'
import { eyeSheet } from './eyeSheet'
import { ballThrough, degreesBetween, eyeballAt, GAZE, gazeAt, gazeTarget, lidOpening, planEyes } from './eyes'
import { say } from '../../words/say'

const part = fc.double({ min: -1, max: 1, noNaN: true })
const place = fc.tuple(part, part, part).map(([x, y, z]): Vector3 => [30 * x, 30 * y, 30 * z])
/** Places on the front of a ball, as they are read off a sculpt round where an eye is pressed. */
const onBall = (c: Vector3, r: number, noise = 0): Vector3[] =>
  Array.from({ length: 40 }, (_, i) => {
    const a = i * 2.399963,
      t = 0.15 + 0.9 * Math.sqrt(i / 40)
    const d = r + noise * Math.sin(i * 12.9898)
    return [c[0] + d * Math.sin(t) * Math.cos(a), c[1] - d * Math.cos(t), c[2] + d * Math.sin(t) * Math.sin(a)]
  })

describe('eyes', () => {
  it('finds the ball that the places lie on, and nearly so where they are a little off', () => {
    fc.assert(
      fc.property(place, fc.double({ min: 0.6, max: 12, noNaN: true }), (c, r) => {
        const exact = ballThrough(onBall(c, r))
        if (!exact.ok) throw new Error(say(exact.problem.message))
        expect(exact.value.radius).toBeCloseTo(r, 6)
        exact.value.centre.forEach((v, k) => expect(v).toBeCloseTo(c[k]!, 6))
        expect(exact.value.off).toBeLessThan(1e-6)
        const rough = ballThrough(onBall(c, r, 0.01 * r))
        if (!rough.ok) throw new Error(say(rough.problem.message))
        expect(Math.abs(rough.value.radius / r - 1)).toBeLessThan(0.08)
      }),
      { numRuns: 60 },
    )
    const flat = onBall([0, 0, 0], 3).map((p): Vector3 => [p[0], 0, p[2]])
    expect(ballThrough(flat)).toMatchObject({ ok: false, problem: { code: 'eye-flat' } })
    // Round an eye: taken; a hollow socket, a brow's ridge and a flat cheek: refused, each with what to do.
    const front: Vector3 = [0, -3, 0],
      out: Vector3 = [0, -1, 0]
    const code = (places: Vector3[], at = front, normal = out): string => {
      const r = eyeballAt(places, at, normal, 2.5)
      return r.ok ? 'ball' : r.problem.code
    }
    expect(code(onBall([0, 0, 0], 3))).toBe('ball')
    expect(code(onBall([0, 0, 0], 3), front, [0, 1, 0])).toBe('eye-flat')
    expect(code(onBall([0, 0, 0], 90).map((p): Vector3 => [p[0] / 30, p[1], p[2] / 30]))).toBe('eye-flat')
    expect(code(onBall([0, 0, 0], 3, 0.6))).toBe('eye-uneven')
    expect(code([front])).toBe('eye-few')
    expect(ballThrough(flat.slice(0, 3))).toMatchObject({ ok: false, problem: { code: 'eye-few' } })
  })
  it('lets both axes meet the target within a degree, however small the eye, and sets down in tenths where it can', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.4, max: 12, noNaN: true }),
        fc.tuple(part, part, part),
        fc.constantFrom('awake', 'calm', 'weary', 'wide'),
        (r, [x, y, z], lid) => {
          const balls = [-1, 1].map((side) => ({ centre: [side * 1.3 * r, 0, 20] as Vector3, radius: r, off: 0 }))
          const target: Vector3 = [60 * x, -20 * r - 50 * (1 + y), 20 + 40 * z]
          const plan = planEyes(balls, target, lid, [-0.5, -0.5, 0.7071], [0, -1, 0])
          if (!plan.ok) throw new Error(say(plan.problem.message))
          plan.value.forEach((e, i) => {
            const { centre } = balls[i]!
            const axis: Vector3 = [e.iris[0] - centre[0], e.iris[1] - centre[1], e.iris[2] - centre[2]]
            const to: Vector3 = [target[0] - centre[0], target[1] - centre[1], target[2] - centre[2]]
            expect(degreesBetween(axis, to)).toBeLessThanOrEqual(GAZE)
            expect(e.gazeOff).toBeCloseTo(degreesBetween(axis, to), 9)
            for (const v of e.iris) expect(Math.abs(v / e.step - Math.round(v / e.step))).toBeLessThan(1e-6)
            if (r > 6) expect(e.step).toBe(0.1)
            // The catch-light lies on the ball and on the iris.
            const spot: Vector3 = [
              e.catchLight[0] - centre[0],
              e.catchLight[1] - centre[1],
              e.catchLight[2] - centre[2],
            ]
            expect(Math.hypot(...spot)).toBeCloseTo(r, 6)
            expect(Math.sin((degreesBetween(spot, to) * Math.PI) / 180) * r).toBeLessThan(e.irisRadius)
            expect(e.tip).toBeLessThanOrEqual(2 * e.pupilRadius)
          })
          // On the same side in both.
          const side = plan.value.map((e, i) =>
            Math.sign(e.catchLight[0] - balls[i]!.centre[0] - (e.iris[0] - balls[i]!.centre[0])),
          )
          if (Math.abs(x) < 0.3 && Math.abs(z) < 0.3) expect(side[0]! * side[1]!).toBeGreaterThanOrEqual(0)
        },
      ),
      { numRuns: 200 },
    )
    expect(
      planEyes([{ centre: [0, 0, 0], radius: 3, off: 0 }], [0, -4, 0], 'calm', [0, 0, 1], [0, -1, 0]),
    ).toMatchObject({
      ok: false,
      problem: { code: 'gaze-near' },
    })
  })
  it('draws a sheet in true size: circles as large as calculated, the catch-light where it is seen', () => {
    const balls = [-4, 4].map((x) => ({ centre: [x, 0, 20] as Vector3, radius: 3, off: 0 }))
    // Light from the upper left of who stands before the face.
    const plan = planEyes(balls, [0, -400, 20], 'calm', [-0.4, -0.8, 0.45], [0, -1, 0])
    if (!plan.ok) throw new Error(say(plan.problem.message))
    const eyes = plan.value.map((p, i) => ({ name: `eye <${i}>`, ball: balls[i]!, plan: p }))
    const { svg, width } = eyeSheet(eyes, 6)
    expect(svg).toContain(`width="${Number(width.toFixed(3))}mm"`)
    expect(svg).toContain('eye &lt;0&gt;')
    const of = (name: string): { cx: number; cy: number; r: number }[] =>
      [...svg.matchAll(new RegExp(`class="${name}" cx="([\\d.]+)" cy="([\\d.]+)" r="([\\d.]+)"`, 'g'))].map((m) => ({
        cx: Number(m[1]),
        cy: Number(m[2]),
        r: Number(m[3]),
      }))
    expect(of('ball')).toHaveLength(12)
    for (const c of of('ball')) expect(c.r).toBeCloseTo(18, 3)
    for (const c of of('ring')) expect(c.r).toBeCloseTo(6 * plan.value[0]!.irisRadius, 3)
    const spark = of('catch'),
      rings = of('ring')
    expect(spark).toHaveLength(2)
    for (const [i, c] of spark.entries()) {
      const ring = rings[5 * (i + 1) - 1]!
      expect(c.cx).toBeLessThan(ring.cx)
      expect(c.cy).toBeLessThan(ring.cy)
      expect(Math.hypot(c.cx - ring.cx, c.cy - ring.cy)).toBeLessThan(ring.r)
    }
  })
  it('finds the ball under a carved pupil and beside a lid', () => {
    const r = 5,
      c: Vector3 = [3, -2, 40]
    const places = onBall(c, r).map((p, i): Vector3 => {
      const side = Math.hypot(p[0] - c[0], p[2] - c[2])
      // The middle is hollowed out by a fifth of the ball, and a lid lies over its upper rim.
      const sunk = side < 1.1 ? 0.2 * r : p[2] - c[2] > 2.4 ? -0.16 * r : 0.004 * r * Math.sin(9 * i)
      return [p[0], p[1] + sunk, p[2]]
    })
    const got = eyeballAt(places, [c[0], c[1] - r + 1, c[2]], [0, -1, 0], 3)
    if (!got.ok) throw new Error(say(got.problem.message))
    expect(Math.abs(got.value.radius / r - 1)).toBeLessThan(0.08)
    for (let k = 0; k < 3; k++) expect(Math.abs(got.value.centre[k]! - c[k]!)).toBeLessThan(0.5)
  })
  it('turns a dragged place back into a gaze', () => {
    const angle = fc.integer({ min: -79, max: 79 })
    fc.assert(
      fc.property(angle, angle, fc.double({ min: 5, max: 900, noNaN: true }), place, (turn, lift, distance, c) => {
        const balls = [-3, 3].map((dx) => ({ centre: [c[0] + dx, c[1], c[2]] as const, radius: 2, off: 0 }))
        const back = gazeAt(balls, gazeTarget(balls, turn, lift, distance))
        expect(back.lift).toBe(lift)
        expect(back.turn).toBe(turn)
        expect(back.distance).toBeCloseTo(distance, 6)
      }),
    )
  })
  it('measures how far a sculpt’s lids are open, and knows when there are none', () => {
    const r = 4,
      skin = (open: [number, number]): Float32Array =>
        new Float32Array(
          Array.from({ length: 181 * 9 }, (_, i) => {
            const a = ((Math.floor(i / 9) - 90) * Math.PI) / 180,
              x = ((i % 9) - 4) * 0.2
            // Beyond the opening a lid lies a seventh of the ball's radius over it.
            const d = a > open[0] || a < -open[1] ? 1.14 * r : r
            const flat = Math.sqrt(d * d - x * x)
            return [x, -flat * Math.cos(a), flat * Math.sin(a)]
          }).flat(),
        )
    const ball = { centre: [0, 0, 0] as const, radius: r, off: 0 }
    const got = lidOpening(skin([0.6, 0.35]), ball)!
    expect(Math.abs(got.up - 0.6 * r)).toBeLessThan(0.15)
    expect(Math.abs(got.down - 0.35 * r)).toBeLessThan(0.15)
    expect(lidOpening(skin([9, 9]), ball)).toBe(null)
    // Looking straight ahead the iris ends at asin 0.49 of the ball; what lies beyond the lid's edge is covered.
    const covered = (z: number, lid: 'as sculpted' | 'calm', opening: typeof got | null = got): number[] => {
      const plan = planEyes(
        [ball],
        [ball.centre[0], ball.centre[1] - 500, ball.centre[2] + z],
        lid,
        [0, 0, 1],
        [0, -1, 0],
        [opening],
      )
      if (!plan.ok) throw new Error(say(plan.problem.message))
      const [e] = plan.value
      return [e!.upperCut, e!.lowerCut].map((v) => v / e!.irisRadius)
    }
    const half = Math.asin(0.49)
    const edge = { up: 0.4 * r, down: 0.3 * r }
    const [upper, lower] = covered(0, 'as sculpted', edge)
    expect(upper).toBeCloseTo(1 - 0.4 / half, 6)
    expect(lower).toBeCloseTo(1 - 0.3 / half, 6)
    // Looking up by a tenth of the radius along the ball moves the iris under the upper lid and out from the lower.
    const [more, less] = covered(500 * Math.tan(0.1), 'as sculpted', edge)
    expect(more).toBeCloseTo(1 - 0.3 / half, 6)
    expect(less).toBeCloseTo(1 - 0.4 / half, 6)
    expect(covered(0, 'as sculpted', null)).toEqual(covered(0, 'calm'))
    // A child's iris is wider: it goes as far under the lids as it is wider along the ball.
    const child = planEyes([ball], [0, -500, 0], 'as sculpted', [0, 0, 1], [0, -1, 0], [edge], {
      iris: 0.6,
      pupil: 0.2,
    })
    if (!child.ok) throw new Error(say(child.problem.message))
    expect(child.value[0]!.irisRadius).toBeCloseTo(0.6 * r, 9)
    expect(child.value[0]!.pupilRadius).toBeCloseTo(0.2 * r, 9)
    expect(child.value[0]!.upperCut / child.value[0]!.irisRadius).toBeCloseTo(1 - 0.4 / Math.asin(0.6), 6)
  })
})
