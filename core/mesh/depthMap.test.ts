import { describe, expect, it } from 'vitest'
import { boxBody, chainBody, sphereBody } from '../testBodies'
import { sphereDirections } from '../math/directions'
import { depthMap, seen } from './depthMap'
import { concatenate } from './mesh'
import { vertexNormals } from './measure'
import { rayBlocked } from './ray'
import { treeOf } from './tree'

describe('depth maps', () => {
  it('see of a body what rays see, but for a rim a pixel or two wide', () => {
    for (const seed of [3, 77, 1234]) {
      const mesh = chainBody(seed, 6, 0.6),
        normals = vertexNormals(mesh),
        tree = treeOf(mesh)
      let asked = 0,
        other = 0
      for (const d of sphereDirections(6)) {
        const map = depthMap(mesh, d, 0.25)
        for (let i = 0; i < normals.length; i += 3) {
          const [nx, ny, nz] = [normals[i]!, normals[i + 1]!, normals[i + 2]!]
          const c = d[0] * nx + d[1] * ny + d[2] * nz
          if (c < 0.2) continue
          const [x, y, z] = [mesh.positions[i]!, mesh.positions[i + 1]!, mesh.positions[i + 2]!]
          const share = seen(map, x, y, z, 0.25 * (0.3 + Math.sqrt(1 - c * c) / c))
          const blocked = rayBlocked(tree, x + nx * 0.05, y + ny * 0.05, z + nz * 0.05, d[0], d[1], d[2], 0.01)
          asked++
          if (share > 0.5 === blocked) other++
        }
      }
      expect(other / asked).toBeLessThan(0.03)
    }
  })
  it('casts the shadow of a ball on a floor as wide as the ball', () => {
    const floor = boxBody(60, 60, 1, -30, -30, -1)
    const map = depthMap(concatenate([floor, sphereBody(8, 5, [0, 0, 20])]), [0, 0, 1], 0.2)
    for (const [x, lit] of [
      [0, 0],
      [7.7, 0],
      [8.4, 1],
      [25, 1],
    ] as const)
      expect(seen(map, x, 0, 0, 0.05)).toBe(lit)
    // Outside the picture nothing is in the way.
    expect(seen(map, 500, 500, -10, 0)).toBe(1)
  })
  it('keeps its promise of size whatever pitch is asked', () => {
    const map = depthMap(boxBody(1000, 1000, 10), [0, 0, 1], 0.01)
    expect(map.width * map.height).toBeLessThan(4.1e6)
  })
})
