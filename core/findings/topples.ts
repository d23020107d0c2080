import type { BalanceReport } from '../fit/balance'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** An eighth of a turn, from 0 at the front to the right. */
const eighth = (degrees: number): number => Math.round(degrees / 45) % 8

/** A base that would have to be more than twice as wide is not offered: no eye would accept it. */
const MAX_WIDER = 2

/** Whether the whole stands, which way it falls, and what would help. */
export function topples(r: BalanceReport, wish: number): Finding<'widenBase'>[] {
  if (!r.remedy) return []
  const { weakest, remedy } = r
  const falls = weakest.angle < 0
  const isSensible = remedy.widen <= MAX_WIDER
  const ballast =
    remedy.ballast === null
      ? message('findings.topples.noBallastIsEnough')
      : message('findings.topples.gOfBallastLowIn', { ballast: Math.ceil(remedy.ballast) })
  return [
    {
      id: 'topples',
      level: falls ? 'problem' : 'warning',
      value: falls
        ? fixed(-weakest.margin, 1)
        : message('findings.topples.degrees', { angle: fixed(weakest.angle, 1) }),
      unit: falls ? message('findings.topples.mmBeyondItsFoot') : message('findings.topples.ofWished', { wish }),
      sentence: message('findings.topples.itTipsOverItTips', {
        falls,
        side: eighth(weakest.direction),
        ballast,
        n: Math.ceil((remedy.widen - 1) * 100),
        sensible: isSensible,
      }),
      places: [r.centre],
      how: message('findings.topples.centreOfMassOfG', { mass: fixed(r.mass, 0) }),
      fixes: isSensible
        ? [
            {
              act: 'widenBase',
              label: message('findings.topples.widenTheBaseBy', { n: Math.ceil((remedy.widen - 1) * 100) }),
              effect: message('findings.topples.thenItStandsUpTo', { wish }),
            },
          ]
        : [],
    },
  ]
}

export const stands = rule({
  title: message('findings.topples.theAssemblyStands'),
  stages: ['combine'],
  inputs: ['balance'],
  find: ({ balance }) => topples(balance.report, balance.wish),
})
