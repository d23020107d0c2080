import CameraControls from 'camera-controls'
import * as THREE from 'three'
import { acceleratedRaycast, MeshBVH } from 'three-mesh-bvh'
import type { Mesh } from '../../core/mesh/mesh'

CameraControls.install({ THREE })
THREE.Mesh.prototype.raycast = acceleratedRaycast

export interface Marker { point: [number, number, number]; kind: 'settle' | 'know' | 'note' | 'hole' | 'tip' | 'hand'; radius?: number }
export interface Picked { point: [number, number, number]; normal: [number, number, number]; face: number }

const MARKER_COLOURS = { settle: 0xb3361f, know: 0xc07c00, note: 0x37588a, hole: 0x0e5a61, tip: 0x5d7f50, hand: 0x7a3f8a }
const CLAY = new THREE.Color(0xcdc2b0), STEM = new THREE.Color(0x8fa3a0)

/**
 * The sculpt on its turntable: a disc with a graduated rim, the front marked, a ruler at its foot. Draws only when
 * something changed.
 */
export class Scene {
  readonly renderer: THREE.WebGLRenderer
  readonly scene = new THREE.Scene()
  readonly camera = new THREE.PerspectiveCamera(28, 1, 1, 5000)
  readonly controls: CameraControls
  /** carries the sculpt; tilting by hand turns it */
  readonly holder = new THREE.Group()
  private readonly furniture = new THREE.Group()
  private readonly markers = new THREE.Group()
  private body: THREE.Mesh | null = null
  private frame = 0
  private last = performance.now()
  private readonly key = new THREE.DirectionalLight(0xfff1dc, 3.1)
  private disposed = false
  size = new THREE.Vector3(60, 60, 100)
  onDraw: (() => void) | null = null

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true })
    this.renderer.setPixelRatio(Math.min(1.5, window.devicePixelRatio))
    this.renderer.toneMapping = THREE.NeutralToneMapping
    this.camera.up.set(0, 0, 1)
    this.controls = new CameraControls(this.camera, canvas)
    this.controls.updateCameraUp()
    this.controls.dollyToCursor = true
    this.controls.smoothTime = 0.12
    this.controls.draggingSmoothTime = 0.04
    this.scene.add(new THREE.HemisphereLight(0xeef2f6, 0x9a8f80, 1.25))
    const fill = new THREE.DirectionalLight(0xcfdcea, 0.5), rim = new THREE.DirectionalLight(0xffffff, 0.9)
    // Lights ride with the camera, so form reads from every side: key high on the left, fill low, rim behind.
    this.key.position.set(-0.75, 0.95, 0.75)
    fill.position.set(0.9, -0.15, 0.7)
    rim.position.set(0.7, 0.6, -0.9)
    for (const l of [this.key, fill, rim]) { this.camera.add(l); this.camera.add(l.target) }
    this.scene.add(this.camera, this.holder, this.furniture)
    this.holder.add(this.markers)
    this.controls.addEventListener('update', () => this.draw())
    this.tick()
  }

  private tick = (): void => {
    if (this.disposed) return
    const now = performance.now()
    const moved = this.controls.update((now - this.last) / 1000)
    this.last = now
    if (moved) this.draw()
    this.frame = requestAnimationFrame(this.tick)
  }

  private pendingDraw = false
  draw(): void {
    if (this.pendingDraw || this.disposed) return
    this.pendingDraw = true
    requestAnimationFrame(() => {
      this.pendingDraw = false
      if (this.disposed) return
      this.renderer.render(this.scene, this.camera)
      this.onDraw?.()
    })
  }

  resize(width: number, height: number): void {
    this.renderer.setSize(width, height, false)
    this.camera.aspect = width / Math.max(1, height)
    this.camera.updateProjectionMatrix()
    this.draw()
  }

  /** @param bodyFaces faces from this one on are supports, drawn apart */
  show(mesh: Mesh | null, bodyFaces: number, keepView: boolean): void {
    if (this.body) {
      this.holder.remove(this.body)
      this.body.geometry.dispose()
      ;(this.body.material as THREE.Material).dispose()
      this.body = null
    }
    if (!mesh) { this.draw(); return }
    const geometry = new THREE.BufferGeometry()
    geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 3))
    geometry.setIndex(new THREE.BufferAttribute(mesh.triangles, 1))
    geometry.computeVertexNormals()
    const colours = new Float32Array(mesh.positions.length)
    const stems = new Set<number>()
    for (let i = bodyFaces * 3; i < mesh.triangles.length; i++) stems.add(mesh.triangles[i]!)
    for (let v = 0; v < mesh.positions.length / 3; v++) (stems.has(v) ? STEM : CLAY).toArray(colours, v * 3)
    geometry.setAttribute('color', new THREE.BufferAttribute(colours, 3))
    geometry.boundsTree = new MeshBVH(geometry, { indirect: true })
    this.body = new THREE.Mesh(geometry, new THREE.MeshStandardMaterial({ vertexColors: true, roughness: 0.62, metalness: 0, side: THREE.DoubleSide }))
    this.holder.add(this.body)
    geometry.computeBoundingBox()
    const box = geometry.boundingBox!
    box.getSize(this.size)
    this.furnish(box)
    if (!keepView) this.home()
    this.draw()
  }

  /** Linear 0..1 colours per vertex, or null for bare clay. */
  paint(colours: Float32Array | null): void {
    const attribute = this.body?.geometry.getAttribute('color') as THREE.BufferAttribute | undefined
    if (!attribute) return
    if (colours && colours.length === attribute.array.length) (attribute.array as Float32Array).set(colours)
    else for (let v = 0; v < attribute.count; v++) CLAY.toArray(attribute.array as Float32Array, v * 3)
    attribute.needsUpdate = true
    this.draw()
  }

  tilt(q: readonly [number, number, number, number] | null): void {
    this.holder.quaternion.set(...(q ?? [0, 0, 0, 1]))
    this.holder.position.set(0, 0, 0)
    if (q && this.body) {
      // The lowest point stays on the disc while it is tilted.
      const p = this.body.geometry.getAttribute('position').array as Float32Array
      const m = new THREE.Matrix4().makeRotationFromQuaternion(this.holder.quaternion).elements
      let low = Infinity
      const stride = Math.max(3, Math.floor(p.length / 3 / 20_000) * 3)
      for (let i = 0; i < p.length; i += stride) low = Math.min(low, m[2]! * p[i]! + m[6]! * p[i + 1]! + m[10]! * p[i + 2]!)
      this.holder.position.z = this.furniture.position.z - low
    }
    this.draw()
  }

  home(): void {
    const r = Math.max(this.size.z * 0.66, Math.hypot(this.size.x, this.size.y) * 0.8)
    const distance = r / Math.tan((this.camera.fov * Math.PI) / 360)
    const c = this.centre()
    void this.controls.setLookAt(c.x + distance * 0.34, c.y - distance * 0.98, c.z + distance * 0.2, c.x, c.y, c.z - this.size.z * 0.07, false)
  }
  private centre(): THREE.Vector3 {
    const box = this.body?.geometry.boundingBox
    return box ? box.getCenter(new THREE.Vector3()) : new THREE.Vector3(0, 0, 50)
  }

  /** Looks at a place from where its skin faces. */
  frameSpot(point: readonly [number, number, number]): void {
    const p = this.holder.localToWorld(new THREE.Vector3(...point))
    const out = p.clone().sub(this.centre()).setZ(0)
    if (out.length() < 1) out.set(0.3, -1, 0)
    out.normalize().multiplyScalar(Math.max(40, this.size.length() * 0.55))
    void this.controls.setLookAt(p.x + out.x, p.y + out.y, p.z + out.length() * 0.35, p.x, p.y, p.z, true)
  }

  mark(list: readonly Marker[]): void {
    this.markers.clear()
    const unit = Math.max(0.35, this.size.length() / 240)
    const ball = new THREE.SphereGeometry(1, 12, 8)
    for (const kind of Object.keys(MARKER_COLOURS) as Marker['kind'][]) {
      const of = list.filter((m) => m.kind === kind)
      if (of.length === 0) continue
      const dots = new THREE.InstancedMesh(ball, new THREE.MeshBasicMaterial({ color: MARKER_COLOURS[kind] }), of.length)
      const m = new THREE.Matrix4()
      of.forEach((o, i) => { const s = o.radius ?? unit; dots.setMatrixAt(i, m.makeScale(s, s, s).setPosition(...o.point)) })
      this.markers.add(dots)
    }
    this.draw()
  }

  pick(x: number, y: number): Picked | null {
    if (!this.body) return null
    const r = this.canvas.getBoundingClientRect()
    const ray = new THREE.Raycaster()
    ray.firstHitOnly = true
    ray.setFromCamera(new THREE.Vector2(((x - r.left) / r.width) * 2 - 1, -((y - r.top) / r.height) * 2 + 1), this.camera)
    const hit = ray.intersectObject(this.body, false)[0]
    if (!hit?.face) return null
    const local = this.holder.worldToLocal(hit.point.clone())
    return { point: local.toArray(), normal: hit.face.normal.toArray(), face: hit.faceIndex ?? 0 }
  }

  /** Degrees by which the front is turned away from the viewer. */
  turned(): number {
    return Math.round((((this.controls.azimuthAngle * 180) / Math.PI) % 360 + 540) % 360 - 180)
  }
  turnTo(degrees: number): void { void this.controls.rotateTo((degrees * Math.PI) / 180, this.controls.polarAngle, true) }

  /** Disc, graduated rim with its front mark, and the ruler lying before it. */
  private furnish(box: THREE.Box3): void {
    this.furniture.clear()
    const c = box.getCenter(new THREE.Vector3())
    this.furniture.position.set(c.x, c.y, box.min.z)
    const radius = Math.max(20, Math.hypot(this.size.x, this.size.y) * 0.62)
    const disc = new THREE.Mesh(new THREE.CylinderGeometry(radius, radius, radius * 0.02, 96), new THREE.MeshStandardMaterial({ color: 0xe6dccb, roughness: 0.95 }))
    disc.rotation.x = Math.PI / 2
    disc.position.z = -radius * 0.0105
    const points: THREE.Vector3[] = []
    for (let d = 0; d < 360; d += 5) {
      const a = (d * Math.PI) / 180, inner = radius * (d % 90 === 0 ? 0.87 : d % 15 === 0 ? 0.93 : 0.965)
      points.push(new THREE.Vector3(Math.sin(a) * inner, -Math.cos(a) * inner, 0.05), new THREE.Vector3(Math.sin(a) * radius, -Math.cos(a) * radius, 0.05))
    }
    const ink = new THREE.LineBasicMaterial({ color: 0x7d705b })
    const front = new THREE.Mesh(new THREE.CircleGeometry(radius * 0.05, 3), new THREE.MeshBasicMaterial({ color: 0x0e5a61 }))
    front.position.set(0, -radius * 0.8, 0.08)
    front.rotation.z = Math.PI / 6
    const length = niceLength(radius * 1.5), y = -radius * 1.13, step = length / 10, ruler: THREE.Vector3[] = [new THREE.Vector3(-length / 2, y, 0), new THREE.Vector3(length / 2, y, 0)]
    for (let i = 0; i <= 10; i++) ruler.push(new THREE.Vector3(-length / 2 + i * step, y, 0), new THREE.Vector3(-length / 2 + i * step, y - radius * (i % 5 === 0 ? 0.06 : 0.03), 0))
    this.furniture.add(disc, new THREE.LineSegments(new THREE.BufferGeometry().setFromPoints(points), ink), front, new THREE.LineSegments(new THREE.BufferGeometry().setFromPoints(ruler), ink))
    this.rulerMarks = [0, 0.5, 1].map((t) => ({ mm: length * t, at: new THREE.Vector3(c.x - length / 2 + length * t, c.y + y - radius * 0.1, box.min.z) }))
  }
  rulerMarks: { mm: number; at: THREE.Vector3 }[] = []

  /** Screen place of a world point, or null when it lies behind. */
  project(p: THREE.Vector3): { x: number; y: number } | null {
    const v = p.clone().project(this.camera)
    if (v.z > 1) return null
    return { x: ((v.x + 1) / 2) * this.canvas.clientWidth, y: ((1 - v.y) / 2) * this.canvas.clientHeight }
  }

  dispose(): void {
    this.disposed = true
    cancelAnimationFrame(this.frame)
    this.show(null, 0, true)
    this.controls.dispose()
    this.renderer.dispose()
  }
}

const niceLength = (x: number): number => {
  const p = 10 ** Math.floor(Math.log10(x))
  return [5, 2, 1].find((k) => k * p <= x)! * p
}
