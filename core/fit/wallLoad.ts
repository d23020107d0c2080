import { silent, type Report } from '../answer'
import { bounds, type Mesh } from '../mesh/mesh'
import { Sections } from '../mesh/sections'
import { sectionRaster, type SectionRaster } from '../shape/section'

export interface LoadCase {
  /** mm, wall that is planned everywhere */
  wall: number
  /** g/ml */
  density: number
  /** N, a push from the side at the top: a hand that lifts it, a knock in the post */
  push: number
  /** by how much handling multiplies the weight that leans out */
  handling: number
  /** MPa, bending stress that cured resin is to be given at most */
  allow: number
}
/** Cured resin breaks at some 50 MPa in bending and creeps far below that; a fifth is left to it. */
export const loadDefaults: LoadCase = { wall: 2, density: 1.12, push: 3, handling: 5, allow: 10 }

export interface LoadedPlace {
  /** mm, middle of the section there */
  point: [number, number, number]
  /** mm from there to the farthest skin of the section */
  reach: number
  /** MPa with the planned wall */
  stress: number
  /** mm of wall that brings it to what is allowed; null when even solid it does not */
  wall: number | null
}

export interface WallLoad {
  /** where the planned wall does not do, from below upward */
  places: LoadedPlace[]
  /** MPa and mm over the foot: where bending is worst with the planned wall, and if the body were solid */
  planned: { stress: number; height: number }
  solid: { stress: number; height: number }
}

const HEIGHTS = 48
/** Cells across a section: six to the wall where that is not more than the last. */
const CELLS = { least: 160, most: 400 }
const GRAVITY = 9.81

/**
 * Where a standing body needs a thicker wall: at each height the bending by a push at the top and by what leans out above
 * is carried by the section's rings, shared by their stiffness; the wall that keeps the stress within what is allowed is
 * looked for ring by ring (elementary bending, σ = M·c/I).
 *
 * The ring of a wall t is what lies within t of the outline; that the skin leans makes it no thinner than it is taken.
 */
export function wallLoad(mesh: Mesh, load: LoadCase, report: Report = silent): WallLoad {
  const box = bounds(mesh)
  const height = box.max[2] - box.min[2]
  const step = height / HEIGHTS
  const across = Math.max(box.max[0] - box.min[0], box.max[1] - box.min[1])
  const cells = Math.round(Math.min(CELLS.most, Math.max(CELLS.least, (6 * across) / load.wall)))
  const cuts = new Sections(mesh)
  const layers: { z: number; raster: SectionRaster; area: number; x: number; y: number }[] = []
  for (let i = 0; i < HEIGHTS; i++) {
    report((0.7 * i) / HEIGHTS)
    const z = box.min[2] + (i + 0.5) * step
    const raster = sectionRaster(cuts.segments, cuts.at(z), cells)
    if (!raster) continue
    const all = moments(raster, () => true)
    layers.push({ z, raster, area: all.area, x: all.x, y: all.y })
  }
  const out: WallLoad = { places: [], planned: { stress: 0, height: 0 }, solid: { stress: 0, height: 0 } }
  let volume = 0,
    mx = 0,
    my = 0
  for (const { z, raster, area, x, y } of layers.reverse()) {
    // As if solid: what is hollow above leans less, so the wall found is never too thin.
    const lean = volume > 0 ? Math.hypot(mx / volume - x, my / volume - y) : 0
    const weight = volume * load.density * 1e-6 * GRAVITY
    volume += area * step
    mx += area * step * x
    my += area * step * y
    loadAt(out, raster, z, z - box.min[2], load.push * (box.max[2] - z) + load.handling * weight * lean, load)
  }
  report(1)
  out.places.reverse()
  return out
}

/** MPa of a section that has no wall at all: beyond what any resin bears */
const UNBORNE = 1e6

/**
 * @param moment N·mm, of the whole section
 */
function loadAt(out: WallLoad, raster: SectionRaster, z: number, height: number, moment: number, load: LoadCase): void {
  const { regionOf, regions, distance, cell } = raster
  const solid = Array.from({ length: regions }, (_, r) => moments(raster, (i) => regionOf[i] === r))
  const stiff = solid.reduce((s, m) => s + m.least, 0)
  for (const [r, whole] of solid.entries()) {
    // Crumbs of the raster carry nothing.
    if (!(whole.least > 0.01 * stiff) || whole.area < 4 * cell * cell) continue
    const share = (moment * whole.least) / stiff
    const stress = (wall: number): number => {
      const cells = wall / cell
      const ring = moments(raster, (i) => regionOf[i] === r && distance[i]! <= cells * cells)
      return ring.least > 0 ? (share * whole.reach) / ring.least : UNBORNE
    }
    const planned = stress(load.wall),
      full = (share * whole.reach) / whole.least
    if (planned > out.planned.stress) out.planned = { stress: planned, height }
    if (full > out.solid.stress) out.solid = { stress: full, height }
    if (planned <= load.allow) continue
    const point: [number, number, number] = [whole.x, whole.y, z]
    let wall: number | null = null
    if (full <= load.allow) {
      let low = load.wall,
        high = cell * Math.sqrt(whole.deepest)
      for (let k = 0; k < 12; k++) {
        const mid = (low + high) / 2
        if (stress(mid) > load.allow) low = mid
        else high = mid
      }
      wall = high
    }
    out.places.push({ point, reach: whole.reach, stress: planned, wall })
  }
}

interface Moments {
  /** mm² */
  area: number
  /** mm, centroid */
  x: number
  y: number
  /** mm⁴, least second moment of area about an axis through the centroid */
  least: number
  /** mm from the centroid to the farthest cell */
  reach: number
  /** largest squared distance from the outline, in cells */
  deepest: number
}

function moments(r: SectionRaster, counts: (cell: number) => boolean): Moments {
  let n = 0,
    sx = 0,
    sy = 0,
    xx = 0,
    yy = 0,
    xy = 0,
    deepest = 0
  for (let j = 0, i = 0; j < r.h; j++)
    for (let k = 0; k < r.w; k++, i++) {
      if (!r.solid[i] || !counts(i)) continue
      n++
      sx += k
      sy += j
      xx += k * k
      yy += j * j
      xy += k * j
      deepest = Math.max(deepest, r.distance[i]!)
    }
  if (n === 0) return { area: 0, x: 0, y: 0, least: 0, reach: 0, deepest }
  const cx = sx / n,
    cy = sy / n
  // A cell's own second moment is a twelfth.
  const a = xx - n * cx * cx + n / 12,
    b = yy - n * cy * cy + n / 12,
    c = xy - n * cx * cy
  const least = (a + b) / 2 - Math.hypot((a - b) / 2, c)
  let reach = 0
  for (let j = 0, i = 0; j < r.h; j++)
    for (let k = 0; k < r.w; k++, i++) if (r.solid[i] && counts(i)) reach = Math.max(reach, Math.hypot(k - cx, j - cy))
  const { cell } = r
  return {
    area: n * cell * cell,
    x: r.x0 + cx * cell,
    y: r.y0 + cy * cell,
    least: least * cell ** 4,
    reach: (reach + 0.5) * cell,
    deepest,
  }
}
