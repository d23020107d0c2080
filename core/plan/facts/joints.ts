import type { Check, CheckReport } from '../../checks/registry'
import type { FitReport } from '../../fit/gap'
import { outboardOf } from '../../fit/load'
import { boxesNear, JOINT_REACH } from '../../fit/near'
import { pinFor } from '../../fit/pin'
import type { Surface } from '../materials/abrasives'
import type { PlanJoint } from '../steps/types'
import type { Tried } from './dryFit'
import { distance, reportsOf, type MadePart } from './madeParts'

/** What a part is made of. */
export interface PartMaterial {
  name: string
  /** g/ml */
  density: number
  /** share of its volume that is material */
  infill: number
}
/** Answers of checks, in order; null where one is not known yet. */
export type Ask = <K extends Check['kind']>(
  asked: { mesh: string; check: Extract<Check, { kind: K }> }[],
) => Promise<(CheckReport<K> | null)[]>

/** Where the facts come from that are not in the sculpts. */
export interface JointSources {
  ask: Ask
  /** name of the region painted on a part at some distances from a point, mm; null where nothing is painted there */
  skinRound(part: string, point: readonly number[], from: number, to: number): Promise<Surface | null>
  materialOf(part: string): PartMaterial
  /** what hands found when two were put together dry, by the joint's key */
  tried: Readonly<Record<string, Tried>>
}
/** mm beside a joint's edge whose regions say what its seam is in */
const BESIDE = 4

const radiusOf = (fit: { area: number }): number => Math.sqrt(fit.area / Math.PI)

/** The joints of a piece: which parts meet, how they fit, what hangs on each, what its seam runs through. */
export async function jointsOf(parts: readonly MadePart[], sources: JointSources): Promise<PlanJoint[]> {
  const solid = parts.filter((p) => p.measures && p.measures.area > 0)
  const near = solid.flatMap((a, i) =>
    solid.slice(i + 1).flatMap((b) => (boxesNear(a.measures!.box, b.measures!.box) ? [{ a, b }] : [])),
  )
  const fits = await sources.ask(
    near.map(({ a, b }) => ({ mesh: a.mesh, check: { kind: 'fit', other: b.mesh, reach: JOINT_REACH } })),
  )
  const pairs = near.flatMap((p, i) => (fits[i]?.touching ? [{ ...p, fit: fits[i] }] : []))
  const reached = await sources.ask(
    pairs.flatMap(({ a, b }) => [
      { mesh: a.mesh, check: { kind: 'access', others: [b.mesh] } },
      { mesh: b.mesh, check: { kind: 'access', others: [a.mesh] } },
    ]),
  )
  const loads = outboardOf(
    solid.map((p) => massOf(p, sources.materialOf(p.id))),
    pairs.map((p) => ({ a: p.a.id, b: p.b.id })),
  )
  const surfaces = await Promise.all(pairs.map(({ a, b, fit }) => surfaceRound([a.id, b.id], fit, sources)))
  return pairs.map(({ a, b, fit }, i): PlanJoint => {
    const load = loads[i],
      [one, two] = [reached[2 * i], reached[2 * i + 1]]
    const key = `${a.id}+${b.id}`
    return {
      key,
      a: { id: a.id, name: a.name },
      b: { id: b.id, name: b.name },
      fit,
      load: load ? { mass: load.mass, pin: pinFor(fit.centre, load.mass, load.centre, 'brass') } : null,
      fixed: [a, b].some((p) => isFixedAt(p, fit)),
      middle: { point: fit.centre, outward: fit.outward, radius: radiusOf(fit) },
      surface: surfaces[i]!,
      mixed: sources.materialOf(a.id).name !== sources.materialOf(b.id).name,
      tried: sources.tried[key] ?? null,
      access: one && two ? [one, two] : null,
    }
  })
}

/** Of what it weighs and where, as outboard loads take it; hollow parts weigh what their shell does. */
function massOf(p: MadePart, { density, infill }: PartMaterial) {
  const hollow = reportsOf(p.steps).find((r) => r.kind === 'hollow')
  const volume = Math.abs((hollow?.measures ?? p.measures!).volume)
  return {
    id: p.id,
    mass: (volume / 1000) * density * infill,
    centre: p.measures!.centre,
    lowest: p.measures!.box.min[2],
  }
}

/** A pin or a socket was modelled there: a key only keeps the parts from turning. */
const isFixedAt = (p: MadePart, fit: FitReport): boolean =>
  p.steps.some(
    ({ op }) =>
      op.kind === 'fix' &&
      op.fixings.some((f) => f.shape !== 'key' && distance(f.point, fit.centre) < radiusOf(fit) + 1),
  )

/** What the skin round a joint is, by what is painted there on either part. */
async function surfaceRound(
  parts: readonly string[],
  fit: FitReport,
  { skinRound }: JointSources,
): Promise<Surface | null> {
  const r = radiusOf(fit)
  for (const id of parts) {
    const surface = await skinRound(id, fit.centre, 0.7 * r, 1.2 * r + BESIDE)
    if (surface) return surface
  }
  return null
}
