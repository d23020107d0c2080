import { SPACING, type ThinnessAt } from '../fit/thinness'
import type { Vector3 } from '../math/vectors'
import { MOST_DABS } from '../schemas/geometry'
import type { OperationInput } from '../operations/registry'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed, told } from '../words/format'
import { message } from '../words/message'

/** Limits of thickness, mm (craft.md 5): prints at all, survives handling. */
export const PRINTS = 0.3
export const SURVIVES = 0.6

/** Growing a whole piece by more than this for one thin spot makes no sense: the spot is thickened. */
const MAX_GROWTH = 1.5
/** mm; a pad that is thinner than this has an edge that is thin itself */
const LEAST_GROWTH = 0.15
/** mm by which both sides grow: a little more than half of what is missing, in steps that a hand would choose */
const growth = (thinnest: number): number => Math.max(LEAST_GROWTH, Math.ceil((SURVIVES - thinnest) * 0.6 * 20) / 20)
/** mm round a spot within which the skin grows: at full strength to half of it, which covers what is between spots. */
const ROUND = 4 * SPACING
/** Voxels across all spots that the operation takes. */
const MOST_ACROSS = 850

type ThickenInput = Extract<OperationInput, { kind: 'thicken' }>

/** The operation that thickens all spots by that much. */
export function thickening(spots: readonly Vector3[], by: number): ThickenInput {
  const along = (k: number): number[] => spots.map((p) => p[k]!)
  const across = Math.max(...[0, 1, 2].map((k) => Math.max(...along(k)) - Math.min(...along(k)) + 2 * (ROUND + by)))
  const voxel = Math.max(by / 2, 0.05, across / MOST_ACROSS)
  return { kind: 'thicken', dabs: spots.map((p) => ({ point: [...p], radius: ROUND })), by, voxel }
}

export function tooThin(t: ThinnessAt): Finding<'scale' | 'thicken'>[] {
  if (t.thinnest === null || t.thinnest >= SURVIVES || (t.thinArea !== null && t.thinArea < 1)) return []
  const hopeless = t.thinnest < PRINTS
  const factor = SURVIVES / t.thinnest,
    by = growth(t.thinnest)
  return [
    {
      id: 'too-thin',
      level: hopeless ? 'problem' : 'warning',
      value: fixed(t.thinnest, 2),
      unit: message('findings.tooThin.mmThin'),
      sentence:
        t.thinArea === null
          ? message('findings.tooThin.atThisSize', { survives: SURVIVES, hopeless, prints: PRINTS })
          : message('findings.tooThin.cmOfSurfaceIsThinner', {
              t: told(t.thinArea / 100, 1),
              survives: SURVIVES,
              hopeless,
              prints: PRINTS,
            }),
      places: t.places.map((p) => p.point),
      how: message('findings.tooThin.medianOfNineRaysIn', { samples: t.samples }),
      fixes: [
        // At a size that is only tried it is not known where; and a whole cape is no place any more.
        ...(t.thinArea !== null && t.spots.length <= MOST_DABS
          ? [
              {
                act: 'thicken' as const,
                places: t.spots,
                by,
                label: message('findings.tooThin.thickenIt'),
                effect: message('findings.tooThin.growsTheSkin', { by, mm2: told(t.thinArea, 0) }),
              },
            ]
          : []),
        ...(factor <= MAX_GROWTH
          ? [
              {
                act: 'scale' as const,
                factor,
                label: message('findings.tooThin.enlargeBy', { n: Math.ceil(factor * 100 - 100) }),
                effect: message('findings.tooThin.bringsTheThinnestSpotTo', { survives: SURVIVES }),
              },
            ]
          : []),
      ],
    },
  ]
}

export const nothingTooThin = rule({
  title: message('findings.tooThin.nothingIsThinnerThanMm', { survives: SURVIVES }),
  stages: ['scale'],
  inputs: ['thinness'],
  find: ({ thinness }) => tooThin(thinness),
})
