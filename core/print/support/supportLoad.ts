import type { Mesh } from '../../mesh/mesh'
import { bounds } from '../../mesh/mesh'
import { Rasteriser } from '../../raster/raster'
import { Sections } from '../../mesh/sections'
import type { Vector3 } from '../../math/vectors'

export interface TipLoad {
  /** N, greatest over all layers */
  force: number
  /** force over capacity; above 1 the tip is expected to let go */
  utilisation: number
  /** height of the layer that pulls hardest, mm */
  worstZ: number
}
/** One look at the layers: how hard the whole is pulled, and how hard the worst tip works then. */
export interface LoadLayer {
  z: number
  /** N */
  force: number
  utilisation: number
}

/** Newtons that a tip of that diameter (mm) holds: green strength × area (methods.md 5). */
export const tipCapacity = (diameter: number, greenStrength: number): number =>
  greenStrength * Math.PI * (diameter / 2000) ** 2

/**
 * Peel share per tip: each layer's area belongs to the nearest tip that is already below it, and pulls on that
 * tip with the separation pressure. The weight below the water line is left out: it is a hundredth of the peel.
 *
 * @param pressure Pa
 * @param layers filled with what each look at the layers found, from below upward
 */
export function tipLoads(
  mesh: Mesh,
  tips: readonly { point: Vector3; diameter: number }[],
  pressure: number,
  greenStrength: number,
  step = 1,
  layers: LoadLayer[] = [],
): TipLoad[] {
  layers.length = 0
  const box = bounds(mesh)
  const span = Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1])
  const px = Math.max(0.4, span / 120)
  const x0 = box.min[0] - px,
    y0 = box.min[1] - px
  const w = Math.ceil((box.max[0] - x0) / px) + 2,
    h = Math.ceil((box.max[1] - y0) / px) + 2
  const raster = new Rasteriser(w, h, px, px, x0, y0)
  const sections = new Sections(mesh)
  const loads: TipLoad[] = tips.map(() => ({ force: 0, utilisation: 0, worstZ: 0 }))
  if (tips.length === 0) return loads
  const order = tips.map((_, i) => i).sort((a, b) => tips[a]!.point[2] - tips[b]!.point[2])
  const owner = new Int32Array(w * h).fill(-1)
  const share = new Float64Array(tips.length)
  let below = 0
  for (let z = box.min[2] + step / 2; z < box.max[2]; z += step) {
    const known = below
    while (below < order.length && tips[order[below]!]!.point[2] <= z) below++
    if (below === 0) continue
    if (below !== known) assign(owner, w, h, px, x0, y0, tips, order, known, below)
    share.fill(0)
    const runs = raster.draw(sections.segments, sections.at(z))
    for (let row = 0; row < h; row++)
      for (let i = runs.rowStart[row]!; i < runs.rowStart[row + 1]!; i++) {
        const v = runs.value[i]! / 255,
          from = row * w + runs.x[i]!
        for (let q = from; q < from + runs.length[i]!; q++) share[owner[q]!]! += v
      }
    let whole = 0,
      worst = 0
    for (let t = 0; t < tips.length; t++) {
      const force = pressure * share[t]! * px * px * 1e-6
      whole += force
      worst = Math.max(worst, force / tipCapacity(tips[t]!.diameter, greenStrength))
      if (force > loads[t]!.force) {
        loads[t]!.force = force
        loads[t]!.worstZ = z
      }
    }
    layers.push({ z, force: whole, utilisation: worst })
  }
  for (let t = 0; t < tips.length; t++)
    loads[t]!.utilisation = loads[t]!.force / tipCapacity(tips[t]!.diameter, greenStrength)
  return loads
}

/** Lets the newly reached tips claim the pixels to which they are nearest. */
function assign(
  owner: Int32Array,
  w: number,
  h: number,
  px: number,
  x0: number,
  y0: number,
  tips: readonly { point: Vector3 }[],
  order: number[],
  from: number,
  to: number,
): void {
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const cx = x0 + (x + 0.5) * px,
        cy = y0 + (y + 0.5) * px
      const i = y * w + x
      const o = owner[i]!
      let best = o < 0 ? Infinity : (tips[o]!.point[0] - cx) ** 2 + (tips[o]!.point[1] - cy) ** 2
      for (let k = from; k < to; k++) {
        const p = tips[order[k]!]!.point
        const d = (p[0] - cx) ** 2 + (p[1] - cy) ** 2
        if (d < best) {
          best = d
          owner[i] = order[k]!
        }
      }
    }
}
