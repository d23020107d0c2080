import { storeToRefs } from 'pinia'
import { ref, watch } from 'vue'
import type { PlanStepRecord } from '../../contract/plan'
import { plainPaints } from '../../core/paint/recipes/stockPaint'
import { vertexNormals } from '../../core/mesh/measure'
import { undercoatBy } from '../../core/paint/coats/undercoat'
import { regionView } from '../../core/paint/surface/regions'
import { fetchBytes } from '../api'
import { useDerivations } from '../stores/derivations'
import { useHand } from '../stores/hand'
import { useScheme } from '../stores/scheme'
import { loadMesh } from '../viewport/meshCache'
import { paintedPicture } from '../viewport/paintedPicture'
import { newestOnly } from './newest'
import { asFloats, schemeSent, SURFACE } from './paintedScheme'
import { usePaintWork } from './usePaintWork'
import { useRules } from './useRules'

/** Number of the coat that a step of the plan lays, among those that are no varnish; null when it lays none. */
const coatOf = (key: string): number | null => {
  const m = /^coat-(\d+)-/.exec(key)
  return m ? Number(m[1]) : null
}

/**
 * How a region looks before and after the coat of a step, with all that the plan lays before it; null where the step
 * lays none, or nothing of its region is painted onto a part.
 *
 * @param steps of the plan, in their order
 */
export function useCoatPictures(step: () => PlanStepRecord | null, steps: () => readonly PlanStepRecord[]) {
  const pictures = ref<{ before: string; after: string } | null>(null)
  const book = useScheme(),
    { rule } = useRules(),
    { hand } = storeToRefs(useHand()),
    work = usePaintWork(),
    derivations = useDerivations()
  /** the copy whose skin the worker has */
  let laid: string | null = null

  const draw = newestOnly(async () => {
    const s = step(),
      scheme = book.scheme
    const nth = s && coatOf(s.key)
    const list = scheme?.coats.filter((c) => c.technique !== 'varnish') ?? []
    const coat = nth === null ? undefined : list[nth]
    pictures.value = null
    if (!s || !scheme || !coat) return
    // The plan may be laid again while this is drawn: its steps are told by their keys.
    const before = steps()
      .slice(
        0,
        steps().findIndex((x) => x.key === s.key),
      )
      .flatMap((x) => list[coatOf(x.key) ?? -1]?.id ?? [])
    const map = scheme.maps.reduce<(typeof scheme.maps)[number] | null>(
      (best, m) => ((m.areas[coat.regionId] ?? 0) > (best?.areas[coat.regionId] ?? 0) ? m : best),
      null,
    )
    if (!map) return
    const [mesh, labels, surface] = await Promise.all([
      loadMesh(map.meshHash),
      fetchBytes(map.labels),
      derivations.settled(map.meshHash, SURFACE),
    ])
    if (labels.length !== mesh.positions.length / 3) return
    await work.setPaints(plainPaints(book.paints))
    if (laid !== map.meshHash) {
      await work.setSkin({ mesh, maps: asFloats(await fetchBytes(surface.blobs.maps!)) })
      laid = map.meshHash
    }
    const view = regionView(mesh, vertexNormals(mesh), labels, coat.regionId)
    if (!view) return
    const sent = schemeSent(scheme, new Uint8Array(labels), undercoatBy(rule('undercoat'), scheme.tint), hand.value)
    const show = async (done: string[]): Promise<string> =>
      paintedPicture(mesh, await work.preview(sent, null, done), view)
    const made = { before: await show(before), after: await show([...before, coat.id]) }
    if (step()?.key === s.key) pictures.value = made
  })
  watch(
    [() => step()?.key, () => book.scheme, () => book.paints.length],
    // A picture that cannot be drawn, without the net or without WebGL, keeps nobody from the step.
    () => void draw().catch(() => undefined),
    { immediate: true },
  )
  return pictures
}
