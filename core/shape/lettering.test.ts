import { describe, expect, it } from 'vitest'
import { measure } from '../mesh/measure'
import type { Answer } from '../answer'
import { boxBody, cylinderBody } from '../testBodies'
import { lettered } from './lettering'
import { nameplate, type NameplateOptions } from './nameplate'
import { acceptedAsSolid, extruded, unite } from './solid'
import { say } from '../words/say'

const plain: NameplateOptions = {
  text: 'KEEPER',
  face: 'serif',
  letter: 4,
  spacing: 0.06,
  style: 'raised',
  relief: 0.5,
  around: 0,
  up: null,
  width: null,
  height: null,
  recess: 0.8,
}
const value = <T>(a: Answer<T>): T => {
  if (!a.ok) throw new Error(say(a.problem.message))
  return a.value
}
const code = (a: Answer<unknown>): string => (a.ok ? 'good' : a.problem.code)
const area = (c: Float64Array): number => {
  let sum = 0
  for (let i = 0; i < c.length; i += 2) {
    const j = (i + 2) % c.length
    sum += (c[i]! * c[j + 1]! - c[j]! * c[i + 1]!) / 2
  }
  return sum
}

describe('lettering', () => {
  it('sets a capital to its height, centred, its counters as holes', () => {
    for (const face of ['sans', 'serif'] as const) {
      const h = value(lettered({ ...plain, face, text: 'H', letter: 10 }))
      const ys = h.contours.flatMap((c) => [...c].filter((_, i) => i % 2 === 1))
      expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(10, 1)
      expect(Math.max(...ys) + Math.min(...ys)).toBeCloseTo(0, 1)
      const o = value(lettered({ ...plain, face, text: 'O', letter: 10 })).contours.map(area)
      expect(o).toHaveLength(2)
      expect(Math.sign(o[0]!)).toBe(-Math.sign(o[1]!))
    }
  })
  it('names what its face does not have, and refuses an empty text', () => {
    const r = lettered({ ...plain, text: 'a☂b☃' })
    expect(!r.ok && say(r.problem.message)).toMatch(/“☂”, “☃”/)
    expect(code(lettered({ ...plain, text: '  \n ' }))).toBe('no-text')
  })
  it('tells the width of the thinnest stroke', async () => {
    const bar = Float64Array.from([0, 0, 20, 0, 20, 0.7, 0, 0.7])
    const { mesh, stroke, area: a } = await extruded([bar], 1, 3)
    expect(stroke).toBeCloseTo(0.7, 2)
    expect(measure(mesh).volume).toBeCloseTo(2 * a, 3)
    expect(measure(mesh).box.min[2]).toBeCloseTo(1, 5)
  })
})

describe('a nameplate', () => {
  it('takes its pocket off a block and gives its letters back, each by its own volume', async () => {
    const block = boxBody(60, 30, 16, -30, -15, 0)
    const text = value(lettered(plain))
    const { area: face } = await extruded(text.contours, 0, 1)
    for (const style of ['raised', 'sunk'] as const) {
      const { mesh, report } = value(await nameplate(block, { ...plain, style, width: 40, height: 9 }))
      expect(await acceptedAsSolid(mesh)).toBe(true)
      expect(report.depth).toBeCloseTo(0.8, 3)
      expect(report.outward).toEqual([0, -1, 0])
      const r = 1.2
      const pocket = 0.8 * (40 * 9 - (4 - Math.PI) * r * r)
      const letters = 0.5 * face * (style === 'raised' ? 1 : -1)
      expect(Math.abs(measure(block).volume - pocket + letters - measure(mesh).volume)).toBeLessThan(0.4)
    }
  })
  it('is flat on a round base, wherever it looks', async () => {
    const drum = cylinderBody(30, 14)
    for (const around of [0, 40, -130]) {
      const { mesh, report } = value(await nameplate(drum, { ...plain, around, recess: 0.5 }))
      expect(await acceptedAsSolid(mesh)).toBe(true)
      const a = (around * Math.PI) / 180
      expect(report.outward[0]).toBeCloseTo(Math.sin(a), 6)
      // The ground lies under the skin at its own rim by the recess, in its middle by the chord's rise besides.
      const chord = 30 - Math.sqrt(900 - (report.width / 2) ** 2)
      expect(report.depth).toBeCloseTo(chord + 0.5, 0)
    }
  })
  it('chooses the step it fits on, where it is not told', async () => {
    const plinth = value(await unite([boxBody(80, 60, 10, -40, -30, 0), boxBody(60, 40, 12, -30, -20, 9.9)]))
    const { report } = value(await nameplate(plinth, { ...plain, width: 40, height: 8 }))
    expect(report.depth).toBeCloseTo(0.8, 3)
    expect(report.centre[2] - 4).toBeGreaterThan(-0.01)
  })
  it('answers where it has no room, with the nearest that has', async () => {
    const drum = cylinderBody(30, 14)
    const large = await nameplate(drum, { ...plain, width: 12, height: 8 })
    expect(code(large)).toBe('text-too-large')
    const fits = Number(/Letters of ([\d.]+) mm/.exec(large.ok ? '' : say(large.problem.message))![1])
    expect(code(await nameplate(drum, { ...plain, letter: fits, width: 12, height: 8 }))).toBe('good')
    expect(code(await nameplate(drum, { ...plain, height: 20 }))).toBe('plate-hangs-over')
    expect(code(await nameplate(boxBody(60, 2, 16, -30, -1, 0), { ...plain, recess: 1.5 }))).toBe('plate-too-deep')
  })
})
