import * as THREE from 'three'
import { computed, type Ref } from 'vue'
import { pointerDrag } from '../composables/pointerDrag'
import { STILL } from './motion'
import { MoveDrag } from './partDrag'
import type { Picked, Scene } from './scene'
import type { Quaternion, SceneDescription } from './sceneDescription'
import { useViewport } from './useViewport'

/** px from it within which a press takes hold of it: a thumb's width on a tablet */
const GRIP = 22

/**
 * What a hand does on the turntable, by the mode that the stage has set: it turns the view, presses a place, brushes, slides what
 * is on the skin, pulls a place in the open, tips the sculpt or carries a part. What the browser cancels is undone.
 */
export function useGestures(scene: Ref<Scene | null>, canvas: Ref<HTMLCanvasElement | null>) {
  const viewport = useViewport()
  /** what the stage wants of a hand, as it is now */
  const wants = (): SceneDescription => viewport.scene
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
      at = wants().target
    const p = at && s?.gaze.project(new THREE.Vector3(...at))
    if (!p) return false
    const box = canvas.value!.getBoundingClientRect()
    return Math.hypot(e.clientX - box.left - p.x, e.clientY - box.top - p.y) < GRIP
  }
  const moveDrag = computed(() => (scene.value ? new MoveDrag(scene.value) : null))
  function press(e: PointerEvent): boolean {
    const s = scene.value
    if (!s) return false
    down = { x: e.clientX, y: e.clientY }
    turning = false
    if (gripsTarget(e)) {
      const from = [...wants().target!] as [number, number, number]
      takeBack = () => wants().onTarget?.(from, true)
      aiming = true
      s.gaze.leftTurns(false)
      return true
    }
    // Beside the sculpt one always turns the table, whatever the mode.
    const at = s.pick(e.clientX, e.clientY)
    sliding = at !== null && wants().onGrab?.(at) ? at : null
    const held = wants().mode === 'move' ? (moveDrag.value?.begin(e) ?? false) : at !== null
    turning = sliding === null && (wants().mode === 'look' || wants().mode === 'pick' || !held)
    s.gaze.leftTurns(turning)
    const from = s.holder.quaternion.toArray() as Quaternion
    takeBack = sliding
      ? () => wants().onSlide?.(at!, true)
      : moveDrag.value?.busy
        ? () => wants().onMove?.(STILL, false)
        : () => (wants().mode === 'tilt' && !turning ? wants().onTilt?.(from) : undefined)
    if (!turning && wants().mode === 'brush') brush(e)
    return true
  }
  function move(e: PointerEvent): void {
    const s = scene.value
    if (!s || !down || turning) return
    const { target, mode } = wants()
    if (aiming && target) {
      const at = s.besidePlace(e.clientX, e.clientY, target)
      if (at) wants().onTarget?.(at.toArray(), false)
      return
    }
    if (sliding) {
      const at = s.pick(e.clientX, e.clientY)
      if (at) wants().onSlide?.((sliding = at), false)
      return
    }
    if (mode === 'brush') brush(e)
    if (moveDrag.value?.busy) wants().onMove?.(moveDrag.value.motion(e), false)
    if (mode === 'tilt') {
      const dx = e.clientX - down.x,
        dy = e.clientY - down.y
      down = { x: e.clientX, y: e.clientY }
      const right = new THREE.Vector3().setFromMatrixColumn(s.camera.matrixWorld, 0),
        up = new THREE.Vector3().setFromMatrixColumn(s.camera.matrixWorld, 1)
      const q = new THREE.Quaternion()
        .setFromAxisAngle(right, dy * 0.008)
        .premultiply(new THREE.Quaternion().setFromAxisAngle(up, dx * 0.008))
      wants().onTilt?.(s.holder.quaternion.clone().premultiply(q).normalize().toArray() as Quaternion)
    }
  }
  function brush(e: PointerEvent): void {
    const p = scene.value?.pick(e.clientX, e.clientY)
    if (p) wants().onPick?.(p)
  }
  /** What the left button does when it is next pressed is decided then; until then it is as the mode has it. */
  function letGo(): void {
    down = null
    scene.value?.gaze.leftTurns(wants().mode === 'look' || wants().mode === 'pick')
  }
  function cancel(): void {
    letGo()
    takeBack()
    aiming = false
    sliding = null
    if (moveDrag.value?.busy) moveDrag.value.end()
  }
  function release(e: PointerEvent): void {
    const still = down !== null && Math.hypot(e.clientX - down.x, e.clientY - down.y) < 4
    letGo()
    if (aiming) {
      aiming = false
      const { target, onTarget } = wants()
      if (target) onTarget?.([...target], true)
      return
    }
    if (sliding) {
      wants().onSlide?.(sliding, true)
      sliding = null
      return
    }
    if (moveDrag.value?.busy) {
      wants().onMove?.(moveDrag.value.motion(e), true)
      moveDrag.value.end()
    }
    if (still && wants().mode === 'pick') brush(e)
  }
  return pointerDrag({ start: press, move, end: release, cancel })
}
