import { computed, onBeforeUnmount, watch } from 'vue'
import type { StageHandlers } from '../../shell/fixHandlers'
import { useFindings } from '../../stores/findings'
import { usePaintOrder } from '../../stores/paintOrder'
import { usePiece } from '../../stores/piece'
import { useScheme } from '../../stores/scheme'

/**
 * What is found in the scheme while its stage is open, and what the order's fixes do.
 *
 * @param newSkin share of the part's skin that is newer than its regions; null while they are not laid on it
 */
export function useSchemeFindings(o: {
  newSkin: () => number | null
  setOrder: (ids: string[]) => void
  brushAll: (region: number) => void
}) {
  const found = useFindings(),
    order = usePaintOrder(),
    book = useScheme(),
    piece = usePiece()
  const orderFixes: StageHandlers<'order'> = {
    // As it is now: what is added later comes last, until it is weighed again.
    cheapestOrder: () => o.setOrder(order.cheapest()),
    brushRegion: (fix) => o.brushAll(fix.region),
  }
  /** With the panel of the order open, what concerns the order stands there. */
  const judged = computed(() => {
    const { scheme, order: ordering } = found.byStage
    return order.followed
      ? scheme
      : { findings: [...scheme.findings, ...ordering.findings], rules: [...scheme.rules, ...ordering.rules] }
  })
  watch(
    o.newSkin,
    (share) => {
      book.newSkin = share !== null && piece.part ? { partId: piece.part.id, share } : null
    },
    { immediate: true },
  )
  order.lookedAt = true
  onBeforeUnmount(() => (order.lookedAt = false))
  return { judged, orderFixes }
}
