import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { failed, known, MEASURING, missing, NONE, type Fact } from './facts'
import { complete, judge, judgedBy, measuredOf } from './judge'
import { RULES } from './registry'
import { rule, STAGES, type Rule } from './rule'
import { say } from '../words/say'

const told = (n: number) => ({
  id: `f${n}`,
  level: 'warning' as const,
  value: String(n),
  unit: 'mm',
  sentence: 'So it is.',
  places: [],
  how: 'Counted.',
  fixes: [],
})
const toy = rule({
  title: 'a toy rule',
  stages: ['scale'],
  inputs: ['cloudPoints', 'newSkin'],
  find: ({ cloudPoints, newSkin }) => (cloudPoints > newSkin ? [told(cloudPoints - newSkin)] : []),
})
const toyRules = [toy] as unknown as Rule[]
const by = (cloudPoints: Fact<number>, newSkin: Fact<number>) => judgedBy(toyRules, 'scale', { cloudPoints, newSkin })

describe('a rule', () => {
  it('speaks only when all of its facts are known, and says what keeps it otherwise', () => {
    expect(by(known(3), known(1))).toMatchObject({ findings: [{ value: '2' }], rules: [{ state: 'measured' }] })
    expect(by(known(1), known(3))).toEqual({ findings: [], rules: [{ title: 'a toy rule', state: 'measured' }] })
    expect(by(known(3), MEASURING).rules[0]).toMatchObject({ state: 'measuring' })
    expect(by(missing('a printer'), missing('a printer')).rules[0]).toMatchObject({ for: ['a printer'] })
    expect(by(failed('No.'), MEASURING).rules[0]).toMatchObject({ state: 'failed', sentence: 'No.' })
    expect(by(NONE, failed('No.')).rules[0]).toMatchObject({ state: 'not applicable' })
    expect(judgedBy(toyRules, 'plan', {}).rules).toEqual([])
  })
  it('never lets a stage say that nothing was found while one of its facts is not known', () => {
    const fact = fc.constantFrom<Fact<number>>(known(1), known(2), MEASURING, missing('x'), failed('y.'), NONE)
    fc.assert(
      fc.property(fact, fact, (a, b) => {
        const j = by(a, b)
        const open = [a, b].some((f) => f.state !== 'known') && [a, b].every((f) => f.state !== 'none')
        expect(complete(j)).toBe(!open)
        if (open) expect(j.findings).toEqual([])
        expect(measuredOf(j).of).toBe([a, b].some((f) => f.state === 'none') ? 0 : 1)
      }),
    )
  })
})

describe('the registry', () => {
  const nothing = (fact: Fact<never>): never =>
    Object.fromEntries(RULES.flatMap((r) => r.inputs).map((n) => [n, fact])) as never
  it('has every rule once, under a title that reads after “Not checked:”, in a place that exists', () => {
    expect(new Set(RULES).size).toBe(RULES.length)
    for (const r of RULES) {
      expect(say(r.title)).toMatch(/^[a-z].*[^.]$/)
      expect(r.stages.length).toBeGreaterThan(0)
      for (const s of r.stages) expect(STAGES).toContain(s)
    }
  })
  it('is complete of what does not concern the piece, and of nothing that is still missing', () => {
    for (const stage of STAGES) {
      expect(complete(judge(stage, nothing(NONE)))).toBe(true)
      expect(measuredOf(judge(stage, nothing(NONE))).of).toBe(0)
      const waiting = judge(stage, nothing(missing('it')))
      expect(waiting.findings).toEqual([])
      expect(complete(waiting)).toBe(waiting.rules.length === 0)
    }
  })
  it('judges a stage from its facts alone: a sculpt too large for the printer, with the factor that fits', () => {
    const printer = { name: 'Quern', pixelsX: 1000, pixelsY: 1000, pitchX: 0.1, pitchY: 0.1, height: 150 } as never
    const j = judge('scale', { size: known([50, 60, 200]), printer: known(printer), thinness: MEASURING })
    expect(j.findings).toMatchObject([{ id: 'does-not-fit', fixes: [{ act: 'scale', factor: 0.98 * 0.75 }] }])
    expect(measuredOf(j)).toEqual({ measured: 1, of: 2 })
  })
})
