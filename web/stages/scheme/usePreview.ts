import { storeToRefs } from 'pinia'
import { ref, shallowRef, watch, type Ref } from 'vue'
import { plainPaints } from '../../../core/paint/recipes/stockPaint'
import type { CoatFact } from '../../../core/paint/coats/coatFacts'
import type { Undercoat } from '../../../core/defaults/paint'
import { fetchBytes } from '../../api'
import { newestOnly } from '../../composables/newest'
import { useCheck } from '../../composables/useCheck'
import { asFloats, plainCoats, regionsSent, schemeSent, SURFACE } from '../../composables/paintedScheme'
import { usePaintWork } from '../../composables/usePaintWork'
import { useHand } from '../../stores/hand'
import { useScheme } from '../../stores/scheme'
import { useStock } from '../../stores/stock'
import type { SceneDescription } from '../../viewport/sceneDescription'
import { useViewport } from '../../viewport/useViewport'
import type { SchemeSent } from '../../workers/paintedSkin'

export interface Light {
  /** where it stands; null: it rides with the viewer */
  at: { turn: number; lift: number } | null
  /** K of a lamp; null is daylight */
  kelvin: number | null
}

/**
 * The sculpt painted as the scheme has it, live.
 *
 * @param labels region of each vertex of the copy that is shown
 * @param ready whether the labels fit that copy
 */
export function usePreview(labels: Ref<Uint8Array>, ready: Ref<boolean>, undercoat: Ref<Undercoat>) {
  const book = useScheme(),
    stock = useStock(),
    viewport = useViewport(),
    work = usePaintWork(),
    { hand } = storeToRefs(useHand())
  const facts = ref<Map<string, CoatFact>>(new Map())
  const light = ref<Light>({ at: null, kelvin: null })
  /** only these coats are on; null: all */
  const done = ref<string[] | null>(null)
  /** changes with every preview, for what is drawn from the same */
  const shown = ref(0)
  /** how the sculpt looks in its paint */
  const skin = shallowRef<Pick<SceneDescription, 'colours' | 'sheen' | 'glow'> | null>(null)
  const maps = useCheck(
    () => viewport.shown?.hash,
    () => SURFACE,
  )
  /** the copy whose skin the worker has, and whether it has the stock's paints */
  let laid: string | null = null,
    stocked = false

  const sent = (): SchemeSent | null => {
    const s = book.scheme
    return s && ready.value && laid === viewport.shown?.hash
      ? schemeSent(s, labels.value, undercoat.value, hand.value)
      : null
  }
  const refresh = newestOnly(async () => {
    const s = book.scheme
    if (!s) return
    const told = await work.facts(plainCoats(s.coats), regionsSent(s), undercoat.value)
    facts.value = new Map(told.map((f) => [f.id, f]))
    const scheme = sent()
    // Without its paints the sculpt would be shown primed for a moment.
    if (!scheme || !stocked) return
    const on = viewport.shown
    const painted = await work.preview(scheme, light.value.kelvin, done.value && [...done.value], true)
    if (viewport.shown !== on) return
    skin.value = { colours: painted.colours, sheen: painted.sheen, glow: painted.glow }
    shown.value++
  })
  watch(
    [() => book.paints, () => stock.workshop !== null] as const,
    async ([p, loaded]) => {
      await work.setPaints(plainPaints(p))
      stocked ||= loaded
      await refresh()
    },
    { immediate: true },
  )
  watch(
    [() => maps.derivation.value?.blobs.maps, () => viewport.shown],
    async ([m, on]) => {
      laid = null
      if (!m || !on) return
      const bytes = asFloats(await fetchBytes(m))
      if (viewport.shown !== on) return
      await work.setSkin({ mesh: on.mesh, maps: bytes })
      if (viewport.shown !== on) return
      laid = on.hash
      await refresh()
    },
    { immediate: true },
  )
  watch([undercoat, light, done, hand], () => void refresh(), { deep: true })
  viewport.describe(() => skin.value)
  viewport.describe(() => light.value.at && { lamp: { ...light.value.at } })
  return { facts, light, done, shown, refresh, sent, measuring: maps.measuring, problem: maps.problem }
}
