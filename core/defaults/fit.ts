/** What is known of fits where a workshop has not measured its own; see methods.md 8 and 9. */

export const PROCESSES = ['resin', 'filament'] as const
export type Process = (typeof PROCESSES)[number]
/** `sliding` goes in by hand and comes out again, `press` stays where it was pushed. */
export type FitKind = 'sliding' | 'press'

/** mm per side between two printed parts (methods.md 8). */
export const CLEARANCES: Record<Process, Record<FitKind, number>> = {
  resin: { sliding: 0.1, press: 0.05 },
  filament: { sliding: 0.2, press: 0.1 },
}

/** Landmarks of a standing height along the body, from the ground up, in the order in which they are asked for. */
export const LANDMARKS = ['sole', 'knee', 'hip', 'neck', 'crown'] as const

/** degrees that a piece should bear being tipped, where the brief says nothing else */
export const TIP_WISH = 15
