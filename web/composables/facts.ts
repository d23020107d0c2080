import { text } from '../i18n'
import { reportOf, type ReportOf } from '../../contract/derivations'
import type { PartRecord } from '../../contract/pieces'
import { failed, known, MEASURING, NONE, type Fact } from '../../core/findings/facts'
import type { OperationKind } from '../../core/operations/registry'

interface Checked<T> {
  report: { value: T | null }
  problem: { value: string | null }
  asked: { value: boolean }
}
/** What a check has told, as far as it is; `unasked` where there is nothing to check. */
export function checkFact<T>(check: Checked<T>, unasked: Fact<never> = NONE): Fact<T> {
  if (!check.asked.value) return unasked
  if (check.report.value !== null) return known(check.report.value)
  return check.problem.value === null ? MEASURING : failed(check.problem.value)
}

/** What the step of that kind has told, as far as it is; `without` where there is no such step. */
export function stepFact<K extends OperationKind>(
  kind: K,
  step: PartRecord['steps'][number] | null,
  without: Fact<never> = NONE,
): Fact<ReportOf<K>> {
  if (!step) return without
  const d = step.derivation
  if (d?.status === 'failed') return failed(d.problem?.message ?? text('composables.facts.itFailed'))
  const report = reportOf(d, kind)
  return report ? known(report as ReportOf<K>) : MEASURING
}
