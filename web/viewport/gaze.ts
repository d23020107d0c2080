import CameraControls from 'camera-controls'
import * as THREE from 'three'

CameraControls.install({ THREE })

/** Where the turntable is looked at from. */
export interface Eyes {
  /** middle of what is looked at, mm, and how far off; what it measures on the screen, px */
  view: () => {
    middle: [number, number, number]
    distance: number
    pixelsPerMm: number
    centre: [number, number]
    /** where the viewer stands: degrees to the sculpt's own left of its front, and up */
    from: { turn: number; lift: number }
  }
  /** radians round from the front and up from the level, at the same distance */
  lookFrom: (azimuth: number, elevation: number) => void
}

/** Whoever looks at the turntable: from where, how large things are on the screen, and how the look is turned. */
export class Gaze implements Eyes {
  readonly camera = new THREE.PerspectiveCamera(28, 1, 1, 5000)
  readonly controls: CameraControls
  /** called when the view is set at once, without a way there */
  onMove: () => void = () => undefined

  /** @param whole box of all that stands on the disc, kept up to date by its owner */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly whole: THREE.Box3,
  ) {
    this.camera.up.set(0, 0, 1)
    this.controls = new CameraControls(this.camera, canvas)
    this.controls.updateCameraUp()
    this.controls.dollyToCursor = true
    // Who wants no motion sees the view that was asked for, and not the way to it.
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches
    this.controls.smoothTime = still ? 0 : 0.12
    this.controls.draggingSmoothTime = still ? 0 : 0.04
  }

  resize(width: number, height: number): void {
    this.camera.aspect = width / Math.max(1, height)
    this.camera.updateProjectionMatrix()
  }
  private middle(): THREE.Vector3 {
    return this.whole.getCenter(new THREE.Vector3())
  }

  /** The whole, from a little beside the front. */
  home(): void {
    const size = this.whole.getSize(new THREE.Vector3())
    const r = Math.max(size.z * 0.66, Math.hypot(size.x, size.y) * 0.8)
    const distance = r / Math.tan((this.camera.fov * Math.PI) / 360)
    const c = this.middle()
    void this.controls.setLookAt(
      c.x + distance * 0.34,
      c.y - distance * 0.98,
      c.z + distance * 0.2,
      c.x,
      c.y,
      c.z - size.z * 0.07,
      false,
    )
    this.onMove()
  }

  /** Several of them in a row along x, from the front, each `step` mm from the next. */
  row(count: number, step: number): void {
    const size = this.whole.getSize(new THREE.Vector3()),
      c = this.middle()
    const half = Math.tan((this.camera.fov * Math.PI) / 360)
    const distance = Math.max((size.z * 0.6) / half, (count * step * 0.56) / (half * this.camera.aspect))
    const x = c.x + (step * (count - 1)) / 2
    void this.controls.setLookAt(x, c.y - distance, c.z + distance * 0.12, x, c.y, c.z - size.z * 0.04, false)
    this.onMove()
  }

  /** What is looked at, how far off, and how large it is on the screen. */
  view(): ReturnType<Eyes['view']> {
    const middle = this.middle()
    const deg = 180 / Math.PI
    const distance = middle.distanceTo(this.camera.position)
    return {
      middle: middle.toArray(),
      distance,
      pixelsPerMm: 1 / this.mmPerPixel(middle),
      centre: [this.canvas.clientWidth / 2, this.canvas.clientHeight / 2],
      from: { turn: this.turned(), lift: Math.round(90 - this.controls.polarAngle * deg) },
    }
  }
  /** The middle is looked at from there, at the distance it has. */
  lookFrom(azimuth: number, elevation: number): void {
    const {
      middle: [x, y, z],
      distance: d,
    } = this.view()
    const level = d * Math.cos(elevation)
    void this.controls.setLookAt(
      x + level * Math.sin(azimuth),
      y - level * Math.cos(azimuth),
      z + d * Math.sin(elevation),
      x,
      y,
      z,
      false,
    )
    this.onMove()
  }

  /** Looks at a place from outside. */
  at(p: THREE.Vector3): void {
    const out = p.clone().sub(this.middle()).setZ(0)
    if (out.length() < 1) out.set(0.3, -1, 0)
    out.normalize().multiplyScalar(Math.max(40, this.whole.getSize(new THREE.Vector3()).length() * 0.55))
    void this.controls.setLookAt(p.x + out.x, p.y + out.y, p.z + out.length() * 0.35, p.x, p.y, p.z, true)
  }

  /** Degrees by which the front is turned away from the viewer. */
  turned(): number {
    return Math.round((((((this.controls.azimuthAngle * 180) / Math.PI) % 360) + 540) % 360) - 180)
  }
  /** Whether the left button, or one finger, turns the view. The wheel, the right button and two fingers always move it. */
  leftTurns(turns: boolean): void {
    const { ACTION } = CameraControls
    this.controls.mouseButtons.left = turns ? ACTION.ROTATE : ACTION.NONE
    this.controls.touches.one = turns ? ACTION.TOUCH_ROTATE : ACTION.NONE
  }
  turnTo(degrees: number): void {
    void this.controls.rotateTo((degrees * Math.PI) / 180, this.controls.polarAngle, true)
  }

  /** Screen place of a world point, or null when it lies behind. */
  project(p: THREE.Vector3): { x: number; y: number } | null {
    const v = p.clone().project(this.camera)
    if (v.z > 1) return null
    return { x: ((v.x + 1) / 2) * this.canvas.clientWidth, y: ((1 - v.y) / 2) * this.canvas.clientHeight }
  }

  /** mm that a pixel is at a place. */
  mmPerPixel(at: THREE.Vector3): number {
    const d = at.distanceTo(this.camera.position)
    return (2 * d * Math.tan((this.camera.fov * Math.PI) / 360)) / Math.max(1, this.canvas.clientHeight)
  }
}
