import { text } from '../../i18n'
import { computed } from 'vue'
import { known, missing, mapped, type Fact } from '../../../core/findings/facts'
import type { KnownAt } from '../../../core/findings/judge'
import type { Measures } from '../../../core/mesh/measure'
import { INSPECTION_STEP } from '../../../core/raster/layerGraph'
import { checkFact, stepFact } from '../../composables/facts'
import { useCheck } from '../../composables/useCheck'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { usePiece } from '../piece'
import { NO_PRINTER } from './sculptFacts'

/** What is known of the part on the table as it stands to be printed. */
export function orientFacts() {
  const piece = usePiece()
  const { printer } = usePrinterAndResin()
  const standing = computed(() =>
    piece.counted('orient') || piece.counted('support') ? piece.meshAfter('support') : null,
  )
  const layers = useCheck(
    () => standing.value,
    () => ({ kind: 'layers', step: INSPECTION_STEP }),
  )
  // A file that came with supports is told before anything is done to it.
  const carries = useCheck(
    () => (piece.counted('support') || piece.counted('hollow') ? null : piece.meshBefore('orient')),
    () => ({ kind: 'presupported' }),
  )
  /** the last of the two steps that set it up, as far as it is */
  const setUp = computed<Fact<{ measures: Measures }>>(() => {
    const support = piece.counted('support')
    return support
      ? stepFact('support', support)
      : stepFact('orient', piece.counted('orient'), missing(text('facts.orientFacts.anOrientationChosenUnder')))
  })
  const orientedSize = computed(() => mapped(setUp.value, (r) => r.measures.size as [number, number, number]))
  const stand = computed<KnownAt<'orient'>>(() => ({
    fileSupports: mapped(checkFact(carries), (r) => r.found),
    orientedSize: orientedSize.value,
    printer: printer.value ? known(printer.value) : NO_PRINTER,
    layers:
      setUp.value.state === 'known'
        ? mapped(
            checkFact(layers, missing(text('facts.orientFacts.anOrientationChosenUnder'))),
            ({ islands, cups }) => ({
              islands,
              cups,
              step: INSPECTION_STEP,
              supported: piece.counted('support') !== null,
            }),
          )
        : setUp.value,
    supports: mapped(stepFact('support', piece.counted('support')), (r) => r.support),
  }))
  return { layers, orientedSize, stand }
}
