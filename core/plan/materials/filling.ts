import { SEAM_LIMITS, type SeamClass } from '../../fit/gap'
import { batches, type MixedBatch } from './batches'
import { waitingIn, type Room } from './drying'
import { FILLERS, type BenchMaterial } from './materials'

/** How a stretch of seam, or several that gape alike, is filled. */
export interface Fill {
  material: BenchMaterial
  /** mm of seam, and mm³ that it takes up */
  length: number
  volume: number
  /** mm; null: more than every limit */
  widest: number | null
  batches: MixedBatch[]
  /** how often it is laid in and left to set, because it does not set deeper at once */
  layers: number
  /** s of work, laying in and levelling, and of waiting in this room */
  handsOn: number
  waiting: number
}

/** mm into the joint that filler has to go to hold. */
export const FILL_DEPTH = 2
/** s to lay out, mix and clear away another material */
const SET_UP = 240
/** What a second of waiting is worth beside one of work: something else can be done meanwhile, but not everything. */
const WAITING_WORTH = 0.03

/**
 * Chooses fillers for a seam by how its gap is spread along it, not by its mean: each class of gap gets one that bridges it,
 * and few are set up rather than many. Every choice is tried, which for six classes and six fillers is quick.
 *
 * @param fillers to choose from
 * @param spare where none of them bridges a class: what else there is
 * @returns nothing for a seam that does not show; a class that nothing bridges is left out and is a matter for the fit
 */
export function fillSeam(
  classes: readonly SeamClass[],
  room: Room,
  fillers: readonly BenchMaterial[] = FILLERS,
  spare: readonly BenchMaterial[] = [],
): Fill[] {
  const limits = classes.map((c) => lowest(c))
  const open = classes.map((c, i) => {
    const own = fillers.filter((f) => bridges(f, limits[i]!, c.upTo))
    return own.length > 0 ? own : spare.filter((f) => bridges(f, limits[i]!, c.upTo))
  })
  const asked = classes.map((_, i) => i).filter((i) => classes[i]!.length > 0 && open[i]!.length > 0)
  let best: { cost: number; fills: Fill[] } | null = null
  const chosen: BenchMaterial[] = []
  const look = (k: number): void => {
    if (k < asked.length) {
      for (const f of open[asked[k]!]!) {
        chosen[k] = f
        look(k + 1)
      }
      return
    }
    const fills = together(
      asked.map((i, n) => ({ c: classes[i]!, f: chosen[n]! })),
      room,
    )
    const cost =
      fills.reduce((sum, x) => sum + x.handsOn + SET_UP, 0) +
      WAITING_WORTH * Math.max(0, ...fills.map((x) => x.waiting))
    if (!best || cost < best.cost) best = { cost, fills }
  }
  look(0)
  return (best as { fills: Fill[] } | null)?.fills ?? []
}

/** The gap at which a class begins: where the one below it ends, whether or not the seam has any of that. */
const LIMITS: readonly number[] = [0, ...SEAM_LIMITS]
const lowest = (c: SeamClass): number => (c.upTo === null ? LIMITS.at(-1)! : (LIMITS[LIMITS.indexOf(c.upTo) - 1] ?? 0))
const bridges = (f: BenchMaterial, from: number, to: number | null): boolean =>
  f.gap[0] <= from && (to ?? 2 * from) <= f.gap[1]

function together(parts: readonly { c: SeamClass; f: BenchMaterial }[], room: Room): Fill[] {
  const fills: Fill[] = []
  for (const material of new Set(parts.map((p) => p.f))) {
    const own = parts.filter((p) => p.f === material).map((p) => p.c)
    const length = own.reduce((s, c) => s + c.length, 0),
      volume = own.reduce((s, c) => s + c.volume, 0)
    const layers = material.deepest === null ? 1 : Math.ceil(FILL_DEPTH / material.deepest - 1e-9)
    const work = layers * material.layIn * length
    fills.push({
      material,
      length,
      volume,
      widest: own.some((c) => c.upTo === null) ? null : Math.max(...own.map((c) => c.upTo!)),
      batches: batches(material, volume / 1000, work, room),
      layers,
      handsOn: work + material.level * length,
      waiting: layers * waitingIn(room, material.next, material.setting),
    })
  }
  return fills
}
