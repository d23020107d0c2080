import { multiplyQuaternions } from '../math/vectors'

type Quaternion = [number, number, number, number]
/** Degrees: forward about the axis to the viewer's right, sideways about the one that points to the back, round about the upright. */
export interface Angles {
  forward: number
  sideways: number
  round: number
}

const about = (axis: 0 | 1 | 2, degrees: number): Quaternion => {
  const h = (degrees * Math.PI) / 360
  const q: Quaternion = [0, 0, 0, Math.cos(h)]
  q[axis] = Math.sin(h)
  return q
}

/** Forward first, then sideways, then round. */
export const turnOf = ({ forward, sideways, round }: Angles): Quaternion =>
  multiplyQuaternions(about(2, round), multiplyQuaternions(about(1, sideways), about(0, forward))) as Quaternion

/** Inverse of `turnOf`; sideways within a right angle. */
export function anglesOf([x, y, z, w]: readonly [number, number, number, number]): Angles {
  const degrees = (r: number): number => Number(((r * 180) / Math.PI).toFixed(6))
  return {
    forward: degrees(Math.atan2(2 * (w * x + y * z), 1 - 2 * (x * x + y * y))),
    sideways: degrees(Math.asin(Math.min(1, Math.max(-1, 2 * (w * y - z * x))))),
    round: degrees(Math.atan2(2 * (w * z + x * y), 1 - 2 * (y * y + z * z))),
  }
}
