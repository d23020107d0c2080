import { text, term } from '../../i18n'
import { reportOf } from '../../../contract/derivations'
import { ref } from 'vue'
import type { PartRecord } from '../../../contract/pieces'
import type { Change } from '../../../core/print/failure/cause'
import { usePiece } from '../../stores/piece'
import { useStock } from '../../stores/stock'
import { messageOf } from '../../messageOf'

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
        if (!r) throw new Error(text('print.useOneChange.thisResinIsNo'))
        await stock.change('resin', r.id, { [change.kind]: change.to })
        done.value = text('print.useOneChange.willBeExposedFor', { name: r.name, to: change.to })
      } else if (change.kind === 'support' || change.kind === 'regrade') {
        const step = part?.steps.find((s) => s.op.kind === 'support')
        const report = reportOf(step?.derivation, 'support')
        if (!part || step?.op.kind !== 'support' || !report) throw new Error(text('print.useOneChange.thisPartHasNo'))
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
            ? text('print.useOneChange.aMediumSupportIs')
            : text('print.useOneChange.itsSizeIsNow', { grade: term('tipSize', change.grade) })
      }
    } catch (e) {
      fault.value = messageOf(e)
    }
  }
  return { make, canDo, done, fault }
}
