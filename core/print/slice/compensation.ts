import type { Runs } from '../../raster/raster'
import { RunBuilder } from '../../raster/runBuilder'

/** What a printer does to what is drawn, taken off again before it is drawn. All found by the calibration print. */
export interface Compensation {
  /** printed over drawn, per axis; 1 where it keeps its size */
  scale: [number, number, number]
  /** mm by which light spreads past every edge, per side; below 0 where it falls short */
  growth: number
  /** mm more, per side, in the first layers, which are exposed longer */
  bleed: number
  /** how many layers bleed */
  bleedLayers: number
  /** the panel shows the picture mirrored */
  mirrorX: boolean
  mirrorY: boolean
  /** steps of grey that the panel can show, black included; 2 is none */
  greys: number
}
export const noCompensation: Compensation = {
  scale: [1, 1, 1],
  growth: 0,
  bleed: 0,
  bleedLayers: 0,
  mirrorX: false,
  mirrorY: false,
  greys: 256,
}

/** Outlines as they are to be drawn so that they print in their size: shrunk or stretched about the plate's middle, mirrored. */
export class Drawn {
  private scratch = new Float64Array(0)
  private readonly kx: number
  private readonly ky: number
  private readonly plain: boolean

  constructor({ scale, mirrorX, mirrorY }: Compensation) {
    this.kx = (mirrorX ? -1 : 1) / scale[0]
    this.ky = (mirrorY ? -1 : 1) / scale[1]
    this.plain = this.kx === 1 && this.ky === 1
  }

  of(segments: Float64Array, count: number): Float64Array {
    if (this.plain) return segments
    if (this.scratch.length < count * 4) this.scratch = new Float64Array(count * 6)
    const { scratch, kx, ky } = this
    // One mirror turns the solid to the other side of its outline; the outline is then run the other way.
    const [a, b] = kx * ky < 0 ? [2, 0] : [0, 2]
    for (let i = 0; i < count * 4; i += 4) {
      scratch[i] = segments[i + a]! * kx
      scratch[i + 1] = segments[i + a + 1]! * ky
      scratch[i + 2] = segments[i + b]! * kx
      scratch[i + 3] = segments[i + b + 1]! * ky
    }
    return scratch
  }
}

/**
 * A layer drawn smaller all round by `by` mm, or larger below 0: what is nearer to an edge than that goes dark, by a disc over
 * the rows. Along the rows edges keep their share of a pixel; across them what falls between two numbers of rows is the blend
 * of both.
 */
export function inset(runs: Runs, by: number, pitchX: number, pitchY: number): Runs {
  if (Math.abs(by) < 1e-6) return runs
  const reach = Math.abs(by) / pitchY
  const rows = spansOf(runs)
  const whole = Math.floor(reach + 1e-6),
    part = reach - whole
  const less = insetRows(runs, rows, by, whole, pitchX, pitchY)
  return part < 1e-3 ? less : blend(less, insetRows(runs, rows, by, whole + 1, pitchX, pitchY), part)
}

function insetRows(
  runs: Runs,
  rows: readonly Spans[],
  by: number,
  reach: number,
  pitchX: number,
  pitchY: number,
): Runs {
  const out: Spans[] = []
  const offsets: { dy: number; dx: number }[] = []
  for (let dy = -reach; dy <= reach; dy++)
    offsets.push({ dy, dx: (Math.sqrt(Math.max(0, by * by - (dy * pitchY) ** 2)) / pitchX) * Math.sign(by) })
  for (let y = 0; y < runs.height; y++) {
    let now: Spans | null = null
    for (const { dy, dx } of offsets) {
      const moved = moveEdges(rows[y + dy] ?? NONE, dx)
      now = now === null ? moved : by > 0 ? intersect(now, moved) : unite(now, moved)
      if (by > 0 && now.length === 0) break
    }
    out.push(now ?? NONE)
  }
  return runsOf(out, runs)
}

/** (1 − t)·a + t·b, pixel by pixel. */
function blend(a: Runs, b: Runs, t: number): Runs {
  const out = new RunBuilder(a.width, a.height)
  for (let y = 0; y < a.height; y++) {
    let i = a.rowStart[y]!,
      j = b.rowStart[y]!
    const [endA, endB] = [a.rowStart[y + 1]!, b.rowStart[y + 1]!]
    for (let at = 0; i < endA || j < endB;) {
      const fromA = i < endA ? a.x[i]! : Infinity,
        fromB = j < endB ? b.x[j]! : Infinity
      at = Math.max(at, Math.min(fromA, fromB))
      const toA = i < endA ? fromA + a.length[i]! : Infinity,
        toB = j < endB ? fromB + b.length[j]! : Infinity
      const next = Math.min(fromA > at ? fromA : toA, fromB > at ? fromB : toB)
      const v = Math.round((fromA <= at ? (1 - t) * a.value[i]! : 0) + (fromB <= at ? t * b.value[j]! : 0))
      out.add(at, next - at, v)
      at = next
      if (at >= toA) i++
      if (at >= toB) j++
    }
    out.endRow()
  }
  return { ...out.done(), brokenRows: a.brokenRows }
}

/** Fewer greys: each value goes to the nearest step that the panel can show. */
export function stepped(runs: Runs, greys: number): Runs {
  if (greys >= 256) return runs
  const step = (v: number): number => Math.round((Math.round((v / 255) * (greys - 1)) / (greys - 1)) * 255)
  const out = new RunBuilder(runs.width, runs.height)
  for (let y = 0; y < runs.height; y++) {
    for (let i = runs.rowStart[y]!; i < runs.rowStart[y + 1]!; i++)
      out.add(runs.x[i]!, runs.length[i]!, step(runs.value[i]!))
    out.endRow()
  }
  return { ...out.done(), brokenRows: runs.brokenRows }
}

/** Lit stretches of a row: from and to in pixels, alternating, rising. */
type Spans = readonly number[]
const NONE: Spans = []

function spansOf(runs: Runs): Spans[] {
  return Array.from({ length: runs.height }, (_, y) => {
    const out: number[] = []
    for (let i = runs.rowStart[y]!; i < runs.rowStart[y + 1]!; i++) {
      const x = runs.x[i]!,
        n = runs.length[i]!,
        share = runs.value[i]! / 255
      const joins = out.length > 0 && out.at(-1)! >= x - 1e-9
      // A part-lit pixel belongs to the lit ones beside it; what it lights lies on their side.
      const lit = n * share
      const followed = i + 1 < runs.rowStart[y + 1]! && runs.x[i + 1] === x + n && runs.value[i + 1]! > runs.value[i]!
      if (joins) out[out.length - 1] = followed ? x + n : x + lit
      else if (followed) out.push(x + n - lit, x + n)
      else out.push(x, x + lit)
    }
    return out
  })
}
function moveEdges(row: Spans, by: number): Spans {
  const out: number[] = []
  for (let i = 0; i < row.length; i += 2) {
    const from = row[i]! + by,
      to = row[i + 1]! - by
    if (to <= from) continue
    if (out.length > 0 && from <= out.at(-1)!) out[out.length - 1] = Math.max(out.at(-1)!, to)
    else out.push(from, to)
  }
  return out
}
function intersect(a: Spans, b: Spans): Spans {
  const out: number[] = []
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const from = Math.max(a[i]!, b[j]!),
      to = Math.min(a[i + 1]!, b[j + 1]!)
    if (to > from) out.push(from, to)
    if (a[i + 1]! < b[j + 1]!) i += 2
    else j += 2
  }
  return out
}
function unite(a: Spans, b: Spans): Spans {
  const out: number[] = []
  for (let i = 0, j = 0; i < a.length || j < b.length;) {
    const first = j >= b.length || (i < a.length && a[i]! <= b[j]!)
    const [from, to] = first ? [a[i]!, a[i + 1]!] : [b[j]!, b[j + 1]!]
    if (first) i += 2
    else j += 2
    if (out.length > 0 && from <= out.at(-1)!) out[out.length - 1] = Math.max(out.at(-1)!, to)
    else out.push(from, to)
  }
  return out
}

function runsOf(rows: readonly Spans[], like: Runs): Runs {
  const out = new RunBuilder(like.width, like.height)
  const light = (share: number): number => Math.round(255 * Math.min(1, share))
  for (const row of rows) {
    for (let i = 0; i < row.length; i += 2) {
      const from = Math.max(0, row[i]!),
        to = Math.min(like.width, row[i + 1]!)
      if (to <= from) continue
      const first = Math.floor(from),
        last = Math.min(like.width - 1, Math.ceil(to) - 1)
      // Two stretches may share a pixel.
      out.lighten(first, light(Math.min(to, first + 1) - from))
      if (last === first) continue
      out.add(first + 1, last - first - 1, 255)
      out.add(last, 1, light(to - last))
    }
    out.endRow()
  }
  return { ...out.done(), brokenRows: like.brokenRows }
}
