import { computed } from 'vue'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import { usePrinterAndResin } from './usePrinterAndResin'

/** mm of primer and paint that a finish lays on: two coats of primer and some of paint, as the materials' defaults have it. */
const FILM = { shelf: 0.05, display: 0.07, exhibition: 0.09 } as const

/** Where the workshop has no printer yet. */
const USUAL = { layerHeight: 0.05, pitchX: 0.03, pitchY: 0.03 } as const

/** What takes detail away on the piece's printer and under its paint. */
export function useDetailLimits() {
  const { printer } = usePrinterAndResin()
  const stock = useStock(),
    piece = usePiece()
  return computed(() => {
    const p = printer.value ?? stock.printers[0] ?? USUAL
    const film = FILM[piece.piece?.finish ?? 'display']
    return { layerHeight: p.layerHeight, pitch: Math.max(p.pitchX, p.pitchY), film }
  })
}
