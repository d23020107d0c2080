import type { Mesh } from '../mesh/mesh'
import { weldIdentical } from '../mesh/weld'
import { loft, ellipse } from './loft'
import type { Vector3 } from '../math/vectors'

/** Closed sphere of rings; corners lie on it. */
export function sphereSolid(centre: Vector3, radius: number, sides: number): Mesh {
  const rings = sides / 2
  return weldIdentical(
    loft(
      Array.from({ length: rings - 1 }, (_, i) => {
        const a = (Math.PI * (i + 1)) / rings
        return { outline: ellipse(radius * Math.sin(a), radius * Math.sin(a), sides), height: -radius * Math.cos(a) }
      }),
      (x, y, z) => [centre[0] + x, centre[1] + y, centre[2] + z],
    ),
  )
}
