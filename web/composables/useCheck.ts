import { text } from '../i18n'
import { computed, ref, shallowRef, watch, type ComputedRef } from 'vue'
import { reportOf, type DerivationRecord, type ReportOf } from '../../contract/derivations'
import type { CheckKind } from '../../core/checks/registry'
import { useDerivations, type CheckOf } from '../stores/derivations'
import { messageOf } from '../messageOf'

/** A check of the mesh that the getters name, asked again whenever either changes. Null inputs ask nothing. */
export function useCheck<K extends CheckKind>(
  mesh: () => string | null | undefined,
  check: () => CheckOf<K> | null,
): {
  derivation: ComputedRef<DerivationRecord<K> | null>
  report: ComputedRef<ReportOf<K> | null>
  problem: ComputedRef<string | null>
  /** whether there is something to ask about */
  asked: ComputedRef<boolean>
  measuring: ComputedRef<boolean>
  /** what is shown does not answer what is asked now, or not yet */
  behind: ComputedRef<boolean>
} {
  const derivations = useDerivations()
  const current = shallowRef<DerivationRecord<K> | null>(null)
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
          fault.value = messageOf(e)
        }
      }
      if (mine === serial) asking.value = false
    },
    { immediate: true },
  )
  const measuring = computed(() => current.value?.status === 'waiting' || current.value?.status === 'running')
  return {
    derivation: computed(() => current.value),
    report: computed(() => (current.value ? reportOf(current.value as never, current.value.kind) : null)),
    problem: computed(
      () =>
        fault.value ??
        (current.value?.status === 'failed'
          ? (current.value.problem?.message ?? text('composables.useCheck.itFailed'))
          : null),
    ),
    asked: computed(() => Boolean(mesh() && check())),
    measuring,
    behind: computed(() => asking.value || measuring.value),
  }
}
