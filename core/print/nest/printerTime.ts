import { plateSize, printSeconds, type Printer, type Resin } from '../slice/printer'
import type { NestPrinter } from './types'

/** A printer as the nesting sees it: its plate, its height, and what a plate of some height takes. */
export function nestPrinter(id: string, printer: Printer, resin: Resin): NestPrinter {
  const [width, depth] = plateSize(printer)
  return {
    id,
    width,
    depth,
    height: printer.height,
    seconds: (height) => printSeconds(printer, resin, Math.ceil(height / printer.layerHeight - 1e-6)),
  }
}
