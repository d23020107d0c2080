import { BENCH } from '../../defaults/bench'
import type { PlanBuilder } from './builder'

/** What is still to come from the printer: little work, and a machine that is taken for long. */
export function printSteps(b: PlanBuilder): void {
  const { prints } = b.facts
  const ready = b.last
  const keys = prints.map((p) =>
    b.add({
      key: p.key,
      phase: 'Print',
      title: `Print ${p.plate === null ? '' : `plate ${p.plate} `}on ${p.printer}`,
      why:
        p.plate === null
          ? 'No print of it has started yet: the time is that of a plate as high as the tallest part.'
          : 'The time is that of the sliced plate.',
      handsOn: BENCH.print.attended,
      waiting: p.seconds,
      needs: p.printer,
      holds: true,
      cautions: ['resin'],
      after: ready,
    }),
  )
  if (keys.length > 0) b.last = keys
}
