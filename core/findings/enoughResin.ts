import type { Finding } from './finding'
import { rule } from './rule'

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
      value: (needed + vat - level).toFixed(0),
      unit: 'ml of resin short',
      sentence: short
        ? `The print needs ${needed.toFixed(0)} ml and ${level.toFixed(0)} ml are in stock: it would not be finished. Open another bottle, or print fewer parts.`
        : `The print needs ${needed.toFixed(0)} ml of the ${level.toFixed(0)} ml in stock, which leaves the vat shallower than ${LEAST_DEPTH} mm toward the end. Refill it before that.`,
      places: [],
      how: `Solid volume, film and vat loss, and ${vat.toFixed(0)} ml that must cover ${plate[0].toFixed(0)} × ${plate[1].toFixed(0)} mm of film.`,
      fixes: [],
    },
  ]
}

export const resinLasts = rule({
  title: 'the resin in stock is enough',
  stages: ['plates'],
  inputs: ['resinNeed'],
  find: ({ resinNeed: { needed, level, plate } }) => enoughResin(needed, level, plate),
})
