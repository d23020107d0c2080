/** What the fit map says of a pair, and what a hand found. */
export interface PairFit {
  /** mm; below 0 where the parts claim the same room */
  p5: number
  p50: number
  p95: number
  /** mm³ */
  overlap: number
}
/** `tight`: mm too tight, below 0 where it is loose; null: it fits. */
export type Tried = { tight: number | null }

export interface Expectation {
  word: 'binds' | 'press' | 'slides' | 'loose' | 'gapes'
  sentence: string
}
/** mm a side: tighter than this has to be pressed, wider than that rattles. */
const PRESS = 0.04
const SLIDE = 0.2
const LOOSE = 0.5

/** How a pair will go together, as drawn. */
export function expected({ p5, p50, p95 }: PairFit): Expectation {
  const mm = (v: number): string => `${v.toFixed(2)} mm`
  if (p5 < -0.02)
    return {
      word: 'binds',
      sentence: `The parts overlap by ${mm(-p5)}: the joint does not close without rework.`,
    }
  if (p50 < PRESS) return { word: 'press', sentence: `${mm(p50)} per side: it must be pushed together.` }
  if (p50 <= SLIDE) return { word: 'slides', sentence: `${mm(p50)} per side: it slides in.` }
  if (p95 <= LOOSE) return { word: 'loose', sentence: `${mm(p50)} per side: it is loose; a gap-filling glue holds it.` }
  return { word: 'gapes', sentence: `The gap is up to ${mm(p95)}: fill it, or make the fit closer.` }
}

/** What helps a pair that does not fit, with the figure it takes; nothing when it does. */
export function remedies(tried: Tried, fit: PairFit): string[] {
  const { tight } = tried
  if (tight === null) return []
  if (tight > 0)
    return [
      `Widen the socket by ${(tight / 2).toFixed(2)} mm per side, or sand as much off the peg.`,
      `Or cut a clearance of ${(tight / 2 + 0.05).toFixed(2)} mm in the model and print that part again.`,
      ...(fit.overlap > 0
        ? [`In the model both overlap by ${fit.overlap.toFixed(1)} mm³: check the fit map first.`]
        : []),
    ]
  return [
    `Fill ${(-tight).toFixed(2)} mm with a gap-filling adhesive, or shim the peg.`,
    ...(tight < -0.3 ? ['Fill the seam once it is glued.'] : []),
  ]
}
