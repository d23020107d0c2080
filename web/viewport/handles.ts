import * as THREE from 'three'

/** What a hand takes hold of to move a part that stands on the table. */
export type Grip = 'turn' | 'lift' | 'lean'

const INK = 0x0e5a61
const REST = new THREE.MeshBasicMaterial({ color: INK, transparent: true, opacity: 0.85, depthTest: false })

/**
 * A ring round the part's foot to turn it, and a post on the ring: its collar lifts, the knob on top leans the part to
 * where it is pulled. The part itself slides over the table. Drawn over everything, only while a part is being moved.
 */
export class Handles {
  readonly group = new THREE.Group()
  private readonly grips = new Map<THREE.Object3D, Grip>()

  /** @param box of the part as it stands; null takes the handles away */
  place(box: THREE.Box3 | null): void {
    for (const o of this.group.children) (o as THREE.Mesh).geometry.dispose()
    this.group.clear()
    this.grips.clear()
    if (!box) return
    const c = box.getCenter(new THREE.Vector3()),
      size = box.getSize(new THREE.Vector3())
    const radius = Math.max(8, Math.hypot(size.x, size.y) * 0.56),
      unit = Math.max(1, size.length() / 60)
    // Beside the part, where neither it nor the edge of the picture hides it.
    const post = new THREE.Vector2(c.x + radius * Math.SQRT1_2, c.y - radius * Math.SQRT1_2)
    const tall = Math.max(0.42 * size.z, unit * 9)
    const put = (geometry: THREE.BufferGeometry, at: THREE.Vector3, grip: Grip | null): void => {
      const m = new THREE.Mesh(geometry, REST)
      m.position.copy(at)
      m.renderOrder = 5
      this.group.add(m)
      if (grip) this.grips.set(m, grip)
    }
    put(new THREE.TorusGeometry(radius, unit * 0.32, 8, 96), new THREE.Vector3(c.x, c.y, box.min.z), 'turn')
    const at = (up: number): THREE.Vector3 => new THREE.Vector3(post.x, post.y, box.min.z + up)
    const rod = new THREE.CylinderGeometry(unit * 0.2, unit * 0.2, tall, 8)
    rod.rotateX(Math.PI / 2)
    put(rod, at(tall / 2), null)
    const collar = new THREE.CylinderGeometry(unit * 1.5, unit * 1.5, unit * 1.2, 24)
    collar.rotateX(Math.PI / 2)
    put(collar, at(tall * 0.55), 'lift')
    put(new THREE.SphereGeometry(unit * 1.6, 20, 12), at(tall), 'lean')
  }

  /** Which grip a ray meets; the rings and knobs are a little wider to a hand than to the eye. */
  hit(ray: THREE.Raycaster): { grip: Grip; point: THREE.Vector3 } | null {
    const met = ray.intersectObjects([...this.grips.keys()], false)[0]
    return met ? { grip: this.grips.get(met.object)!, point: met.point } : null
  }
}
