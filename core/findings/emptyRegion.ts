import { plural, type Finding } from './finding'

/** A region with coats that lies nowhere on a sculpt on which others were brushed: its coats would be planned for nothing. */
export function emptyRegion(name: string, area: number, coats: number, painted: boolean): Finding[] {
  if (!painted || area > 0 || coats === 0) return []
  return [
    {
      id: `empty-${name}`,
      level: 'know',
      value: '0',
      unit: 'mm²',
      sentence: `${name} has ${plural(coats, 'coat')} but lies nowhere on the sculpt. Brush it on, or take its coats away: they count for nothing in paint and hours.`,
      places: [],
      how: 'Area of all faces whose corners belong to the region, over all parts.',
      fixes: [],
    },
  ]
}
