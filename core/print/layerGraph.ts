import type { Runs } from './raster'

/** A body region that starts at a layer with nothing below it. */
export interface Island {
  layer: number
  /** mm, in the rasteriser's frame */
  x: number
  y: number
  /** mm² */
  area: number
}

/** mm between the layers of a quick look, before anything is sliced. */
export const LOOK = 0.1

/** A void that the layers close in with no way to air through what is already printed. */
export interface Cup {
  firstLayer: number
  lastLayer: number
  /** layer and place of the greatest enclosed area */
  worstLayer: number
  x: number
  y: number
  /** where its first layer closes, mm: the end that a vent must reach */
  startX: number
  startY: number
  /** mm² */
  area: number
  /** N at 100 kPa, the most a vacuum can pull */
  force: number
}

/** Highest pressure difference a vented room can put on a sealed cup, Pa (methods.md 3). */
export const VACUUM = 100_000
const SOLID = 48
/** mm²; voids smaller than this seal nothing that matters, and hatch noise ends here */
const LEAST_CUP = 1.5
const LEAST_ISLAND = 0.01

/**
 * Follows solid and void regions from layer to layer by runs: regions are joined within a layer across rows and
 * between layers by overlap (union–find), never by touching pixels one at a time.
 *
 * A void is open when it reaches the edge of the picture in its layer, or joins an open void of the layer before:
 * the part hangs from the plate, so air comes from the layers already printed.
 */
export class LayerGraph {
  readonly islands: Island[] = []
  /** N per layer at 100 kPa: what all voids pull together that are shut in then */
  readonly suctionByLayer: number[] = []
  private readonly cups = new Map<number, Cup>()
  private readonly parent: number[] = []
  private readonly open: boolean[] = []
  private solidBefore: Intervals | null = null
  private voidBefore: Intervals | null = null
  private layer = 0

  /**
   * @param slack pixels by which a region may grow sideways from one layer to the next and still be held
   */
  constructor(
    private readonly pitchX: number,
    private readonly pitchY: number,
    private readonly originX: number,
    private readonly originY: number,
    private readonly slack = 1,
  ) {}

  push(runs: Runs): void {
    const solid = intervals(runs, false),
      empty = intervals(runs, true)
    const pixel = this.pitchX * this.pitchY
    const parts = label(solid, runs.height, null)
    const held = new Uint8Array(parts.count)
    if (this.solidBefore)
      touch(solid, this.solidBefore, runs.height, this.slack, (i) => {
        held[solid.label[i]!] = 1
      })
    if (this.layer > 0) {
      for (let c = 0; c < parts.count; c++) {
        if (held[c] || parts.pixels[c]! * pixel < LEAST_ISLAND) continue
        this.islands.push({ layer: this.layer, area: parts.pixels[c]! * pixel, ...this.place(parts, c) })
      }
    }
    const voids = label(empty, runs.height, runs.width)
    const ids = Array.from({ length: voids.count }, (_, c) => {
      this.parent.push(this.parent.length)
      this.open.push(voids.edge[c] === 1)
      return this.parent.length - 1
    })
    const { voidBefore } = this
    if (voidBefore)
      touch(empty, voidBefore, runs.height, 0, (i, j) => this.join(ids[empty.label[i]!]!, voidBefore.label[j]!))
    // Labels become lasting ids, so that the next layer can join them.
    for (let i = 0; i < empty.label.length; i++) empty.label[i] = ids[empty.label[i]!]!
    let shut = 0
    for (let c = 0; c < voids.count; c++) {
      const root = this.find(ids[c]!)
      const area = voids.pixels[c]! * pixel
      if (this.open[root] || area < LEAST_CUP) continue
      shut += area
      const before = this.cups.get(root)
      if (before && before.area >= area) {
        before.lastLayer = this.layer
        continue
      }
      const start = before ? { x: before.startX, y: before.startY } : this.inside(empty, voids, c)
      this.cups.set(root, {
        startX: start.x,
        startY: start.y,
        firstLayer: before?.firstLayer ?? this.layer,
        lastLayer: this.layer,
        worstLayer: this.layer,
        area,
        force: area * 1e-6 * VACUUM,
        ...this.place(voids, c),
      })
    }
    this.suctionByLayer.push(shut * 1e-6 * VACUUM)
    this.solidBefore = solid
    this.voidBefore = empty
    this.layer++
  }

  /** Cups found so far, strongest first. */
  suction(): Cup[] {
    return [...this.cups.values()].sort((a, b) => b.force - a.force)
  }

  private place(l: Labels, c: number): { x: number; y: number } {
    return {
      x: this.originX + (l.sumX[c]! / l.pixels[c]!) * this.pitchX,
      y: this.originY + (l.sumY[c]! / l.pixels[c]! + 0.5) * this.pitchY,
    }
  }

  private inside(s: Intervals, l: Labels, c: number): { x: number; y: number } {
    const i = l.longest[c]!
    // Rows are few beside intervals; the one that holds it is found by halving.
    let lo = 0,
      hi = s.rowStart.length - 1
    while (hi - lo > 1) {
      const m = (lo + hi) >> 1
      if (s.rowStart[m]! <= i) lo = m
      else hi = m
    }
    return {
      x: this.originX + ((s.from[i]! + s.to[i]!) / 2) * this.pitchX,
      y: this.originY + (lo + 0.5) * this.pitchY,
    }
  }

  private find(a: number): number {
    const p = this.parent
    while (p[a] !== a) {
      p[a] = p[p[a]!]!
      a = p[a]!
    }
    return a
  }

  private join(a: number, b: number): void {
    const r = this.find(a),
      s = this.find(b)
    if (r === s) return
    const keep = Math.min(r, s),
      gone = Math.max(r, s)
    this.parent[gone] = keep
    this.open[keep] = this.open[keep]! || this.open[gone]!
    const lost = this.cups.get(gone),
      kept = this.cups.get(keep)
    this.cups.delete(gone)
    if (!lost) return
    const large = kept && kept.area >= lost.area ? kept : lost,
      early = kept && kept.firstLayer <= lost.firstLayer ? kept : lost
    this.cups.set(keep, { ...large, firstLayer: early.firstLayer, startX: early.startX, startY: early.startY })
  }
}

interface Intervals {
  rowStart: Uint32Array
  from: Uint32Array
  to: Uint32Array
  label: Uint32Array
}
interface Labels {
  count: number
  pixels: Float64Array
  sumX: Float64Array
  sumY: Float64Array
  edge: Uint8Array
  /** longest interval of each region: a place that is surely in it, as a centroid need not be */
  longest: Uint32Array
}

/** Half-open pixel intervals of the solid, or of the void between and around it. */
function intervals(runs: Runs, empty: boolean): Intervals {
  const rowStart = new Uint32Array(runs.height + 1)
  const from: number[] = [],
    to: number[] = []
  for (let row = 0; row < runs.height; row++) {
    rowStart[row] = from.length
    let begin = 0,
      end = 0
    for (let i = runs.rowStart[row]!; i < runs.rowStart[row + 1]!; i++) {
      if (runs.value[i]! < SOLID) continue
      const x = runs.x[i]!
      if (x !== end) {
        if (empty) {
          if (x > end) {
            from.push(end)
            to.push(x)
          }
        } else if (end > begin) {
          from.push(begin)
          to.push(end)
        }
        begin = x
      }
      end = x + runs.length[i]!
    }
    if (empty) {
      if (end < runs.width) {
        from.push(end)
        to.push(runs.width)
      }
    } else if (end > begin) {
      from.push(begin)
      to.push(end)
    }
  }
  rowStart[runs.height] = from.length
  return { rowStart, from: Uint32Array.from(from), to: Uint32Array.from(to), label: new Uint32Array(from.length) }
}

/** Connected regions within a layer (4-neighbours). With `width` given, notes which reach the picture's edge. */
function label(s: Intervals, height: number, width: number | null): Labels {
  const n = s.from.length
  const parent = new Uint32Array(n)
  for (let i = 0; i < n; i++) parent[i] = i
  const find = (a: number): number => {
    while (parent[a] !== a) {
      parent[a] = parent[parent[a]!]!
      a = parent[a]!
    }
    return a
  }
  for (let row = 1; row < height; row++) {
    let j = s.rowStart[row - 1]!
    for (let i = s.rowStart[row]!; i < s.rowStart[row + 1]!; i++) {
      while (j < s.rowStart[row]! && s.to[j]! <= s.from[i]!) j++
      for (let k = j; k < s.rowStart[row]! && s.from[k]! < s.to[i]!; k++) {
        const a = find(i),
          b = find(k)
        if (a !== b) parent[Math.max(a, b)] = Math.min(a, b)
      }
    }
  }
  const number = new Int32Array(n).fill(-1)
  let count = 0
  for (let i = 0; i < n; i++) {
    const r = find(i)
    if (number[r] === -1) number[r] = count++
    s.label[i] = number[r]!
  }
  const out: Labels = {
    count,
    pixels: new Float64Array(count),
    sumX: new Float64Array(count),
    sumY: new Float64Array(count),
    edge: new Uint8Array(count),
    longest: new Uint32Array(count),
  }
  const most = new Uint32Array(count)
  for (let row = 0; row < height; row++)
    for (let i = s.rowStart[row]!; i < s.rowStart[row + 1]!; i++) {
      const c = s.label[i]!,
        length = s.to[i]! - s.from[i]!
      out.pixels[c]! += length
      if (length > most[c]!) {
        most[c] = length
        out.longest[c] = i
      }
      out.sumX[c]! += (length * (s.from[i]! + s.to[i]!)) / 2
      out.sumY[c]! += length * row
      if (width !== null && (row === 0 || row === height - 1 || s.from[i] === 0 || s.to[i] === width)) out.edge[c] = 1
    }
  return out
}

/** Calls back for every pair of intervals of two layers that overlap within `slack` pixels. */
function touch(a: Intervals, b: Intervals, height: number, slack: number, found: (i: number, j: number) => void): void {
  for (let row = 0; row < height; row++) {
    for (let other = Math.max(0, row - slack); other <= Math.min(height - 1, row + slack); other++) {
      let j = b.rowStart[other]!
      const end = b.rowStart[other + 1]!
      for (let i = a.rowStart[row]!; i < a.rowStart[row + 1]!; i++) {
        while (j < end && b.to[j]! + slack <= a.from[i]!) j++
        for (let k = j; k < end && b.from[k]! < a.to[i]! + slack; k++) found(i, k)
      }
    }
  }
}
