import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** Skin that was not there when the regions were painted: a cut, a join or another sculpt has laid it bare. */
export function newSurface(share: number): Finding<never>[] {
  if (share < 0.002) return []
  return [
    {
      id: 'new-skin',
      level: 'warning',
      value: share < 0.01 ? fixed(100 * share, 1) : Math.round(100 * share),
      unit: message('findings.newSurface.ofItsSurfaceIsNew'),
      sentence: message('findings.newSurface.thePartWasCutJoined'),
      places: [],
      how: message('findings.newSurface.eachVertexTakesTheRegion'),
      fixes: [],
    },
  ]
}

export const regionsStillFit = rule({
  title: message('findings.newSurface.noSurfaceIsNewerThan'),
  stages: ['scheme'],
  inputs: ['newSkin'],
  find: ({ newSkin }) => newSurface(newSkin),
})
