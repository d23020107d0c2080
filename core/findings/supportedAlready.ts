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
      unit: 'stems in the imported file',
      sentence: `This part already has supports${p.raft ? ' and a raft' : ''}. Turning it or adding more would spoil them. Keep its orientation and check its layers.`,
      places: [],
      how: `Thin round regions in the section ${p.height.toFixed(1)} mm over its lowest point, more than anything else there.`,
      fixes: [
        {
          act: 'leaveSupported',
          label: 'Keep its orientation',
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
    sentence: `This file already has supports${p.raft ? ' and a raft' : ''}. Posing, scaling, hollowing or turning it would spoil them. Import the file without supports for that, or go to Orient and support and keep it unchanged.`,
    fixes: [],
  }))
}

export const noOwnSupports = rule({
  title: 'the imported part has no supports',
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
