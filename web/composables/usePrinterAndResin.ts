import { computed } from 'vue'
import type { PrinterRecord, ResinRecord } from '../../contract/stock'
import { usePiece } from '../stores/piece'
import { useStock, type Item } from '../stores/stock'

/** Printer and resin of the piece; without a choice the first in stock stands in, and says so. */
export function usePrinterAndResin() {
  const store = usePiece(),
    stock = useStock()
  const printer = computed<Item<PrinterRecord> | null>(
    () => stock.printers.find((p) => p.id === store.piece?.printerId) ?? stock.printers[0] ?? null,
  )
  const resin = computed<Item<ResinRecord> | null>(
    () => stock.resins.find((r) => r.id === store.piece?.resinId) ?? stock.resins[0] ?? null,
  )
  const chosen = computed(() => Boolean(store.piece?.printerId && store.piece.resinId))
  return { printer, resin, chosen }
}
