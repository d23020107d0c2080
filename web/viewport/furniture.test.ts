import fc from 'fast-check'
import * as THREE from 'three'
import { describe, expect, it } from 'vitest'
import { boxBody, sphereBody } from '../../core/testBodies'
import { concatenate } from '../../core/mesh/mesh'
import { bareColours, setGlow, setSheen, solidOf, twinOf } from './drawn'
import { Furniture } from './furniture'
import type { Gaze } from './gaze'
import { Twins } from './twins'

const box = (x: number, y: number, z: number, at: [number, number, number] = [0, 0, 0]): THREE.Box3 =>
  new THREE.Box3(new THREE.Vector3(...at), new THREE.Vector3(at[0] + x, at[1] + y, at[2] + z))

describe('the disc and its ruler', () => {
  it('carry whatever stands on them: wider than its box, under its middle, at its foot', () => {
    const size = fc.integer({ min: 1, max: 900 })
    fc.assert(
      fc.property(size, size, size, fc.integer({ min: -50, max: 50 }), (x, y, z, left) => {
        const furniture = new Furniture()
        furniture.build(box(x, y, z, [left, 7, -3]))
        furniture.group.updateMatrixWorld(true)
        const disc = new THREE.Box3().setFromObject(furniture.group.children[0]!)
        const across = disc.max.x - disc.min.x
        expect(across).toBeGreaterThanOrEqual(Math.min(40, Math.hypot(x, y)))
        expect((disc.max.x + disc.min.x) / 2).toBeCloseTo(left + x / 2, 3)
        expect((disc.max.y + disc.min.y) / 2).toBeCloseTo(7 + y / 2, 3)
        // Nothing of it is higher than a hair over the foot.
        expect(disc.max.z).toBeLessThanOrEqual(-3 + 1e-4)
      }),
      { numRuns: 60 },
    )
  })
  it('read in round millimetres, from nothing to a length that fits the sculpt', () => {
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 3000 }), (x) => {
        const furniture = new Furniture()
        furniture.build(box(x, x / 2, x))
        const [none, half, whole] = furniture.rulerMarks.map((m) => m.mm)
        expect([none, half]).toEqual([0, whole! / 2])
        // One, two or five times a power of ten.
        expect([1, 2, 5]).toContain(Math.round(whole! / 10 ** Math.floor(Math.log10(whole!) + 1e-9)))
        const [from, , to] = furniture.rulerMarks.map((m) => m.at)
        expect(to!.x - from!.x).toBeCloseTo(whole!, 6)
        // The plate is before the disc, where the front is.
        expect(from!.y).toBeLessThan(0)
      }),
    )
  })
  it('are round numbers of the unit that somebody measures in', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 3000, noNaN: true }), (x) => {
        const furniture = new Furniture()
        furniture.build(box(x, x / 2, x), 25.4)
        const whole = furniture.rulerMarks[2]!.mm / 25.4
        expect([1, 2, 5]).toContain(Math.round(whole / 10 ** Math.floor(Math.log10(whole) + 1e-9)))
      }),
    )
  })
  it('are made again for another body, and the old ones given back', () => {
    const furniture = new Furniture()
    furniture.build(box(10, 10, 10))
    let gone = 0
    for (const o of furniture.group.children as THREE.Mesh[]) o.geometry.addEventListener('dispose', () => gone++)
    const before = furniture.group.children.length
    furniture.build(box(90, 90, 90))
    expect(gone).toBe(before)
    expect(furniture.group.children).toHaveLength(before)
  })
})

const painted = (n: number, level: number) => ({
  colours: new Float32Array(n * 3).fill(level),
  sheen: new Float32Array(n * 2).fill(0.3),
  glow: null,
})

describe('what is drawn of a body', () => {
  const body = boxBody(10, 10, 20),
    n = body.positions.length / 3
  it('is clay, its supports in a colour of their own', () => {
    const stem = sphereBody(1, 1, [20, 0, 0])
    const both = concatenate([body, stem])
    const colours = bareColours(both, body.triangles.length / 3)
    const first = [...colours.slice(0, 3)],
      last = [...colours.slice(-3)]
    expect(first).not.toEqual(last)
    for (let v = 0; v < n; v++) expect([...colours.slice(3 * v, 3 * v + 3)]).toEqual(first)
    for (let v = n; v < both.positions.length / 3; v++) expect([...colours.slice(3 * v, 3 * v + 3)]).toEqual(last)
  })
  it('has the file’s own colours where it has some, made linear', () => {
    const grey = bareColours({ ...body, colours: new Uint8Array(3 * n).fill(188) }, 12)
    // 188 of 255 in sRGB is half of the light.
    for (const c of grey) expect(c).toBeCloseTo(0.503, 2)
  })
  it('is as rough as clay and dark inside until paint says otherwise, and again after', () => {
    const solid = solidOf(body, bareColours(body, 12))
    const of = (name: string): number[] => [...(solid.geometry.getAttribute(name).array as Float32Array)]
    const clay = of('sheen')
    expect(clay.filter((_, i) => i % 2 === 1).every((metal) => metal === 0)).toBe(true)
    setSheen(solid, new Float32Array(2 * n).fill(0.9))
    setGlow(solid, new Float32Array(3 * n).fill(2))
    expect(of('sheen')[0]).toBeCloseTo(0.9, 6)
    expect(of('glow')[0]).toBe(2)
    // Of another body: not taken.
    setSheen(solid, new Float32Array(4).fill(0.1))
    expect(of('sheen')).toEqual(clay)
    setGlow(solid, null)
    expect(of('glow').every((v) => v === 0)).toBe(true)
  })
  it('shares with its twin what does not differ, and nothing else', () => {
    const solid = solidOf(body, bareColours(body, 12)),
      twin = twinOf(solid, painted(n, 0.7))
    for (const name of ['position', 'normal'])
      expect(twin.geometry.getAttribute(name)).toBe(solid.geometry.getAttribute(name))
    for (const name of ['color', 'sheen', 'glow'])
      expect(twin.geometry.getAttribute(name)).not.toBe(solid.geometry.getAttribute(name))
    setSheen(twin, null)
    expect((solid.geometry.getAttribute('sheen').array as Float32Array)[0]).toBeCloseTo(0.62, 6)
  })
})

describe('the same body beside itself', () => {
  const body = boxBody(10, 10, 20),
    n = body.positions.length / 3
  const solid = solidOf(body, bareColours(body, 12))
  solid.geometry.computeBoundingBox()
  it('stands in a row, each a little more than its own width from the next', () => {
    const twins = new Twins()
    const step = twins.stand(solid, [painted(n, 0.1), painted(n, 0.5)])
    expect(step).toBeCloseTo(11.2, 6)
    expect(twins.group.children.map((t) => t.position.x)).toEqual([step, 2 * step])
    expect(twins.stand(null, [painted(n, 1)])).toBe(0)
    expect(twins.group.children).toEqual([])
  })
  it('leaves the body its own places and faces when it goes', () => {
    const twins = new Twins()
    twins.stand(solid, [painted(n, 0.1)])
    const twin = twins.group.children[0] as THREE.Mesh
    let disposed = 0
    twin.geometry.addEventListener('dispose', () => disposed++)
    twins.stand(solid, [])
    expect(disposed).toBe(1)
    expect(twin.geometry.getAttribute('position')).toBeUndefined()
    expect(solid.geometry.getAttribute('position').count).toBe(n)
    expect(solid.geometry.getIndex()!.count).toBe(36)
  })
  it('has a name over each that is in the picture, and none where it stands alone', () => {
    const twins = new Twins(),
      // What is farther right than 15 mm is out of the picture.
      gaze = { project: (p: THREE.Vector3) => (p.x > 15 ? null : { x: p.x, y: -p.z }) } as unknown as Gaze
    const whole = solid.geometry.boundingBox!
    expect(twins.tops(whole, gaze)).toEqual([])
    twins.stand(solid, [painted(n, 0.1), painted(n, 0.2)])
    expect(twins.tops(whole, gaze)).toEqual([{ x: 5, y: -20 }])
    expect(twins.tops(null, gaze)).toEqual([])
  })
})
