import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'

/** A region with coats that lies nowhere on a sculpt on which others were brushed: its coats would be planned for nothing. */
export function emptyRegion(name: string, area: number, coats: number, painted: boolean): Finding<never>[] {
  if (!painted || area > 0 || coats === 0) return []
  return [
    {
      id: `empty-${name}`,
      level: 'warning',
      value: 0,
      unit: message('findings.emptyRegion.area'),
      sentence: message('findings.emptyRegion.hasCoatCoatsButIs', { name, coats }),
      places: [],
      how: message('findings.emptyRegion.areaOfAllFacesWhose'),
      fixes: [],
    },
  ]
}

export const regionsPainted = rule({
  title: message('findings.emptyRegion.everyRegionWithCoatsIs'),
  stages: ['scheme'],
  inputs: ['regions'],
  find: ({ regions }) =>
    regions.list.flatMap(({ name, area, coats }) => emptyRegion(name, area, coats, regions.painted)),
})
