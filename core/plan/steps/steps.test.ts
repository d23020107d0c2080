import { describe, expect, it } from 'vitest'
import { pinFor } from '../../fit/pin'
import { comparePlans as comparePlansOf } from './compare'
import { supply } from '../materials/supplies'
import { FILLERS } from '../materials/materials'
import { schoolDefaults, type Schools } from '../../defaults/plan'
import { facts, joint, part } from './testFacts'
import { overDetail } from './paint'
import { planSteps as planStepsOf } from './planSteps'
import type { PlanFacts, PlanStep } from './types'
import { message } from '../../words/message'
import { say } from '../../words/say'
import { spokenBy } from '../../testSpoken'

const comparePlans = spokenBy(comparePlansOf)
const planSteps = spokenBy(planStepsOf)

const school = (s: Partial<Schools>): Partial<PlanFacts> => ({ schools: { ...schoolDefaults, ...s } })
const keys = (f: PlanFacts): string[] => planSteps(f).map((s) => s.key)
/** Every step comes after others that stand before it, and no key is there twice. */
function sound(steps: readonly PlanStep[]): void {
  const seen = new Set<string>()
  for (const s of steps) {
    expect(seen.has(s.key)).toBe(false)
    for (const a of s.after) expect(seen.has(a)).toBe(true)
    seen.add(s.key)
    expect(say(s.why).length).toBeGreaterThan(10)
    expect(s.handsOn).toBeGreaterThan(0)
    if (/wash|strip|sand|prime|varnish|cure|glue|fill|pin/.test(s.key)) expect(s.cautions.length).toBeGreaterThan(0)
  }
}

describe('plan', () => {
  it('follows the chosen school: supports before, after the wash, or after the cure', () => {
    const order = (strip: Schools['strip']): string[] =>
      keys(facts(school({ strip }))).filter((k) => ['strip', 'wash', 'cure'].includes(k))
    expect(order('beforeWash')).toEqual(['strip', 'wash', 'cure'])
    expect(order('afterWash')).toEqual(['wash', 'strip', 'cure'])
    expect(order('afterCure')).toEqual(['wash', 'cure', 'strip'])
  })
  it('cleans for another mix, also of the same paints, and not for the same one', () => {
    const coat = facts({}).coats[0]!
    const mixed = (navy: number, region: string): PlanFacts['coats'][number] => ({
      ...coat,
      region,
      technique: 'dry brush',
      paint: message('supplies.sum', { a: 'navy', b: 'chalk' }),
      mix: [
        { id: 'navy', share: navy },
        { id: 'chalk', share: 1 - navy },
      ],
    })
    const steps = planSteps(facts({ coats: [mixed(0.5, 'Coat'), mixed(0.25, 'Cap'), mixed(0.5, 'Boots')] }))
    const coats = steps.filter((x) => x.key.startsWith('coat-'))
    expect(coats.map((x) => x.title)).toContainEqual(expect.stringContaining('Coat: dry brush, navy + chalk'))
    const keys = coats.map((x) => x.setup!.key)
    expect([keys[0] === keys[1], keys[0] === keys[2]]).toEqual([false, true])
  })
  it('is made from what the piece is', () => {
    const solid = keys(facts({ parts: [part('bust', { scars: [] })], joints: [] }))
    for (const k of ['plug', 'strip', 'scars', 'dryfit', 'pin']) expect(solid).not.toContain(k)
    const holes = [
      { diameter: 4, hidden: false },
      { diameter: 12, hidden: true },
    ]
    const plug = planSteps(facts({ parts: [part('bust', { hollow: true, holes })], joints: [] })).find(
      (s) => s.key === 'plug',
    )!
    // The hole that nobody sees stays open.
    expect(plug.title).toBe('Close 1 drain hole')
    expect(plug.why).toContain('1 that nobody sees stays open')
    // 4 mm across and 2 mm deep, a third more than that for palette and tool.
    expect(plug.materials[0]).toContain(((Math.PI * 4 * 2 * 1.3) / 1000).toFixed(2))
    expect(keys(facts({ finish: 'exhibition' })).filter((k) => k.startsWith('prime'))).toHaveLength(3)
    expect(keys(facts({ parts: [part('lamp', { clear: true })], joints: [] })).join()).not.toContain('prime')
  })
  it('joins before paint what shows a seam and loses nothing, and late what no brush would reach', () => {
    const lost = { area: 20_000, brush: 19_500, airbrush: 17_000, brushLost: 3000, airbrushLost: 5000 }
    const when = (f: PlanFacts): string => planSteps(f).find((s) => s.key === 'glue:body+arm')!.phase
    expect(when(facts())).toBe('Fit')
    expect(when(facts({ joints: [joint('body', 'arm', { access: [lost, lost] })] }))).toBe('Finish')
    expect(when(facts({ ...school({ gluing: 'subAssemblies' }) }))).toBe('Finish')
    const seams = (f: PlanFacts): string[] => keys(f).filter((k) => k.startsWith('fill:'))
    expect(seams(facts())).toEqual(expect.arrayContaining(['fill:body+arm:resin']))
    expect(seams(facts({ ...school({ gluing: 'subAssemblies' }) }))).toEqual([])
  })
  it('pins what bears load with the wire that the moment asks for, and lets the wire carry it', () => {
    const pin = pinFor([0, 0, 100], 120, [60, 0, 100], 'brass')
    const loaded = [joint('body', 'arm', { load: { mass: 120, pin } })]
    const pinned = planSteps(facts({ joints: loaded }))
    const step = pinned.find((s) => s.key === 'pin')!
    // M = 0.12 kg · 9.81 · 60 mm · 5 = 353 N·mm; d = ∛(32 M/(π·200)) = 2.62, so 3 mm wire, 12 mm into each.
    expect(step.materials).toEqual(['brass wire 3 mm, 24 mm of it'])
    expect(step.lines[0]).toContain('3 mm wire, 12 mm into each')
    const glue = (steps: PlanStep[]): PlanStep => steps.find((s) => s.key.startsWith('glue:'))!
    expect(glue(pinned).title).toContain('gel')
    // Without wire the same joint needs what bears it in peel: 32·353/(π·19.5³) = 0.48 N/mm², and it may let go.
    const bare = planSteps(facts({ joints: loaded, ...school({ joints: 'glueOnly' }) }))
    expect(glue(bare).risks[0]!.chance).toBeGreaterThan(5 * glue(pinned).risks[0]!.chance)
    expect(keys(facts(school({ joints: 'pinAll' })))).toContain('pin')
    expect(keys(facts())).not.toContain('pin')
  })
  it('is sound for a statue of forty parts, each glue drying before its parts are moved again', () => {
    const parts = Array.from({ length: 40 }, (_, i) => part(`p${i}`))
    const joints = parts.slice(1).map((p, i) => joint(`p${(i / 2) | 0}`, p.id))
    const steps = planSteps(facts({ parts, joints }))
    sound(steps)
    sound(
      planSteps(facts({ parts, joints, ...school({ gluing: 'subAssemblies', strip: 'afterCure', sanding: 'dry' }) })),
    )
    const glued = steps.filter((s) => s.key.startsWith('glue:'))
    expect(glued).toHaveLength(39)
    // From the core outward: whoever is glued has a neighbour that stands already.
    const placed = new Set(['p0'])
    for (const g of glued) {
      const pair = g.key.slice(5).split('+')
      expect(pair.some((id) => placed.has(id))).toBe(true)
      pair.forEach((id) => placed.add(id))
      for (const other of glued)
        if (other !== g && glued.indexOf(other) < glued.indexOf(g) && shares(other.key, g.key))
          expect(reaches(steps, g.key, other.key)).toBe(true)
    }
  })
  it('lets nothing wait for what dries elsewhere: seams, scars and surfaces side by side, primer after all of them', () => {
    const two = [
      { surface: 'skin' as const, names: ['Face'], area: 5000 },
      { surface: 'cloth' as const, names: ['Coat'], area: 30_000 },
    ]
    const steps = planSteps(facts({ surfaces: two }))
    const at = (start: string): PlanStep[] => steps.filter((s) => s.key.startsWith(start))
    const sanded = at('sand:')
    expect(sanded).toHaveLength(2)
    expect(sanded[0]!.after).toEqual(sanded[1]!.after)
    expect(at('prime-1')[0]!.after).toEqual(sanded.map((s) => s.key))
    expect([...sanded[0]!.after].sort()).toEqual([...at('fill:'), ...at('scars')].map((s) => s.key).sort())
  })
  it('primes once more while flaws are open, mends them in the pass under way, and stops when one found nothing', () => {
    const open = [{ title: 'Solvent putty', handsOn: 70, wait: 7200 }]
    const passes = (inspection: PlanFacts['inspection']): number =>
      keys(facts({ inspection })).filter((k) => k.startsWith('inspect')).length
    expect(passes(null)).toBe(2)
    expect(passes({ passes: 1, closed: true, open: [] })).toBe(1)
    expect(passes({ passes: 3, closed: false, open })).toBe(4)
    const bare = planSteps(facts({ inspection: { passes: 1, closed: false, open: [] } }))
    const mended = planSteps(facts({ inspection: { passes: 1, closed: false, open } }))
    const at = (steps: PlanStep[]): PlanStep => steps.find((s) => s.key === 'inspect-1')!
    expect(at(mended).handsOn - at(bare).handsOn).toBe(70)
    expect(at(mended)).toMatchObject({ lines: ['Solvent putty'], waiting: 7200 })
  })
  it('primes in a colour of its own where that is the school: mixed once for all passes, thicker where it is pale', () => {
    const prime = (undercoat: Schools['undercoat'], tint = '#7a5a40'): PlanStep[] =>
      planSteps(facts({ ...school({ undercoat }), tint })).filter((s) => s.key.startsWith('prime-'))
    const [first, second] = prime('tinted') as [PlanStep, PlanStep],
      [grey, again] = prime('grey') as [PlanStep, PlanStep]
    expect(first.lines.join()).toMatch(/#7a5a40.* both passes at once/)
    expect(second.lines).toEqual(again.lines)
    expect(first.uses.map((u) => u.what)).toContain('primer:tinted')
    expect(supply('primer:tinted')?.unit).toBe('ml')
    expect(first.handsOn - grey.handsOn).toBe(300)
    expect(second.handsOn).toBe(again.handsOn)
    const film = (f: Partial<PlanFacts>): number => overDetail(facts(f)).primer
    expect(film({ ...school({ undercoat: 'tinted' }), tint: '#f0e4d0' })).toBe(film(school({ undercoat: 'white' })))
    expect(film({ ...school({ undercoat: 'tinted' }), tint: '#402818' })).toBe(film(school({ undercoat: 'black' })))
    expect(film(school({ undercoat: 'white' }))).toBeGreaterThan(film(school({ undercoat: 'black' })))
  })
  it('says what is over the relief: film by film, pass by pass, and what sanding takes', () => {
    const { primer, sanded } = overDetail(facts({ finish: 'display' }))
    const films = planSteps(facts({ finish: 'display' }))
      .filter((s) => s.key.startsWith('prime-'))
      .map((s) => Number(/(\d+) µm in all/.exec(say(s.why))![1]))
    expect(films).toHaveLength(2)
    expect(primer * 1000).toBeCloseTo(films[0]! + films[1]!, -0.5)
    expect(sanded).toBeGreaterThan(0)
    expect(overDetail(facts({ finish: 'exhibition' })).primer).toBeGreaterThan(primer)
  })
  it('fills and glues with what the workshop has and uses, and with what else there is only where nothing of that would do', () => {
    const used = (more: Partial<PlanFacts>): string[] =>
      planSteps(facts(more)).flatMap((s) => s.uses.flatMap((u) => (/^(filler|adhesive):/.test(u.what) ? u.what : [])))
    const usual = used({})
    const glue = usual.find((u) => u.startsWith('adhesive:'))!
    expect(used({ without: [glue.slice(9)] })).not.toContain(glue)
    // Gaps of a millimetre: no putty at all is no choice.
    const none = used({ without: FILLERS.map((f) => f.id) })
    expect(none.filter((u) => u.startsWith('filler:'))).toEqual(usual.filter((u) => u.startsWith('filler:')))
    // A quick product waits less, and its pot sets sooner.
    const quick = FILLERS.map((f) => ({ ...f, next: 1 }))
    const wait = (f: PlanFacts): number =>
      planSteps(f).reduce((s, x) => s + (x.key.startsWith('fill:') ? x.waiting : 0), 0)
    expect(wait(facts({ fillers: quick }))).toBeLessThan(wait(facts()))
  })
  it('washes only resin, covers what is glued after paint, textures a seam like the skin round it, and prints first', () => {
    const filament = { ...part('base'), process: 'filament' as const }
    const mixed = keys(facts({ parts: [part('body'), filament] }))
    expect(mixed).toEqual(expect.arrayContaining(['strip-filament', 'wash', 'cure']))
    const only = keys(facts({ parts: [filament], joints: [] }))
    expect(only[0]).toBe('strip-filament')
    expect(only).not.toContain('wash')
    expect(only).not.toContain('cure')
    const apart = planSteps(facts(school({ gluing: 'subAssemblies' })))
    const mask = apart.find((s) => s.key === 'mask')!
    expect(mask.lines).toEqual(['body and arm: 3.0 cm² on each'])
    expect(apart.findIndex((s) => s.key === 'mask')).toBeLessThan(apart.findIndex((s) => s.key === 'prime-1'))
    expect(keys(facts())).not.toContain('mask')
    const cloth = planSteps(facts({ joints: [joint('body', 'arm', { surface: 'cloth' })] }))
    expect(cloth.find((s) => s.key.startsWith('fill:'))!.lines[0]).toContain('press cloth')
    // Without a printer it comes first all the same, and says that its time is not known.
    const elsewhere = planSteps(facts({ prints: [{ key: 'print', printer: null, plate: null, seconds: 0 }] }))
    expect(elsewhere[0]).toMatchObject({ key: 'print', phase: 'Print', title: 'Print it', waiting: 0 })
    expect(elsewhere[0]!.why).toContain('No printer is chosen')
    expect(elsewhere.find((s) => s.key === 'wash')!.after).toEqual(['print'])
    const printing = planSteps(facts({ prints: [{ key: 'print:1', printer: 'Gannet', plate: 1, seconds: 9000 }] }))
    expect(printing[0]).toMatchObject({ phase: 'Print', needs: 'Gannet', holds: true, waiting: 9000 })
    expect(printing[1]!.after).toEqual(['print:1'])
    sound(printing)
  })
  it('says what another school would cost before it is taken, and keeps what is done', () => {
    const done = new Set(['strip', 'wash', 'cure', 'glue:body+arm'])
    const now = planSteps(facts()),
      then = planSteps(facts(school({ gluing: 'subAssemblies', sanding: 'dry' })))
    const d = comparePlans(now, then, done, 20)
    expect(d.kept).toBe(4)
    expect(d.lost).toEqual([])
    expect(d.removed.every((t) => say(t).includes('the seam of '))).toBe(true)
    const sum = (list: PlanStep[]): number => list.filter((s) => !done.has(s.key)).reduce((a, s) => a + s.handsOn, 0)
    expect(d.then.handsOn - d.now.handsOn).toBeCloseTo(sum(then) - sum(now), 6)
    expect(d.now.money).toBeCloseTo(((d.now.handsOn + d.now.rework) / 3600) * 20, 6)
    expect(d.then.waiting).toBeLessThan(d.now.waiting)
    // What is used up costs as well.
    const used = now.filter((s) => !done.has(s.key)).flatMap((s) => s.uses)
    const priced = comparePlans(now, then, done, 20, (w) => (w.startsWith('grit:') ? 2 : 0))
    const sheets = used.filter((u) => u.what.startsWith('grit:')).reduce((s, u) => s + u.amount, 0)
    expect(priced.now.money - d.now.money).toBeCloseTo(2 * sheets, 6)
    const late = comparePlans(planSteps(facts()), planSteps(facts(school({ strip: 'afterCure' }))), new Set(), 20)
    expect(late.then.rework).toBeGreaterThan(late.now.rework)
  })
})
const shares = (a: string, b: string): boolean => {
  const ids = new Set(a.slice(5).split('+'))
  return b
    .slice(5)
    .split('+')
    .some((id) => ids.has(id))
}
function reaches(steps: readonly PlanStep[], from: string, to: string): boolean {
  const by = new Map(steps.map((s) => [s.key, s]))
  const open = [from],
    seen = new Set<string>()
  for (let k = open.pop(); k; k = open.pop()) {
    if (k === to) return true
    if (seen.has(k)) continue
    seen.add(k)
    open.push(...by.get(k)!.after)
  }
  return false
}
