import { GREEN_STRENGTH, LIFT_SUCTION, PEEL_PRESSURE } from '../defaults/print'
import type { Mishap } from '../print/hanging/hanging'
import type { Finding } from './finding'
import { message, type Message } from '../words/message'

/** What would go wrong with layers by usual figures of film and resin, where nothing is known of who supported them. */
export function supportFailures(mishaps: readonly Mishap[]): Finding<never>[] {
  const fell = mishaps.filter((m) => m.kind === 'tip' && m.fell),
    loose = mishaps.filter((m) => m.kind === 'tip' && !m.fell),
    torn = mishaps.filter((m) => m.kind === 'cup')
  const places = (list: readonly Mishap[]): Finding['places'] => list.map((m) => [m.x, m.y, m.z])
  const first = (list: readonly Mishap[]): Message =>
    message('findings.supportFailures.firstInLayer', { list: list[0]!.layer + 1 })
  const HOW = message('findings.supportFailures.followedThroughTheLayersWhat', {
    peel_pressure: PEEL_PRESSURE / 1000,
    green_strength: GREEN_STRENGTH / 1e6,
    lift_suction: LIFT_SUCTION / 1000,
  })
  const out: Finding<never>[] = []
  if (fell.length > 0)
    out.push({
      id: 'falls',
      level: 'problem',
      value: fell.length,
      unit: message('findings.supportFailures.piecePiecesTornOff', { length: fell.length }),
      sentence: message('findings.supportFailures.theLastTipThatHolds', { first: first(fell) }),
      places: places(fell),
      how: HOW,
      fixes: [],
    })
  if (torn.length > 0)
    out.push({
      id: 'tears',
      level: 'problem',
      value: torn.length,
      unit: message('findings.supportFailures.wallWallsTornBySuction', { length: torn.length }),
      sentence: message('findings.supportFailures.aSealedSuctionCupPulls', { first: first(torn) }),
      places: places(torn),
      how: HOW,
      fixes: [],
    })
  if (loose.length > 0)
    out.push({
      id: 'lets-go',
      level: 'warning',
      value: loose.length,
      unit: message('findings.supportFailures.tipsFail'),
      sentence: message('findings.supportFailures.tipTipsWouldBePulled', { length: loose.length, first: first(loose) }),
      places: places(loose),
      how: HOW,
      fixes: [],
    })
  return out
}
