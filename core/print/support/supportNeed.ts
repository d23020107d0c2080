import { silent, type Report } from '../../answer'
import { bounds, type Mesh } from '../../mesh/mesh'
import { closest, closestPoint } from '../../mesh/closest'
import { faceNormals } from '../../mesh/measure'
import { rayFirst } from '../../mesh/ray'
import { treeOf } from '../../mesh/tree'
import type { Vector3 } from '../../math/vectors'
import { brushAt, type BrushSpot } from '../../shape/brushSpots'
import { Rasteriser } from '../../raster/raster'
import { Sections } from '../../mesh/sections'

/** A place on the skin that must be held from below. */
export interface Contact {
  point: Vector3
  /** outward, unit */
  normal: Vector3
  /** an island begins here: without a tip the print fails */
  island: boolean
}

export interface NeedOptions {
  /** overhang limit from the plate, degrees */
  limit: number
  /** mm between tips on an overhang */
  spacing: number
  /** mm; analysis pixel */
  pixel: number
  /** mm; what lies lower than this rests on the plate */
  floor: number
  /** painted: nothing may stand here; tips twice as close; and, where given, tips only here */
  none?: readonly BrushSpot[]
  more?: readonly BrushSpot[]
  only?: readonly BrushSpot[] | null
}

/** Overhanging patches smaller than this in one slab are left to the resin's own strength, mm². */
const LEAST_PATCH = 0.35

/**
 * Where support is needed, from the layers rather than from face angles (methods.md 5). Slabs are as thick as
 * one pixel's growth at the overhang limit, so "grew by more than the limit allows" is "not next to a pixel of
 * the slab below". Islands always get a tip at their lowest point; overhanging patches get tips `spacing` apart.
 *
 * @returns contacts taken, spare ones that the spacing left out (for loads that need more), and islands that begin where
 *   the paint lets nothing stand
 */
export function supportNeed(
  mesh: Mesh,
  options: NeedOptions,
  report: Report = silent,
): { taken: Contact[]; spare: Contact[]; barred: Contact[] } {
  const { none = [], more = [], only = null } = options
  const box = bounds(mesh)
  const px = options.pixel
  const slab = px * Math.tan((options.limit * Math.PI) / 180)
  const x0 = box.min[0] - 2 * px,
    y0 = box.min[1] - 2 * px
  const w = Math.ceil((box.max[0] - x0) / px) + 3,
    h = Math.ceil((box.max[1] - y0) / px) + 3
  const sections = new Sections(mesh)
  const raster = new Rasteriser(w, h, px, px, x0, y0)
  const skin = new Skin(mesh)
  const taken: Contact[] = [],
    spare: Contact[] = []
  const near = new Map<string, Vector3[]>()
  const cell = options.spacing
  const key = (p: Vector3): [number, number, number] => [
    Math.floor(p[0] / cell),
    Math.floor(p[1] / cell),
    Math.floor(p[2] / cell),
  ]
  const crowded = (p: Vector3, reach: number): boolean => {
    const [i, j, k] = key(p)
    for (let a = -1; a <= 1; a++)
      for (let b = -1; b <= 1; b++)
        for (let c = -1; c <= 1; c++)
          for (const q of near.get(`${i + a},${j + b},${k + c}`) ?? [])
            if ((p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2 < reach * reach) return true
    return false
  }
  const barred: Contact[] = []
  const forbidden = ([x, y, z]: Vector3): boolean =>
    (none.length > 0 && brushAt(none, x, y, z) > 0.5) || (only !== null && !(brushAt(only, x, y, z) > 0.5))
  const closer = ([x, y, z]: Vector3): number => (more.length > 0 && brushAt(more, x, y, z) > 0.5 ? 0.5 : 1)
  const take = (c: Contact): void => {
    if (forbidden(c.point)) {
      if (c.island) barred.push(c)
      return
    }
    taken.push(c)
    const k = key(c.point).join(',')
    const list = near.get(k)
    if (list) list.push(c.point)
    else near.set(k, [c.point])
  }

  const lowestContact = (patch: readonly number[]): Contact | null => {
    let best: Contact | null = null
    const stride = Math.max(1, Math.floor(patch.length / 256))
    for (let i = 0; i < patch.length; i += stride) {
      const at = patch[i]!
      const c = skin.below(x0 + ((at % w) + 0.5) * px, y0 + (Math.floor(at / w) + 0.5) * px, zNow, 2 * slab + px)
      if (c && (!best || c.point[2] < best.point[2])) best = c
    }
    return best
  }
  let zNow = 0
  let before = new Uint8Array(w * h),
    now = new Uint8Array(w * h)
  const seen = new Uint8Array(w * h)
  const first = Math.max(box.min[2], options.floor)
  const slabs = Math.ceil((box.max[2] - first) / slab)
  if (box.min[2] < options.floor) fill(before, raster, sections, options.floor)
  for (let s = 0; s < slabs; s++) {
    if ((s & 15) === 0) report(s / slabs)
    const z = first + (s + 0.5) * slab
    zNow = z
    now.fill(0)
    fill(now, raster, sections, z)
    seen.fill(0)
    for (let y = 1; y < h - 1; y++)
      for (let x = 1; x < w - 1; x++) {
        const i = y * w + x
        if (!now[i] || seen[i] || held(before, i, w)) continue
        // Gather the patch of pixels that nothing below holds.
        const patch = [i]
        seen[i] = 1
        let touches = false
        for (let q = 0; q < patch.length; q++) {
          const at = patch[q]!
          for (const n of [at - 1, at + 1, at - w, at + w]) {
            if (!now[n] || seen[n]) continue
            if (held(before, n, w)) {
              touches = true
              continue
            }
            seen[n] = 1
            patch.push(n)
          }
        }
        if (touches && patch.length * px * px < LEAST_PATCH) continue
        // First the lowest place: an island must be held there, or it hangs in the air until its tip is reached; and
        // what grows together with the rest within this very slab may still have begun as one.
        const lowest = lowestContact(patch)
        let got = lowest !== null
        if (lowest && !crowded(lowest.point, touches ? options.spacing * 0.6 : 2 * px))
          take({ ...lowest, island: !touches })
        for (const at of patch) {
          const cx = x0 + ((at % w) + 0.5) * px,
            cy = y0 + (Math.floor(at / w) + 0.5) * px
          const rough: Vector3 = [cx, cy, z]
          const k = closer(rough)
          if (crowded(rough, options.spacing * 0.6 * k)) continue
          const contact = skin.below(cx, cy, z, 2 * slab + px)
          if (!contact) continue
          got = true
          if (!crowded(contact.point, options.spacing * k)) take(contact)
          else if (!forbidden(contact.point)) spare.push(contact)
        }
        if (!got && !touches) {
          const at = patch[patch.length >> 1]!
          take(skin.nearest(x0 + ((at % w) + 0.5) * px, y0 + (Math.floor(at / w) + 0.5) * px, z))
        }
      }
    const swap = before
    before = now
    now = swap
  }
  return { taken, spare, barred }
}

function fill(bitmap: Uint8Array, raster: Rasteriser, sections: Sections, z: number): void {
  const runs = raster.draw(sections.segments, sections.at(z))
  for (let row = 0; row < runs.height; row++)
    for (let i = runs.rowStart[row]!; i < runs.rowStart[row + 1]!; i++)
      if (runs.value[i]! >= 24)
        bitmap.fill(1, row * runs.width + runs.x[i]!, row * runs.width + runs.x[i]! + runs.length[i]!)
}

const held = (b: Uint8Array, i: number, w: number): boolean =>
  (b[i]! |
    b[i - 1]! |
    b[i + 1]! |
    b[i - w]! |
    b[i + w]! |
    b[i - w - 1]! |
    b[i - w + 1]! |
    b[i + w - 1]! |
    b[i + w + 1]!) !==
  0

/** Finds exact contacts on the skin near a rough place. */
export class Skin {
  private readonly normals: Float32Array
  private readonly hit = closest()
  constructor(private readonly mesh: Mesh) {
    this.normals = faceNormals(mesh).normals
  }

  /** First down-facing skin met going up from `reach` below. */
  below(x: number, y: number, z: number, reach: number): Contact | null {
    const hit = rayFirst(treeOf(this.mesh), x, y, z - reach, 0, 0, 1, 0, 2 * reach)
    if (!hit || hit.leaving) return null
    return { point: [x, y, z - reach + hit.t], normal: this.normal(hit.face), island: false }
  }

  nearest(x: number, y: number, z: number): Contact {
    closestPoint(treeOf(this.mesh), x, y, z, this.hit)
    return { point: [this.hit.x, this.hit.y, this.hit.z], normal: this.normal(this.hit.face), island: true }
  }

  private normal(f: number): Vector3 {
    return [this.normals[f * 3]!, this.normals[f * 3 + 1]!, this.normals[f * 3 + 2]!]
  }
}
