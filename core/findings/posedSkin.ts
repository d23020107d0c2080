import type { PoseReport } from '../pose/quality'
import { plural, type Finding } from './finding'
import { rule } from './rule'

const VOLUME = 0.05,
  STRETCH = 1.35

/** What bending did to the skin, joint by joint. */
export function posedSkin(r: PoseReport): Finding<never>[] {
  const out: Finding<never>[] = []
  for (const j of r.joints) {
    const how = `Faces that follow both sides of the joint by 6 % or more, before and after; turned ${j.turned.toFixed(0)}°.`
    if (j.flipped > 0)
      out.push({
        id: `flipped:${j.name}`,
        level: 'problem',
        value: String(j.flipped),
        unit: j.flipped === 1 ? 'face turned over' : 'faces turned over',
        sentence: `At ${j.name} the surface folds into itself: ${plural(j.flipped, 'face')} point inward. Turn it less, or move the joint to the middle of the limb.`,
        places: [j.at],
        how,
        fixes: [],
      })
    else if (Math.abs(j.volumeChange) > VOLUME && Math.abs(r.volumeChange) > 0.002)
      out.push({
        id: `volume:${j.name}`,
        level: 'warning',
        value: `${(100 * j.volumeChange).toFixed(0)} %`,
        unit: 'volume there',
        sentence: `${j.name} ${j.volumeChange < 0 ? 'becomes thinner' : 'becomes thicker'} as it bends.`,
        places: [j.at],
        how,
        fixes: [],
      })
    if (j.stretch > STRETCH)
      out.push({
        id: `stretch:${j.name}`,
        level: 'warning',
        value: `× ${j.stretch.toFixed(2)}`,
        unit: 'stretched',
        sentence: `Texture at ${j.name} is stretched by ${((j.stretch - 1) * 100).toFixed(0)} % where it stretches most.`,
        places: [j.at],
        how: `${how} 95th percentile of edge lengths.`,
        fixes: [],
      })
  }
  return out
}

export const skinKept = rule({
  title: 'no face is turned over, no limb thinner, no texture stretched',
  stages: ['pose'],
  inputs: ['pose'],
  find: ({ pose }) => posedSkin(pose),
})
