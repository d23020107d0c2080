import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { effectPlan } from '../materials/effects'
import { planSteps as planStepsOf } from '../steps/planSteps'
import { facts } from '../steps/testFacts'
import { schoolDefaults, type Schools } from '../../defaults/plan'
import { varnishPasses as varnishPassesOf, type RegionFinish } from './varnish'
import { spokenBy } from '../../testSpoken'

const planSteps = spokenBy(planStepsOf)
const varnishPasses = spokenBy(varnishPassesOf)

const region = (name: string, more: Partial<RegionFinish> = {}): RegionFinish => ({
  name,
  area: 10_000,
  wanted: null,
  metallic: false,
  powder: false,
  edges: [],
  ...more,
})
const edge = (to: string, mm: number): { to: string; mm: number }[] => [{ to, mm }]

describe('effects', () => {
  it('take their stuff by area and thickness, in layers that set, each a step of its own', () => {
    // 20 cm² half covered, 7 mm deep: 7 ml of resin, poured in three.
    const water = { kind: 'water' as const, area: 2000, coverage: 0.5, thickness: 7 }
    expect(effectPlan(water)).toMatchObject({ layers: 3, wait: 24 * 3600 })
    expect(effectPlan(water).amount).toBeCloseTo(7, 9)
    const steps = planSteps(
      facts({
        effects: [
          { ...water, id: 'w', region: 'Pond' },
          { id: 'r', kind: 'rust', region: 'Anchor', area: 500, coverage: 1, thickness: 0.1 },
        ],
      }),
    )
    const keys = steps.map((s) => s.key)
    const at = (k: string): number => keys.indexOf(k)
    expect(at('effect-r-1')).toBeLessThan(at('varnish'))
    expect(keys.slice(at('effect-w-1'))).toEqual(['effect-w-1', 'effect-w-2', 'effect-w-3'])
    expect(steps[at('effect-w-2')]).toMatchObject({ title: 'Water on Pond, layer 2 of 3' })
    expect(steps[at('effect-w-2')]!.materials[0]).toContain('2.3 ml')
    expect(steps[at('effect-w-2')]!.uses).toEqual([{ what: 'effect:water', amount: expect.closeTo(7 / 3, 9) }])
    for (const k of ['effect-w-1', 'effect-r-1']) expect(steps[at(k)]!.cautions.length).toBeGreaterThan(0)
  })
})

describe('varnish', () => {
  const list = [
    region('Coat', { edges: edge('Buckle', 40) }),
    region('Buckle', { area: 400, metallic: true, edges: edge('Coat', 40) }),
    region('Lips', { area: 60, wanted: 'gloss' }),
    region('Boots', { wanted: 'satin', powder: true }),
  ]
  it('keeps matt off metal, masks it along its edge, and puts gloss last', () => {
    const { passes, seal, bare } = varnishPasses(list, 'byRegion', 'matt')
    expect(passes.map((p) => [p.sheen, p.tool, p.regions.join()])).toEqual([
      ['matt', 'airbrush', 'Coat'],
      ['satin', 'airbrush', 'Boots'],
      ['gloss', 'brush', 'Buckle,Lips'],
    ])
    expect(passes[0]).toMatchObject({ masks: ['Buckle'], mm: 40 })
    expect(passes[2]!.masks).toEqual([])
    expect(seal).toEqual(['Boots'])
    expect(bare).toEqual([])
  })
  it('follows the other schools: one matt coat over all but metal, or none on metal', () => {
    const one = varnishPasses(list, 'oneMatt', 'matt').passes
    expect(one.map((p) => [p.sheen, p.regions.join()])).toEqual([
      ['matt', 'Coat,Boots'],
      ['gloss', 'Buckle,Lips'],
    ])
    const none = varnishPasses(list, 'bareMetal', 'matt')
    expect(none.bare).toEqual(['Buckle'])
    expect(none.passes.at(-1)!.regions).toEqual(['Lips'])
    expect(none.passes[0]!.masks).toEqual(['Buckle'])
  })
  it('leaves glass clear under any school, unless the scheme frosts it', () => {
    const glass = region('Lantern glass', { clear: true, edges: edge('Coat', 60) })
    for (const school of ['oneMatt', 'byRegion', 'bareMetal'] as const) {
      const { passes } = varnishPasses([region('Coat', { edges: edge('Lantern glass', 60) }), glass], school, 'matt')
      expect(passes.map((p) => [p.sheen, p.regions.join(), p.masks.join()])).toEqual([
        ['matt', 'Coat', 'Lantern glass'],
        ['gloss', 'Lantern glass', expect.any(String)],
      ])
    }
    const frosted = varnishPasses([{ ...glass, wanted: 'matt' }], 'byRegion', 'satin').passes
    expect(frosted.map((p) => [p.sheen, p.masks])).toEqual([['matt', []]])
  })
  it('varnishes every region once, and nothing matt that is metal', () => {
    const sheen = fc.constantFrom('matt' as const, 'satin' as const, 'gloss' as const, null)
    const any = fc.array(
      fc.record({
        area: fc.integer({ min: 1, max: 50_000 }),
        wanted: sheen,
        metallic: fc.boolean(),
        clear: fc.boolean(),
        powder: fc.boolean(),
      }),
      { minLength: 1, maxLength: 8 },
    )
    fc.assert(
      fc.property(
        any,
        fc.constantFrom('oneMatt' as const, 'byRegion' as const, 'bareMetal' as const),
        (rows, school) => {
          const regions = rows.map((r, i) => region(`R${i}`, r))
          const { passes, bare } = varnishPasses(regions, school, 'matt')
          expect([...passes.flatMap((p) => p.regions), ...bare].sort()).toEqual(regions.map((r) => r.name).sort())
          for (const p of passes) {
            if (p.sheen !== 'gloss')
              expect(p.regions.some((n) => regions.find((r) => r.name === n)!.metallic)).toBe(false)
            expect(p.masks.some((m) => p.regions.includes(m))).toBe(false)
          }
          const order = passes.map((p) => ['matt', 'satin', 'gloss'].indexOf(p.sheen))
          expect(order).toEqual([...order].sort())
        },
      ),
    )
  })
  it('stands in the plan, with masks as steps of their own before what is sprayed', () => {
    const coat = {
      region: 'Coat',
      technique: 'base' as const,
      paint: 'Navy',
      mix: [],
      coats: 2,
      area: 20_000,
      byAirbrush: true,
    }
    const plan = (finalCoat: Schools['finalCoat']): ReturnType<typeof planSteps> =>
      planSteps(
        facts({
          finishes: list,
          schools: { ...schoolDefaults, finalCoat },
          coats: [{ ...coat, nth: 3, masks: { names: ['Skin', 'Hair'], mm: 84.4, seconds: 190 } }],
        }),
      )
    const steps = plan('byRegion'),
      keys = steps.map((s) => s.key)
    const mask = steps.find((s) => s.key === 'mask-3-Coat')!
    expect(mask.title).toBe('Mask Skin and Hair along 84 mm')
    expect(keys.indexOf('coat-3-Coat-base')).toBe(keys.indexOf('mask-3-Coat') + 1)
    expect(keys.slice(keys.indexOf('seal-powder'))).toEqual([
      'seal-powder',
      'varnish-matt',
      'varnish-satin',
      'varnish-gloss',
    ])
    expect(plan('oneMatt').map((s) => s.key)).not.toContain('varnish-satin')
    // The last one cures a day.
    expect(steps.at(-1)!.waiting).toBeGreaterThan(20 * 3600)
  })
})
