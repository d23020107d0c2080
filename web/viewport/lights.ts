import * as THREE from 'three'
import { directionOf } from '../../core/paint/surface/sprayLight'
import { cabinet } from './cabinet'
import { drawnBySoftware } from './software'

export interface Standing {
  /** degrees to the sculpt's own left of its front, and up */
  turn: number
  lift: number
}

const KEY = 3.1,
  SKY = 1.25
export const keyLight = (): THREE.DirectionalLight => new THREE.DirectionalLight(0xfff1dc, KEY)
export const sky = (): THREE.HemisphereLight => new THREE.HemisphereLight(0xeef2f6, 0x9a8f80, SKY)
/** Radiance of a white card turned to the key light. */
export const WHITE_CARD = (KEY + SKY) / Math.PI
/** Share of the room that is mirrored. */
export const ROOM = 0.45

/** What the turntable is lit by: lights that ride with the viewer, or a lamp that stands; and a room for what shines. */
export class Lights {
  private readonly key = keyLight()
  private from: Standing | null = null
  private room: THREE.Texture | null = null

  constructor(
    private readonly renderer: THREE.WebGLRenderer,
    private readonly scene: THREE.Scene,
    private readonly camera: THREE.Camera,
    /** box of all that stands on the disc, kept up to date by its owner */
    private readonly whole: THREE.Box3,
  ) {
    scene.add(sky())
    const fill = new THREE.DirectionalLight(0xcfdcea, 0.5),
      rim = new THREE.DirectionalLight(0xffffff, 0.9)
    // They ride with the camera, so that form reads from every side: key high on the left, fill low, rim behind.
    fill.position.set(0.9, -0.15, 0.7)
    rim.position.set(0.7, 0.6, -0.9)
    for (const l of [fill, rim]) camera.add(l, l.target)
    this.ride()
    this.key.shadow.mapSize.setScalar(drawnBySoftware() ? 512 : 2048)
    this.key.shadow.radius = 3
  }

  private ride(): void {
    this.camera.add(this.key, this.key.target)
    this.key.position.set(-0.75, 0.95, 0.75)
    this.key.target.position.set(0, 0, 0)
  }

  /** Where the key light stands over the turntable, casting shadows; null lets it ride with the viewer. */
  stand(from: Standing | null, bodies: readonly THREE.Object3D[]): void {
    this.from = from
    this.renderer.shadowMap.enabled = this.key.castShadow = from !== null
    if (from === null) this.ride()
    else this.place(from)
    this.fall(bodies)
  }
  private place({ turn, lift }: Standing): void {
    const { key } = this
    const centre = this.whole.getCenter(new THREE.Vector3()),
      reach = this.whole.getSize(new THREE.Vector3()).length()
    this.scene.add(key, key.target)
    key.target.position.copy(centre)
    key.position
      .set(...directionOf(turn, lift))
      .multiplyScalar(reach)
      .add(centre)
    const eye = key.shadow.camera
    eye.left = eye.bottom = -reach / 2
    eye.right = eye.top = reach / 2
    eye.near = reach * 0.2
    eye.far = reach * 2
    eye.updateProjectionMatrix()
    key.shadow.normalBias = reach / 400
  }
  /** Lets the light fall on bodies as it does now. */
  fall(bodies: readonly THREE.Object3D[]): void {
    const shadows = this.from !== null
    for (const b of bodies) {
      if (!(b instanceof THREE.Mesh) || b.castShadow === shadows) continue
      b.castShadow = b.receiveShadow = shadows
      // A material is compiled for the shadows there are.
      ;(b.material as THREE.Material).needsUpdate = true
    }
  }

  /** What shines mirrors a room; plain maps and clay are shown without one, so that their colours can be read. */
  mirror(shines: boolean): void {
    if (shines) this.room ??= cabinet(this.renderer)
    this.scene.environment = shines ? this.room : null
    this.scene.environmentIntensity = ROOM
  }

  dispose(): void {
    this.room?.dispose()
  }
}
