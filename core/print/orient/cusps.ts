import { faceNormals } from '../../mesh/measure'
import type { Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'

/** How high the layers' steps stand over a whole skin. */
export interface Cusps {
  /** µm, by area: half of the skin has less, and nine tenths */
  p50: number
  p90: number
  /** mm² with steps, and mm² that lie flat and are one layer each */
  stepped: number
  flat: number
}

/** The spread of `stepsMap` over the area, face by face: cusp height = layer height × |n·up| (methods.md 9). */
export function cuspsOf(mesh: Mesh, up: Vector3, layerHeight: number, flat = 0.9998): Cusps {
  const { normals, areas } = faceNormals(mesh)
  const CLASSES = 512
  const byHeight = new Float64Array(CLASSES + 1)
  let stepped = 0,
    even = 0
  for (let f = 0; f < areas.length; f++) {
    const c = Math.abs(normals[f * 3]! * up[0] + normals[f * 3 + 1]! * up[1] + normals[f * 3 + 2]! * up[2])
    if (c > flat) {
      even += areas[f]!
      continue
    }
    byHeight[Math.round(c * CLASSES)]! += areas[f]!
    stepped += areas[f]!
  }
  const at = (q: number): number => {
    let sum = 0
    for (let k = 0; k <= CLASSES; k++)
      if ((sum += byHeight[k]!) >= q * stepped) return (1000 * layerHeight * k) / CLASSES
    return 0
  }
  return { p50: stepped > 0 ? at(0.5) : 0, p90: stepped > 0 ? at(0.9) : 0, stepped, flat: even }
}
