import type { RegionAccess } from '../fit/access'
import type { OrderScheme } from '../paint/order/types'
import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'

/** Share of a region that may be out of a tool's reach before it is said: the looking itself is good to some percent. */
const MISSED = 0.15

/** Regions that are sprayed and are not reached, and such as no brush gets at either. */
export function sprayReach(scheme: OrderScheme, reach: ReadonlyMap<number, RegionAccess>): Finding<'brushRegion'>[] {
  return scheme.regions.flatMap((r): Finding<'brushRegion'>[] => {
    const found = reach.get(r.id)
    const on = scheme.coats.filter((c) => c.region === r.id && !c.varnish),
      sprayed = on.filter((c) => c.spray)
    if (!found || on.length === 0) return []
    const share = (v: number): number => Math.round(100 * v)
    const how = message('findings.sprayReach.straightPathsFromPlacesSpread')
    if (found.brush < 1 - MISSED)
      return [
        {
          id: `unreached-${r.id}`,
          level: 'warning',
          value: share(1 - found.brush),
          unit: message('findings.sprayReach.outOfReach'),
          sentence: message('findings.sprayReach.noBrushReachesThatShare', { name: r.name }),
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
          unit: message('findings.sprayReach.notSprayed'),
          sentence: message('findings.sprayReach.theAirbrushDoesNotReach', { name: r.name, length: sprayed.length }),
          places: [],
          how,
          fixes: [
            {
              act: 'brushRegion',
              region: r.id,
              label: message('findings.sprayReach.useTheBrush'),
              effect: message('findings.sprayReach.usesTheBrushForThose'),
            },
          ],
        },
      ]
    return []
  })
}

export const toolsReach = rule({
  title: message('findings.sprayReach.brushAndAirbrushReachEvery'),
  stages: ['order'],
  inputs: ['paintOrder', 'reach'],
  find: ({ paintOrder, reach }) => sprayReach(paintOrder.scheme, reach),
})
