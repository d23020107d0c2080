import { BENCH } from '../../defaults/bench'
import type { PlanBuilder } from './builder'
import { message } from '../../words/message'

/** What is still to come from the printer: little work, and a machine that is taken for long. */
export function printSteps(b: PlanBuilder): void {
  const { prints } = b.facts
  const ready = b.last
  const keys = prints.map(({ key, printer, assumed, plate, seconds }) =>
    b.add({
      key,
      phase: 'Print',
      title:
        printer === null
          ? message('prints.print.printIt')
          : message('prints.print.printPlateOn', { p: plate === null, plate, printer }),
      why:
        printer === null
          ? message('prints.print.noPrinterIsChosen')
          : plate === null
            ? message('prints.print.noPrintOfItHas', { assumed: assumed ?? false })
            : message('prints.print.theTimeIsThatOf'),
      handsOn: BENCH.print.attended,
      waiting: seconds,
      needs: printer ?? 'printer',
      holds: true,
      cautions: ['resin'],
      after: ready,
    }),
  )
  if (keys.length > 0) b.last = keys
}
