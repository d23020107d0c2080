/**
 * What a measurement means for the artist. `settle` must be dealt with before going on, `know` should be known,
 * `note` is worth a glance. Rules are pure: facts in, findings out, one rule a file.
 */
export interface Finding {
  id: string
  level: 'settle' | 'know' | 'note'
  /** the measured figure, printed large, with its unit */
  value: string
  unit: string
  sentence: string
  /** where on the sculpt, mm, in the frame of the mesh it was measured on */
  places: [number, number, number][]
  /** method, inputs and tolerance */
  how: string
  /** what would mend it, by the stage's own names; the stage offers those it can do */
  fixes: { act: string; label: string; effect: string }[]
}

const LEVELS = { settle: 0, know: 1, note: 2 }
/** Worst first, otherwise as given. */
export const ranked = (list: readonly Finding[]): Finding[] =>
  [...list].sort((a, b) => LEVELS[a.level] - LEVELS[b.level])
export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`
