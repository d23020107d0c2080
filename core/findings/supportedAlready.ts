import type { Presupported } from '../print/support/presupported'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

/** A file that came with its supports is left alone, and checked as it is. */
export function supportedAlready(p: Presupported): Finding<'leaveSupported'>[] {
  return [
    {
      id: 'supported-already',
      level: 'warning',
      value: p.stems,
      unit: message('findings.supportedAlready.stemsInTheImportedFile'),
      sentence: message('findings.supportedAlready.thisPartAlreadyHasSupports', { raft: Boolean(p.raft) }),
      places: [],
      how: message('findings.supportedAlready.thinRoundRegionsInThe', { height: fixed(p.height, 1) }),
      fixes: [
        {
          act: 'leaveSupported',
          label: message('findings.supportedAlready.keepItsOrientation'),
          effect: message('findings.supportedAlready.noTurningNoLiftNo'),
        },
      ],
    },
  ]
}

/** The same, told when the file is taken in: before anyone hollows or cuts it. */
export function supportedFile(p: Presupported): Finding<never>[] {
  return supportedAlready(p).map((f) => ({
    ...f,
    id: 'supported-file',
    sentence: message('findings.supportedAlready.thisFileAlreadyHasSupports', { raft: Boolean(p.raft) }),
    fixes: [],
  }))
}

export const noOwnSupports = rule({
  title: message('findings.supportedAlready.theImportedPartHasNo'),
  stages: ['orient'],
  inputs: ['fileSupports'],
  find: ({ fileSupports }) => (fileSupports ? supportedAlready(fileSupports) : []),
})
export const fileWithoutSupports = rule({
  title: message('findings.supportedAlready.theFileCarriesNoSupports'),
  stages: ['import'],
  inputs: ['fileSupports'],
  find: ({ fileSupports }) => (fileSupports ? supportedFile(fileSupports) : []),
})
