import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Mishap } from '../print/hanging/hanging'
import { bathSaturated as bathSaturatedOf } from './bathSaturated'
import { supportFailures as supportFailuresOf } from './supportFailures'
import { unplacedSteps as unplacedStepsOf } from './unplacedSteps'
import type { PlateAtWork } from './facts'
import { fill, printTrouble as printTroubleOf } from './printTrouble'
import { inWords } from '../testSpoken'

const bathSaturated = inWords(bathSaturatedOf)
const supportFailures = inWords(supportFailuresOf)
const unplacedSteps = inWords(unplacedStepsOf)
const printTrouble = inWords(printTroubleOf)

const plate: PlateAtWork = {
  id: 'p1',
  name: 'Tiny, plate 1 of run 2',
  state: 'printing',
  problem: null,
  layer: 300,
  layers: 900,
  doing: 'printing',
  why: null,
  silent: null,
  vat: 200,
  needed: 40,
  failed: 0,
  reprinted: false,
}
const of = (more: Partial<PlateAtWork>) => printTrouble([{ ...plate, ...more }])
const ids = (more: Partial<PlateAtWork>): string[] => of(more).map((f) => f.id.split(' ')[0]!)

describe('plates that wait for a hand', () => {
  it('are silent while all goes well, and are named by the one thing that keeps them', () => {
    expect(ids({})).toEqual([])
    expect(ids({ state: 'judged', layer: 900 })).toEqual([])
    expect(ids({ state: 'planned', layer: 0, problem: 'No resin.' })).toEqual(['refused'])
    expect(ids({ silent: 3.4 })).toEqual(['lost'])
    expect(ids({ doing: 'paused', why: 'vat-empty', vat: 14 })).toEqual(['vat'])
    expect(ids({ doing: 'interrupted', why: 'power' })).toEqual(['power'])
    expect(ids({ vat: 30 })).toEqual(['vat-soon'])
    expect(ids({ state: 'ended' })).toEqual(['look'])
    expect(ids({ state: 'judged', failed: 2 })).toEqual(['failed'])
    expect(ids({ state: 'judged', failed: 2, reprinted: true })).toEqual([])
  })
  it('say what the printer said, how long it is silent, and offer what can be done', () => {
    expect(of({ state: 'planned', problem: 'It ends at 10 mm.' })[0]!.sentence).toContain('It ends at 10 mm.')
    expect(of({ silent: 0.2 })[0]).toMatchObject({ level: 'problem', value: '1' })
    const [empty] = of({ doing: 'paused', why: 'vat-empty', vat: 14, needed: 61 })
    expect(empty!.fixes).toMatchObject([{ act: 'refill', label: 'Refill with 100 ml' }])
    expect(of({ doing: 'interrupted' })[0]!.fixes[0]).toMatchObject({ act: 'resume', effect: 'from layer 301' })
    expect(empty!.fixes).toMatchObject([{ act: 'refill', plate: plate.id }])
    // A plate that was stopped early says so where it asks to be looked over.
    expect(of({ state: 'ended' })[0]!.sentence).toContain('ended at layer 300 of 900')
  })
  it('fill in what is still to come and a reserve, in fifties', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 5000, noNaN: true }), (needed) => {
        expect(fill(needed) % 50).toBe(0)
        expect(fill(needed)).toBeGreaterThanOrEqual(needed + 30)
        expect(fill(needed)).toBeLessThan(needed + 80)
      }),
    )
  })
})

describe('baths', () => {
  const baths = { first: { litres: 2, resin: 150, limit: 10 }, second: { litres: 2, resin: 45, limit: 2 } }
  it('are told of when they clean no more, and before the wash that would bring them there', () => {
    expect(bathSaturated(baths, { first: 10, second: 1 }).map((f) => [f.id, f.level])).toEqual([
      ['bath-second', 'problem'],
    ])
    expect(bathSaturated(baths, { first: 60, second: 0 }).map((f) => [f.id, f.level])).toEqual([
      ['bath-first', 'warning'],
      ['bath-second', 'problem'],
    ])
    expect(bathSaturated({ ...baths, second: { ...baths.second, resin: 0 } }, { first: 0, second: 0 })).toEqual([])
    expect(bathSaturated(baths, { first: 60, second: 0 })[0]!.fixes[0]).toMatchObject({
      act: 'freshBath',
      bath: 'first',
    })
  })
})

describe('layers by usual figures', () => {
  const at = { layer: 41, x: 1, y: 2, z: 2.1 }
  const tip = (fell: boolean): Mishap => ({ kind: 'tip', force: 2, capacity: 1, fell, ...at })
  it('tell what is torn off, what is torn open, and what merely lets go, each with its places', () => {
    const cup: Mishap = { kind: 'cup', area: 90, force: 5, wall: 0.4, ...at }
    const found = supportFailures([tip(false), tip(true), cup, tip(false)])
    expect(found.map((f) => [f.id, f.level, f.value])).toEqual([
      ['falls', 'problem', '1'],
      ['tears', 'problem', '1'],
      ['lets-go', 'warning', '2'],
    ])
    expect(found[0]!.sentence).toContain('layer 42')
    expect(found[2]!.places).toEqual([
      [1, 2, 2.1],
      [1, 2, 2.1],
    ])
    // Islands have a finding of their own.
    expect(supportFailures([{ kind: 'island', area: 3, ...at }])).toEqual([])
  })
})

describe('steps that cannot be scheduled', () => {
  it('are blamed on missing hours only where there are none', () => {
    expect(unplacedSteps(0, false)).toEqual([])
    expect(unplacedSteps(1, false)[0]!.sentence).toContain('There are no bench hours')
    const [some] = unplacedSteps(3, true)
    expect(some).toMatchObject({ value: '3', unit: 'steps that cannot be scheduled' })
    expect(some!.sentence).not.toContain('There are no bench hours')
  })
})
