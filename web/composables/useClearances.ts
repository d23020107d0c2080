import { text } from '../i18n'
import { computed } from 'vue'
import { CLEARANCES, type FitKind, type Process } from '../../core/defaults/fit'
import { drawnClearance } from '../../core/fit/clearance'
import { useAssembly } from '../stores/assembly'
import { useStock } from '../stores/stock'

/** The workshop's clearances as they must be drawn, and where each comes from. */
export function useClearances() {
  const stock = useStock(),
    assembly = useAssembly()
  const rules = computed(() => stock.workshop?.clearances ?? null)
  const drawn = (process: Process, kind: FitKind): number => {
    const r = rules.value?.[process]
    return Number(drawnClearance(r?.[kind] ?? CLEARANCES[process][kind], r?.print ?? null).toFixed(3))
  }
  const source = (process: Process, kind: FitKind): string => {
    const r = rules.value?.[process]
    if (r?.print) return text('composables.useClearances.byYourFitPrint', { process, kind })
    return r && r[kind] !== CLEARANCES[process][kind]
      ? text('composables.useClearances.yours', { process, kind })
      : text('composables.useClearances.default', { process, kind })
  }
  /** The coarser process of two parts that go together: filament when either is of it. */
  const processOf = (...parts: (string | undefined)[]): Process =>
    parts.some((id) => id && assembly.materialOf(id).name === 'filament') ? 'filament' : 'resin'
  return { drawn, source, processOf }
}
