import * as THREE from 'three'
import { computed, type Ref } from 'vue'
import { pointerDrag } from '../composables/pointerDrag'
import { STILL } from './motion'
import { Carrying } from './partDrag'
import type { Picked, Scene } from './scene'
import { useViewport, type Quaternion } from './useViewport'

/** px from it within which a press takes hold of it: a thumb's width on a tablet */
const GRIP = 22

/**
 * What a hand does on the turntable, by the mode that the stage has set: it turns the view, presses a place, brushes, slides what
 * is on the skin, pulls a place in the open, tips the sculpt or carries a part. What the browser takes away is taken back.
 */
export function useGestures(scene: Ref<Scene | null>, canvas: Ref<HTMLCanvasElement | null>) {
  const viewport = useViewport()
  let down: { x: number; y: number } | null = null
  /** the view is being turned */
  let turning = false
  /** what is taken back when the browser takes the pointer away */
  let takeBack: () => void = () => undefined
  /** where what was taken hold of on the skin is now */
  let sliding: Picked | null = null
  /** the place in the open that a hand has hold of */
  let aiming = false
  function gripsTarget(e: PointerEvent): boolean {
    const s = scene.value,
      at = viewport.target
    const p = at && s?.gaze.project(new THREE.Vector3(...at))
    if (!p) return false
    const box = canvas.value!.getBoundingClientRect()
    return Math.hypot(e.clientX - box.left - p.x, e.clientY - box.top - p.y) < GRIP
  }
  const carrying = computed(() => (scene.value ? new Carrying(scene.value) : null))
  function press(e: PointerEvent): boolean {
    const s = scene.value
    if (!s) return false
    down = { x: e.clientX, y: e.clientY }
    turning = false
    if (gripsTarget(e)) {
      const from = [...viewport.target!] as [number, number, number]
      takeBack = () => viewport.aimed(from, true)
      aiming = true
      s.gaze.leftTurns(false)
      return true
    }
    // Beside the sculpt one always turns the table, whatever the mode.
    const at = s.pick(e.clientX, e.clientY)
    sliding = at !== null && viewport.grabs(at) ? at : null
    const held = viewport.mode === 'carry' ? (carrying.value?.begin(e) ?? false) : at !== null
    turning = sliding === null && (viewport.mode === 'look' || viewport.mode === 'pick' || !held)
    s.gaze.leftTurns(turning)
    const from = s.holder.quaternion.toArray() as Quaternion
    takeBack = sliding
      ? () => viewport.slid(at!, true)
      : carrying.value?.busy
        ? () => viewport.carried(STILL, false)
        : () => (viewport.mode === 'tilt' && !turning ? viewport.tilted(from) : undefined)
    if (!turning && viewport.mode === 'brush') brush(e)
    return true
  }
  function move(e: PointerEvent): void {
    const s = scene.value
    if (!s || !down || turning) return
    if (aiming && viewport.target) {
      const at = s.besidePlace(e.clientX, e.clientY, viewport.target)
      if (at) viewport.aimed(at.toArray(), false)
      return
    }
    if (sliding) {
      const at = s.pick(e.clientX, e.clientY)
      if (at) viewport.slid((sliding = at), false)
      return
    }
    if (viewport.mode === 'brush') brush(e)
    if (carrying.value?.busy) viewport.carried(carrying.value.motion(e), false)
    if (viewport.mode === 'tilt') {
      const dx = e.clientX - down.x,
        dy = e.clientY - down.y
      down = { x: e.clientX, y: e.clientY }
      const right = new THREE.Vector3().setFromMatrixColumn(s.camera.matrixWorld, 0),
        up = new THREE.Vector3().setFromMatrixColumn(s.camera.matrixWorld, 1)
      const q = new THREE.Quaternion()
        .setFromAxisAngle(right, dy * 0.008)
        .premultiply(new THREE.Quaternion().setFromAxisAngle(up, dx * 0.008))
      viewport.tilted(s.holder.quaternion.clone().premultiply(q).normalize().toArray() as Quaternion)
    }
  }
  function brush(e: PointerEvent): void {
    const p = scene.value?.pick(e.clientX, e.clientY)
    if (p) viewport.picked(p)
  }
  /** What the left button does when it is next pressed is decided then; until then it is as the mode has it. */
  function letGo(): void {
    down = null
    scene.value?.gaze.leftTurns(viewport.mode === 'look' || viewport.mode === 'pick')
  }
  function cancel(): void {
    letGo()
    takeBack()
    aiming = false
    sliding = null
    if (carrying.value?.busy) carrying.value.end()
  }
  function release(e: PointerEvent): void {
    const still = down !== null && Math.hypot(e.clientX - down.x, e.clientY - down.y) < 4
    letGo()
    if (aiming) {
      aiming = false
      if (viewport.target) viewport.aimed([...viewport.target], true)
      return
    }
    if (sliding) {
      viewport.slid(sliding, true)
      sliding = null
      return
    }
    if (carrying.value?.busy) {
      viewport.carried(carrying.value.motion(e), true)
      carrying.value.end()
    }
    if (still && viewport.mode === 'pick') brush(e)
  }
  return pointerDrag({ start: press, move, end: release, cancel })
}
