import { ref, shallowRef } from 'vue'
import type { Picked } from '../viewport/scene'
import { useViewport } from '../viewport/useViewport'

/** A panel that asks for places on the sculpt, one after the other; only one panel asks at a time. */
export function usePicking() {
  const asked = shallowRef<{ hint: string; taken: (p: Picked) => void } | null>(null)
  const asking = ref(false)
  useViewport().describe(() => asked.value && { mode: 'pick', hint: asked.value.hint, onPick: asked.value.taken })
  /** @param hint what to click; `ask` may be called again meanwhile */
  function ask(hint: string, taken: (p: Picked) => void): void {
    asked.value = { hint, taken }
    asking.value = true
  }
  /** What is to be pressed next, by the same panel. */
  function next(hint: string): void {
    if (asked.value) asked.value = { ...asked.value, hint }
  }
  function stop(): void {
    asked.value = null
    asking.value = false
  }
  return { asking, ask, next, stop }
}
