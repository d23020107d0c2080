/** How one part came out, with what tells prints apart. */
export interface PartOutcome {
  printer: string
  resin: string
  /** degrees, null when not turned */
  tilt: number | null
  finest: string | null
  good: boolean
}
export interface Rate {
  by: 'printer' | 'resin' | 'tilt' | 'tips'
  what: string
  parts: number
  good: number
  rate: number
  /** Wilson 90 % interval (Wilson 1927) */
  low: number
  high: number
}
const Z90 = 1.645

/** Bounds of a share by Wilson's score interval; [0, 1] where there is nothing to go by. */
export function wilson(good: number, all: number, z = Z90): [number, number] {
  if (all === 0) return [0, 1]
  const p = good / all,
    k = (z * z) / all,
    middle = (p + k / 2) / (1 + k),
    half = (z / (1 + k)) * Math.sqrt((p * (1 - p)) / all + k / (4 * all))
  return [Math.max(0, middle - half), Math.min(1, middle + half)]
}

const TILTS: readonly [number, string][] = [
  [10, 'upright, to 10°'],
  [30, 'tilted 10 to 30°'],
  [60, 'tilted 30 to 60°'],
  [181, 'tilted over 60°'],
]
/** How a tilt in degrees is counted. */
export const tiltWord = (t: number): string => TILTS.find(([most]) => t <= most)![1]

/** How often parts come out, by printer, resin, tilt and finest tip. */
export function successRates(outcomes: readonly PartOutcome[]): Rate[] {
  const groups = new Map<string, Rate>()
  const count = (by: Rate['by'], what: string | null, good: boolean): void => {
    if (what === null) return
    const key = `${by} ${what}`
    const g = groups.get(key) ?? { by, what, parts: 0, good: 0, rate: 0, low: 0, high: 1 }
    g.parts++
    if (good) g.good++
    groups.set(key, g)
  }
  for (const o of outcomes) {
    count('printer', o.printer, o.good)
    count('resin', o.resin, o.good)
    count('tilt', o.tilt === null ? null : tiltWord(o.tilt), o.good)
    count('tips', o.finest, o.good)
  }
  return [...groups.values()].map((g) => {
    const [low, high] = wilson(g.good, g.parts)
    return { ...g, rate: g.good / g.parts, low, high }
  })
}

/** A finished print as its time goes. */
export interface TimedPrint {
  layers: number
  bottomLayers: number
  exposure: number
  bottomExposure: number
  /** s calculated before, and that it took */
  estimate: number
  took: number
}
export interface TimeFit {
  prints: number
  /** s of motion and rest a layer, by what the prints took */
  motion: number
  /** mean error of the estimates, as a share of what it took: as they were, and by the fitted motion */
  before: number
  after: number
}

/**
 * The motion of a layer that explains best what prints took: took = exposures + layers·motion, least squares in relative error,
 * so that a short print tells as much as a long one. Null without prints.
 */
export function fitMotion(prints: readonly TimedPrint[]): TimeFit | null {
  const usable = prints.filter((p) => p.took > 0 && p.layers > 0)
  if (usable.length === 0) return null
  const lit = (p: TimedPrint): number => {
    const bottom = Math.min(p.bottomLayers, p.layers)
    return bottom * p.bottomExposure + (p.layers - bottom) * p.exposure
  }
  // Minimise Σ ((lit + n·m − t)/t)²: m = Σ n(t − lit)/t² / Σ n²/t².
  let up = 0,
    down = 0
  for (const p of usable) {
    up += (p.layers * (p.took - lit(p))) / p.took ** 2
    down += (p.layers / p.took) ** 2
  }
  const motion = Math.max(0, up / down)
  const mean = (of: (p: TimedPrint) => number): number =>
    usable.reduce((s, p) => s + Math.abs(of(p) - p.took) / p.took, 0) / usable.length
  return {
    prints: usable.length,
    motion,
    before: mean((p) => p.estimate),
    after: mean((p) => lit(p) + p.layers * motion),
  }
}
