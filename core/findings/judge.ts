import type { Fact, FactName, Facts } from './facts'
import type { Finding } from './finding'
import { RULES, type ActsAt, type InputsAt } from './registry'
import type { Rule, Stage } from './rule'
import type { Said } from '../words/say'

/** How far a rule is: only `measured` says that nothing was found where nothing is listed. */
export type RuleState = { title: Said } & (
  | { state: 'measured' }
  | { state: 'not applicable' }
  | { state: 'measuring' }
  /** for what has to be given or done first */
  | { state: 'waiting'; for: readonly string[] }
  | { state: 'failed'; sentence: string }
)
export interface Judged<S extends Stage = Stage> {
  findings: Finding<ActsAt<S>>[]
  rules: RuleState[]
}
/** What is known of the facts that a stage's rules ask for. */
export type KnownAt<S extends Stage> = { readonly [N in InputsAt<S>]: Fact<Facts[N]> }

type AnyFacts = Readonly<Partial<Record<FactName, Fact<unknown>>>>

/** The findings of a stage from what is known, and how far each of its rules is. */
export function judge<S extends Stage>(stage: S, known: KnownAt<S>): Judged<S> {
  return judgedBy(RULES as readonly unknown[] as readonly Rule[], stage, known) as unknown as Judged<S>
}
/** The same over rules of one's own. A fact that nobody gave is an error of the program. */
export function judgedBy(rules: readonly Rule[], stage: Stage, known: AnyFacts): Judged {
  const out: Judged = { findings: [], rules: [] }
  for (const r of rules) {
    if (!r.stages.includes(stage)) continue
    const { title } = r,
      facts = r.inputs.map((n) => known[n]!)
    const first = facts.find((f) => f.state === 'failed')
    const waits = facts.flatMap((f) => (f.state === 'missing' ? [f.what] : []))
    if (facts.some((f) => f.state === 'none')) out.rules.push({ title, state: 'not applicable' })
    else if (first) out.rules.push({ title, state: 'failed', sentence: first.sentence })
    else if (waits.length > 0) out.rules.push({ title, state: 'waiting', for: [...new Set(waits)] })
    else if (facts.some((f) => f.state === 'measuring')) out.rules.push({ title, state: 'measuring' })
    else {
      const values = Object.fromEntries(r.inputs.map((n) => [n, (known[n] as { value: unknown }).value]))
      out.findings.push(...r.find(values as never))
      out.rules.push({ title, state: 'measured' })
    }
  }
  return out
}

type Looked = { rules: readonly RuleState[] }
const counts = (r: RuleState): boolean => r.state !== 'not applicable'
/** How many of the rules that concern the piece have been measured. */
export const measuredOf = ({ rules }: Looked): { measured: number; of: number } => ({
  measured: rules.filter((r) => r.state === 'measured').length,
  of: rules.filter(counts).length,
})
/** Whether all that concerns the piece has been measured: only then may one say that nothing was found. */
export function complete(j: Looked): boolean {
  const { measured, of } = measuredOf(j)
  return measured === of
}
