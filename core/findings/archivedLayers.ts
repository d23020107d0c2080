import type { Finding } from './finding'
import { islandGaps } from './islands'
import { rule } from './rule'
import { suctionCup } from './suctionCup'
import { supportFailures } from './supportFailures'
import { message } from '../words/message'

/** Layers made elsewhere can be looked at, not mended. */
const asTold = (list: readonly Finding[]): Finding<never>[] => list.map((f) => ({ ...f, fixes: [] }))

export const archiveIslands = rule({
  title: message('findings.archivedLayers.nothingStartsInTheAir'),
  stages: ['layers'],
  inputs: ['archive'],
  find: ({ archive }) => asTold(islandGaps(archive.islands, archive.step, true)),
})
export const archiveCups = rule({
  title: message('findings.archivedLayers.noSuctionCupClosesAgainst'),
  stages: ['layers'],
  inputs: ['archive'],
  find: ({ archive }) => asTold(suctionCup(archive.cups, archive.step)),
})
export const archiveHolds = rule({
  title: message('findings.archivedLayers.everyNeckAndWallHolds'),
  stages: ['layers'],
  inputs: ['archive'],
  find: ({ archive }) => supportFailures(archive.mishaps),
})
