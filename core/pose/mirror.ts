import type { Joint } from './skeleton'

/** The other side's name: left and right change places, whatever else the name says. */
export const otherSide = (name: string): string =>
  name.replace(/left|right/gi, (w) => {
    const other = w.toLowerCase() === 'left' ? 'right' : 'left'
    return w[0] === w[0]!.toUpperCase() ? other[0]!.toUpperCase() + other.slice(1) : other
  })

/**
 * The pose as a looking-glass shows it: each joint takes the turn of its namesake on the other side, reflected across
 * the middle plane (x ↦ −x). Joints without a namesake reflect their own.
 */
export function mirroredPose<J extends Joint>(joints: readonly J[]): J[] {
  return joints.map((j) => {
    const from = joints.find((o) => o.name === otherSide(j.name)) ?? j
    const [x, y, z, w] = from.turn
    return { ...j, turn: [x, -y, -z, w] as const }
  })
}
