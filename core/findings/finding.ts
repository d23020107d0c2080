import type { Act, Fix } from './fix'

/**
 * What a measurement means for the artist. `settle` must be dealt with before going on, `know` should be known,
 * `note` is worth a glance. `A` names the fixes that may be offered.
 */
export interface Finding<out A extends Act = Act> {
  id: string
  level: 'problem' | 'warning' | 'note'
  /** the measured figure, printed large, with its unit */
  value: string
  unit: string
  sentence: string
  /** where on the sculpt, mm, in the frame of the mesh it was measured on */
  places: [number, number, number][]
  /** method, inputs and tolerance */
  how: string
  /** what would mend it */
  fixes: Fix<A>[]
}

const LEVELS = { problem: 0, warning: 1, note: 2 }
/** Worst first, otherwise as given. */
export const ranked = <F extends Finding>(list: readonly F[]): F[] =>
  [...list].sort((a, b) => LEVELS[a.level] - LEVELS[b.level])
export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`
