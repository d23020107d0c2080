import * as THREE from 'three'
import type { Grip } from './handles'
import { STILL, type Motion } from './motion'
import type { Scene } from './scene'

interface Hold {
  grip: Grip | 'slide'
  /** where on the screen and in the world it was taken */
  x: number
  y: number
  from: THREE.Vector3
  /** middle of the part's foot, about which it turns and leans */
  foot: THREE.Vector3
}

/** Degrees of a pull on the ring and the knob snap to whole ones; with Alt held they do not. */
const SNAP = Math.PI / 180

/** A part moved by hand: what each pull on a grip means, as a motion from where the part stands. */
export class MoveDrag {
  private hold: Hold | null = null
  constructor(private readonly scene: Scene) {}

  /** Takes hold at a place on the screen; false when there is neither grip nor part. */
  begin(e: PointerEvent): boolean {
    const met = this.scene.grip(e.clientX, e.clientY)
    const box = this.scene.partBox()
    if (!box) return false
    const foot = box.getCenter(new THREE.Vector3()).setZ(box.min.z)
    if (met) {
      this.hold = { grip: met.grip, x: e.clientX, y: e.clientY, from: met.point, foot }
      return true
    }
    const p = this.scene.pick(e.clientX, e.clientY)
    if (!p || p.companion !== null) return false
    this.hold = { grip: 'slide', x: e.clientX, y: e.clientY, from: new THREE.Vector3(...p.point), foot }
    return true
  }

  get busy(): boolean {
    return this.hold !== null
  }

  end(): void {
    this.hold = null
  }

  motion(e: PointerEvent): Motion {
    const h = this.hold
    if (!h) return STILL
    const snap = (a: number): number => (e.altKey ? a : Math.round(a / SNAP) * SNAP)
    switch (h.grip) {
      case 'slide': {
        if (e.shiftKey) return this.lifted(h, e)
        const to = this.scene.onLevel(e.clientX, e.clientY, h.from.z)
        return to ? { ...STILL, shift: [to.x - h.from.x, to.y - h.from.y, 0] } : STILL
      }
      case 'lift':
        return this.lifted(h, e)
      case 'turn': {
        const to = this.scene.onLevel(e.clientX, e.clientY, h.foot.z)
        if (!to) return STILL
        const angle = (p: THREE.Vector3): number => Math.atan2(p.y - h.foot.y, p.x - h.foot.x)
        return about(new THREE.Vector3(0, 0, 1), snap(angle(to) - angle(h.from)), h.foot)
      }
      case 'lean': {
        const right = new THREE.Vector3().setFromMatrixColumn(this.scene.camera.matrixWorld, 0).setZ(0).normalize()
        const away = new THREE.Vector3(0, 0, 1).cross(right)
        const k = this.scene.gaze.mmPerPixel(h.from)
        const pull = right.multiplyScalar((e.clientX - h.x) * k).add(away.multiplyScalar(-(e.clientY - h.y) * k))
        const length = pull.length()
        if (length < 1e-6) return STILL
        const axis = new THREE.Vector3(0, 0, 1).cross(pull.divideScalar(length))
        return about(axis, snap(Math.atan2(length, Math.max(1, h.from.z - h.foot.z))), h.foot)
      }
    }
  }

  private lifted(h: Hold, e: PointerEvent): Motion {
    return { ...STILL, shift: [0, 0, (h.y - e.clientY) * this.scene.gaze.mmPerPixel(h.from)] }
  }
}

function about(axis: THREE.Vector3, angle: number, at: THREE.Vector3): Motion {
  const q = new THREE.Quaternion().setFromAxisAngle(axis, angle)
  const shift = at.clone().sub(at.clone().applyQuaternion(q))
  return { quaternion: [q.x, q.y, q.z, q.w], shift: [shift.x, shift.y, shift.z] }
}
