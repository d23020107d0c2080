import { text } from '../i18n'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { scheme as schemeSchema, type Scheme } from '../../contract/scheme'
import { plainPaints, stockPaint } from '../../core/paint/recipes/stockPaint'
import { failed, known as knownFact, MEASURING, missing, NONE } from '../../core/findings/facts'
import type { KnownAt } from '../../core/findings/judge'
import type { RecipeAnswer, StockPaint } from '../../core/paint/recipes/recipe'
import { api } from '../api'
import { messageOf } from '../messageOf'
import { newestOnly } from '../composables/newest'
import { useSlowPaintWork } from '../composables/usePaintWork'
import { usePiece } from './piece'
import { useStock } from './stock'

type Edge = Scheme['maps'][number]['borders'][number]
/** One edge that lies on two parts. */
const together = (x: Edge, y: Edge): Edge => ({
  ...x,
  mm: x.mm + y.mm,
  masks:
    x.masks && y.masks
      ? {
          tape: x.masks.tape + y.masks.tape,
          putty: x.masks.putty + y.masks.putty,
          liquid: x.masks.liquid + y.masks.liquid,
        }
      : null,
})
/** mm² that a region counts for before anything is brushed on */
const UNPAINTED = 1000

/** Regions and coats of the piece on the table, with the mixes found for their targets. */
export const useScheme = defineStore('scheme', () => {
  const piece = usePiece(),
    stock = useStock()
  const scheme = ref<Scheme | null>(null)
  const fault = ref('')
  const paints = computed<StockPaint[]>(() => stock.paints.map((p) => stockPaint(p.id, p)))
  async function load(): Promise<void> {
    const id = piece.piece?.id
    if (!id) return
    try {
      const s = await api(schemeSchema, 'GET', `/pieces/${id}/scheme`)
      if (id === piece.piece?.id) scheme.value = s
      fault.value = ''
    } catch (e) {
      fault.value = messageOf(e)
    }
  }
  watch(
    () => piece.piece?.id,
    () => {
      scheme.value = null
      void load()
    },
    { immediate: true },
  )
  /** schemes with changes that have not been sent, by piece */
  const unsent = new Map<string, Scheme>()
  // One at a time, each with the version of the answer before it; what is changed meanwhile goes with the next.
  const send = newestOnly(async () => {
    for (const [id, s] of unsent) {
      unsent.delete(id)
      const kept = await piece.guarded(async () => {
        s.version = (await api(schemeSchema, 'PUT', `/pieces/${id}/scheme`, s)).version
      })
      if (!kept) await load()
    }
  })
  /** Stores what is there; after a refusal the stored scheme is shown again. */
  async function save(): Promise<void> {
    const s = scheme.value,
      id = piece.piece?.id
    if (!s || !id) return
    unsent.set(id, s)
    await send()
  }

  /** Best mixes by target colour. */
  const answers = ref(new Map<string, RecipeAnswer>())
  watch(paints, () => answers.value.clear())
  const asked = new Set<string>()
  /** why a mix could not be looked for */
  const unmixed = ref('')
  watch(
    () => [scheme.value?.regions.map((r) => r.target), paints.value] as const,
    async ([targets, list]) => {
      if (list.length === 0) return
      for (const hex of targets ?? []) {
        if (!hex || answers.value.has(hex) || asked.has(hex)) continue
        asked.add(hex)
        try {
          const found = await useSlowPaintWork().recipe(hex, plainPaints(list))
          if (list === paints.value) answers.value.set(hex, found)
        } catch (e) {
          unmixed.value = messageOf(e)
        } finally {
          asked.delete(hex)
        }
      }
    },
    { deep: true },
  )
  const answer = (hex: string | null | undefined): RecipeAnswer | undefined =>
    hex ? answers.value.get(hex) : undefined
  const painted = computed(() => (scheme.value?.maps.length ?? 0) > 0)
  /** mm² of a region on all parts; while nothing is brushed on, all count alike */
  const areaOf = (id: number): number =>
    painted.value ? scheme.value!.maps.reduce((sum, m) => sum + (m.areas[id] ?? 0), 0) : UNPAINTED
  /** edges that regions share, over all parts */
  const borders = computed(() => {
    const by = new Map<string, Edge>()
    for (const m of scheme.value?.maps ?? [])
      for (const x of m.borders) {
        const there = by.get(`${x.a} ${x.b}`)
        by.set(`${x.a} ${x.b}`, there ? together(there, x) : { ...x })
      }
    return [...by.values()]
  })
  /** Share of its skin that is newer than its regions, by part and the mesh that it was laid on. */
  const newSkin = ref<{ partId: string; share: number } | null>(null)
  const known = computed<KnownAt<'scheme'>>(() => {
    const s = scheme.value
    if (!s) {
      const open = fault.value ? failed(fault.value) : MEASURING
      return { targets: open, regions: open, newSkin: open }
    }
    const wanted = s.regions.flatMap((r) => (r.target ? [{ region: r.name, target: r.target }] : []))
    const found = wanted.flatMap((t) => {
      const a = answer(t.target)
      return a ? [{ ...t, answer: a }] : []
    })
    return {
      targets:
        wanted.length === 0
          ? NONE
          : paints.value.length === 0
            ? missing(text('stores.scheme.paintsInStock'))
            : found.length < wanted.length
              ? unmixed.value
                ? failed(unmixed.value)
                : MEASURING
              : knownFact(found),
      regions: painted.value
        ? knownFact({
            painted: true,
            list: s.regions.map((r) => ({
              name: r.name,
              area: areaOf(r.id),
              coats: s.coats.filter((c) => c.regionId === r.id).length,
            })),
          })
        : NONE,
      newSkin: !painted.value
        ? NONE
        : newSkin.value?.partId === piece.part?.id
          ? knownFact(newSkin.value!.share)
          : missing(text('stores.scheme.thisStageToBe')),
    }
  })
  return { scheme, fault, paints, load, save, answer, areaOf, borders, painted, newSkin, known }
})
