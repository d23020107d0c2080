import type { Finding } from './finding'
import { rule } from './rule'

/** Skin that was not there when the regions were painted: a cut, a join or another sculpt has laid it bare. */
export function newSurface(share: number): Finding<never>[] {
  if (share < 0.002) return []
  return [
    {
      id: 'new-skin',
      level: 'warning',
      value: share < 0.01 ? (100 * share).toFixed(1) : String(Math.round(100 * share)),
      unit: '% of its surface is new',
      sentence:
        'The part was cut, joined or changed after its regions were painted. Everything painted is kept; new surface took the nearest region. Check it and brush what is wrong.',
      places: [],
      how: 'Each vertex takes the region of the nearest surface of the painted copy; surface farther from it than 1.2 % of its size counts as new.',
      fixes: [],
    },
  ]
}

export const regionsStillFit = rule({
  title: 'no surface is newer than its regions',
  stages: ['scheme'],
  inputs: ['newSkin'],
  find: ({ newSkin }) => newSurface(newSkin),
})
