import type { Thinness } from '../fit/thinness'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

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
      value: fixed(t.thinnest, 2),
      unit: message('findings.tooThin.mmThin'),
      sentence: message('findings.tooThin.cmOfSurfaceIsThinner', {
        t: fixed(t.thinArea / 100, 1),
        survives: SURVIVES,
        hopeless,
        prints: PRINTS,
      }),
      places: t.places.map((p) => p.point),
      how: message('findings.tooThin.medianOfNineRaysIn', { samples: t.samples }),
      fixes: [
        {
          act: 'scale',
          factor: SURVIVES / t.thinnest,
          label: message('findings.tooThin.enlargeBy', { n: Math.ceil((SURVIVES / t.thinnest) * 100 - 100) }),
          effect: message('findings.tooThin.bringsTheThinnestSpotTo', { survives: SURVIVES }),
        },
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
