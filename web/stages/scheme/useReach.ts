import { shallowRef, watch, type Ref } from 'vue'
import type { Scheme } from '../../../contract/scheme'
import { mergedAccess, type RegionAccess } from '../../../core/fit/access'
import { fetchBytes } from '../../api'
import { newestOnly } from '../../composables/newest'
import { useSlowPaintWork } from '../../composables/usePaintWork'
import { useScheme } from '../../stores/scheme'
import { loadMesh } from '../../viewport/meshCache'

/** What was found on a copy under its labels, for as long as the page stays. */
const known = new Map<string, RegionAccess[]>()

/** What brush and airbrush reach of each region, over all parts; null while it is looked for or nothing is painted on. */
export function useReach(open: Ref<boolean>) {
  const book = useScheme(),
    work = useSlowPaintWork()
  const reach = shallowRef<ReadonlyMap<number, RegionAccess> | null>(null)
  async function of({ meshHash, labels }: Scheme['maps'][number]): Promise<RegionAccess[]> {
    const key = `${meshHash} ${labels}`
    const there = known.get(key)
    if (there) return there
    const [mesh, bytes] = await Promise.all([loadMesh(meshHash), fetchBytes(labels)])
    const found = bytes.length === mesh.positions.length / 3 ? await work.reach(mesh, new Uint8Array(bytes)) : []
    known.set(key, found)
    return found
  }
  const look = newestOnly(async () => {
    const maps = open.value ? (book.scheme?.maps ?? []) : []
    reach.value = null
    if (maps.length === 0) return
    const found = mergedAccess((await Promise.all(maps.map(of))).flat())
    reach.value = new Map(found.map((r) => [r.region, r]))
  })
  watch(
    [open, () => book.scheme?.maps.map((m) => m.meshHash + m.labels).join()],
    // Without it the order is weighed all the same.
    () => void look().catch(() => undefined),
    { immediate: true },
  )
  return reach
}
