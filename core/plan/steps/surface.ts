import { BENCH } from '../../defaults/bench'
import { GRAIN, ladder, sandingTime, type Surface } from '../materials/abrasives'
import { potLife } from '../materials/batches'
import { fillSeam, FILL_DEPTH, type Fill } from '../materials/filling'
import { DM2, type PlanBuilder } from './builder'
import type { JoinedPlan } from './join'
import type { PlanFacts, PlanJoint } from './types'
import { fixed } from '../../words/format'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** s to trim and level one scar, on plain skin and on focal */
const TRIM = 11,
  TRIM_FOCAL = 26
/** Share of a skin that a hand with paper does not get into, where it was not measured. */
const USUAL_TIGHT = 0.15

/** What a sheet of paper lasts for: scars trimmed, dm² sanded. */
const SCARS_A_SHEET = 150,
  DM2_A_SHEET = 5

const TEXTURE: Readonly<Record<Surface, Said>> = {
  skin: message('steps.surface.stippleSandedSpotsBackWith'),
  cloth: message('steps.surface.pressClothOrAToothbrush'),
  armour: message('steps.surface.smoothWithAWetFinger'),
  clear: message('steps.surface.onlyClearResinAnyPutty'),
}

/** Cavities cast, holes closed, seams and scars filled. */
export function fillSteps(b: PlanBuilder, plan: readonly JoinedPlan[]): void {
  const { parts, room } = b.facts
  const cast = parts.filter((p) => (p.cast ?? 0) > 0)
  if (cast.length > 0) {
    const ml = cast.reduce((s, p) => s + p.cast!, 0)
    b.add({
      key: 'cast',
      phase: 'Fit',
      title: message('steps.surface.castTheCavitiesTheCavity', { n: cast.length }),
      why: message('steps.surface.mlForWeightAndAgainst', { ml: fixed(ml, 0) }),
      handsOn: BENCH.cast.setUp + ml * BENCH.cast.millilitre,
      wait: BENCH.cast.hardens,
      setting: 'reaction',
      needs: 'bench',
      cautions: ['casting'],
      materials: [
        message('steps.surface.castingResinMl', { ml: fixed(ml, 0) }),
        message('steps.surface.tapeOverTheLowerHoles'),
      ],
      uses: [{ what: 'casting', amount: ml }],
      setup: { key: 'casting', seconds: BENCH.cast.setUp },
      tools: [message('steps.surface.syringeOrFunnel')],
    })
  }
  const holes = parts.flatMap((p) => p.holes.map((h) => ({ ...h, part: p.name })))
  const seen = holes.filter((h) => !h.hidden)
  if (seen.length > 0) {
    const left = holes.length - seen.length
    const ml = (seen.reduce((s, h) => s + (Math.PI / 4) * h.diameter ** 2 * FILL_DEPTH, 0) * 1.3) / 1000
    b.add({
      key: 'plug',
      phase: 'Fit',
      title: message('steps.surface.closeDrainHolesHole', { n: seen.length }),
      why: message('steps.surface.theyAreVisibleAndA', { left }),
      handsOn: BENCH.plug.hole * seen.length,
      wait: BENCH.plug.cures,
      needs: 'bench',
      cautions: ['resin', 'uv'],
      materials: [message('steps.surface.uvPuttyMlOrThe', { ml: fixed(ml, 2) })],
      uses: [{ what: 'filler:uvPutty', amount: ml }],
      lines: seen.map((h) => message('steps.surface.mm', { part: h.part, diameter: fixed(h.diameter, 1) })),
    })
  }
  // What is not used here is taken only where nothing else bridges the gap.
  const used = b.facts.fillers.filter((f) => !b.facts.without.includes(f.id))
  // What sets in one seam keeps nobody from the next.
  const ready = b.last,
    ends: string[] = []
  for (const { joint, gluing } of plan) {
    if (gluing.when !== 'before' || joint.fit.seam < 1) continue
    for (const fill of fillSeam(joint.fit.seamGaps, room, used, b.facts.fillers))
      ends.push(seamStep(b, joint, fill, ready))
  }
  const scars = scarStep(b, ready)
  if (scars) ends.push(scars)
  if (ends.length > 0) b.last = ends
}

function seamStep(b: PlanBuilder, { key, a, b: other, surface }: PlanJoint, f: Fill, after: string[]): string {
  const ml = f.batches.reduce((s, x) => s + x.ml, 0)
  const most = [...b.facts.surfaces].sort((x, y) => y.area - x.area)[0]?.surface ?? 'skin'
  return b.add({
    key: `fill:${key}:${f.material.id}`,
    phase: 'Fit',
    title: message('steps.surface.theSeamOfAnd', { name: f.material.name, name2: a.name, name3: other.name }),
    why: message('steps.surface.mmOfItAreOpen', {
      length: fixed(f.length, 0),
      f: f.widest === null,
      widest: f.widest,
      f2: f.layers > 1,
      deepest: f.material.deepest,
      layers: f.layers,
    }),
    handsOn: BENCH.seam.setUp + f.handsOn,
    waiting: f.waiting,
    window: Number.isFinite(potLife(f.material, b.facts.room)) ? potLife(f.material, b.facts.room) : null,
    needs: 'bench',
    cautions: f.material.working === null ? [f.material.caution, 'uv'] : [f.material.caution],
    materials: [
      f.batches.length > 1
        ? message('steps.surface.mlInMixesOfMl', {
            name: f.material.name,
            ml: fixed(ml, 1),
            length: f.batches.length,
            ml2: fixed(f.batches[0]!.ml, 1),
          })
        : message('steps.surface.ml', { name: f.material.name, n: fixed(Math.max(0.1, ml), 1) }),
    ],
    uses: [{ what: `filler:${f.material.id}`, amount: ml }],
    setup: f.material.mixed ? { key: `mix ${f.material.id}`, seconds: BENCH.mix } : null,
    lines: [TEXTURE[surface ?? most]],
    after,
  })
}

function scarStep(b: PlanBuilder, after: string[]): string | null {
  const scars = b.facts.parts.flatMap((p) => p.scars.map((s) => ({ ...s, part: p.name })))
  const count = scars.reduce((s, x) => s + x.count, 0)
  if (count === 0) return null
  const torn = b.facts.schools.strip === 'afterCure' ? BENCH.strip.curedTorn : BENCH.strip.torn
  const pits = Math.ceil(scars.reduce((s, x) => s + x.count * torn, 0))
  const ml = scars.reduce((s, x) => s + x.count * torn * ((Math.PI / 6) * x.tip ** 3), 0) / 1000
  return b.add({
    key: 'scars',
    after,
    phase: 'Fit',
    title: message('steps.surface.trimSupportMarksFillThe', { count }),
    why: message('steps.surface.aboutOf100TipsTear', { torn: Math.round(100 * torn), pits }),
    handsOn:
      b.care * scars.reduce((s, x) => s + (x.count - x.focal) * TRIM + x.focal * TRIM_FOCAL, 0) +
      pits * BENCH.scars.pit,
    wait: BENCH.scars.cures,
    needs: 'bench',
    cautions: ['resin', 'uv', 'dust'],
    materials: [
      message('steps.surface.printingResinBrushedInMl', { n: fixed(Math.max(0.1, ml * 1.3), 1) }),
      message('steps.surface.grit180OnAStick'),
    ],
    uses: [
      { what: 'filler:resin', amount: ml * 1.3 },
      { what: 'grit:180', amount: count / SCARS_A_SHEET },
    ],
    tools: [message('steps.surface.uvTorch'), message('steps.surface.sandingStick')],
    lines: scars.map((s) =>
      message('steps.surface.ofMmOnFocalSkin', {
        part: s.part,
        count: s.count,
        tip: s.tip,
        s: s.focal > 0,
        focal: s.focal,
      }),
    ),
  })
}

/** µm of steps to level, which nine tenths of the stepped skin stay under, and the share of it that is hard to get into. */
export function stepOf(f: PlanFacts): { cusp: number; tight: number } {
  const measured = f.parts.filter((p) => p.cusps)
  const weight = measured.reduce((s, p) => s + p.cusps!.stepped, 0)
  // Unmeasured, every direction is as likely: nine tenths of a sphere's skin stay under nine tenths of a layer.
  const cusp =
    weight > 0 ? measured.reduce((s, p) => s + p.cusps!.p90 * p.cusps!.stepped, 0) / weight : 900 * f.layerHeight
  const reached = f.parts.filter((p) => p.access),
    area = reached.reduce((s, p) => s + p.access!.area, 0)
  const tight = area > 0 ? 1 - reached.reduce((s, p) => s + p.access!.airbrush, 0) / area : USUAL_TIGHT
  return { cusp, tight }
}

/** A ladder of grits for each kind of surface; wet sanding is dried before primer. */
export function sandSteps(b: PlanBuilder): void {
  const { surfaces, finish, schools } = b.facts
  const wet = schools.sanding === 'wet'
  const { cusp, tight } = stepOf(b.facts)
  // One surface dries while the next is sanded.
  const ready = b.last,
    ends: string[] = []
  for (const s of surfaces) {
    const grits = ladder(cusp, s.surface, finish)
    const key = b.add({
      after: ready,
      key: `sand:${s.surface}`,
      phase: 'Fit',
      title: message('steps.surface.sandWetDry', {
        names: s.names.join(', '),
        wet,
        grits: grits.join(', '),
      }),
      why: message('steps.surface.layersLeaveStepsUpTo', {
        cusp: Math.round(cusp),
        n: Math.round(GRAIN[grits[0]!]!),
        s: fixed(s.area / DM2, 1),
        s2: s.surface === 'cloth',
      }),
      handsOn: b.care * sandingTime(grits, s.area, cusp, tight, wet),
      wait: wet ? BENCH.sand.dries : 0,
      setting: 'evaporation',
      needs: 'bench',
      cautions: ['dust'],
      materials: grits.map((g) => message('steps.surface.grit', { g })),
      uses: grits.map((g) => ({ what: `grit:${g}`, amount: s.area / DM2 / DM2_A_SHEET })),
      lines: [TEXTURE[s.surface]],
      risks: wet
        ? [{ what: message('steps.surface.dampUnderThePrimer'), chance: 0.03, costs: BENCH.sand.damp }]
        : [{ what: message('steps.surface.textureSandedAwayDustIn'), chance: 0.08, costs: BENCH.sand.lostTexture }],
    })
    ends.push(key)
  }
  if (ends.length > 0) b.last = ends
}
