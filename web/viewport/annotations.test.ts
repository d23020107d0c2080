import fc from 'fast-check'
import * as THREE from 'three'
import type { LineSegments2 } from 'three/addons/lines/LineSegments2.js'
import { beforeEach, describe, expect, it } from 'vitest'
import { boxBody } from '../../core/testBodies'
import { Annotations, type Marker } from './annotations'

let notes: Annotations
beforeEach(() => {
  notes = new Annotations()
})
/** All that is drawn in a group, groups left out. */
const drawn = (group: THREE.Object3D): THREE.Mesh[] => {
  const out: THREE.Mesh[] = []
  group.traverse((o) => {
    if (!(o instanceof THREE.Group)) out.push(o as THREE.Mesh)
  })
  return out
}
/** How much of what is drawn now is given back to the graphics card by that; several may share a geometry. */
function freed(group: THREE.Object3D, by: () => void): number {
  const before = drawn(group),
    disposed = new Set<THREE.BufferGeometry>()
  for (const o of before) o.geometry.addEventListener('dispose', () => disposed.add(o.geometry))
  by()
  return before.filter((o) => disposed.has(o.geometry)).length
}
const at = (x: number, more: Partial<Marker> = {}): Marker => ({ point: [x, 0, 0], kind: 'note', ...more })
const matrices = (o: THREE.InstancedMesh): THREE.Matrix4[] =>
  Array.from({ length: o.count }, (_, i) => {
    const m = new THREE.Matrix4()
    o.getMatrixAt(i, m)
    return m
  })

describe('marks on the sculpt', () => {
  it('are where they were said, as large as asked or as the unit', () => {
    notes.mark([at(1), at(2, { radius: 3 })], 0.5)
    const [dots] = drawn(notes.onBody) as THREE.InstancedMesh[]
    const all = matrices(dots!)
    expect(all.map((m) => new THREE.Vector3().setFromMatrixPosition(m).x)).toEqual([1, 2])
    expect(all.map((m) => new THREE.Vector3().setFromMatrixScale(m).x)).toEqual([0.5, 3])
  })
  it('have a colour for each meaning, one draw call for all of a kind, and show through only when asked', () => {
    notes.mark([at(1), at(2), at(3, { kind: 'problem' }), at(4, { kind: 'problem', over: true })], 1)
    const all = drawn(notes.onBody) as THREE.InstancedMesh[]
    expect(all.map((o) => o.count).sort()).toEqual([1, 1, 2])
    const material = (o: THREE.InstancedMesh) => o.material as THREE.MeshBasicMaterial
    expect(new Set(all.map((o) => material(o).color.getHex())).size).toBe(2)
    expect(all.filter((o) => !material(o).depthTest).map((o) => o.count)).toEqual([1])
  })
  it('take the place of those before, whose memory is given back', () => {
    notes.mark([at(1), at(2, { kind: 'tip' })], 1)
    expect(freed(notes.onBody, () => notes.mark([at(3)], 1))).toBe(2)
    expect(drawn(notes.onBody)).toHaveLength(1)
    expect(freed(notes.onBody, () => notes.mark([], 1))).toBe(1)
    expect(drawn(notes.onBody)).toEqual([])
  })
})

describe('lines on the skin', () => {
  it('join each point with the next, and the last with the first where they are closed', () => {
    const points = new Float32Array([0, 0, 0, 1, 0, 0, 1, 1, 0])
    const ends = (closed: boolean): number => {
      notes.guides([{ colour: 0x123456, lines: [{ points, closed }] }])
      const [line] = drawn(notes.onBody) as unknown as LineSegments2[]
      return line!.geometry.getAttribute('instanceStart').count
    }
    expect(ends(false)).toBe(2)
    expect(ends(true)).toBe(3)
  })
  it('of one meaning are one thing to draw, however many there are', () => {
    const line = { points: new Float32Array([0, 0, 0, 1, 0, 0]), closed: false }
    notes.guides([
      { colour: 1, lines: [line, line, line] },
      { colour: 2, lines: [line] },
    ])
    expect(drawn(notes.onBody)).toHaveLength(2)
  })
})

describe('a line over the sculpt', () => {
  const spans = (points: [number, number, number][], sharp: boolean): THREE.Box3 => {
    notes.line({ points, closed: false, sharp }, 0.2)
    return new THREE.Box3().setFromObject(notes.fixed)
  }
  it('is none of fewer than two points', () => {
    notes.line({ points: [[1, 2, 3]], closed: false }, 1)
    expect(drawn(notes.fixed)).toEqual([])
  })
  it('goes from its first point to its last, and no farther than its own width where it is sharp', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 2, maxLength: 6 }), (heights) => {
        const points = heights.map((z, i): [number, number, number] => [10 * i, 0, z])
        const box = spans(points, true)
        expect(box.min.z).toBeGreaterThanOrEqual(Math.min(...heights) - 0.21)
        expect(box.max.z).toBeLessThanOrEqual(Math.max(...heights) + 0.21)
        expect(box.max.x - box.min.x).toBeGreaterThanOrEqual(10 * (heights.length - 1) - 1e-3)
      }),
      { numRuns: 30 },
    )
  })
  it('is seen faintly where it runs behind the skin', () => {
    spans(
      [
        [0, 0, 0],
        [5, 0, 0],
      ],
      false,
    )
    const faint = drawn(notes.fixed).map((o) => o.material as THREE.MeshBasicMaterial)
    expect(faint.map((m) => [m.depthTest, m.opacity])).toEqual([
      [true, 1],
      [false, 0.25],
    ])
  })
})

describe('a cutting plane', () => {
  it('is where it is said, square to its normal, and goes again', () => {
    fc.assert(
      fc.property(
        fc.tuple(fc.integer({ min: -9, max: 9 }), fc.integer({ min: -9, max: 9 }), fc.integer({ min: 1, max: 9 })),
        ([x, y, z]) => {
          const normal = new THREE.Vector3(x, y, z).normalize()
          notes.plane({ point: [1, 2, 3], normal: normal.toArray() }, 30)
          const [sheet] = drawn(notes.fixed)
          const facing = new THREE.Vector3(0, 0, 1).applyQuaternion(sheet!.quaternion)
          expect(facing.distanceTo(normal)).toBeLessThan(1e-6)
          expect(sheet!.position.toArray()).toEqual([1, 2, 3])
        },
      ),
      { numRuns: 30 },
    )
    expect(freed(notes.fixed, () => notes.plane(null, 30))).toBe(2)
    expect(drawn(notes.fixed)).toEqual([])
  })
})

describe('resin in the part', () => {
  it('is the body that it is, and nothing where there is none', () => {
    notes.pour(boxBody(2, 3, 4))
    const [liquid] = drawn(notes.onBody)
    expect(new THREE.Box3().setFromObject(liquid!).getSize(new THREE.Vector3()).toArray()).toEqual([2, 3, 4])
    notes.pour({ positions: new Float32Array(0), triangles: new Uint32Array(0) })
    expect(drawn(notes.onBody)).toEqual([])
    notes.pour(null)
    expect(drawn(notes.onBody)).toEqual([])
  })
})
