import * as THREE from 'three'
import type { Painted } from '../../core/paint/coats/coating'
import { twinOf } from './drawn'
import type { Gaze } from './gaze'

/** Of the body's width: from one to the next. */
const APART = 1.12

/** The body at work again beside itself, each time in other colours. */
export class Twins {
  readonly group = new THREE.Group()

  /** @returns mm from one to the next; 0 when there are none */
  stand(body: THREE.Mesh | null, list: readonly Painted[]): number {
    for (const t of this.group.children as THREE.Mesh[]) {
      // Positions and faces are the body's own.
      t.geometry.deleteAttribute('position').deleteAttribute('normal').setIndex(null).dispose()
      ;(t.material as THREE.Material).dispose()
    }
    this.group.clear()
    if (!body || list.length === 0) return 0
    const box = body.geometry.boundingBox!,
      step = (box.max.x - box.min.x) * APART
    list.forEach((painted, i) => {
      const twin = twinOf(body, painted)
      twin.position.x = step * (i + 1)
      this.group.add(twin)
    })
    return step
  }

  /** Where on the screen the top of each of the row is, px: the body first; none where it stands alone. */
  tops(box: THREE.Box3 | null, gaze: Gaze): { x: number; y: number }[] {
    if (!box || this.group.children.length === 0) return []
    const middle = box.getCenter(new THREE.Vector3()).setZ(box.max.z)
    return [0, ...this.group.children.map((t) => t.position.x)].flatMap((x) => {
      const at = gaze.project(middle.clone().setX(middle.x + x))
      return at ? [at] : []
    })
  }
}
