import { saturation, type Bath } from '../plan/facts/cleanUp'
import type { Finding } from './finding'
import { rule } from './rule'

/** Baths that clean no longer, or will not once this is washed in them. */
export function bathSaturated(
  baths: { first: Bath; second: Bath },
  carryOver: { first: number; second: number },
): Finding<'freshBath'>[] {
  return (['first', 'second'] as const).flatMap((which): Finding<'freshBath'>[] => {
    const bath = baths[which],
      s = saturation(bath, carryOver[which])
    if (s.after <= bath.limit) return []
    const full = s.now > bath.limit
    return [
      {
        id: `bath-${which}`,
        level: full ? 'problem' : 'warning',
        value: s.now.toFixed(1),
        unit: `% resin in the ${which} bath`,
        sentence: full
          ? which === 'first'
            ? 'It no longer removes resin. Let it settle in light, pour off the clear liquid, and dispose of the sludge as local rules say. Use the second bath as the first.'
            : 'Parts washed in it stay tacky. Use it as the first bath, and refill the second.'
          : `This wash brings it to ${s.after.toFixed(1)} % resin; above ${bath.limit} % it no longer cleans.`,
        places: [],
        how: `Resin by volume: 0.1 ml for each 100 cm² of surface that was washed, and the resin left in cavities, in ${bath.litres} l.`,
        fixes: [{ act: 'freshBath', bath: which, label: 'Mark as refilled', effect: 'counts its resin from zero' }],
      },
    ]
  })
}

export const cleanBaths = rule({
  title: 'both baths still clean after this wash',
  stages: ['clean'],
  inputs: ['baths'],
  find: ({ baths }) => bathSaturated(baths.baths, baths.carryOver),
})
