import type { Ground, Painted, Rgb, Stack } from './coating'
import { fewWeights } from '../optics/fewBands'
import { passesOf } from './passes'
import { RegionPainter } from './regionPainter'

/** Paints a skin again and again: where one coat of a region is dragged, the rest of its stack is not laid again. */
export class Painter {
  private regions = new Uint8Array()
  private readonly by = new Map<number, RegionPainter>()

  /** @param maps MAPS floats per vertex */
  constructor(private readonly maps: Float32Array) {}

  /**
   * Colours and sheen of the skin under each region's stack of coats.
   *
   * @param regions number of the region per vertex
   * @param stacks by region
   * @param bare what regions without a stack are left as
   * @param weights linear sRGB by band, as `lampWeights` gives it
   */
  paint(regions: Uint8Array, stacks: ReadonlyMap<number, Stack>, bare: Ground, weights: Rgb): Painted {
    if (!same(regions, this.regions)) {
      this.by.clear()
      this.regions = regions.slice()
      for (const [r, vertices] of gather(regions)) this.by.set(r, new RegionPainter(this.maps, vertices))
    }
    const n = regions.length,
      lit = [...stacks].some(([r, s]) => s.behind && this.by.has(r))
    const out: Painted = {
      colours: new Float32Array(n * 3),
      sheen: new Float32Array(n * 2),
      glow: lit ? new Float32Array(n * 3) : null,
    }
    const w = fewOf(weights)
    for (const [r, painter] of this.by) {
      const { ground, coats, behind } = stacks.get(r) ?? ({ ground: bare, coats: [] } as Stack)
      const holds = painter.paint(ground.reflectance, passesOf(ground, coats), w, behind ? fewOf(behind) : null, out)
      // What is kept for one coat takes more room than all the rest: it is kept for one region at a time.
      if (holds) for (const [other, p] of this.by) if (other !== r) p.letGo()
    }
    return out
  }
}

/** The same once. */
export const paintSkin = (
  maps: Float32Array,
  regions: Uint8Array,
  stacks: ReadonlyMap<number, Stack>,
  bare: Ground,
  weights: Rgb,
): Painted => new Painter(maps).paint(regions, stacks, bare, weights)

const fewOf = (w: Rgb): Rgb => w.map(fewWeights) as unknown as Rgb

function same(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false
  return true
}

function gather(regions: Uint8Array): Map<number, Uint32Array> {
  const count = new Uint32Array(256)
  for (const r of regions) count[r]!++
  const out = new Map<number, Uint32Array>()
  for (let r = 0; r < 256; r++) if (count[r]! > 0) out.set(r, new Uint32Array(count[r]!))
  count.fill(0)
  for (let v = 0; v < regions.length; v++) {
    const r = regions[v]!
    out.get(r)![count[r]!++] = v
  }
  return out
}
