import { BENCH } from '../../defaults/bench'
import { DM2, MIN, type PlanBuilder } from './builder'

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
      title: 'Remove the supports',
      why: `${tips} tips hold it${cured ? '; cured tips break hard and leave deeper scars' : '; green tips come off easily in warm water'}.`,
      handsOn: BENCH.strip.setUp + tips * (cured ? BENCH.strip.curedTip : BENCH.strip.tip),
      needs: 'bench',
      cautions: ['resin', 'blade'],
      materials: cured ? [] : ['warm water'],
      tools: ['flush cutters'],
      risks: [
        {
          what: 'pits where tips tear',
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
    title: hollow.length > 0 ? 'Wash in two baths and flush every cavity' : 'Wash in two baths',
    why:
      hollow.length > 0
        ? `${hollow.map((p) => p.name).join(', ')} ${hollow.length > 1 ? 'are' : 'is'} hollow: resin left inside leaks or splits the wall later.`
        : 'Uncured film left on the surface turns tacky and milky under primer.',
    handsOn: BENCH.wash.setUp + (BENCH.wash.dm2 * area) / DM2 + BENCH.wash.hole * holes,
    wait: BENCH.wash.dries,
    setting: 'evaporation',
    needs: 'bench',
    cautions: ['resin', 'solvent'],
    materials: ['wash liquid, dirty bath then clean'],
    tools: hollow.length > 0 ? ['syringe'] : [],
    setup: { key: 'wash', seconds: BENCH.wash.setUp },
  })
  if (schools.strip === 'afterWash') strip()
  const clear = parts.some((p) => p.clear)
  const cure = Math.min(10, Math.max(2, 2 + tallest / 40))
  b.add({
    key: 'cure',
    phase: 'Clean',
    title: 'Cure, turning it once',
    why: `${cure.toFixed(0)} minutes for ${tallest.toFixed(0)} mm${clear ? '; clear parts at most 2, or they turn yellow' : ''}${hollow.length > 0 ? '; light the inside through the holes' : ''}.`,
    handsOn: BENCH.cure.handsOn,
    wait: cure * MIN,
    needs: 'curing lamp',
    cautions: ['uv', 'resin'],
    tools: ['curing lamp'],
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
    title: `Break the supports and the brim off ${parts.length === 1 ? parts[0]!.name : `${parts.length} filament parts`}`,
    why: 'Remove them cold. Cut strings and layer seams, do not tear them.',
    handsOn: BENCH.strip.filamentPart * parts.length + (BENCH.strip.filamentDm2 * area) / DM2,
    needs: 'bench',
    cautions: ['blade'],
    tools: ['flush cutters', 'scalpel'],
    lines: parts.map((p) => p.name),
  })
  // Nothing that the resin parts need waits for it.
  if (b.facts.parts.some((p) => p.process === 'resin')) b.last = ready
}
