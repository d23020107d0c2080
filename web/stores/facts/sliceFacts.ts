import { text } from '../../i18n'
import { computed, ref, watch, type ComputedRef } from 'vue'
import { reportOf } from '../../../contract/derivations'
import { printer as printerSchema, resin as resinSchema, slicedResin } from '../../../contract/stock'
import { failed, known, MEASURING, missing, mapped, type Fact } from '../../../core/findings/facts'
import type { KnownAt } from '../../../core/findings/judge'
import { plateSize } from '../../../core/print/slice/printer'
import { shelfLevel } from '../../../core/stock/lots'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { useDerivations, type CheckOf } from '../derivations'
import { usePiece } from '../piece'
import { usePlating } from '../plating'
import { useStock } from '../stock'
import { NO_PRINTER } from './sculptFacts'

const NO_RESIN = missing(text('facts.sliceFacts.aResinSetUp'))

/** What is known of what is to be printed, once it is sliced: the part on the table alone, or a whole plate. */
export function sliceFacts(orientedSize: ComputedRef<Fact<[number, number, number]>>) {
  const piece = usePiece(),
    derivations = useDerivations(),
    stock = useStock(),
    plating = usePlating()
  const { printer, resin } = usePrinterAndResin()
  const printing = computed(() => ({
    mesh: plating.target?.mesh ?? piece.meshAfter('support'),
    printer: plating.target?.printer ?? printer.value,
  }))
  const check = computed<CheckOf<'slice'> | null>(() =>
    printing.value.printer && resin.value
      ? { kind: 'slice', printer: printerSchema.parse(printing.value.printer), resin: slicedResin.parse(resin.value) }
      : null,
  )
  const key = ref<string | null>(null)
  const sliced = computed(() => (key.value ? (derivations.known.get(key.value) ?? null) : null))
  const report = computed(() => reportOf(sliced.value, 'slice'))
  watch(
    () => JSON.stringify([printing.value.mesh, check.value]),
    async () => {
      key.value = null
      const { mesh } = printing.value,
        asked = check.value
      if (!mesh || !asked) return
      const before = await derivations.peek(mesh, asked).catch(() => null)
      if (before && mesh === printing.value.mesh) key.value = before.key
    },
    { immediate: true },
  )
  async function slice(): Promise<void> {
    const { mesh } = printing.value
    if (mesh && check.value) key.value = (await derivations.ask(mesh, check.value)).key
  }
  const slices = computed(() => {
    if (report.value) return known(report.value)
    if (!printing.value.printer) return NO_PRINTER
    if (!resin.value) return NO_RESIN
    if (sliced.value === null || sliced.value.status === 'failed')
      return sliced.value?.problem
        ? failed(sliced.value.problem.message)
        : missing(text('facts.sliceFacts.itsLayersOnceSliced'))
    return MEASURING
  })
  const plates = computed<KnownAt<'plates'>>(() => ({
    orientedSize: orientedSize.value,
    printer: printing.value.printer ? known(printing.value.printer) : NO_PRINTER,
    resinStock: resin.value
      ? known({ name: resin.value.name, bottles: resinSchema.parse(resin.value).bottles, today: stock.today() })
      : NO_RESIN,
    layers: mapped(slices.value, (r) => ({
      islands: r.islands,
      cups: r.cups,
      step: r.layerHeight,
      supported: piece.counted('support') !== null,
    })),
    resinNeed: mapped(slices.value, (r) => ({
      needed: r.resinMl,
      level: resin.value ? shelfLevel(resinSchema.parse(resin.value)) : null,
      plate: plateSize(printing.value.printer!),
    })),
  }))
  return { sliced, report, slice, plates }
}
