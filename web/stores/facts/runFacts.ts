import { text } from '../../i18n'
import { computed } from 'vue'
import type { PlateRecord } from '../../../contract/runs'
import { known, NONE, type Facts } from '../../../core/findings/facts'
import type { KnownAt } from '../../../core/findings/judge'
import { useInspection } from '../inspection'
import { useRuns } from '../runs'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'

/** ml that the layers not printed yet take, by their share of all */
export const stillNeeded = (p: PlateRecord): number =>
  p.estimate.millilitres * (1 - p.progress.layer / Math.max(1, p.layers))

/** How the plates of the piece's runs are doing. */
export function runFacts() {
  const runs = useRuns(),
    inspection = useInspection()
  const name = (p: PlateRecord): string =>
    text('facts.runFacts.plateOfRun', {
      printerName: p.printerName,
      number: p.number,
      number2: runs.runs.find((r) => r.id === p.runId)?.number ?? 0,
    })
  const atWork = (p: PlateRecord): Facts['platesAtWork'][number] => ({
    id: p.id,
    name: name(p),
    state: p.state,
    problem: p.problem === null ? null : say(p.problem, manner),
    layer: p.progress.layer,
    layers: p.layers,
    doing: p.progress.state,
    why: p.progress.why,
    silent: p.progress.lostAt ? (Date.now() - new Date(p.progress.lostAt).getTime()) / 60_000 : null,
    vat: p.progress.vat,
    needed: stillNeeded(p),
    failed: p.outcomes.filter((o) => o.result === 'failed').length,
    reprinted: runs.runs.some((r) => r.reprintOf === p.runId),
  })
  const print = computed<KnownAt<'print'>>(() => ({
    platesAtWork: runs.plates.length > 0 ? known(runs.plates.map(atWork)) : NONE,
    flawCauses: inspection.known.flawCauses,
  }))
  return { print }
}
