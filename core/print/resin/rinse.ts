import { silent, type Report } from '../../answer'
import { bounds, boxSize, type Mesh } from '../../mesh/mesh'
import type { DrainHole } from '../../shape/drill'
import { CellLaplace, held, WALL } from '../../math/cellLaplace'
import { solidGrid } from '../../volume/solidGrid'
import { CavityFlow, SIDES } from './cavityFlow'

type Triple = [number, number, number]
export interface Rinse {
  /** openings of the cavities, middles in mm, largest first; `hole` is the number of the drilled one it is, else null */
  openings: { at: Triple; area: number; hole: number | null }[]
  /** the opening at which the syringe is set, so that least is left unswept; −1 where nothing can be flushed through */
  enter: number
  /** mm³ of cavities that the stream sweeps, and that it leaves still */
  swept: number
  still: number
  /** where it stays still, largest first */
  deadEnds: { at: Triple; volume: number }[]
  /** ways of the stream from where it enters to where it leaves, mm */
  streams: Triple[][]
}

const CELLS = 110
/** mm */
const LEAST_VOXEL = 0.5
/** Where the stream is slower than this share of its mean, what stands there is not carried along. */
const STILL = 0.04
/** Openings smaller than this many cells are the grid's own roughness. */
const LEAST_OPENING = 3
const MAX_OPENINGS = 12
const STREAMS = 6

/**
 * Where wash liquid goes that a syringe presses in at one hole and that leaves by the others: potential flow through the
 * cells of the cavity (Laplace's equation, 1 where it enters, 0 where it leaves, no flow through walls). A side room that
 * the flow passes by keeps one pressure throughout and is a dead end.
 *
 * Slow seeping is potential flow exactly; a jet from a needle sweeps more, so what is called still here is the worst case.
 *
 * @param holes as they were drilled: then those that lead into the cavity are its openings. Without them the openings are
 *   where the covered void meets the open air, which takes the fold that two holes lie in for one opening
 */
export function rinse(mesh: Mesh, holes: readonly DrainHole[] = [], report: Report = silent): Rinse {
  const size = Math.max(...boxSize(bounds(mesh)))
  const flow = new CavityFlow(solidGrid([mesh], Math.max(LEAST_VOXEL, size / CELLS)))
  report(0.3)
  const rooms = new Rooms(flow, holes)
  const none: Rinse = {
    openings: rooms.openings.map((o, i) => ({
      at: rooms.middle(o),
      area: o.length * flow.voxel ** 2,
      hole: rooms.holeOf[i] ?? null,
    })),
    enter: -1,
    swept: 0,
    still: flow.cavity,
    deadEnds: [],
    streams: [],
  }
  if (rooms.openings.length < 2) return none
  let best: { enter: number; still: Uint8Array; count: number; pressure: Float64Array } | null = null
  // The pressures of all openings sum to 1 everywhere, so that of the last is what the others leave.
  const rest = new Float64Array(flow.count).fill(1)
  for (let enter = 0; enter < rooms.openings.length; enter++) {
    report(0.3 + (0.65 * enter) / rooms.openings.length)
    const pressure = enter + 1 < rooms.openings.length ? rooms.pressure(enter) : rest
    if (pressure !== rest) for (let c = 0; c < rest.length; c++) rest[c]! -= pressure[c]!
    const still = rooms.stillCells(pressure)
    const count = still.reduce((a, b) => a + b, 0)
    if (!best || count < best.count) best = { enter, still, count, pressure }
  }
  const volume = flow.voxel ** 3
  const { enter, still, count, pressure } = best!
  const streams = rooms.streams(enter, pressure)
  return {
    ...none,
    enter,
    still: count * volume,
    swept: flow.cavity - count * volume,
    deadEnds: rooms
      .clusters((c) => still[c] === 1)
      .filter((l) => l.length > 8)
      .slice(0, 6)
      .map((l) => ({ at: rooms.middle(l), volume: l.length * volume })),
    streams: streams.map((s) => s.map((c) => rooms.place(c))),
  }
}

/** The cells of cavities, with the holes that lead into them, and how they hang together face to face. */
class Rooms {
  readonly openings: number[][]
  private readonly stamp: Int32Array
  /** 1 for cells through which liquid can pass from one hole to another */
  private readonly wet: Uint8Array

  /** drilled hole that an opening is; empty where the openings were not told by holes */
  readonly holeOf: number[] = []

  constructor(
    private readonly flow: CavityFlow,
    holes: readonly DrainHole[],
  ) {
    this.stamp = new Int32Array(flow.count).fill(-1)
    this.wet = new Uint8Array(flow.count)
    for (const list of this.clusters(() => true))
      if (list.some((c) => flow.inside[c] === 1)) for (const c of list) this.wet[c] = 1
    const drilled = this.throughHoles(holes)
    if (drilled) {
      this.openings = drilled.map((d) => d.cells)
      this.holeOf = drilled.map((d) => d.hole)
      return
    }
    // A mouth is where such a cell meets the open air.
    this.openings = this.clusters((c) => this.wet[c] === 1 && this.atMouth(c))
      .filter((l) => l.length >= LEAST_OPENING)
      .slice(0, MAX_OPENINGS)
  }

  /**
   * Stops every hole with a plug a little longer than two cells, takes away what the open air reaches then, and gives the
   * plugs that touch what is left. Null where there are none, or the air gets in by another way all the same.
   */
  private throughHoles(holes: readonly DrainHole[]): { hole: number; cells: number[] }[] | null {
    const { flow, wet } = this
    const plugs = holes.map((h) => this.plug(h))
    const plugged = new Uint8Array(flow.count)
    for (const cells of plugs) for (const c of cells) plugged[c] = 1
    const outside = new Uint8Array(flow.count)
    const open: number[] = []
    const enter = (c: number): void => {
      if (c < 0 || outside[c] || plugged[c]) return
      outside[c] = 1
      open.push(c)
    }
    for (let c = 0; c < flow.count; c++) if (this.atMouth(c)) enter(c)
    for (let c = open.pop(); c !== undefined; c = open.pop())
      for (let k = 0; k < flow.ways; k++) enter(flow.neighbour(c, k))
    const left = (c: number): boolean => wet[c] === 1 && !outside[c] && !plugged[c]
    const found = plugs
      .map((cells, hole) => ({ hole, cells }))
      .filter(({ cells }) =>
        cells.some((c) => SIDES.some((k) => flow.neighbour(c, k) >= 0 && left(flow.neighbour(c, k)))),
      )
      .slice(0, MAX_OPENINGS)
    if (found.length === 0) return null
    for (let c = 0; c < flow.count; c++) if (outside[c]) wet[c] = 0
    for (const { cells } of found) for (const c of cells) wet[c] = 1
    return found
  }
  private plug({ point, direction, diameter }: DrainHole): number[] {
    const { places: p, voxel, count } = this.flow
    const cells: number[] = []
    for (let c = 0; c < count; c++) {
      const v = [0, 1, 2].map((k) => p[c * 3 + k]! - point[k]!)
      const along = v[0]! * direction[0] + v[1]! * direction[1] + v[2]! * direction[2]
      if (along < -0.2 * voxel || along > 2.2 * voxel) continue
      if (Math.sqrt(Math.max(0, v[0]! ** 2 + v[1]! ** 2 + v[2]! ** 2 - along ** 2)) < diameter / 2 + 0.7 * voxel)
        cells.push(c)
    }
    return cells
  }

  private atMouth(c: number): boolean {
    for (const k of SIDES) {
      if (this.flow.neighbour(c, k) === -2) return true
    }
    return false
  }
  /** Cells that fulfil something, as they hang together, largest first. */
  clusters(wanted: (c: number) => boolean): number[][] {
    const { flow } = this
    const seen = new Uint8Array(flow.count)
    const out: number[][] = []
    for (let first = 0; first < flow.count; first++) {
      if (seen[first] || !wanted(first)) continue
      const list = [first]
      seen[first] = 1
      for (let q = 0; q < list.length; q++)
        for (let k = 0; k < flow.ways; k++) {
          const n = flow.neighbour(list[q]!, k)
          if (n < 0 || seen[n] || !wanted(n)) continue
          seen[n] = 1
          list.push(n)
        }
      out.push(list)
    }
    return out.sort((a, b) => b.length - a.length)
  }
  place(c: number): Triple {
    const p = this.flow.places
    return [p[c * 3]!, p[c * 3 + 1]!, p[c * 3 + 2]!]
  }
  middle(cells: readonly number[]): Triple {
    const p = this.flow.places
    return [0, 1, 2].map((k) => cells.reduce((s, c) => s + p[c * 3 + k]!, 0) / cells.length) as Triple
  }

  /** Cells of which the pressure is not given, and the equation that it follows. */
  private system: { cells: Int32Array; laplace: CellLaplace } | null = null
  private equations(): { cells: Int32Array; laplace: CellLaplace } {
    if (this.system) return this.system
    const { flow, wet } = this
    const opening = this.stamp.fill(-1)
    this.openings.forEach((list, o) => {
      for (const c of list) opening[c] = o
    })
    const number = new Int32Array(flow.count).fill(-1)
    const cells: number[] = []
    for (let c = 0; c < flow.count; c++) if (wet[c] && opening[c]! < 0) number[c] = cells.push(c) - 1
    const near = new Int32Array(cells.length * SIDES.length).fill(WALL)
    cells.forEach((c, i) => {
      SIDES.forEach((k, side) => {
        const m = flow.neighbour(c, k)
        if (m >= 0 && wet[m]) near[i * SIDES.length + side] = opening[m]! >= 0 ? held(opening[m]!) : number[m]!
      })
    })
    return (this.system = { cells: new Int32Array(cells), laplace: new CellLaplace(near, SIDES.length) })
  }

  /** Pressure per cell, 1 where it enters and 0 at all other openings; NaN in the open. */
  pressure(enter: number): Float64Array {
    const { flow, wet } = this
    const { cells, laplace } = this.equations()
    const p = new Float64Array(flow.count).fill(NaN)
    this.openings.forEach((list, o) => {
      for (const c of list) if (wet[c]) p[c] = o === enter ? 1 : 0
    })
    laplace.potential(enter).forEach((v, i) => {
      p[cells[i]!] = v
    })
    return p
  }

  /** 1 for cells of cavities through which next to nothing flows. */
  stillCells(p: Float64Array): Uint8Array {
    const { flow, wet } = this
    const speed = new Float64Array(flow.count)
    let sum = 0,
      cells = 0
    for (let c = 0; c < flow.count; c++) {
      if (!wet[c]) continue
      let v = 0
      for (const k of SIDES) {
        const m = flow.neighbour(c, k)
        if (m >= 0 && wet[m]) v += (p[c]! - p[m]!) ** 2
      }
      speed[c] = Math.sqrt(v / 2)
      sum += speed[c]!
      cells++
    }
    const least = (STILL * sum) / Math.max(1, cells)
    return Uint8Array.from(speed, (v, c) => (flow.inside[c] && !(v > least) ? 1 : 0))
  }

  /** Down the pressure from places spread over the mouth where it enters. */
  streams(enter: number, p: Float64Array): number[][] {
    const { flow, wet } = this
    const from = this.openings[enter]!
    const step = Math.max(1, Math.floor(from.length / STREAMS))
    const out: number[][] = []
    for (let s = 0; s < from.length && out.length < STREAMS; s += step) {
      const path: number[] = [from[s]!]
      for (let guard = 0; guard < 4000; guard++) {
        const c = path.at(-1)!
        let next = -1,
          lowest = p[c]! - 1e-12
        for (let k = 0; k < flow.ways; k++) {
          const m = flow.neighbour(c, k)
          if (m >= 0 && wet[m] && p[m]! < lowest) {
            lowest = p[m]!
            next = m
          }
        }
        if (next < 0) break
        path.push(next)
      }
      const every = Math.max(1, Math.floor(path.length / 60))
      const kept = path.filter((_, i) => i % every === 0 || i === path.length - 1)
      if (kept.length > 1) out.push(kept)
    }
    return out
  }
}
