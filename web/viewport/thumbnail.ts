import { drawnBySoftware } from './software'
import * as THREE from 'three'
import { isCloud, type Mesh } from '../../core/mesh/mesh'
import { bareColours, pointsOf, solidOf } from './drawn'

const W = 264,
  H = 288
const pictures = new Map<string, Promise<string>>()
let renderer: THREE.WebGLRenderer | null = null
let queue: Promise<unknown> = Promise.resolve()

/** A small picture of the sculpt, from the front and a little above; drawn once, one at a time, on one shared context. */
export function thumbnail(key: string, load: () => Promise<Mesh>): Promise<string> {
  const there = pictures.get(key)
  if (there) return there
  const made = queue.then(async () => draw(await load()))
  queue = made.catch(() => undefined)
  pictures.set(key, made)
  return made
}

function draw(mesh: Mesh): string {
  renderer ??= new THREE.WebGLRenderer({ antialias: !drawnBySoftware(), alpha: true, preserveDrawingBuffer: true })
  renderer.setSize(W, H, false)
  renderer.toneMapping = THREE.NeutralToneMapping
  const colours = bareColours(mesh, mesh.triangles.length / 3)
  const body = isCloud(mesh) ? pointsOf(mesh, colours) : solidOf(mesh, colours)
  const { geometry, material } = body
  geometry.computeBoundingBox()
  const size = geometry.boundingBox!.getSize(new THREE.Vector3()),
    c = geometry.boundingBox!.getCenter(new THREE.Vector3())
  const scene = new THREE.Scene(),
    camera = new THREE.PerspectiveCamera(24, W / H, 1, 10_000)
  camera.up.set(0, 0, 1)
  const distance = Math.max(size.z * 0.56, Math.hypot(size.x, size.y) * 0.56 * (H / W)) / Math.tan((12 * Math.PI) / 180)
  camera.position.set(c.x + distance * 0.42, c.y - distance * 0.9, c.z + distance * 0.2)
  camera.lookAt(c)
  const key = new THREE.DirectionalLight(0xfff1dc, 3.1),
    rim = new THREE.DirectionalLight(0xdfe8f2, 0.9)
  key.position.set(-0.8, 0.9, 0.8)
  rim.position.set(0.9, 0.3, -0.4)
  camera.add(key, rim, key.target, rim.target)
  scene.add(camera, body, new THREE.HemisphereLight(0xeef2f6, 0x9a8f80, 1.25))
  renderer.setClearColor(0, 0)
  renderer.render(scene, camera)
  const url = renderer.domElement.toDataURL('image/png')
  geometry.dispose()
  ;(material as THREE.Material).dispose()
  return url
}
