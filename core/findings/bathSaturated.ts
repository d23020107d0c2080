import { saturation, type Bath } from '../plan/facts/cleanUp'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

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
        value: fixed(s.now, 1),
        unit: message('findings.bathSaturated.resinInTheBath', { which }),
        sentence: full
          ? which === 'first'
            ? message('findings.bathSaturated.itNoLongerRemovesResin')
            : message('findings.bathSaturated.partsWashedInItStay')
          : message('findings.bathSaturated.thisWashBringsItTo', { after: fixed(s.after, 1), limit: bath.limit }),
        places: [],
        how: message('findings.bathSaturated.resinByVolume01', { litres: bath.litres }),
        fixes: [
          {
            act: 'freshBath',
            bath: which,
            label: message('findings.bathSaturated.markAsRefilled'),
            effect: message('findings.bathSaturated.countsItsResinFromZero'),
          },
        ],
      },
    ]
  })
}

export const cleanBaths = rule({
  title: message('findings.bathSaturated.bothBathsStillCleanAfter'),
  stages: ['clean'],
  inputs: ['baths'],
  find: ({ baths }) => bathSaturated(baths.baths, baths.carryOver),
})
