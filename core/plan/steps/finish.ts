import { BENCH } from '../../defaults/bench'
import { effectPlan, EFFECTS } from '../materials/effects'
import { varnishFor, varnishPasses, VARNISH_DRIES, VARNISH_LANDS } from '../facts/varnish'
import { DM2, type PlanBuilder } from './builder'
import type { PlanFacts } from './types'
import { fixed } from '../../words/format'
import { message } from '../../words/message'

/** Varnish, pass by pass; before there is a scheme one step stands for all of it. */
export function finishSteps(b: PlanBuilder): void {
  const { finishes } = b.facts
  effectSteps(b, 'before')
  if (finishes.length > 0) byRegion(b)
  else oneStep(b)
  effectSteps(b, 'after')
}

function oneStep(b: PlanBuilder): void {
  const { schools, varnish, parts } = b.facts
  const area = parts.reduce((s, p) => s + p.area, 0)
  const matt = schools.finalCoat === 'oneMatt'
  b.add({
    key: 'varnish',
    phase: 'Finish',
    title: matt
      ? message('steps.finish.mattCoatOverAllThen')
      : message('steps.finish.varnishEachRegionItsOwn', { varnish }),
    why: matt
      ? message('steps.finish.handlingRubsPaintOffMetallics')
      : message('steps.finish.handlingRubsPaintOffEach'),
    handsOn: (matt ? BENCH.varnish.matt : BENCH.varnish.byRegion) + (BENCH.varnish.dm2 * area) / DM2,
    wait: BENCH.varnish.cures,
    setting: 'evaporation',
    needs: 'airbrush',
    cautions: ['spray'],
    materials: [message('steps.finish.varnish', { varnish })],
    uses: [{ what: `varnish:${varnish}`, amount: varnishFor(area, VARNISH_LANDS) }],
    setup: { key: `spray varnish, ${varnish}`, seconds: BENCH.varnish.spraySetUp },
    risks: [
      { what: message('steps.finish.metallicsOrGlossDulled'), chance: matt ? 0.1 : 0.03, costs: BENCH.varnish.dulled },
    ],
  })
}
function byRegion(b: PlanBuilder): void {
  const { schools, varnish, finishes } = b.facts
  const { seal, passes, bare } = varnishPasses(finishes, schools.finalCoat, varnish, b.facts.orderCosts)
  if (seal.length > 0)
    b.add({
      key: 'seal-powder',
      phase: 'Finish',
      title: message('steps.finish.sealThePowderOn', { regions: seal }),
      why: message('steps.finish.aFingerWipesPowderOff'),
      handsOn: BENCH.varnish.powder,
      wait: VARNISH_DRIES,
      setting: 'evaporation',
      needs: 'airbrush',
      cautions: ['spray'],
      materials: [message('steps.finish.varnishMattAsAMist')],
      uses: [{ what: 'varnish:matt', amount: varnishFor(areaNamed(finishes, seal), VARNISH_LANDS) / 2 }],
      setup: { key: 'spray varnish, matt', seconds: BENCH.varnish.spraySetUp },
    })
  passes.forEach((p, i) => {
    const sprayed = p.tool === 'airbrush'
    const last = i === passes.length - 1
    b.add({
      key: p.key,
      phase: 'Finish',
      title: message('steps.finish.varnishByBrush', { sheen: p.sheen, regions: p.regions, sprayed }),
      why: p.why,
      lines: [
        ...(p.masks.length > 0 ? [message('steps.finish.maskMmOfEdge', { masks: p.masks, mm: Math.round(p.mm) })] : []),
        ...(last && bare.length > 0 ? [message('steps.finish.staysUnvarnishedDoNotTouch', { regions: bare })] : []),
      ],
      handsOn:
        BENCH.varnish.pass +
        p.masking +
        (b.care * (sprayed ? BENCH.varnish.sprayedDm2 : BENCH.varnish.brushedDm2) * p.area) / DM2,
      wait: last ? BENCH.varnish.cures : VARNISH_DRIES,
      setting: 'evaporation',
      needs: sprayed ? 'airbrush' : 'bench',
      cautions: sprayed ? ['spray'] : ['fumes'],
      materials: [
        message('steps.finish.varnishMl', {
          sheen: p.sheen,
          varnishFor: fixed(varnishFor(p.area, sprayed ? VARNISH_LANDS : 0.9), 1),
        }),
      ],
      uses: [{ what: `varnish:${p.sheen}`, amount: varnishFor(p.area, sprayed ? VARNISH_LANDS : 0.9) }],
      setup: {
        key: `${sprayed ? 'spray' : 'brush'} varnish, ${p.sheen}`,
        seconds: sprayed ? BENCH.varnish.spraySetUp : BENCH.varnish.brushSetUp,
      },
      risks:
        p.masks.length > 0
          ? [{ what: message('steps.finish.varnishCreepsUnderAMask'), chance: 0.04, costs: BENCH.varnish.crept }]
          : [],
    })
  })
}
const areaNamed = (list: PlanFacts['finishes'], names: readonly string[]): number =>
  list.reduce((s, r) => s + (names.includes(r.name) ? r.area : 0), 0)

/** Ground, snow, water: layer by layer, each dry or hard before the next. */
function effectSteps(b: PlanBuilder, when: 'before' | 'after'): void {
  b.facts.effects.forEach((e) => {
    const way = EFFECTS[e.kind]
    if (way.when !== when) return
    const { layers, amount, handsOn, wait } = effectPlan(e)
    const each = message('steps.finish.amount', {
      amount: fixed(amount / layers, way.unit === 'g' ? 2 : 1),
      unit: way.unit,
    })
    for (let k = 1; k <= layers; k++)
      b.add({
        key: `effect-${e.id}-${k}`,
        phase: 'Finish',
        title: message('steps.finish.onLayerOf', {
          name: way.name,
          region: e.region,
          layers: layers > 1,
          k,
          layers2: layers,
        }),
        why: way.why,
        handsOn: (b.care * handsOn) / layers,
        wait,
        setting: way.setting,
        needs: 'bench',
        cautions: [...way.cautions],
        materials: [message('steps.finish.stuffAndAmount', { stuff: way.stuff, each })],
        uses: [{ what: `effect:${e.kind}`, amount: amount / layers }],
      })
  })
}
