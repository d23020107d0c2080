import { BENCH } from '../../defaults/bench'
import { adhesiveFor, type AdhesiveAdvice } from '../materials/adhesive'
import { potLife } from '../materials/batches'
import { expected, remedies } from '../facts/dryFit'
import { fitOrder, gluingFor, type GluingAdvice } from '../facts/gluing'
import { type PlanBuilder } from './builder'
import type { PlanFacts, PlanJoint } from './types'
import { fixed } from '../../words/format'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** s that an adhesive may take to cure where the piece is due soon; judgement */
const HURRY = 2 * 3600

/** mm of wire for a joint that nothing hangs on, where all are pinned */
const LEAST_WIRE = 1
/** N·mm that a glued joint without a pin is knocked with in handling */
const KNOCK = 30

export interface JoinedPlan {
  joint: PlanJoint
  gluing: GluingAdvice
  /** mm of wire; null: glue alone */
  pin: { wire: number; depth: number } | null
  adhesive: AdhesiveAdvice
}

/** What is decided of each joint, in the order in which they are gone through. */
export function joinPlan(f: PlanFacts): JoinedPlan[] {
  const core = [...f.parts].sort((a, b) => b.area - a.area)[0]?.id ?? ''
  const used = f.adhesives.filter((a) => !f.without.includes(a.id))
  const order = fitOrder(
    f.joints.map((j) => ({ ...j, joint: j, a: j.a.id, b: j.b.id })),
    core,
  )
  return order.map(({ joint }) => {
    const pin = pinOf(joint, f.schools.joints)
    const moment = joint.load?.pin.moment ?? KNOCK
    return {
      joint,
      gluing: gluingFor(
        { key: joint.key, a: joint.a.name, b: joint.b.name, seam: joint.fit.seam, access: joint.access },
        f.schools.gluing,
      ),
      pin,
      adhesive: adhesiveFor(
        {
          // Wire takes the bending; what is left for the glue is to keep it from turning and sliding.
          moment: pin ? 0 : moment,
          area: joint.fit.area,
          gap: Math.max(0, joint.fit.p95),
          mixed: joint.mixed,
          hurry: f.hurried ? HURRY : Infinity,
        },
        f.room,
        used.length > 0 ? used : f.adhesives,
      ),
    }
  })
}

function pinOf(j: PlanJoint, school: PlanFacts['schools']['joints']): JoinedPlan['pin'] {
  if (school === 'glueOnly') return null
  const p = j.load?.pin
  if (p && p.moment >= 60) return { wire: p.wire, depth: p.depth }
  return school === 'pinAll' ? { wire: LEAST_WIRE, depth: 4 * LEAST_WIRE } : null
}

/** s to try a pair, and to open it where it binds or was found too tight */
function fitting(j: PlanJoint): number {
  const tight = j.tried ? (j.tried.tight ?? 0) > 0 : expected(j.fit).word === 'binds'
  return tight ? BENCH.dryFit.tightPair : BENCH.dryFit.pair
}

const pairName = (j: PlanJoint): Said => message('steps.join.pair', { name: j.a.name, name2: j.b.name })

/** Dry fit, pins, and the joints that are glued before paint. */
export function joinSteps(b: PlanBuilder, plan: readonly JoinedPlan[]): void {
  if (plan.length === 0) return
  b.add({
    key: 'dryfit',
    phase: 'Fit',
    title: message('steps.join.dryFitThePairPairs', { length: plan.length }),
    why: message('steps.join.nothingIsGluedBeforeEverything'),
    handsOn: plan.reduce((s, p) => s + fitting(p.joint), 0),
    needs: 'bench',
    tools: [message('steps.join.needleFiles'), message('steps.join.scalpel')],
    cautions: ['blade', 'dust'],
    lines: plan.map(({ joint }) =>
      message('steps.join.pairAndWhat', {
        pairName: pairName(joint),
        sentence:
          (joint.tried && remedies(joint.tried, joint.fit)[0]) ??
          (joint.tried ? message('steps.join.itFits') : expected(joint.fit).sentence),
      }),
    ),
  })
  const pinned = plan.filter((p) => p.pin)
  if (pinned.length > 0) {
    const wires = [...new Set(pinned.map((p) => p.pin!.wire))].sort((x, y) => x - y)
    const length = (w: number): number =>
      pinned.filter((p) => p.pin!.wire === w).reduce((s, p) => s + 2 * p.pin!.depth, 0)
    b.add({
      key: 'pin',
      phase: 'Fit',
      title: message('steps.join.drillAndPinAJoint', { length: pinned.length }),
      why: message('steps.join.glueHoldsInShearAnd'),
      handsOn: pinned.reduce((s, p) => s + (p.joint.fixed ? BENCH.pin.printedHole : BENCH.pin.drilled), 0),
      needs: 'bench',
      cautions: ['blade', 'dust'],
      materials: wires.map((w) => message('steps.join.brassWireMmMmOf', { w, length: length(w) })),
      uses: wires.map((w) => ({ what: `wire:${w}`, amount: length(w) })),
      tools: wires.map((w) => message('steps.join.drillMm', { w: fixed(w + 0.1, 1) })),
      lines: pinned.map(({ joint, pin }) =>
        message('steps.join.mmWireMmIntoEach', {
          pairName: pairName(joint),
          wire: pin!.wire,
          depth: pin!.depth,
          fixed: Boolean(joint.fixed),
          load: Boolean(joint.load),
          mass: fixed(joint.load?.mass ?? 0, 0),
        }),
      ),
      risks: [
        {
          what: message('steps.join.aDrillThatWanders'),
          chance: 0.06 * pinned.filter((p) => !p.joint.fixed).length,
          costs: BENCH.pin.wandered,
        },
      ],
    })
  }
  const ready = b.last
  const glued = plan.filter((p) => p.gluing.when === 'before')
  glueEach(b, glued, 'Fit', ready)
}

/** Faces that are glued after paint: paint does not hold glue, so they are covered before the first coat. */
export function maskSteps(b: PlanBuilder, plan: readonly JoinedPlan[]): void {
  const apart = plan.filter((p) => p.gluing.when === 'apart' && p.gluing.mask)
  if (apart.length === 0) return
  const area = apart.reduce((s, p) => s + 2 * p.joint.fit.area, 0)
  b.add({
    key: 'mask',
    phase: 'Prime',
    title: message('steps.join.maskGlueFaces', { length: 2 * apart.length }),
    why: message('steps.join.theyAreJoinedAfterPainting'),
    handsOn: BENCH.mask.setUp + BENCH.mask.joint * apart.length + (60 * area) / BENCH.mask.area,
    needs: 'bench',
    materials: [message('steps.join.maskingTapeOrFluid')],
    setup: { key: 'mask glue faces', seconds: BENCH.mask.setUp },
    tools: [message('steps.join.scalpel')],
    cautions: ['blade'],
    lines: apart.map(({ joint }) =>
      message('steps.join.cmOnEach', { pairName: pairName(joint), joint: fixed(joint.fit.area / 100, 1) }),
    ),
  })
}

/** The joints that were painted apart, joined at last. */
export function lateJoinSteps(b: PlanBuilder, plan: readonly JoinedPlan[]): void {
  glueEach(
    b,
    plan.filter((p) => p.gluing.when === 'apart'),
    'Finish',
    b.last,
  )
}

/** Each joint by itself: its glue must let go before another joint of the same part is moved. */
function glueEach(
  b: PlanBuilder,
  plan: readonly JoinedPlan[],
  phase: 'Fit' | 'Finish',
  ready: readonly string[],
): void {
  if (plan.length === 0) return
  const holds = new Map<string, string>()
  for (const { joint, gluing, pin, adhesive } of plan) {
    const moment = joint.load?.pin.moment ?? 0
    const before = [joint.a.id, joint.b.id].flatMap((id) => holds.get(id) ?? [])
    const key = b.add({
      key: `glue:${joint.key}`,
      phase,
      title: message('steps.join.gluePair', {
        name: adhesive.material.name,
        name2: joint.a.name,
        name3: joint.b.name,
      }),
      why: message('steps.join.gluingAndGlue', { why: gluing.why, why2: adhesive.why }),
      handsOn: BENCH.glue.joint + (adhesive.material.mixed ? BENCH.mix : 0) + joint.fit.area / BENCH.glue.area,
      waiting: adhesive.waiting,
      window: Number.isFinite(potLife(adhesive.material, b.facts.room))
        ? potLife(adhesive.material, b.facts.room)
        : null,
      needs: 'bench',
      cautions: [adhesive.material.caution],
      materials: [
        message('steps.join.ml', {
          name: adhesive.material.name,
          n: fixed(Math.max(0.1, (joint.fit.area * 0.15) / 1000), 1),
        }),
      ],
      uses: [{ what: `adhesive:${adhesive.material.id}`, amount: Math.max(0.1, (joint.fit.area * 0.15) / 1000) }],
      setup: adhesive.material.mixed ? { key: `mix ${adhesive.material.id}`, seconds: BENCH.mix } : null,
      tools: phase === 'Finish' ? [message('steps.join.scalpelToBareTheMasked')] : [],
      after: [...new Set([...ready, ...before])],
      risks: [
        {
          what: message('steps.join.aJointThatBreaksIn'),
          chance: pin ? 0.01 : Math.min(0.5, 0.03 + 0.3 * Math.min(1, adhesive.utilisation) * (moment > 60 ? 1 : 0.3)),
          costs: BENCH.glue.failed,
        },
      ],
    })
    holds.set(joint.a.id, key).set(joint.b.id, key)
  }
  b.last = [...new Set(holds.values())]
}
