import type { Presupported } from '../print/support/presupported'
import type { Finding } from './finding'
import { rule } from './rule'

/** A file that came with its supports is left alone, and checked as it is. */
export function supportedAlready(p: Presupported): Finding<'leaveSupported'>[] {
  return [
    {
      id: 'supported-already',
      level: 'warning',
      value: String(p.stems),
      unit: 'stems in it already',
      sentence: `This part carries supports${p.raft ? ' and a raft' : ''} of its own. Turning it or adding more would spoil them: leave it as it stands and check its layers.`,
      places: [],
      how: `Thin round regions in the section ${p.height.toFixed(1)} mm over its lowest point, more than anything else there.`,
      fixes: [
        {
          act: 'leaveSupported',
          label: 'Leave it as it stands',
          effect: 'no turning, no lift, no supports; layers checked',
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
    sentence: `This file carries supports${p.raft ? ' and a raft' : ''} of its own. Posing, sizing, hollowing or turning it would spoil them: take the unsupported file for that, or go to Stand and leave it as it is.`,
    fixes: [],
  }))
}

export const noOwnSupports = rule({
  title: 'the part carries no supports of its own',
  stages: ['orient'],
  inputs: ['fileSupports'],
  find: ({ fileSupports }) => (fileSupports ? supportedAlready(fileSupports) : []),
})
export const fileWithoutSupports = rule({
  title: 'the file carries no supports',
  stages: ['import'],
  inputs: ['fileSupports'],
  find: ({ fileSupports }) => (fileSupports ? supportedFile(fileSupports) : []),
})
