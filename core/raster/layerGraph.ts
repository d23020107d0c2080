import { VACUUM } from '../defaults/print'
import { label, resting, voidsOf, type Intervals, type Labels } from './regions'
import { Voids } from './voids'

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
export const INSPECTION_STEP = 0.1

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

/** mm²; voids smaller than this seal nothing that matters, and hatch noise ends here */
const LEAST_CUP = 1.5
const LEAST_ISLAND = 0.01

/**
 * Follows solid and void regions from layer to layer by runs: regions are joined within a layer across rows and
 * between layers by overlap (union–find), never by touching pixels one at a time.
 */
export class LayerGraph {
  readonly islands: Island[] = []
  /** N per layer at 100 kPa: what all voids pull together that are shut in then */
  readonly suctionByLayer: number[] = []
  private readonly cups = new Map<number, Cup>()
  private readonly voids = new Voids((keep, gone) => this.joinCups(keep, gone))
  private solidBefore: Intervals | null = null
  private layer = 0

  private readonly pixel: number

  /**
   * @param pitchX mm a pixel, below 0 where the picture is mirrored; likewise pitchY, a row
   * @param originX mm of the picture's corner, likewise originY
   * @param slack pixels and rows by which a region may grow sideways from one layer to the next and still be held
   */
  constructor(
    private readonly pitchX: number,
    private readonly pitchY: number,
    private readonly originX: number,
    private readonly originY: number,
    private readonly slack: readonly [number, number] = [1, 1],
  ) {
    this.pixel = Math.abs(pitchX * pitchY)
  }

  push(solid: Intervals): void {
    const { pixel } = this
    const parts = label(solid)
    const held = this.solidBefore && resting(solid, this.solidBefore, this.slack, parts.count)
    if (held) {
      for (let c = 0; c < parts.count; c++) {
        const area = parts.light[c]! * pixel
        if (held[c] || area < LEAST_ISLAND) continue
        this.islands.push({ layer: this.layer, area, ...this.place(parts, c) })
      }
    }
    const empty = voidsOf(solid),
      voids = label(empty)
    const ids = this.voids.push(empty, voids)
    let shut = 0
    for (let c = 0; c < voids.count; c++) {
      const root = this.voids.root(ids[c]!)
      const area = voids.pixels[c]! * pixel
      if (!this.voids.shut(root) || area < LEAST_CUP) continue
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

  private joinCups(keep: number, gone: number): void {
    const lost = this.cups.get(gone),
      kept = this.cups.get(keep)
    this.cups.delete(gone)
    if (!lost) return
    const large = kept && kept.area >= lost.area ? kept : lost,
      early = kept && kept.firstLayer <= lost.firstLayer ? kept : lost
    this.cups.set(keep, { ...large, firstLayer: early.firstLayer, startX: early.startX, startY: early.startY })
  }
}
