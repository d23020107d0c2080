// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import * as THREE from 'three'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref, shallowRef } from 'vue'
import type { Scene } from './scene'
import { useGestures } from './useGestures'
import type { SceneLayer } from './sceneDescription'
import { useViewport } from './useViewport'

/** A turntable of which everything left of x = 100 is sculpt; places are the pointer's own. */
const skin = (x: number, y: number) =>
  x < 100
    ? { point: [x, y, 0] as [number, number, number], normal: [0, 0, 1] as [number, number, number], companion: null }
    : null
function table() {
  const leftTurns = vi.fn<(on: boolean) => void>()
  const scene = {
    pick: skin,
    gaze: { leftTurns, project: (v: THREE.Vector3) => ({ x: v.x, y: v.y }) },
    besidePlace: (x: number, y: number) => new THREE.Vector3(x, y, 5),
    holder: new THREE.Group(),
    camera: new THREE.PerspectiveCamera(),
  }
  const canvas = document.createElement('canvas')
  const drag = useGestures(shallowRef(scene as unknown as Scene), ref(canvas))
  const event = (type: string, x: number, y: number, more: PointerEventInit = {}): PointerEvent => {
    const e = new PointerEvent(type, {
      clientX: x,
      clientY: y,
      pointerId: 1,
      button: 0,
      buttons: 1,
      isPrimary: true,
      ...more,
    })
    Object.defineProperty(e, 'currentTarget', { value: canvas })
    return e
  }
  canvas.setPointerCapture = () => undefined
  canvas.releasePointerCapture = () => undefined
  canvas.hasPointerCapture = () => true
  return {
    leftTurns,
    scene,
    down: (x: number, y: number, more?: PointerEventInit) => drag.pointerdown(event('pointerdown', x, y, more)),
    move: (x: number, y: number) => drag.pointermove(event('pointermove', x, y)),
    up: (x: number, y: number) => drag.pointerup(event('pointerup', x, y)),
    cancel: (x: number, y: number) => drag.pointercancel(event('pointercancel', x, y)),
  }
}
let viewport: ReturnType<typeof useViewport>
beforeEach(() => {
  setActivePinia(createPinia())
  viewport = useViewport()
})
/** A stage that wants that of a hand. */
const wants = (layer: SceneLayer): void => void effectScope().run(() => viewport.describe(() => layer))

describe('a hand on the turntable', () => {
  it('presses a place only where it stays still, and only on the sculpt', () => {
    const placed: number[][] = []
    wants({ mode: 'pick', onPick: (p) => placed.push(p.point) })
    const t = table()
    t.down(40, 40)
    t.up(42, 41)
    t.down(40, 40)
    t.move(70, 40)
    t.up(70, 40)
    t.down(150, 40)
    t.up(150, 40)
    expect(placed).toEqual([[42, 41, 0]])
  })
  it('brushes on the sculpt and turns the table beside it', () => {
    const placed: number[] = []
    wants({ mode: 'brush', onPick: (p) => placed.push(p.point[0]) })
    const t = table()
    t.down(40, 40)
    t.move(50, 40)
    t.up(50, 40)
    expect(placed).toEqual([40, 50])
    expect(t.leftTurns).toHaveBeenNthCalledWith(1, false)
    t.down(150, 40)
    t.move(90, 40)
    t.up(90, 40)
    expect(placed).toEqual([40, 50])
    expect(t.leftTurns).toHaveBeenNthCalledWith(3, true)
  })
  it('tips the sculpt as it is dragged, and tips it back when the browser takes the pointer away', () => {
    const tipped: number[][] = []
    wants({ mode: 'tilt', onTilt: (q) => tipped.push([...q]) })
    const t = table()
    t.down(40, 40)
    t.move(60, 40)
    expect(tipped.at(-1)!.map(Math.abs)).not.toEqual([0, 0, 0, 1])
    t.cancel(60, 40)
    expect(tipped.at(-1)).toEqual([0, 0, 0, 1])
    // It is over: what comes after belongs to nothing.
    const count = tipped.length
    t.move(90, 40)
    expect(tipped).toHaveLength(count)
  })
  it('slides what it took hold of along the skin, and sets it back where it was when that is cancelled', () => {
    const slid: [number, boolean][] = []
    wants({
      onGrab: (p) => p.point[0] < 50,
      onSlide: (p, ended) => slid.push([p.point[0], ended]),
    })
    const t = table()
    t.down(40, 40)
    t.move(60, 40)
    // Off the sculpt it stays where it was last.
    t.move(120, 40)
    t.up(120, 40)
    expect(slid).toEqual([
      [60, false],
      [60, true],
    ])
    t.down(40, 40)
    t.move(70, 40)
    t.cancel(70, 40)
    expect(slid.slice(2)).toEqual([
      [70, false],
      [40, true],
    ])
  })
})
