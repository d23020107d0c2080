import type { Thinness } from '../fit/thinness'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed, told } from '../words/format'
import { message } from '../words/message'

/** Limits of thickness, mm (craft.md 5): prints at all, survives handling. */
export const PRINTS = 0.3
export const SURVIVES = 0.6

/** Growing a whole piece by more than this for one thin spot makes no sense: the spot is thickened. */
const MAX_GROWTH = 1.5
/** mm by which both sides grow: a little more than half of what is missing, in steps that a hand would choose */
const growth = (thinnest: number): number => Math.ceil((SURVIVES - thinnest) * 0.6 * 20) / 20

/** Thinness as it was measured, or as it would be at another size, where how much is thin is not known. */
export type ThinnessAt = Omit<Thinness, 'thinArea'> & { thinArea: number | null }

export function tooThin(t: ThinnessAt): Finding<'scale' | 'thicken'>[] {
  if (t.thinnest === null || t.thinnest >= SURVIVES || (t.thinArea !== null && t.thinArea < 1)) return []
  const hopeless = t.thinnest < PRINTS
  const factor = SURVIVES / t.thinnest,
    places = t.places.map((p) => p.point),
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
      places,
      how: message('findings.tooThin.medianOfNineRaysIn', { samples: t.samples }),
      fixes: [
        {
          act: 'thicken',
          places,
          by,
          label: message('findings.tooThin.thickenPlaces', { places: places.length }),
          effect: message('findings.tooThin.growsTheSkin', { by }),
        },
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
