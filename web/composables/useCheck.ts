import { computed, ref, watch, type ComputedRef } from 'vue'
import type { Check, DerivationRecord } from '../../contract/derivations'
import { useDerivations } from '../stores/derivations'

/** A check of the mesh that the getters name, asked again whenever either changes. Null inputs ask nothing. */
export function useCheck<T>(
  mesh: () => string | null | undefined,
  check: () => Check | null,
): {
  derivation: ComputedRef<DerivationRecord | null>
  report: ComputedRef<T | null>
  problem: ComputedRef<string | null>
  measuring: ComputedRef<boolean>
  /** what is shown does not answer what is asked now, or not yet */
  behind: ComputedRef<boolean>
} {
  const derivations = useDerivations()
  const current = ref<DerivationRecord | null>(null)
  const fault = ref<string | null>(null)
  const asking = ref(false)
  let serial = 0
  watch(
    () => JSON.stringify([mesh(), check()]),
    async () => {
      const m = mesh(),
        c = check(),
        mine = ++serial
      fault.value = null
      asking.value = false
      if (!m || !c) {
        current.value = null
        return
      }
      asking.value = true
      try {
        const d = await derivations.ask(m, c)
        if (mine === serial) current.value = d
      } catch (e) {
        if (mine === serial) {
          current.value = null
          fault.value = e instanceof Error ? e.message : String(e)
        }
      }
      if (mine === serial) asking.value = false
    },
    { immediate: true },
  )
  const measuring = computed(() => current.value?.status === 'waiting' || current.value?.status === 'running')
  return {
    derivation: computed(() => current.value),
    report: computed(() => (current.value?.status === 'done' ? (current.value.report as T) : null)),
    problem: computed(
      () =>
        fault.value ?? (current.value?.status === 'failed' ? (current.value.problem?.message ?? 'It failed.') : null),
    ),
    measuring,
    behind: computed(() => asking.value || measuring.value),
  }
}
