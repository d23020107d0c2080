import type { PoseReport } from '../pose/quality'
import type { Finding } from './finding'
import { rule } from './rule'
import { fixed } from '../words/format'
import { message } from '../words/message'

const VOLUME = 0.05,
  STRETCH = 1.35

/** What bending did to the skin, joint by joint. */
export function posedSkin(r: PoseReport): Finding<never>[] {
  const out: Finding<never>[] = []
  for (const j of r.joints) {
    const how = message('findings.posedSkin.facesThatFollowBothSides', { turned: fixed(j.turned, 0) })
    if (j.flipped > 0)
      out.push({
        id: `flipped:${j.name}`,
        level: 'problem',
        value: j.flipped,
        unit: message('findings.posedSkin.facesTurnedOver', { n: j.flipped }),
        sentence: message('findings.posedSkin.atTheSurfaceFoldsInto', { name: j.name, flipped: j.flipped }),
        places: [j.at],
        how,
        fixes: [],
      })
    else if (Math.abs(j.volumeChange) > VOLUME && Math.abs(r.volumeChange) > 0.002)
      out.push({
        id: `volume:${j.name}`,
        level: 'warning',
        value: message('findings.posedSkin.percent', { volumeChange: fixed(100 * j.volumeChange, 0) }),
        unit: message('findings.posedSkin.volumeThere'),
        sentence: message('findings.posedSkin.becomesThinnerBecomesThickerAs', { name: j.name, j: j.volumeChange < 0 }),
        places: [j.at],
        how,
        fixes: [],
      })
    if (j.stretch > STRETCH)
      out.push({
        id: `stretch:${j.name}`,
        level: 'warning',
        value: message('findings.posedSkin.times', { stretch: fixed(j.stretch, 2) }),
        unit: message('findings.posedSkin.stretched'),
        sentence: message('findings.posedSkin.textureAtIsStretchedBy', {
          name: j.name,
          j: fixed((j.stretch - 1) * 100, 0),
        }),
        places: [j.at],
        how: message('findings.posedSkin.n95thPercentileOfEdgeLengths', { how }),
        fixes: [],
      })
  }
  return out
}

export const skinKept = rule({
  title: message('findings.posedSkin.noFaceIsTurnedOver'),
  stages: ['pose'],
  inputs: ['pose'],
  find: ({ pose }) => posedSkin(pose),
})
