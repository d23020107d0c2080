import { text } from '../../i18n'
import { computed, ref } from 'vue'
import { printer as printerSchema, slicedResin } from '../../../contract/stock'
import { newRun, run as runSchema } from '../../../contract/runs'
import type { z } from 'zod'
import type { NestedPlate } from '../../../core/print/nest/types'
import { api } from '../../api'
import { messageOf } from '../../messageOf'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import { usePlating } from '../../stores/plating'
import { useRuns } from '../../stores/runs'

/** Slices the plates as they are nested now, and makes a run of them. */
export function useBeginRun() {
  const piece = usePiece(),
    plating = usePlating(),
    derivations = useDerivations(),
    runs = useRuns()
  const { resin } = usePrinterAndResin()
  const busy = ref(''),
    fault = ref('')
  const plates = computed<NestedPlate[]>(() => plating.report?.nesting.plates ?? [])

  async function begin(lot: string): Promise<void> {
    fault.value = ''
    try {
      const made: z.input<typeof newRun>['plates'] = []
      for (const [i, p] of plates.value.entries()) {
        busy.value = text('print.useBeginRun.slicingPlateOf', { i: i + 1, plates: plates.value.length })
        made.push(await sliced(p))
      }
      if (!piece.piece || !resin.value || made.length === 0) return
      const body: z.input<typeof newRun> = {
        resinId: resin.value.id,
        lot,
        reprintOf: runs.reprintOf,
        plates: made,
      }
      const run = await api(runSchema, 'POST', `/pieces/${piece.piece.id}/runs`, body)
      runs.reprintOf = null
      await runs.fresh()
      runs.chosen = run.plates[0]!.id
    } catch (e) {
      fault.value = messageOf(e)
    } finally {
      busy.value = ''
    }
  }

  async function sliced(p: NestedPlate): Promise<z.input<typeof newRun>['plates'][number]> {
    const on = plating.printerOf(p)
    const mesh = await plating.bodyOf(p)
    if (!on || !mesh || !resin.value) throw new Error(text('print.useBeginRun.chooseAPrinterAnd'))
    const d = await derivations.settled(mesh, {
      kind: 'slice',
      printer: printerSchema.parse(on),
      resin: slicedResin.parse(resin.value),
    })
    return {
      printerId: on.id,
      sliceKey: d.key,
      parts: p.parts.map(({ id, copy, x, y, angle }) => {
        const of = plating.parts.find((q) => q.part.id === id)!
        return { partId: id, name: of.part.name, copy, mesh: of.mesh, x, y, angle }
      }),
    }
  }
  return { plates, begin, busy, fault }
}
