import type { Mesh } from '../mesh/mesh'
import { frame, type Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { Parabolas } from '../volume/parabolas'
import { sectionArea, sectionPerimeter, Sections } from '../mesh/sections'

export interface Section {
  /** mm² */
  area: number
  /** mm, of all outlines */
  length: number
  /** separate regions */
  pieces: number
  /** largest circle in each region, largest first: where a key goes */
  circles: { centre: [number, number, number]; radius: number; area: number }[]
}

/** Cells across the section's longer side. */
const CELLS = 400

/**
 * The section of a closed mesh by a plane: its size, and the widest circle inscribed in each of its regions, by the
 * exact distance transform (Felzenszwalb and Huttenlocher 2012) of its raster, good to the raster's cell.
 */
export function sectionOutline(mesh: Mesh, point: Vector3, normal: Vector3): Section {
  const [u, v] = frame(normal)
  const d = (a: Vector3): number => a[0] * point[0] + a[1] * point[1] + a[2] * point[2]
  const flat = transformed(mesh, [...u, ...v, ...normal] as never, [-d(u), -d(v), -d(normal)])
  const cuts = new Sections(flat)
  const count = cuts.at(0)
  const raster = sectionRaster(cuts.segments, count, CELLS)
  if (!raster) return { area: 0, length: 0, pieces: 0, circles: [] }
  const { solid, regionOf, regions, distance, x0, y0, cell, w } = raster
  const best = Array.from({ length: regions }, () => ({ at: 0, d: -1, cells: 0 }))
  for (let i = 0; i < solid.length; i++) {
    if (!solid[i]) continue
    const b = best[regionOf[i]!]!
    b.cells++
    if (distance[i]! > b.d) {
      b.d = distance[i]!
      b.at = i
    }
  }
  const circles = best
    .map(({ at, d: d2, cells }) => {
      const x = x0 + (at % w) * cell,
        y = y0 + Math.floor(at / w) * cell
      return {
        centre: [0, 1, 2].map((k) => point[k]! + x * u[k]! + y * v[k]!) as [number, number, number],
        radius: Math.max(0, (Math.sqrt(d2) - 0.5) * cell),
        area: cells * cell * cell,
      }
    })
    .filter((c) => c.area > 4 * cell * cell)
    .sort((a, b) => b.radius - a.radius)
  return {
    area: Math.abs(sectionArea(cuts.segments, count)),
    length: sectionPerimeter(cuts.segments, count),
    pieces: circles.length,
    circles,
  }
}

/** A section as cells: which are solid, the region of each, and how far it lies in. */
export interface SectionRaster {
  solid: Uint8Array
  regionOf: Int32Array
  regions: number
  /** squared, in cells, to the nearest empty cell's middle; computed when it is first asked for */
  readonly distance: Float64Array
  /** mm, middle of the first cell */
  x0: number
  y0: number
  /** mm */
  cell: number
  w: number
  h: number
}

/**
 * @param s outlines, 4 per segment
 * @param cells across the longer side
 * @returns null where there is no outline
 */
export function sectionRaster(s: Float64Array, count: number, cells: number): SectionRaster | null {
  if (count === 0) return null
  let x0 = Infinity,
    y0 = Infinity,
    x1 = -Infinity,
    y1 = -Infinity
  for (let i = 0; i < count * 4; i += 2) {
    x0 = Math.min(x0, s[i]!)
    x1 = Math.max(x1, s[i]!)
    y0 = Math.min(y0, s[i + 1]!)
    y1 = Math.max(y1, s[i + 1]!)
  }
  const cell = Math.max(x1 - x0, y1 - y0, 1e-3) / cells
  const w = Math.ceil((x1 - x0) / cell) + 3,
    h = Math.ceil((y1 - y0) / cell) + 3
  const solid = filled(s, count, x0 - 1.5 * cell, y0 - 1.5 * cell, cell, w, h)
  let distance: Float64Array | null = null
  return {
    solid,
    ...labelled(solid, w, h),
    get distance() {
      return (distance ??= toOutside(solid, w, h))
    },
    x0: x0 - cell,
    y0: y0 - cell,
    cell,
    w,
    h,
  }
}

/** Cells whose middle the outlines wind round, row by row. */
function filled(
  s: Float64Array,
  count: number,
  x0: number,
  y0: number,
  cell: number,
  w: number,
  h: number,
): Uint8Array {
  const solid = new Uint8Array(w * h)
  const crossings: { x: number; turn: number }[][] = Array.from({ length: h }, () => [])
  for (let i = 0; i < count * 4; i += 4) {
    const ay = (s[i + 1]! - y0) / cell - 0.5,
      by = (s[i + 3]! - y0) / cell - 0.5
    const from = Math.max(0, Math.ceil(Math.min(ay, by))),
      to = Math.min(h - 1, Math.ceil(Math.max(ay, by)) - 1)
    for (let j = from; j <= to; j++) {
      const t = (j - ay) / (by - ay)
      crossings[j]!.push({ x: (s[i]! + t * (s[i + 2]! - s[i]!) - x0) / cell - 0.5, turn: by > ay ? 1 : -1 })
    }
  }
  for (const [j, row] of crossings.entries()) {
    row.sort((a, b) => a.x - b.x)
    let wind = 0
    for (let c = 0; c + 1 < row.length; c++) {
      wind += row[c]!.turn
      if (wind === 0) continue
      for (let i = Math.max(0, Math.ceil(row[c]!.x)); i <= Math.min(w - 1, row[c + 1]!.x); i++) solid[j * w + i] = 1
    }
  }
  return solid
}

function labelled(solid: Uint8Array, w: number, h: number): { regionOf: Int32Array; regions: number } {
  const regionOf = new Int32Array(w * h).fill(-1)
  let regions = 0
  // Each cell is put on the stack once.
  const open = new Int32Array(w * h),
    steps = [-1, 1, -w, w]
  for (let seed = 0; seed < solid.length; seed++) {
    if (!solid[seed] || regionOf[seed]! >= 0) continue
    regionOf[seed] = regions
    let depth = 0
    open[depth++] = seed
    while (depth > 0) {
      const i = open[--depth]!
      for (let k = 0; k < 4; k++) {
        const n = i + steps[k]!
        if (n < 0 || n >= solid.length || !solid[n] || regionOf[n]! >= 0) continue
        regionOf[n] = regions
        open[depth++] = n
      }
    }
    regions++
  }
  return { regionOf, regions }
}

/** Squared distance in cells from each cell's middle to the nearest empty one's. */
function toOutside(solid: Uint8Array, w: number, h: number): Float64Array {
  const far = (w + h) ** 2
  const out = new Float64Array(solid.length)
  for (let i = 0; i < out.length; i++) if (solid[i]) out[i] = far
  const lines = new Parabolas(Math.max(w, h))
  for (let x = 0; x < w; x++) lines.pass(out, h, x, w)
  for (let y = 0; y < h; y++) lines.pass(out, w, y * w, 1)
  return out
}
