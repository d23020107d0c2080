import { describe, expect, it } from 'vitest'
import { sealsBetween as sealsBetweenOf, type SealedCoat } from './seals'
import { planSteps as planStepsOf } from '../steps/planSteps'
import { facts } from '../steps/testFacts'
import { spokenBy } from '../../testSpoken'

const sealsBetween = spokenBy(sealsBetweenOf)
const planSteps = spokenBy(planStepsOf)

const coat = (region: string, more: Partial<SealedCoat> = {}): SealedCoat => ({ region, area: 1000, ...more })

describe('a seal between stages', () => {
  it('comes before solvent over what is not solvent’s own, once', () => {
    const seals = sealsBetween([
      coat('Coat'),
      coat('Coat', { solvent: true }),
      coat('Coat', { solvent: true }),
      coat('Coat'),
      coat('Coat', { solvent: true }),
      coat('Base', { solvent: true }),
    ])
    expect(seals.map((s) => [s.before, s.regions, s.area])).toEqual([
      [1, ['Coat'], 1000],
      [4, ['Coat'], 1000],
    ])
  })
  it('comes over metal before it is masked, and not again while nothing is painted on it', () => {
    const seals = sealsBetween([
      coat('Buckle', { metallic: true, area: 40 }),
      coat('Skin'),
      coat('Coat', { masks: { names: ['Buckle', 'Skin'] } }),
      coat('Cap', { masks: { names: ['Buckle'] } }),
    ])
    expect(seals.map((s) => [s.before, s.regions, s.area])).toEqual([[2, ['Buckle'], 40]])
    expect(sealsBetween([coat('Skin'), coat('Coat', { masks: { names: ['Skin'] } })])).toEqual([])
  })
  it('is a step of the plan, before the mask goes on, with its varnish', () => {
    const base = facts().coats[0]!
    const steps = planSteps(
      facts({
        coats: [
          { ...base, region: 'Buckle', metallic: true, area: 2000 },
          { ...base, region: 'Coat', masks: { names: ['Buckle'], mm: 40, seconds: 90 } },
          { ...base, region: 'Coat', technique: 'wash', solvent: true },
        ],
      }),
    )
    const keys = steps.map((s) => s.key)
    const at = (k: string): number => keys.findIndex((x) => x.startsWith(k))
    expect(at('coat-0')).toBeLessThan(at('seal-1'))
    expect(at('seal-1')).toBeLessThan(at('mask-1'))
    expect(at('coat-1')).toBeLessThan(at('seal-2'))
    expect(at('seal-2')).toBeLessThan(at('coat-2'))
    expect(steps[at('seal-1')]).toMatchObject({ title: 'Seal Buckle with gloss' })
    expect(steps[at('seal-1')]!.uses[0]!.what).toBe('varnish:gloss')
    expect(steps[at('seal-1')]!.cautions).toContain('spray')
  })
})

describe('a region without primer', () => {
  it('is covered before it is sprayed, and told why', () => {
    const steps = planSteps(
      facts({
        unprimed: [
          { name: 'Neck joint', takes: 'glue' },
          { name: 'Lantern glass', takes: 'light' },
        ],
      }),
    )
    for (const s of steps.filter((x) => x.key.startsWith('prime-')))
      expect(s.lines).toEqual([
        'Cover Neck joint first: glue holds on bare resin.',
        'Cover Lantern glass first: it is clear, and primer blocks its light.',
      ])
    expect(steps.some((x) => x.key.startsWith('prime-'))).toBe(true)
  })
})
