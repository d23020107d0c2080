import type { FactName, Facts } from './facts'
import type { Finding } from './finding'
import type { Act } from './fix'
import type { Said } from '../words/say'
import { PIECE_STAGES } from '../stages'

/** Where findings are shown: the stages, the panel of the scheme's order, layers made elsewhere, the calendar of all pieces. */
export const STAGES = [...PIECE_STAGES, 'order', 'layers', 'calendar'] as const
export type Stage = (typeof STAGES)[number]

/** One thing that is looked at, where, and from which facts; pure. */
export interface Rule<S extends Stage = Stage, K extends FactName = FactName, A extends Act = Act> {
  /** what is looked at, to follow “Not checked:” */
  title: Said
  stages: readonly S[]
  inputs: readonly K[]
  find(facts: { readonly [N in K]: Facts[N] }): Finding<A>[]
}
/** Types a rule by its stages, its inputs and the fixes that it may offer. */
export const rule = <S extends Stage, K extends FactName, A extends Act>(r: Rule<S, K, A>): Rule<S, K, A> => r
