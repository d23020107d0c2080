import type { Finding } from './finding'
import { islandGaps } from './islands'
import { rule } from './rule'
import { suctionCup } from './suctionCup'
import { supportFailures } from './supportFailures'

/** Layers made elsewhere can be looked at, not mended. */
const asTold = (list: readonly Finding[]): Finding<never>[] => list.map((f) => ({ ...f, fixes: [] }))

export const archiveIslands = rule({
  title: 'nothing starts in the air',
  stages: ['layers'],
  inputs: ['archive'],
  find: ({ archive }) => asTold(islandGaps(archive.islands, archive.step, true)),
})
export const archiveCups = rule({
  title: 'no suction cup closes against the film',
  stages: ['layers'],
  inputs: ['archive'],
  find: ({ archive }) => asTold(suctionCup(archive.cups, archive.step)),
})
export const archiveHolds = rule({
  title: 'every neck and wall holds, by usual figures',
  stages: ['layers'],
  inputs: ['archive'],
  find: ({ archive }) => supportFailures(archive.mishaps),
})
