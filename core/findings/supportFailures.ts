import { GREEN_STRENGTH, LIFT_SUCTION, PEEL_PRESSURE } from '../defaults/print'
import type { Mishap } from '../print/hanging/hanging'
import { plural, type Finding } from './finding'

/** What would go wrong with layers by usual figures of film and resin, where nothing is known of who supported them. */
export function supportFailures(mishaps: readonly Mishap[]): Finding<never>[] {
  const fell = mishaps.filter((m) => m.kind === 'tip' && m.fell),
    loose = mishaps.filter((m) => m.kind === 'tip' && !m.fell),
    torn = mishaps.filter((m) => m.kind === 'cup')
  const places = (list: readonly Mishap[]): Finding['places'] => list.map((m) => [m.x, m.y, m.z])
  const first = (list: readonly Mishap[]): string => `first in layer ${list[0]!.layer + 1}`
  const HOW = `Followed through the layers: what hangs on what, pulled by ${PEEL_PRESSURE / 1000} kPa of film on its area, held by ${GREEN_STRENGTH / 1e6} MPa of green resin at each neck, cups by ${LIFT_SUCTION / 1000} kPa. A printer or a resin may differ by a third either way.`
  const out: Finding<never>[] = []
  if (fell.length > 0)
    out.push({
      id: 'falls',
      level: 'problem',
      value: fell.length.toLocaleString('en'),
      unit: `${fell.length === 1 ? 'piece' : 'pieces'} torn off`,
      sentence: `The last tip that holds it fails, ${first(fell)}. Use more or stronger tips there, or an orientation with less area.`,
      places: places(fell),
      how: HOW,
      fixes: [],
    })
  if (torn.length > 0)
    out.push({
      id: 'tears',
      level: 'problem',
      value: torn.length.toLocaleString('en'),
      unit: `${torn.length === 1 ? 'wall' : 'walls'} torn by suction`,
      sentence: `A sealed suction cup pulls on a wall that is too thin, ${first(torn)}. Vent it where it closes.`,
      places: places(torn),
      how: HOW,
      fixes: [],
    })
  if (loose.length > 0)
    out.push({
      id: 'lets-go',
      level: 'warning',
      value: loose.length.toLocaleString('en'),
      unit: 'tips fail',
      sentence: `${plural(loose.length, 'tip')} would be pulled harder than ${loose.length === 1 ? 'it holds' : 'they hold'}; others take over, ${first(loose)}.`,
      places: places(loose),
      how: HOW,
      fixes: [],
    })
  return out
}
