// @vitest-environment happy-dom
import * as THREE from 'three'
import { beforeEach, describe, expect, it } from 'vitest'
import { Gaze } from './gaze'
import { Handles } from './handles'
import { MoveDrag } from './partDrag'
import { STILL, type Motion } from './motion'
import type { Scene } from './scene'

/** A part of 40 by 20 by 60 mm on the table, seen in a picture of 800 by 600. */
const BOX = new THREE.Box3(new THREE.Vector3(-20, -10, 0), new THREE.Vector3(20, 10, 60))
let gaze: Gaze, moves: number
beforeEach(() => {
  const canvas = document.createElement('canvas')
  Object.defineProperty(canvas, 'clientWidth', { value: 800 })
  Object.defineProperty(canvas, 'clientHeight', { value: 600 })
  gaze = new Gaze(canvas, BOX)
  gaze.resize(800, 600)
  moves = 0
  gaze.onMove = () => moves++
})
const seen = (): void => {
  gaze.controls.update(0)
  gaze.camera.updateMatrixWorld()
}

describe('the look at the turntable', () => {
  it('has all of it in the picture at home, from a little beside the front', () => {
    gaze.home()
    seen()
    expect(moves).toBe(1)
    for (const x of [-20, 20])
      for (const y of [-10, 10])
        for (const z of [0, 60]) {
          const at = gaze.project(new THREE.Vector3(x, y, z))!
          expect(at.x).toBeGreaterThan(0)
          expect(at.x).toBeLessThan(800)
          expect(at.y).toBeGreaterThan(0)
          expect(at.y).toBeLessThan(600)
        }
    expect(Math.abs(gaze.turned())).toBeLessThan(30)
    // What is on the right of who looks is on the right of the picture.
    expect(gaze.project(new THREE.Vector3(20, 0, 30))!.x).toBeGreaterThan(
      gaze.project(new THREE.Vector3(-20, 0, 30))!.x,
    )
  })
  it('goes round the middle at the distance that it has', () => {
    gaze.home()
    seen()
    const { distance } = gaze.view()
    for (const [azimuth, lift] of [
      [Math.PI / 2, 0],
      [0, Math.PI / 6],
      [-Math.PI / 4, 0.2],
    ] as const) {
      gaze.lookFrom(azimuth, lift)
      seen()
      const view = gaze.view()
      expect(view.distance / distance).toBeCloseTo(1, 3)
      expect(view.from.turn).toBe(Math.round((azimuth * 180) / Math.PI))
      expect(view.from.lift).toBe(Math.round((lift * 180) / Math.PI))
      expect(view.middle).toEqual([0, 0, 30])
      // The middle is in the middle.
      const at = gaze.project(new THREE.Vector3(0, 0, 30))!
      expect(at.x).toBeCloseTo(400, 0)
      expect(at.y).toBeCloseTo(300, 0)
    }
  })
  it('knows how large a millimetre is on the screen', () => {
    gaze.lookFrom(0, 0)
    gaze.home()
    gaze.lookFrom(0, 0)
    seen()
    const a = gaze.project(new THREE.Vector3(-5, 0, 30))!,
      b = gaze.project(new THREE.Vector3(5, 0, 30))!
    expect((b.x - a.x) / 10 / gaze.view().pixelsPerMm).toBeCloseTo(1, 2)
  })
  it('sees nothing of what is behind', () => {
    gaze.home()
    seen()
    const behind = gaze.camera.position.clone().multiplyScalar(2)
    expect(gaze.project(behind)).toBeNull()
  })
  it('has a row of several in the picture, the body first', () => {
    gaze.row(3, 45)
    seen()
    const x = [0, 45, 90].map((dx) => gaze.project(new THREE.Vector3(dx, 0, 30))!.x)
    expect(x[0]).toBeGreaterThan(0)
    expect(x[2]).toBeLessThan(800)
    expect(x[1]! - x[0]!).toBeCloseTo(x[2]! - x[1]!, 0)
  })
})

describe('a part moved by hand', () => {
  /** A level that the hand is on: a millimetre a pixel, the picture’s middle over the part’s. */
  let grip: { grip: 'turn' | 'lift' | 'lean'; point: THREE.Vector3 } | null,
    picked: { point: number[]; companion: string | null } | null
  const scene = {
    grip: () => grip,
    partBox: () => BOX,
    pick: () => picked,
    onLevel: (x: number, y: number, z: number) => new THREE.Vector3(x - 400, 300 - y, z),
    get camera() {
      return gaze.camera
    },
    get gaze() {
      return { mmPerPixel: () => 0.5 }
    },
  } as unknown as Scene
  let moveDrag: MoveDrag
  beforeEach(() => {
    grip = null
    picked = null
    moveDrag = new MoveDrag(scene)
    gaze.lookFrom(0, 0)
    seen()
  })
  const at = (x: number, y: number, more: object = {}) =>
    ({ clientX: x, clientY: y, shiftKey: false, altKey: false, ...more }) as PointerEvent
  const moved = (m: Motion, p: [number, number, number]): number[] => {
    const v = new THREE.Vector3(...p).applyQuaternion(new THREE.Quaternion(...m.quaternion))
    return v.add(new THREE.Vector3(...m.shift)).toArray()
  }
  it('is not taken where there is neither grip nor part, nor by what stands beside it', () => {
    expect(moveDrag.begin(at(0, 0))).toBe(false)
    picked = { point: [1, 2, 3], companion: 'plinth' }
    expect(moveDrag.begin(at(0, 0))).toBe(false)
    expect(moveDrag.busy).toBe(false)
    expect(moveDrag.motion(at(50, 50))).toEqual(STILL)
  })
  it('slides over the table as far as the hand goes, and is lifted with shift', () => {
    picked = { point: [10, 0, 30], companion: null }
    expect(moveDrag.begin(at(410, 300))).toBe(true)
    expect(moveDrag.motion(at(435, 290)).shift).toEqual([25, 10, 0])
    expect(moveDrag.motion(at(435, 280, { shiftKey: true })).shift).toEqual([0, 0, 10])
    moveDrag.end()
    expect(moveDrag.busy).toBe(false)
  })
  it('turns about its foot by whole degrees, or freely with alt', () => {
    grip = { grip: 'turn', point: new THREE.Vector3(30, 0, 0) }
    moveDrag.begin(at(430, 300))
    // The hand goes a quarter round: from the right to the back.
    const quarter = moveDrag.motion(at(400, 270))
    expect(moved(quarter, [20, 0, 0]).map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 20, 0])
    const angle = (m: Motion): number => (2 * Math.acos(Math.min(1, m.quaternion[3])) * 180) / Math.PI
    const little = at(430, 300 - 30 * Math.tan((2.4 * Math.PI) / 180))
    expect(angle(moveDrag.motion(little))).toBeCloseTo(2, 6)
    expect(
      angle(moveDrag.motion({ ...little, altKey: true, clientX: 430, clientY: little.clientY } as PointerEvent)),
    ).toBeCloseTo(2.4, 3)
  })
  it('is lifted by the collar, and leans about its foot to where the knob is pulled', () => {
    grip = { grip: 'lift', point: new THREE.Vector3(30, -20, 20) }
    moveDrag.begin(at(400, 300))
    expect(moveDrag.motion(at(470, 260)).shift).toEqual([0, 0, 20])
    grip = { grip: 'lean', point: new THREE.Vector3(0, 0, 40) }
    moveDrag.begin(at(400, 300))
    expect(moveDrag.motion(at(400, 300))).toEqual(STILL)
    // Pulled 20 mm to the right, 40 mm up from the foot: 26.6°, in whole ones 27.
    const [x, , z] = moved(moveDrag.motion(at(440, 300)), [0, 0, 40]) as [number, number, number]
    expect((Math.atan2(x, z) * 180) / Math.PI).toBeCloseTo(27, 6)
    expect(moved(moveDrag.motion(at(440, 300)), [0, 0, 0]).every((v) => Math.abs(v) < 1e-9)).toBe(true)
  })
})

describe('the handles of a part', () => {
  const down = (x: number, y: number): THREE.Raycaster => {
    const ray = new THREE.Raycaster(new THREE.Vector3(x, y, 500), new THREE.Vector3(0, 0, -1))
    return ray
  }
  it('stand round its foot and beside it, and are gone with it', () => {
    const handles = new Handles()
    handles.place(BOX)
    handles.group.updateMatrixWorld(true)
    const radius = Math.hypot(40, 20) * 0.56
    expect(handles.hit(down(radius, 0))?.grip).toBe('turn')
    expect(handles.hit(down(0, radius))?.grip).toBe('turn')
    expect(handles.hit(down(0, 0))).toBeNull()
    // From above the knob hides the collar under it.
    const post = radius * Math.SQRT1_2
    expect(handles.hit(down(post, -post))?.grip).toBe('lean')
    const beside = new THREE.Raycaster(new THREE.Vector3(post, -500, 0.55 * 0.42 * 60), new THREE.Vector3(0, 1, 0))
    expect(handles.hit(beside)?.grip).toBe('lift')
    handles.place(null)
    expect(handles.group.children).toHaveLength(0)
    expect(handles.hit(down(radius, 0))).toBeNull()
  })
})
