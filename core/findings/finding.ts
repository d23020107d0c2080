import { formatMessage, type Fixed } from '../words/format'
import { METRIC, type Manner } from '../words/manner'
import { isMessage } from '../words/message'
import { say, textOf, type Said } from '../words/say'
import type { Act, Fix, SpokenFix } from './fix'

/**
 * What a measurement means for the artist. `settle` must be dealt with before going on, `know` should be known,
 * `note` is worth a glance. `A` names the fixes that may be offered.
 */
export interface Finding<out A extends Act = Act> {
  id: string
  level: 'problem' | 'warning' | 'note'
  /** the measured figure, printed large; its unit, which may go on in words: "mm too deep" */
  value: number | Fixed | Said
  unit: Said
  sentence: Said
  /** where on the sculpt, mm, in the frame of the mesh it was measured on */
  places: [number, number, number][]
  /** method, inputs and tolerance */
  how: Said
  /** what would mend it */
  fixes: Fix<A>[]
}

const LEVELS = { problem: 0, warning: 1, note: 2 }
/** Worst first, otherwise as given. */
export const ranked = <F extends Finding>(list: readonly F[]): F[] =>
  [...list].sort((a, b) => LEVELS[a.level] - LEVELS[b.level])

/** A finding in words, as it is shown, printed and sent. */
export interface SpokenFinding<A extends Act = Act> extends Pick<Finding, 'id' | 'level' | 'places'> {
  value: string
  unit: string
  sentence: string
  how: string
  fixes: SpokenFix<A>[]
}
/** The figure and its unit apart: the unit changes with what somebody measures in. */
function figureOf({ value, unit }: Finding, m: Manner): { value: string; unit: string } {
  if (typeof value === 'string' || isMessage(value)) return { value: say(value, m), unit: say(unit, m) }
  const [words, values] = typeof unit === 'string' ? [unit, {}] : [textOf(unit.id), unit.values]
  const text = formatMessage(`{value} ${words}`, { ...values, value }, m).trim()
  const end = text.indexOf(' ')
  return end < 0 ? { value: text, unit: '' } : { value: text.slice(0, end), unit: text.slice(end + 1) }
}
export const spoken = <A extends Act>(f: Finding<A>, m: Manner = METRIC): SpokenFinding<A> => ({
  id: f.id,
  level: f.level,
  places: f.places,
  ...figureOf(f, m),
  sentence: say(f.sentence, m),
  how: say(f.how, m),
  fixes: f.fixes.map((x) => ({ ...x, label: say(x.label, m), effect: say(x.effect, m) })) as unknown as SpokenFix<A>[],
})
