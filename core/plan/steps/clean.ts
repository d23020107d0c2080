import { BENCH } from '../../defaults/bench'
import { DM2, MIN, type PlanBuilder } from './builder'
import { fixed } from '../../words/format'
import { message } from '../../words/message'

/** Off the plate: supports, baths, light. The order is the workshop's school. */
export function cleanSteps(b: PlanBuilder): void {
  const { schools } = b.facts
  layered(b)
  const parts = b.facts.parts.filter((p) => p.process === 'resin')
  if (parts.length === 0) return
  const tips = parts.reduce((s, p) => s + p.scars.reduce((n, c) => n + c.count, 0), 0)
  const focal = parts.reduce((s, p) => s + p.scars.reduce((n, c) => n + c.focal, 0), 0)
  const area = parts.reduce((s, p) => s + p.area, 0)
  const hollow = parts.filter((p) => p.hollow),
    holes = hollow.reduce((s, p) => s + p.holes.length, 0)
  const tallest = Math.max(0, ...parts.map((p) => p.height))
  const strip = (): void => {
    if (tips === 0) return
    const cured = schools.strip === 'afterCure'
    b.add({
      key: 'strip',
      phase: 'Clean',
      title: message('steps.clean.removeTheSupports'),
      why: message('steps.clean.tipsHoldItCuredTips', { tips, cured }),
      handsOn: BENCH.strip.setUp + tips * (cured ? BENCH.strip.curedTip : BENCH.strip.tip),
      needs: 'bench',
      cautions: ['resin', 'blade'],
      materials: cured ? [] : [message('steps.clean.warmWater')],
      tools: [message('steps.clean.flushCutters')],
      risks: [
        {
          what: message('steps.clean.pitsWhereTipsTear'),
          chance: cured ? BENCH.strip.curedTorn : BENCH.strip.torn,
          costs: BENCH.strip.pit * tips + BENCH.strip.focalPit * focal,
        },
      ],
    })
  }
  if (schools.strip === 'beforeWash') strip()
  b.add({
    key: 'wash',
    phase: 'Clean',
    title: hollow.length > 0 ? message('steps.clean.washInTwoBathsAnd') : message('steps.clean.washInTwoBaths'),
    why:
      hollow.length > 0
        ? message('steps.clean.areIsHollowResinLeft', {
            names: hollow.map((p) => p.name),
            n: hollow.length,
          })
        : message('steps.clean.uncuredFilmLeftOnThe'),
    handsOn: BENCH.wash.setUp + (BENCH.wash.dm2 * area) / DM2 + BENCH.wash.hole * holes,
    wait: BENCH.wash.dries,
    setting: 'evaporation',
    needs: 'bench',
    cautions: ['resin', 'solvent'],
    materials: [message('steps.clean.washLiquidDirtyBathThen')],
    tools: hollow.length > 0 ? [message('steps.clean.syringe')] : [],
    setup: { key: 'wash', seconds: BENCH.wash.setUp },
  })
  if (schools.strip === 'afterWash') strip()
  const clear = parts.some((p) => p.clear)
  const cure = Math.min(10, Math.max(2, 2 + tallest / 40))
  b.add({
    key: 'cure',
    phase: 'Clean',
    title: message('steps.clean.cureTurningItOnce'),
    why: message('steps.clean.minutesForMmClearParts', {
      cure: fixed(cure, 0),
      tallest: fixed(tallest, 0),
      clear,
      hollow: hollow.length > 0,
    }),
    handsOn: BENCH.cure.handsOn,
    wait: cure * MIN,
    needs: 'curing lamp',
    cautions: ['uv', 'resin'],
    tools: [message('steps.clean.curingLamp')],
    setup: { key: 'cure', seconds: BENCH.cure.setUp },
    holds: true,
  })
  if (schools.strip === 'afterCure') strip()
}

/** What came off a filament printer is neither washed nor cured. */
function layered(b: PlanBuilder): void {
  const parts = b.facts.parts.filter((p) => p.process === 'filament')
  if (parts.length === 0) return
  const ready = b.last
  const area = parts.reduce((s, p) => s + p.area, 0)
  b.add({
    key: 'strip-filament',
    phase: 'Clean',
    title: message('steps.clean.breakTheSupportsAndThe', {
      parts: parts.length === 1,
      name: parts[0]!.name,
      length: parts.length,
    }),
    why: message('steps.clean.removeThemColdCutStrings'),
    handsOn: BENCH.strip.filamentPart * parts.length + (BENCH.strip.filamentDm2 * area) / DM2,
    needs: 'bench',
    cautions: ['blade'],
    tools: [message('steps.clean.flushCutters'), message('steps.clean.scalpel')],
    lines: parts.map((p) => p.name),
  })
  // Nothing that the resin parts need waits for it.
  if (b.facts.parts.some((p) => p.process === 'resin')) b.last = ready
}
