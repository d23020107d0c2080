import { onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import type { Check } from '../../contract/derivations'
import { fetchBytes } from '../api'
import { messageOf } from '../messageOf'
import { useDerivations } from '../stores/derivations'
import { mapColours, type Scale } from '../viewport/mapColours'
import { useViewport } from '../viewport/useViewport'

/**
 * Lays a check's map (one Float32 per vertex of the copy on screen) onto the sculpt while the getter gives one, and
 * takes it off again after. Another `key` scales it again.
 */
export function useSurfaceMap(
  wanted: () => { check: Check; scale: (values: Float32Array) => Scale; key?: unknown } | null,
): {
  scale: ReturnType<typeof ref<Scale | null>>
  problem: ReturnType<typeof ref<string>>
} {
  const viewport = useViewport(),
    derivations = useDerivations()
  const scale = ref<Scale | null>(null),
    problem = ref('')
  const colours = shallowRef<Float32Array | null>(null)
  viewport.describe(() => (colours.value ? { colours: colours.value } : null))
  let serial = 0
  watch(
    () => JSON.stringify([viewport.shown?.hash, wanted()?.check, wanted()?.key]),
    async () => {
      const mine = ++serial
      const map = wanted(),
        shown = viewport.shown
      problem.value = ''
      if (!map || !shown) {
        scale.value = null
        colours.value = null
        return
      }
      try {
        const d = await derivations.settled(shown.hash, map.check)
        const bytes = await fetchBytes(d.blobs.map!)
        if (mine !== serial) return
        const values = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4)
        scale.value = map.scale(values)
        colours.value = mapColours(values, scale.value)
      } catch (e) {
        if (mine === serial) problem.value = messageOf(e)
      }
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    serial++
  })
  return { scale, problem }
}
