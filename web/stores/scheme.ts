import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { scheme as schemeSchema, type Scheme } from '../../contract/pieces'
import { colourUnreached } from '../../core/findings/colourUnreached'
import type { Finding } from '../../core/findings/finding'
import type { RecipeAnswer, StockPaint } from '../../core/paint/recipe'
import { api } from '../api'
import { usePaintWork } from '../composables/usePaintWork'
import { usePiece } from './piece'
import { useStock } from './stock'

/** Regions and coats of the piece on the table, with the mixes found for their targets. */
export const useScheme = defineStore('scheme', () => {
  const piece = usePiece(),
    stock = useStock()
  const scheme = ref<Scheme | null>(null)
  const fault = ref('')
  const paints = computed<StockPaint[]>(() =>
    stock.paints.map((p) => ({ id: p.id, name: p.name, hex: p.hex, opacity: p.opacity, kind: p.kind })),
  )
  async function load(): Promise<void> {
    const id = piece.piece?.id
    if (!id) return
    try {
      const s = await api(schemeSchema, 'GET', `/pieces/${id}/scheme`)
      if (id === piece.piece?.id) scheme.value = s
      fault.value = ''
    } catch (e) {
      fault.value = e instanceof Error ? e.message : String(e)
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
  /** Writes what is there; after a refusal the stored scheme is shown again. */
  async function save(): Promise<void> {
    const s = scheme.value,
      id = piece.piece?.id
    if (!s || !id) return
    const ok = await piece.guarded(async () => {
      s.version = (await api(schemeSchema, 'PUT', `/pieces/${id}/scheme`, s)).version
    })
    if (!ok) await load()
  }

  /** Best mixes by target colour. */
  const answers = ref(new Map<string, RecipeAnswer>())
  watch(paints, () => answers.value.clear())
  const asked = new Set<string>()
  watch(
    () => [scheme.value?.regions.map((r) => r.target), paints.value] as const,
    async ([targets, list]) => {
      if (list.length === 0) return
      for (const hex of targets ?? []) {
        if (!hex || answers.value.has(hex) || asked.has(hex)) continue
        asked.add(hex)
        try {
          const found = await usePaintWork().recipe(
            hex,
            list.map((p) => ({ ...p })),
          )
          if (list === paints.value) answers.value.set(hex, found)
        } finally {
          asked.delete(hex)
        }
      }
    },
    { deep: true },
  )
  const answer = (hex: string | null | undefined): RecipeAnswer | undefined =>
    hex ? answers.value.get(hex) : undefined
  const findings = computed<Finding[]>(() =>
    (scheme.value?.regions ?? []).flatMap((r) => {
      const a = answer(r.target)
      return r.target && a ? colourUnreached(r.name, r.target, a) : []
    }),
  )
  return { scheme, fault, paints, load, save, answer, findings }
})
