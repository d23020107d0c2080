import * as THREE from 'three'
import { empty } from './annotations'

/** What stands under the sculpt: a disc with a graduated rim, its front marked, and a ruler lying before it. */
export class Furniture {
  readonly group = new THREE.Group()
  /** where figures stand along the ruler, mm */
  rulerMarks: { mm: number; at: THREE.Vector3 }[] = []

  /**
   * @param box of all that stands on the disc
   * @param unit mm of the unit that the ruler counts in
   */
  build(box: THREE.Box3, unit = 1): void {
    empty(this.group)
    const size = box.getSize(new THREE.Vector3())
    const c = box.getCenter(new THREE.Vector3())
    this.group.position.set(c.x, c.y, box.min.z)
    const radius = Math.max(20, Math.hypot(size.x, size.y) * 0.62)
    const disc = new THREE.Mesh(
      new THREE.CylinderGeometry(radius, radius, radius * 0.02, 96),
      new THREE.MeshStandardMaterial({ color: 0xe6dccb, roughness: 0.95 }),
    )
    disc.rotation.x = Math.PI / 2
    disc.position.z = -radius * 0.0105
    const points: THREE.Vector3[] = []
    for (let d = 0; d < 360; d += 5) {
      const a = (d * Math.PI) / 180,
        inner = radius * (d % 90 === 0 ? 0.87 : d % 15 === 0 ? 0.93 : 0.965)
      points.push(
        new THREE.Vector3(Math.sin(a) * inner, -Math.cos(a) * inner, 0.05),
        new THREE.Vector3(Math.sin(a) * radius, -Math.cos(a) * radius, 0.05),
      )
    }
    const ink = new THREE.LineBasicMaterial({ color: 0x7d705b })
    // A long thin pointer: a squat one seen along the table points nowhere.
    const front = new THREE.Mesh(
      new THREE.ShapeGeometry(
        new THREE.Shape([
          new THREE.Vector2(0, -radius * 0.86),
          new THREE.Vector2(radius * 0.035, -radius * 0.7),
          new THREE.Vector2(-radius * 0.035, -radius * 0.7),
        ]),
      ),
      new THREE.MeshBasicMaterial({ color: 0x0e5a61, side: THREE.DoubleSide }),
    )
    front.position.z = 0.08
    const length = niceLength((radius * 1.5) / unit) * unit,
      y = -radius * 1.13,
      step = length / 10,
      ruler: THREE.Vector3[] = [new THREE.Vector3(-length / 2, y, 0), new THREE.Vector3(length / 2, y, 0)]
    for (let i = 0; i <= 10; i++)
      ruler.push(
        new THREE.Vector3(-length / 2 + i * step, y, 0),
        new THREE.Vector3(-length / 2 + i * step, y - radius * (i % 5 === 0 ? 0.06 : 0.03), 0),
      )
    this.group.add(
      disc,
      new THREE.LineSegments(new THREE.BufferGeometry().setFromPoints(points), ink),
      front,
      new THREE.LineSegments(new THREE.BufferGeometry().setFromPoints(ruler), ink),
    )
    this.rulerMarks = [0, 0.5, 1].map((t) => ({
      mm: length * t,
      at: new THREE.Vector3(c.x - length / 2 + length * t, c.y + y - radius * 0.1, box.min.z),
    }))
  }
}

const niceLength = (x: number): number => {
  const p = 10 ** Math.floor(Math.log10(x))
  return [5, 2, 1].find((k) => k * p <= x)! * p
}
