import type { BalanceReport } from '../fit/balance'
import type { Finding } from './finding'
import { rule } from './rule'

const toward = (degrees: number): string =>
  ['the front', 'front right', 'the right', 'back right', 'the back', 'back left', 'the left', 'front left'][
    Math.round(degrees / 45) % 8
  ]!

/** Whether the whole stands, which way it falls, and what would help. */
export function topples(r: BalanceReport, wish: number): Finding<'widenBase'>[] {
  if (!r.remedy) return []
  const { weakest, remedy } = r
  const falls = weakest.angle < 0
  const ballast =
    remedy.ballast === null ? 'no ballast is enough' : `${Math.ceil(remedy.ballast)} g of ballast low in the foot`
  return [
    {
      id: 'topples',
      level: falls ? 'problem' : 'warning',
      value: falls ? (-weakest.margin).toFixed(1) : `${weakest.angle.toFixed(1)}°`,
      unit: falls ? 'mm beyond its foot' : `of ${wish}° wished`,
      sentence: `${falls ? 'It tips over' : 'It tips over first'} toward ${toward(weakest.direction)}. It needs ${ballast}, or a foot ${Math.ceil((remedy.widen - 1) * 100)} % wider.`,
      places: [r.centre],
      how: `Centre of mass of ${r.mass.toFixed(0)} g, each part with its own material, over the hull of what touches the ground; angle = atan(margin / height).`,
      fixes: [
        {
          act: 'widenBase',
          label: `Widen the base by ${Math.ceil((remedy.widen - 1) * 100)} %`,
          effect: `then it stands up to ${wish}° in every direction`,
        },
      ],
    },
  ]
}

export const stands = rule({
  title: 'the assembly stands',
  stages: ['combine'],
  inputs: ['balance'],
  find: ({ balance }) => topples(balance.report, balance.wish),
})
