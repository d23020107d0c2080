import { BENCH } from '../../defaults/bench'
import { GRAIN, ladder, sandingTime, type Surface } from '../materials/abrasives'
import { potLife } from '../materials/batches'
import { fillSeam, FILL_DEPTH, type Fill } from '../materials/filling'
import { capital, DM2, type PlanBuilder } from './builder'
import type { JoinedPlan } from './join'
import type { PlanFacts, PlanJoint } from './types'

/** s to trim and level one scar, on plain skin and on focal */
const TRIM = 11,
  TRIM_FOCAL = 26
/** Share of a skin that a hand with paper does not get into, where it was not measured. */
const USUAL_TIGHT = 0.15

/** What a sheet of paper lasts for: scars trimmed, dm² sanded. */
const SCARS_A_SHEET = 150,
  DM2_A_SHEET = 5

const TEXTURE: Readonly<Record<Surface, string>> = {
  skin: 'stipple sanded spots back with a stiff brush and thinned filler',
  cloth: 'press cloth or a toothbrush into it while soft',
  armour: 'smooth with a wet finger, then file flat',
  clear: 'only clear resin: any putty shows',
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
      title: `Cast ${cast.length > 1 ? 'the cavities' : 'the cavity'} full`,
      why: `${ml.toFixed(0)} ml for weight and against warping. In layers: casting resin heats itself, and a hot wall softens.`,
      handsOn: BENCH.cast.setUp + ml * BENCH.cast.millilitre,
      wait: BENCH.cast.hardens,
      setting: 'reaction',
      needs: 'bench',
      cautions: ['casting'],
      materials: [`casting resin, ${ml.toFixed(0)} ml`, 'tape over the lower holes'],
      uses: [{ what: 'casting', amount: ml }],
      setup: { key: 'casting', seconds: BENCH.cast.setUp },
      tools: ['syringe or funnel'],
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
      title: `Close ${seen.length} drain ${seen.length > 1 ? 'holes' : 'hole'}`,
      why: `They are visible, and a closed cavity keeps dust and damp out.${left > 0 ? ` ${left} that nobody sees ${left > 1 ? 'stay' : 'stays'} open: the cavity may breathe.` : ''}`,
      handsOn: BENCH.plug.hole * seen.length,
      wait: BENCH.plug.cures,
      needs: 'bench',
      cautions: ['resin', 'uv'],
      materials: [`UV putty, ${ml.toFixed(2)} ml, or the printed plugs`],
      uses: [{ what: 'filler:uvPutty', amount: ml }],
      lines: seen.map((h) => `${h.part}: ${h.diameter.toFixed(1)} mm`),
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
    title: `${capital(f.material.name)}: the seam of ${a.name} and ${other.name}`,
    why: `${f.length.toFixed(0)} mm of it are open ${f.widest === null ? 'over 2 mm' : `up to ${f.widest} mm`}; ${f.layers > 1 ? `it sets ${f.material.deepest} mm at a time, so in ${f.layers} layers` : 'one layer does'}.`,
    handsOn: BENCH.seam.setUp + f.handsOn,
    waiting: f.waiting,
    window: Number.isFinite(potLife(f.material, b.facts.room)) ? potLife(f.material, b.facts.room) : null,
    needs: 'bench',
    cautions: f.material.working === null ? [f.material.caution, 'uv'] : [f.material.caution],
    materials: [
      f.batches.length > 1
        ? `${f.material.name}, ${ml.toFixed(1)} ml in ${f.batches.length} mixes of ${f.batches[0]!.ml.toFixed(1)} ml: each is used up before it sets`
        : `${f.material.name}, ${Math.max(0.1, ml).toFixed(1)} ml`,
    ],
    uses: [{ what: `filler:${f.material.id}`, amount: ml }],
    setup: f.material.mixed ? { key: `mix ${f.material.name}`, seconds: BENCH.mix } : null,
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
    title: `Trim ${count} support marks, fill the pits`,
    why: `About ${Math.round(100 * torn)} of 100 tips tear a pit: about ${pits} are expected.`,
    handsOn:
      b.care * scars.reduce((s, x) => s + (x.count - x.focal) * TRIM + x.focal * TRIM_FOCAL, 0) +
      pits * BENCH.scars.pit,
    wait: BENCH.scars.cures,
    needs: 'bench',
    cautions: ['resin', 'uv', 'dust'],
    materials: [`printing resin, brushed in, ${Math.max(0.1, ml * 1.3).toFixed(1)} ml`, 'grit 180 on a stick'],
    uses: [
      { what: 'filler:resin', amount: ml * 1.3 },
      { what: 'grit:180', amount: count / SCARS_A_SHEET },
    ],
    tools: ['UV torch', 'sanding stick'],
    lines: scars.map((s) => `${s.part}: ${s.count} of ${s.tip} mm${s.focal > 0 ? `, ${s.focal} on focal skin` : ''}`),
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
      title: `Sand ${s.names.join(', ')} ${wet ? 'wet' : 'dry'}: ${grits.join(', ')}`,
      why: `Layers leave steps up to ${Math.round(cusp)} µm; grain of ${Math.round(GRAIN[grits[0]!]!)} µm removes them from ${(s.area / DM2).toFixed(1)} dm²${s.surface === 'cloth' ? '; stop while the texture is still there' : ''}.`,
      handsOn: b.care * sandingTime(grits, s.area, cusp, tight, wet),
      wait: wet ? BENCH.sand.dries : 0,
      setting: 'evaporation',
      needs: 'bench',
      cautions: ['dust'],
      materials: grits.map((g) => `grit ${g}`),
      uses: grits.map((g) => ({ what: `grit:${g}`, amount: s.area / DM2 / DM2_A_SHEET })),
      lines: [TEXTURE[s.surface]],
      risks: wet
        ? [{ what: 'damp under the primer', chance: 0.03, costs: BENCH.sand.damp }]
        : [{ what: 'texture sanded away, dust in the primer', chance: 0.08, costs: BENCH.sand.lostTexture }],
    })
    ends.push(key)
  }
  if (ends.length > 0) b.last = ends
}
