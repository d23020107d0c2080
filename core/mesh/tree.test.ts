import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { boxBody, sphereBody } from '../testBodies'
import { closest, closestPoint } from './closest'
import { concatenate, type Mesh } from './mesh'
import { rayAll } from './ray'
import { buildTree } from './tree'

/** Depth of the hierarchy; queries keep a stack of 128. */
function depth(mesh: Mesh): number {
  const { count, right } = buildTree(mesh)
  let deepest = 0
  const open: [number, number][] = count.length > 0 ? [[0, 1]] : []
  for (let at = open.pop(); at; at = open.pop()) {
    const [node, level] = at
    deepest = Math.max(deepest, level)
    if (count[node] === 0) open.push([node + 1, level + 1], [right[node]!, level + 1])
  }
  return deepest
}
const triangles = (list: number[][]): Mesh => ({
  positions: new Float32Array(list.flat()),
  triangles: Uint32Array.from({ length: list.length * 3 }, (_, i) => i),
})

describe('the tree of faces that are hard to part', () => {
  it('stays shallow when all faces have one centre, or when a giant is among dwarfs', () => {
    const concentric = triangles(
      Array.from({ length: 4000 }, (_, i) => [-i, -i, 0, i, -i, 0, 0, 2 * i, 0].map((v) => v / 10)),
    )
    expect(depth(concentric)).toBeLessThan(40)
    const dwarfs = concatenate([
      triangles([[-1e4, -1e4, -5, 1e4, -1e4, -5, 0, 2e4, -5]]),
      ...Array.from({ length: 200 }, (_, i) => boxBody(0.01, 0.01, 0.01, i * 0.02, 0, 0)),
    ])
    expect(depth(dwarfs)).toBeLessThan(40)
    const hit = closest()
    expect(closestPoint(buildTree(dwarfs), 0, 0, -4, hit)).toBeCloseTo(1, 4)
    expect(closestPoint(buildTree(dwarfs), 3.985, 0.005, 0.02, hit)).toBeCloseTo(0.01, 4)
  })
  it('answers for no face, one face and a face without area', () => {
    const none = buildTree({ positions: new Float32Array(0), triangles: new Uint32Array(0) })
    expect(closestPoint(none, 0, 0, 0, closest())).toBe(Infinity)
    expect(rayAll(none, 0, 0, 0, 0, 0, 1, 0, 10)).toEqual([])
    const point = buildTree(triangles([[1, 2, 3, 1, 2, 3, 1, 2, 3]]))
    expect(closestPoint(point, 1, 2, 0, closest())).toBeCloseTo(3, 6)
  })
  it('knows every face exactly once, in whatever order they came', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 900 }), fc.integer(), (n, seed) => {
        const whole = sphereBody(10, 3)
        const order = Array.from({ length: 512 }, (_, i) => i).sort(
          (a, b) => Math.sin(a * 12.9 + seed) - Math.sin(b * 12.9 + seed),
        )
        const mesh = {
          positions: whole.positions,
          triangles: Uint32Array.from(
            order.slice(0, n).flatMap((f) => [...whole.triangles.subarray(f * 3, f * 3 + 3)]),
          ),
        }
        const tree = buildTree(mesh)
        expect([...tree.order].sort((a, b) => a - b)).toEqual(
          Array.from({ length: mesh.triangles.length / 3 }, (_, i) => i),
        )
        expect(tree.count.reduce((a, b) => a + b, 0)).toBe(tree.order.length)
      }),
      { numRuns: 40 },
    )
  })
})
