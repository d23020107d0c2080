import { useEventListener } from '@vueuse/core'
import { onScopeDispose, ref } from 'vue'

/**
 * Saves once the hand rests: `delay` ms after the last change, and at once when the page is hidden or the scope ends.
 *
 * @param save stores what is there by then
 */
export function useDelayedSave(save: () => Promise<void>, delay = 700) {
  /** something is not stored yet */
  const saving = ref(false)
  let timer: ReturnType<typeof setTimeout> | undefined
  async function now(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    try {
      await save()
    } finally {
      saving.value = timer !== undefined
    }
  }
  function changed(): void {
    clearTimeout(timer)
    saving.value = true
    timer = setTimeout(() => void now(), delay)
  }
  /** What waits for the hand to rest does not wait any longer. */
  function flush(): void {
    if (timer !== undefined) void now()
  }
  useEventListener(document, 'visibilitychange', flush)
  onScopeDispose(flush)
  return { saving, changed }
}
