import { schoolDefaults, type School, type Schools } from '../../core/defaults/plan'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'

/** House rules as they hold for the piece on the table. */
export function useRules() {
  const piece = usePiece(),
    stock = useStock()
  const rule = <S extends School>(school: S): Schools[S] =>
    (piece.piece?.schools as Partial<Schools> | undefined)?.[school] ??
    (stock.workshop?.schools as Schools | undefined)?.[school] ??
    schoolDefaults[school]
  return { rule }
}
