import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** mm of resin that must stand over the film for a layer to fill everywhere. */
const LEAST_DEPTH = 3

/**
 * Whether what is on the shelf prints it. The vat must never run shallower than a few millimetres; what stands in it at the
 * end goes back into the bottle.
 *
 * @param needed ml, with film and loss
 * @param level ml in all bottles of that resin; null when nobody has said
 * @param plate mm, width and depth of the film
 */
export function enoughResin(needed: number, level: number | null, plate: readonly [number, number]): Finding<never>[] {
  if (level === null) return []
  const vat = (plate[0] * plate[1] * LEAST_DEPTH) / 1000
  if (level >= needed + vat) return []
  const short = level < needed
  return [
    {
      id: 'resin-short',
      level: short ? 'problem' : 'warning',
      value: fixed(needed + vat - level, 0),
      unit: message('findings.enoughResin.mlOfResinShort'),
      sentence: short
        ? message('findings.enoughResin.thePrintNeedsMlAnd', { needed: fixed(needed, 0), level: fixed(level, 0) })
        : message('findings.enoughResin.thePrintNeedsMlOf', {
            needed: fixed(needed, 0),
            level: fixed(level, 0),
            least_depth: LEAST_DEPTH,
          }),
      places: [],
      how: message('findings.enoughResin.solidVolumeFilmAndVat', {
        vat: fixed(vat, 0),
        plate: fixed(plate[0], 0),
        plate2: fixed(plate[1], 0),
      }),
      fixes: [],
    },
  ]
}

export const resinLasts = rule({
  title: message('findings.enoughResin.theResinInStockIs'),
  stages: ['plates'],
  inputs: ['resinNeed'],
  find: ({ resinNeed: { needed, level, plate } }) => enoughResin(needed, level, plate),
})
