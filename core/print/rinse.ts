import { silent, type Report } from '../answer'
import { bounds, boxSize, type Mesh } from '../mesh/mesh'
import { solidGrid } from '../volume/solidGrid'
import { CavityFlow, SIDES } from './cavityFlow'

type Triple = [number, number, number]
export interface Rinse {
  /** openings of the cavities, middles in mm, largest first */
  openings: { at: Triple; area: number }[]
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
const MOST_OPENINGS = 12
const STREAMS = 6

/**
 * Where wash liquid goes that a syringe presses in at one hole and that leaves by the others: potential flow through the
 * cells of the cavity (Laplace's equation, 1 where it enters, 0 where it leaves, no flow through walls). A side room that
 * the flow passes by keeps one pressure throughout and is a dead end.
 *
 * Slow seeping is potential flow exactly; a jet from a needle sweeps more, so what is called still here is the worst case.
 */
export function rinse(mesh: Mesh, report: Report = silent): Rinse {
  const size = Math.max(...boxSize(bounds(mesh)))
  const flow = new CavityFlow(solidGrid([mesh], Math.max(LEAST_VOXEL, size / CELLS)))
  report(0.3)
  const rooms = new Rooms(flow)
  const none: Rinse = {
    openings: rooms.openings.map((o) => ({ at: rooms.middle(o), area: o.length * flow.voxel ** 2 })),
    enter: -1,
    swept: 0,
    still: flow.cavity,
    deadEnds: [],
    streams: [],
  }
  if (rooms.openings.length < 2) return none
  let best: { enter: number; still: Uint8Array; count: number; pressure: Float64Array } | null = null
  for (let enter = 0; enter < rooms.openings.length; enter++) {
    report(0.3 + (0.65 * enter) / rooms.openings.length)
    const pressure = rooms.pressure(enter)
    const still = rooms.stillCells(pressure)
    const count = still.reduce((a, b) => a + b, 0)
    if (!best || count < best.count) best = { enter, still, count, pressure }
  }
  const volume = flow.voxel ** 3
  const { enter, still, count, pressure } = best!
  const streams = rooms.streams(enter, pressure)
  // Where the stream comes into the cavity says better which hole it is than the middle of all that is open before it.
  const entry = streams[0]?.find((c) => flow.inside[c] === 1)
  const openings = none.openings.map((o, i) =>
    i === enter && entry !== undefined ? { ...o, at: rooms.place(entry) } : o,
  )
  return {
    ...none,
    openings,
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

  constructor(private readonly flow: CavityFlow) {
    this.stamp = new Int32Array(flow.count).fill(-1)
    this.wet = new Uint8Array(flow.count)
    for (const list of this.clusters(() => true))
      if (list.some((c) => flow.inside[c] === 1)) for (const c of list) this.wet[c] = 1
    // A mouth is where such a cell meets the open air.
    this.openings = this.clusters((c) => this.wet[c] === 1 && this.atMouth(c))
      .filter((l) => l.length >= LEAST_OPENING)
      .slice(0, MOST_OPENINGS)
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

  /** Pressure per cell by conjugate gradients, 1 at the opening where it enters and 0 at all others; NaN in the open. */
  pressure(enter: number): Float64Array {
    const { flow, wet } = this
    const n = flow.count
    const p = new Float64Array(n).fill(NaN)
    const fixed = this.stamp.fill(-1)
    this.openings.forEach((list, o) => {
      for (const c of list) fixed[c] = o
    })
    for (let c = 0; c < n; c++) if (wet[c]) p[c] = fixed[c] === enter ? 1 : fixed[c]! >= 0 ? 0 : 0.5
    const apply = (x: Float64Array, out: Float64Array): void => {
      for (let c = 0; c < n; c++) {
        if (!wet[c] || fixed[c]! >= 0) continue
        let sum = 0
        for (const k of SIDES) {
          const m = flow.neighbour(c, k)
          if (m >= 0 && wet[m]) sum += x[c]! - (fixed[m]! >= 0 ? 0 : x[m]!)
        }
        out[c] = sum
      }
    }
    const r = new Float64Array(n),
      d = new Float64Array(n),
      q = new Float64Array(n)
    let rr = 0
    for (let c = 0; c < n; c++) {
      if (!wet[c] || fixed[c]! >= 0) continue
      for (const k of SIDES) {
        const m = flow.neighbour(c, k)
        if (m >= 0 && wet[m]) r[c]! += p[m]! - p[c]!
      }
      d[c] = r[c]!
      rr += r[c]! * r[c]!
    }
    const enough = 1e-14 * Math.max(1, rr)
    for (let step = 0; step < 1500 && rr > enough; step++) {
      apply(d, q)
      let dq = 0
      for (let c = 0; c < n; c++) dq += d[c]! * q[c]!
      if (!(dq > 0)) break
      const a = rr / dq
      let next = 0
      for (let c = 0; c < n; c++) {
        p[c]! += a * d[c]!
        r[c]! -= a * q[c]!
        next += r[c]! * r[c]!
      }
      for (let c = 0; c < n; c++) d[c] = r[c]! + (next / rr) * d[c]!
      rr = next
    }
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
