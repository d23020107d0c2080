import type { RegionAccess } from '../fit/access'
import type { OrderScheme } from '../paint/order/types'
import { plural, type Finding } from './finding'
import { rule } from './rule'

/** Share of a region that may be out of a tool's reach before it is said: the looking itself is good to some percent. */
const MISSED = 0.15

/** Regions that are sprayed and are not reached, and such as no brush gets at either. */
export function sprayReach(scheme: OrderScheme, reach: ReadonlyMap<number, RegionAccess>): Finding<'brushRegion'>[] {
  return scheme.regions.flatMap((r): Finding<'brushRegion'>[] => {
    const found = reach.get(r.id)
    const on = scheme.coats.filter((c) => c.region === r.id && !c.varnish),
      sprayed = on.filter((c) => c.spray)
    if (!found || on.length === 0) return []
    const share = (v: number): string => String(Math.round(100 * v))
    const how =
      'Straight paths from places spread evenly over the part alone: within 75° of upright for a brush, and two of them within 50° for a nozzle.'
    if (found.brush < 1 - MISSED)
      return [
        {
          id: `unreached-${r.id}`,
          level: 'warning',
          value: share(1 - found.brush),
          unit: '% out of reach',
          sentence: `No brush reaches that share of ${r.name}. It is hardly visible either: let a wash run in, or paint it before its parts are joined.`,
          places: [],
          how,
          fixes: [],
        },
      ]
    if (sprayed.length > 0 && found.airbrush < 1 - MISSED)
      return [
        {
          id: `unsprayed-${r.id}`,
          level: 'warning',
          value: share(1 - found.airbrush),
          unit: '% not sprayed',
          sentence: `The airbrush does not reach that share of ${r.name}: its ${plural(sprayed.length, 'sprayed coat')} ${sprayed.length === 1 ? 'has' : 'have'} to be brushed there.`,
          places: [],
          how,
          fixes: [
            {
              act: 'brushRegion',
              region: r.id,
              label: 'Use the brush',
              effect: 'uses the brush for those coats; then no mask is needed',
            },
          ],
        },
      ]
    return []
  })
}

export const toolsReach = rule({
  title: 'brush and airbrush reach every region',
  stages: ['order'],
  inputs: ['paintOrder', 'reach'],
  find: ({ paintOrder, reach }) => sprayReach(paintOrder.scheme, reach),
})
