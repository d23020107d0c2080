import { drawnBySoftware } from './software'
import type CameraControls from 'camera-controls'
import * as THREE from 'three'
import { acceleratedRaycast, MeshBVH } from 'three-mesh-bvh'
import { isCloud, type Mesh } from '../../core/mesh/mesh'
import type { Motion } from './motion'
import type { Painted } from '../../core/paint/coats/coating'
import { bareColours, pointsOf, setGlow, setSheen, solidOf } from './drawn'
import { Annotations, empty, type Guide, type Marker, type Stroke } from './annotations'
import { Furniture } from './furniture'
import { Gaze } from './gaze'
import { Handles } from './handles'
import { Lights, type Standing } from './lights'
import { Twins } from './twins'
import { keptValue } from '../../core/words/manner'
import { manner } from '../manner'

THREE.Mesh.prototype.raycast = acceleratedRaycast

/** Frames without a move after which the view rests. */
const RESTED = 3

export interface Picked {
  point: [number, number, number]
  normal: [number, number, number]
  face: number
  /** which companion was met; null is the part at work */
  companion: string | null
}

/**
 * The sculpt on its turntable: a disc with a graduated rim, the front marked, a ruler at its foot. Draws only when
 * something changed.
 */
export class Scene {
  readonly renderer: THREE.WebGLRenderer
  readonly scene = new THREE.Scene()
  readonly gaze: Gaze
  readonly camera: THREE.PerspectiveCamera
  readonly controls: CameraControls
  /** carries the sculpt; tilting by hand turns it */
  readonly holder = new THREE.Group()
  private readonly furniture = new Furniture()
  private readonly notes = new Annotations()
  private body: THREE.Mesh | THREE.Points | null = null
  private readonly companions = new THREE.Group()
  private frame = 0
  /** frames in a row without a move */
  private still = 0
  private last = performance.now()
  private readonly lights: Lights
  private readonly twins = new Twins()
  private disposed = false
  size = new THREE.Vector3(60, 60, 100)
  onDraw: (() => void) | null = null

  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({
      canvas,
      antialias: !drawnBySoftware(),
      alpha: true,
      preserveDrawingBuffer: true,
    })
    this.renderer.setPixelRatio(Math.min(1.5, window.devicePixelRatio))
    this.renderer.toneMapping = THREE.NeutralToneMapping
    this.gaze = new Gaze(canvas, this.whole)
    this.camera = this.gaze.camera
    this.controls = this.gaze.controls
    this.lights = new Lights(this.renderer, this.scene, this.camera, this.whole)
    this.scene.add(
      this.camera,
      this.holder,
      this.furniture.group,
      this.companions,
      this.notes.fixed,
      this.handles.group,
    )
    this.holder.add(this.notes.onBody, this.twins.group)
    this.controls.addEventListener('update', () => this.draw())
    for (const moving of ['controlstart', 'control', 'transitionstart'] as const)
      this.controls.addEventListener(moving, this.wake)
    this.gaze.onMove = this.wake
    this.wake()
  }

  /** The view moves, or is about to: it is followed frame by frame until it rests, and costs nothing after. */
  private wake = (): void => {
    if (this.frame !== 0 || this.disposed) return
    this.last = performance.now()
    this.still = 0
    this.frame = requestAnimationFrame(this.tick)
  }
  private tick = (): void => {
    this.frame = 0
    if (this.disposed) return
    const now = performance.now()
    const moved = this.controls.update((now - this.last) / 1000)
    this.last = now
    if (moved) this.draw()
    this.still = moved ? 0 : this.still + 1
    if (this.still < RESTED) this.frame = requestAnimationFrame(this.tick)
  }

  private pendingDraw = false
  draw(): void {
    if (this.pendingDraw || this.disposed) return
    this.pendingDraw = true
    requestAnimationFrame(() => {
      if (this.pendingDraw) this.drawNow()
    })
  }
  private drawNow(): void {
    this.pendingDraw = false
    if (this.disposed) return
    if (this.opened) this.turnCut()
    this.renderer.render(this.scene, this.camera)
    this.onDraw?.()
  }

  private opened = false
  private readonly cut = new THREE.Plane()
  /** Takes away the half of the sculpt that is toward the viewer, so that one looks into its cavities. */
  cutOpen(open: boolean): void {
    this.opened = open
    this.renderer.localClippingEnabled = open
    if (this.body) (this.body.material as THREE.Material).clippingPlanes = open ? [this.cut] : null
    this.draw()
  }
  private turnCut(): void {
    const away = this.controls.getTarget(new THREE.Vector3()).sub(this.camera.position).setZ(0)
    if (away.lengthSq() < 1e-9) return
    this.cut.setFromNormalAndCoplanarPoint(away.normalize(), this.whole.getCenter(new THREE.Vector3()))
  }

  resize(width: number, height: number): void {
    this.renderer.setSize(width, height, false)
    this.gaze.resize(width, height)
    // A canvas of a new size is blank: it must not be seen so.
    this.drawNow()
  }

  /** @param bodyFaces faces from this one on are supports, drawn apart */
  show(mesh: Mesh | null, bodyFaces: number, keepView: boolean): void {
    if (this.body) {
      this.holder.remove(this.body)
      this.body.geometry.dispose()
      ;(this.body.material as THREE.Material).dispose()
      this.body = null
    }
    if (!mesh) {
      this.draw()
      return
    }
    this.beside([])
    this.came = null
    this.bare = bareColours(mesh, bodyFaces)
    this.body = isCloud(mesh) ? pointsOf(mesh, this.bare) : pickable(solidOf(mesh, this.bare.slice()))
    const { geometry } = this.body
    this.holder.add(this.body)
    if (this.opened) this.cutOpen(true)
    geometry.computeBoundingBox()
    this.measureAll()
    if (!keepView) this.gaze.home()
    this.draw()
  }

  /** colours of the body when no map lies on it: its own, or clay and the stems' */
  private bare: Float32Array<ArrayBufferLike> = new Float32Array(0)

  /** Other parts beside the one at work; each keeps its hash as its name, to be told when it is met. */
  accompany(list: readonly { hash: string; mesh: Mesh }[]): void {
    empty(this.companions)
    for (const { hash, mesh } of list) {
      const colours = bareColours(mesh, mesh.triangles.length / 3)
      for (let i = 0; i < colours.length; i++) colours[i] = 0.35 + 0.5 * colours[i]!
      const body = pickable(solidOf(mesh, colours))
      body.name = hash
      body.geometry.computeBoundingBox()
      this.companions.add(body)
    }
    if (this.body) this.measureAll()
    this.lights.fall(this.companions.children)
    this.draw()
  }
  /** Box of all that stands on the disc; the disc and the ruler go by it. */
  private readonly whole = new THREE.Box3(new THREE.Vector3(-30, -30, 0), new THREE.Vector3(30, 30, 100))
  private measureAll(): void {
    this.whole.copy(this.body!.geometry.boundingBox!)
    for (const c of this.companions.children) this.whole.union((c as THREE.Mesh).geometry.boundingBox!)
    this.whole.getSize(this.size)
    this.furniture.build(this.whole, keptValue(1, 'mm', manner))
  }
  private readonly handles = new Handles()
  /** While it is moved the part at work stands beside its place, and so do those that go with it. */
  setMotion(motion: Motion, along: readonly string[]): void {
    const moved: THREE.Object3D[] = [
      this.holder,
      this.handles.group,
      ...this.companions.children.filter((c) => along.includes(c.name)),
    ]
    for (const o of moved) {
      o.quaternion.set(...motion.quaternion)
      o.position.set(...motion.shift)
    }
    this.draw()
  }
  /** Ring and mast round the part at work. */
  showHandles(shown: boolean): void {
    this.handles.place(shown ? this.partBox() : null)
    this.draw()
  }
  partBox(): THREE.Box3 | null {
    return this.body?.geometry.boundingBox ?? null
  }
  grip(x: number, y: number): ReturnType<Handles['hit']> {
    return this.handles.hit(this.ray(x, y))
  }
  /** Where a ray through the screen meets the plane through a place that faces the viewer. */
  besidePlace(x: number, y: number, place: readonly [number, number, number]): THREE.Vector3 | null {
    const at = new THREE.Vector3(...place)
    const plane = new THREE.Plane().setFromNormalAndCoplanarPoint(
      this.camera.getWorldDirection(new THREE.Vector3()).negate(),
      at,
    )
    return this.ray(x, y).ray.intersectPlane(plane, new THREE.Vector3())
  }
  /** Where a ray through the screen meets the horizontal plane at that height. */
  onLevel(x: number, y: number, height: number): THREE.Vector3 | null {
    const p = this.ray(x, y).ray.intersectPlane(
      new THREE.Plane(new THREE.Vector3(0, 0, 1), -height),
      new THREE.Vector3(),
    )
    return p && p.distanceTo(this.camera.position) < this.size.length() * 40 ? p : null
  }
  showPlane(plane: { point: readonly number[]; normal: readonly number[] } | null): void {
    this.notes.plane(plane, this.size.length() * 0.55)
    this.draw()
  }
  showLine(line: Stroke): void {
    this.notes.line(line, Math.max(0.12, this.size.length() / 700))
    this.draw()
  }

  showGuides(list: readonly Guide[]): void {
    this.notes.guides(list)
    this.draw()
  }

  showLiquid(liquid: Mesh | null): void {
    this.notes.pour(liquid)
    this.draw()
  }

  /** Linear 0..1 colours per vertex, or null for bare clay; and how each shines and glows, where that is known. */
  paint(colours: Float32Array | null, sheen: Float32Array | null = null, glow: Float32Array | null = null): void {
    const attribute = this.body?.geometry.getAttribute('color') as THREE.BufferAttribute | undefined
    if (!attribute) return
    if (colours && colours.length === attribute.array.length) (attribute.array as Float32Array).set(colours)
    else (attribute.array as Float32Array).set(this.bare)
    attribute.needsUpdate = true
    if (this.body instanceof THREE.Mesh) {
      setSheen(this.body, sheen)
      setGlow(this.body, glow)
    }
    this.lights.mirror(sheen !== null)
    this.draw()
  }

  /** The same body again, to its left on the screen, each with colours of its own; none takes them away. */
  beside(list: readonly Painted[]): void {
    const step = this.twins.stand(this.body instanceof THREE.Mesh ? this.body : null, list)
    this.lights.fall(this.twins.group.children)
    if (step > 0) this.gaze.row(list.length + 1, step)
    this.draw()
  }
  rowTops(): ReturnType<Twins['tops']> {
    return this.twins.tops(this.partBox(), this.gaze)
  }

  /** Where the light stands, casting shadows; null lets it ride with the viewer. */
  light(from: Standing | null): void {
    this.lights.stand(from, this.bodies())
    this.draw()
  }
  private bodies(): THREE.Object3D[] {
    return [...(this.body ? [this.body] : []), ...this.companions.children, ...this.twins.group.children]
  }

  private came: Float32Array | null = null
  /** the picking tree's boxes are of where the skin was before it was bent */
  private refit = false
  /** Moves the body's vertices while a pose is tried; null puts them back. */
  deform(positions: Float32Array | null): void {
    const attribute = this.body?.geometry.getAttribute('position') as THREE.BufferAttribute | undefined
    if (!attribute || (positions && positions.length !== attribute.array.length)) return
    // The array is the loaded mesh' own, which others read: it is never written to.
    this.came ??= attribute.array as Float32Array
    const next = new THREE.BufferAttribute(positions ?? this.came, 3)
    this.body!.geometry.setAttribute('position', next)
    this.refit = true
    this.body!.geometry.computeVertexNormals()
    if (!positions) this.came = null
    this.draw()
  }

  tilt(q: readonly [number, number, number, number] | null): void {
    this.holder.quaternion.set(...(q ?? [0, 0, 0, 1]))
    this.holder.position.set(0, 0, 0)
    if (q && this.body) {
      // The lowest point stays on the disc while it is tilted, and the middle over where it was.
      const p = this.body.geometry.getAttribute('position').array as Float32Array
      const m = new THREE.Matrix4().makeRotationFromQuaternion(this.holder.quaternion).elements
      const turned = new THREE.Box3(),
        at = new THREE.Vector3()
      const stride = Math.max(3, Math.floor(p.length / 3 / 20_000) * 3)
      for (let i = 0; i < p.length; i += stride) {
        const [x, y, z] = [p[i]!, p[i + 1]!, p[i + 2]!]
        turned.expandByPoint(
          at.set(
            m[0]! * x + m[4]! * y + m[8]! * z,
            m[1]! * x + m[5]! * y + m[9]! * z,
            m[2]! * x + m[6]! * y + m[10]! * z,
          ),
        )
      }
      const was = this.body.geometry.boundingBox!.getCenter(new THREE.Vector3()),
        is = turned.getCenter(at)
      this.holder.position.set(was.x - is.x, was.y - is.y, this.furniture.group.position.z - turned.min.z)
    }
    this.draw()
  }

  /** Looks at a place of the part at work from where its skin faces. */
  frameSpot(point: readonly [number, number, number]): void {
    this.gaze.at(this.holder.localToWorld(new THREE.Vector3(...point)))
  }

  mark(list: readonly Marker[]): void {
    const across = this.size.length()
    // A third of a millimetre on a small figure, but never a blot on what is smaller still.
    this.notes.mark(list, Math.max(Math.min(0.35, across / 80), across / 240))
    this.draw()
  }

  private ray(x: number, y: number): THREE.Raycaster {
    const r = this.canvas.getBoundingClientRect()
    const ray = new THREE.Raycaster()
    ray.firstHitOnly = true
    ray.params.Points.threshold = this.size.length() / 250
    ray.setFromCamera(
      new THREE.Vector2(((x - r.left) / r.width) * 2 - 1, -((y - r.top) / r.height) * 2 + 1),
      this.camera,
    )
    return ray
  }
  pick(x: number, y: number): Picked | null {
    if (!this.body) return null
    if (this.refit) this.body.geometry.boundsTree?.refit()
    this.refit = false
    const hit = this.ray(x, y).intersectObjects([this.body, ...this.companions.children], false)[0]
    if (!hit) return null
    const companion = hit.object === this.body ? null : hit.object.name
    const local = companion === null ? this.holder.worldToLocal(hit.point.clone()) : hit.point
    // A point of a cloud faces whoever looks at it.
    const normal = hit.face?.normal ?? this.camera.position.clone().sub(hit.point).normalize()
    return { point: local.toArray(), normal: normal.toArray(), face: hit.faceIndex ?? 0, companion }
  }

  get rulerMarks(): Furniture['rulerMarks'] {
    return this.furniture.rulerMarks
  }

  dispose(): void {
    this.disposed = true
    cancelAnimationFrame(this.frame)
    this.show(null, 0, true)
    this.scene.traverse((o) => {
      if (!(o instanceof THREE.Mesh || o instanceof THREE.Line)) return
      ;(o.geometry as THREE.BufferGeometry).dispose()
      ;(o.material as THREE.Material).dispose()
    })
    this.lights.dispose()
    this.controls.dispose()
    this.renderer.dispose()
  }
}

function pickable(mesh: THREE.Mesh): THREE.Mesh {
  mesh.geometry.boundsTree = new MeshBVH(mesh.geometry, { indirect: true })
  return mesh
}
