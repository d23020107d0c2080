import { drawnBySoftware } from './software'
import * as THREE from 'three'
import type { Mesh } from '../../core/mesh/mesh'
import type { Painted } from '../../core/paint/coats/coating'
import type { RegionView } from '../../core/paint/surface/regions'
import { cabinet } from './cabinet'
import { setGlow, setSheen, solidOf } from './drawn'
import { keyLight, ROOM, sky } from './lights'

const W = 216,
  H = 232
/** One context for all small pictures of paint, with the body that was drawn last still in it. */
let stage: {
  renderer: THREE.WebGLRenderer
  scene: THREE.Scene
  camera: THREE.PerspectiveCamera
} | null = null
let last: { mesh: Mesh; body: THREE.Mesh } | null = null

/** The painted sculpt from where one sees most of a region, as a PNG's address. */
export function paintedPicture(mesh: Mesh, painted: Painted, view: RegionView): string {
  stage ??= made()
  const { renderer, scene, camera } = stage
  if (last?.mesh !== mesh) {
    if (last) {
      scene.remove(last.body)
      last.body.geometry.dispose()
      ;(last.body.material as THREE.Material).dispose()
    }
    last = { mesh, body: solidOf(mesh, painted.colours.slice()) }
    scene.add(last.body)
  }
  const colour = last.body.geometry.getAttribute('color') as THREE.BufferAttribute
  ;(colour.array as Float32Array).set(painted.colours)
  colour.needsUpdate = true
  setSheen(last.body, painted.sheen)
  setGlow(last.body, painted.glow)
  const middle = new THREE.Vector3(...view.middle)
  const distance = (view.radius * 0.85) / Math.sin((FIELD * Math.PI) / 360)
  camera.position
    .set(...view.toward)
    .multiplyScalar(distance)
    .add(middle)
  camera.lookAt(middle)
  camera.near = distance / 50
  camera.far = distance * 50
  camera.updateProjectionMatrix()
  renderer.render(scene, camera)
  return renderer.domElement.toDataURL('image/png')
}

/** degrees */
const FIELD = 24

function made(): NonNullable<typeof stage> {
  const renderer = new THREE.WebGLRenderer({ antialias: !drawnBySoftware(), alpha: true, preserveDrawingBuffer: true })
  renderer.setSize(W, H, false)
  renderer.toneMapping = THREE.NeutralToneMapping
  const scene = new THREE.Scene(),
    camera = new THREE.PerspectiveCamera(FIELD, W / H, 1, 10_000)
  camera.up.set(0, 0, 1)
  const key = keyLight()
  key.position.set(-0.8, 0.9, 0.8)
  camera.add(key, key.target)
  scene.add(camera, sky())
  scene.environment = cabinet(renderer)
  scene.environmentIntensity = ROOM
  return { renderer, scene, camera }
}
