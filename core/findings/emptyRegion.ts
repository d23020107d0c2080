import { plural, type Finding } from './finding'
import { rule } from './rule'

/** A region with coats that lies nowhere on a sculpt on which others were brushed: its coats would be planned for nothing. */
export function emptyRegion(name: string, area: number, coats: number, painted: boolean): Finding<never>[] {
  if (!painted || area > 0 || coats === 0) return []
  return [
    {
      id: `empty-${name}`,
      level: 'warning',
      value: '0',
      unit: 'mm²',
      sentence: `${name} has ${plural(coats, 'coat')} but is nowhere on the sculpt. Brush it on, or remove its coats. They do not count in paint and hours.`,
      places: [],
      how: 'Area of all faces whose corners belong to the region, over all parts.',
      fixes: [],
    },
  ]
}

export const regionsPainted = rule({
  title: 'every region with coats is on the sculpt',
  stages: ['scheme'],
  inputs: ['regions'],
  find: ({ regions }) =>
    regions.list.flatMap(({ name, area, coats }) => emptyRegion(name, area, coats, regions.painted)),
})
