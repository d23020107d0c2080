import { bounds, type Mesh } from '../../mesh/mesh'
import { BitGrid } from './bitGrid'

/** What a body covers of the plate as seen from above: cells of a grid, at a fine pitch. */
export interface Silhouette {
  /** mm */
  pitch: number
  /** mm, lower left corner of cell (0, 0), in the body's own frame */
  origin: [number, number]
  cells: BitGrid
  /** mm above the plate */
  height: number
}

/** mm of a silhouette's cells, and how many there are along a wide body at most */
const FINE = 0.5,
  MAX_CELLS = 1200

/** Every cell that any face's projection touches: never less than the body covers, at most a cell more all round. */
export function silhouette(mesh: Mesh): Silhouette {
  const { min, max } = bounds(mesh)
  const pitch = Math.max(FINE, (max[0] - min[0]) / MAX_CELLS, (max[1] - min[1]) / MAX_CELLS)
  const origin: [number, number] = [min[0] - pitch / 2, min[1] - pitch / 2]
  const cells = new BitGrid(Math.ceil((max[0] - origin[0]) / pitch) + 1, Math.ceil((max[1] - origin[1]) / pitch) + 1)
  const { positions: p, triangles: t } = mesh
  const x = [0, 0, 0],
    y = [0, 0, 0]
  for (let f = 0; f < t.length; f += 3) {
    for (let k = 0; k < 3; k++) {
      x[k] = (p[t[f + k]! * 3]! - origin[0]) / pitch
      y[k] = (p[t[f + k]! * 3 + 1]! - origin[1]) / pitch
    }
    const low = Math.floor(Math.min(y[0]!, y[1]!, y[2]!)),
      high = Math.floor(Math.max(y[0]!, y[1]!, y[2]!))
    for (let row = low; row <= high; row++) {
      // How far the face reaches in this row: its corners in it, and its edges where they cross the row's borders.
      let from = Infinity,
        to = -Infinity
      for (let k = 0; k < 3; k++) {
        const n = k === 2 ? 0 : k + 1
        const ya = y[k]!,
          yb = y[n]!
        if (ya >= row && ya <= row + 1) {
          if (x[k]! < from) from = x[k]!
          if (x[k]! > to) to = x[k]!
        }
        for (const at of [row, row + 1]) {
          if ((ya < at && yb < at) || (ya > at && yb > at) || ya === yb) continue
          const cross = x[k]! + ((x[n]! - x[k]!) * (at - ya)) / (yb - ya)
          if (cross < from) from = cross
          if (cross > to) to = cross
        }
      }
      for (let c = Math.floor(from); c <= to; c++) cells.set(c, row)
    }
  }
  return { pitch, origin, cells, height: max[2] - Math.min(0, min[2]) }
}

/** A silhouette turned and grown, on the grid of a plate. */
export interface Footprint {
  /** radians, counter-clockwise from above */
  angle: number
  cells: BitGrid
  /** of the cells, as `BitGrid.runs` gives them */
  runs: Int32Array
  /** cells covered */
  area: number
  /** mm from the lower left corner of cell (0, 0) to the body's own origin */
  offset: [number, number]
}

/**
 * The silhouette turned by an angle about the body's origin and grown by half the distance that bodies are to keep, on cells
 * of the plate's pitch. Each fine cell counts as the disc around it, so nothing is lost by turning.
 */
export function footprint(s: Silhouette, angle: number, margin: number, pitch: number): Footprint {
  const c = Math.cos(angle),
    n = Math.sin(angle)
  const reach = Math.max(0, s.pitch * Math.SQRT1_2 + margin / 2)
  const xs: number[] = [],
    ys: number[] = []
  let left = Infinity,
    low = Infinity,
    right = -Infinity,
    high = -Infinity
  const runs = s.cells.runs()
  for (let i = 0; i < runs.length; i += 3)
    for (let k = 0; k < runs[i + 2]!; k++) {
      const bx = s.origin[0] + (runs[i + 1]! + k + 0.5) * s.pitch,
        by = s.origin[1] + (runs[i]! + 0.5) * s.pitch
      const x = c * bx - n * by,
        y = n * bx + c * by
      xs.push(x)
      ys.push(y)
      if (x < left) left = x
      if (x > right) right = x
      if (y < low) low = y
      if (y > high) high = y
    }
  left -= reach
  low -= reach
  const grid = new BitGrid(Math.ceil((right + reach - left) / pitch), Math.ceil((high + reach - low) / pitch))
  const radius = reach / pitch
  for (let i = 0; i < xs.length; i++) {
    const x = (xs[i]! - left) / pitch,
      y = (ys[i]! - low) / pitch
    for (let row = Math.floor(y - radius); row <= y + radius; row++) {
      // Nearest the row comes to the middle of the disc.
      const dy = row > y ? row - y : row + 1 < y ? y - row - 1 : 0
      if (dy > radius || row < 0 || row >= grid.height) continue
      const half = Math.sqrt(radius * radius - dy * dy)
      const to = Math.min(grid.width - 1, Math.floor(x + half))
      for (let col = Math.max(0, Math.floor(x - half)); col <= to; col++) grid.set(col, row)
    }
  }
  return {
    angle,
    cells: grid,
    runs: grid.runs(),
    area: grid.count(),
    offset: [-left, -low],
  }
}

/** What was drawn of each silhouette: one nesting after another asks for the same. */
const drawn = new WeakMap<Silhouette, Map<string, Footprint[]>>()

/** The footprints of a silhouette turned evenly round, the first as it stands. */
export function footprints(s: Silhouette, turns: number, margin: number, pitch: number): Footprint[] {
  let known = drawn.get(s)
  if (!known) drawn.set(s, (known = new Map()))
  const key = `${turns} ${margin} ${pitch}`
  let list = known.get(key)
  if (!list) {
    list = Array.from({ length: turns }, (_, k) => footprint(s, (2 * Math.PI * k) / turns, margin, pitch))
    known.set(key, list)
  }
  return list
}
