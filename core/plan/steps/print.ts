import { BENCH } from '../../defaults/bench'
import type { PlanBuilder } from './builder'
import { message } from '../../words/message'

/** What is still to come from the printer: little work, and a machine that is taken for long. */
export function printSteps(b: PlanBuilder): void {
  const { prints } = b.facts
  const ready = b.last
  const keys = prints.map((p) =>
    b.add({
      key: p.key,
      phase: 'Print',
      title: message('prints.print.printPlateOn', { p: p.plate === null, plate: p.plate, printer: p.printer }),
      why: p.plate === null ? message('prints.print.noPrintOfItHas') : message('prints.print.theTimeIsThatOf'),
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
