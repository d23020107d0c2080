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
            ? 'It no longer takes resin off. Let it settle in light, pour off what is clear, and hand over the sludge as local rules say; the second bath moves up.'
            : 'Parts that are washed in it stay tacky. Make it the first bath, and fill the second again.'
          : `This wash brings it to ${s.after.toFixed(1)} %, over the ${bath.limit} % at which it cleans no more.`,
        places: [],
        how: `Resin by volume: 0.1 ml for each 100 cm² of skin that was washed, and what hung in cavities, in ${bath.litres} l.`,
        fixes: [{ act: 'freshBath', bath: which, label: 'It was refilled', effect: 'counts its resin from zero' }],
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
