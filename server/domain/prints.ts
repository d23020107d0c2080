import { now } from '../data/clock'
import { Op } from 'sequelize'
import { printer as printerSchema, resin as resinSchema } from '../../contract/stock'
import { printSeconds } from '../../core/print/slice/printer'
import type { PlanFacts } from '../../core/plan/steps/types'
import { Tick } from '../data/benchModels'
import { runsOf } from './runs'

/** Key of the step that stands for prints of which nothing is sliced. */
const UNSLICED = 'print'

interface Printing {
  prints: PlanFacts['prints']
  running: string[]
  /** ms at which what prints now is done; 0 when nothing does */
  until: number
}

/**
 * What of a piece is still to be printed. Without a run it is known by its height alone, without a printer not even its time,
 * and only until something was done with it at the bench: then it has been printed, here or elsewhere.
 *
 * @param height mm of the tallest part as it stands in the printer; 0 where nothing is printed in resin
 * @param printer and resin of the stock; null: none. `assumed`: nobody chose the printer, it is the first there is
 */
export async function printsOf(
  pieceId: string,
  height: number,
  printer: Record<string, unknown> | null,
  assumed: boolean,
  resin: Record<string, unknown> | null,
): Promise<Printing> {
  const [run] = await runsOf(pieceId)
  if (run) {
    const live = run.plates.filter((p) => p.state === 'printing')
    return {
      prints: run.plates
        .filter((p) => p.state === 'planned' || p.state === 'sending')
        .map((p) => ({
          key: `print:${p.id}`,
          printer: p.printerName,
          plate: p.number,
          seconds: Math.round(p.estimate.seconds),
        })),
      running: live.map((p) => p.printerName),
      until: Math.max(0, ...live.map((p) => now() + 1000 * (p.progress.left || p.estimate.seconds))),
    }
  }
  const touched = await Tick.findAll({
    where: { pieceId, [Op.or]: [{ begunAt: { [Op.ne]: null } }, { doneAt: { [Op.ne]: null } }] },
  })
  const printed = touched.length > 0 && !touched.some((t) => t.stepKey === UNSLICED)
  if (printed || !(height > 0)) return { prints: [], running: [], until: 0 }
  if (!printer) return { prints: [{ key: UNSLICED, printer: null, plate: null, seconds: 0 }], running: [], until: 0 }
  const figures = printerSchema.parse(printer)
  const seconds = printSeconds(
    figures,
    resinSchema.parse(resin ?? { name: 'resin' }),
    Math.ceil(height / figures.layerHeight),
  )
  return {
    prints: [{ key: UNSLICED, printer: figures.name, assumed, plate: null, seconds: Math.round(seconds) }],
    running: [],
    until: 0,
  }
}
