import { reportOf } from '../../../contract/derivations'
import { ref } from 'vue'
import type { PartRecord } from '../../../contract/pieces'
import type { Change } from '../../../core/print/failure/cause'
import { usePiece } from '../../stores/piece'
import { useStock } from '../../stores/stock'

/** Makes the one change that a cause asks for, where it can be made at once; says what was done. */
export function useOneChange() {
  const piece = usePiece(),
    stock = useStock()
  const done = ref(''),
    fault = ref('')
  const canDo = (c: Change): boolean => c.kind !== 'none' && c.kind !== 'tilt' && c.kind !== 'vent'

  async function make(change: Change, part: PartRecord | null, resinId: string): Promise<void> {
    done.value = fault.value = ''
    try {
      if (change.kind === 'exposure' || change.kind === 'bottomExposure') {
        const r = stock.resins.find((x) => x.id === resinId)
        if (!r) throw new Error('This resin is no longer in stock.')
        await stock.change('resin', r.id, { [change.kind]: change.to })
        done.value = `${r.name} is exposed ${change.to} s from the next slicing on.`
      } else if (change.kind === 'support' || change.kind === 'regrade') {
        const step = part?.steps.find((s) => s.op.kind === 'support')
        const report = reportOf(step?.derivation, 'support')
        if (!part || step?.op.kind !== 'support' || !report)
          throw new Error('This part has no generated supports. Set one at Stand.')
        // Edits are kept on the body as it stands before its supports lift it.
        const point = change.point.map((v, k) => v - report.support.shift[k]!) as [number, number, number]
        const edit =
          change.kind === 'support'
            ? ({ kind: 'add', point, grade: 'strut' } as const)
            : ({ kind: 'regrade', point, grade: change.grade } as const)
        const changed = await piece.arrange({
          lists: [
            {
              id: part.id,
              operations: part.steps.map(({ op }) =>
                op.kind === 'support' ? { ...op, edits: [...op.edits, edit] } : op,
              ),
            },
          ],
        })
        // Why not is said by the piece.
        if (!changed) return
        done.value =
          change.kind === 'support'
            ? 'A strut is set there, and the supports are being calculated again.'
            : `It is made a ${change.grade}, and the supports are being calculated again.`
      }
    } catch (e) {
      fault.value = e instanceof Error ? e.message : String(e)
    }
  }
  return { make, canDo, done, fault }
}
