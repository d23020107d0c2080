import { onBeforeUnmount, ref } from 'vue'
import type { Picked } from '../viewport/scene'
import { useViewport } from '../viewport/useViewport'

/** A panel that asks for places on the sculpt, one after the other; only one panel asks at a time. */
export function usePicking() {
  const viewport = useViewport()
  const asking = ref(false)
  /** @param hint what to press; a new one may be set while it goes on */
  function ask(hint: string, taken: (p: Picked) => void): void {
    asking.value = true
    viewport.mode = 'pick'
    viewport.hint = hint
    viewport.picking((p) => {
      if (asking.value) taken(p)
    })
  }
  function stop(): void {
    if (!asking.value) return
    asking.value = false
    viewport.mode = 'look'
    viewport.hint = ''
  }
  onBeforeUnmount(stop)
  return { asking, ask, stop }
}
