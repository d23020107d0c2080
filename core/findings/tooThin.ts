import type { Thinness } from '../fit/thinness'
import type { Finding } from './finding'
import { rule } from './rule'

/** Limits of thickness, mm (craft.md 5): prints at all, survives handling. */
export const PRINTS = 0.3
export const SURVIVES = 0.6

export function tooThin(t: Thinness): Finding<'scale'>[] {
  if (t.thinnest === null || t.thinnest >= SURVIVES || t.thinArea < 1) return []
  const hopeless = t.thinnest < PRINTS
  return [
    {
      id: 'too-thin',
      level: hopeless ? 'problem' : 'warning',
      value: t.thinnest.toFixed(2),
      unit: 'mm thin',
      sentence: `${(t.thinArea / 100).toFixed(1)} cm² of surface is thinner than ${SURVIVES} mm${hopeless ? `; under ${PRINTS} mm it may not print at all` : ' and may break when the supports are removed'}.`,
      places: t.places.map((p) => p.point),
      how: `Median of nine rays in a 30° cone into the body, from ${t.samples.toLocaleString('en')} places spread over the surface.`,
      fixes: [
        {
          act: 'scale',
          factor: SURVIVES / t.thinnest,
          label: `Enlarge by ${Math.ceil((SURVIVES / t.thinnest) * 100 - 100)} %`,
          effect: `brings the thinnest spot to ${SURVIVES} mm`,
        },
      ],
    },
  ]
}

export const nothingTooThin = rule({
  title: `nothing is thinner than ${SURVIVES} mm`,
  stages: ['scale'],
  inputs: ['thinness'],
  find: ({ thinness }) => tooThin(thinness),
})
