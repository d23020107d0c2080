import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { plainPaints, stockPaint } from '../../core/paint/recipes/stockPaint'
import { FILM, type Tool } from '../../core/paint/coats/batch'
import { deltaE00, type Triple } from '../../core/paint/optics/colour'
import type { RecipeAnswer } from '../../core/paint/recipes/recipe'
import { TINT, type UndercoatChoice } from '../../core/defaults/paint'
import { undercoatBy } from '../../core/paint/coats/undercoat'
import { newestOnly } from '../composables/newest'
import { usePaintWork, useSlowPaintWork } from '../composables/usePaintWork'
import type { Drawn } from '../../core/paint/coats/drawMix'
import { useStock } from './stock'

/** The mixing table: drops that are laid out, the colour they are to come to, and what they look like as a film. */
export const useMixing = defineStore('mixing', () => {
  const stock = useStock(),
    work = usePaintWork(),
    slow = useSlowPaintWork()
  /** in the order in which they were taken up */
  const drops = ref<{ id: string; drops: number }[]>([])
  const target = shallowRef<Triple | null>(null)
  const tool = ref<Tool>('brush'),
    undercoat = ref<UndercoatChoice>('grey'),
    tint = ref(TINT),
    coats = ref(2)
  /** where the mix is meant for */
  const about = ref({ name: '', pieceId: null as string | null, region: '', coat: 'base' })
  const drawn = shallowRef<Drawn | null>(null),
    answer = shallowRef<RecipeAnswer | null>(null)
  const solving = ref(false)
  const paints = computed(() => plainPaints(stock.paints.map((p) => stockPaint(p.id, p))))
  const laid = computed(() => drops.value.filter((d) => d.drops > 0))
  const total = computed(() => laid.value.reduce((s, d) => s + d.drops, 0))
  const error = computed(() => (drawn.value && target.value ? deltaE00(drawn.value.lab, target.value) : null))
  const film = computed(() => coats.value * FILM[tool.value])

  const draw = newestOnly(async () => {
    await work.setPaints(paints.value)
    drawn.value = await work.draw(
      laid.value.map((d) => ({ ...d })),
      film.value,
      tool.value,
      undercoatBy(undercoat.value, tint.value),
      target.value ? [...target.value] : null,
    )
  })
  watch([drops, () => target.value, tool, undercoat, tint, coats, paints], () => void draw(), {
    deep: true,
    immediate: true,
  })
  const solve = newestOnly(async () => {
    const t = target.value
    answer.value = t && paints.value.length > 0 ? await slow.recipe([...t], paints.value) : null
    solving.value = false
  })
  watch(
    [() => target.value, paints],
    () => {
      // What was found for another target is not shown beside this one.
      answer.value = null
      solving.value = target.value !== null
      void solve()
    },
    { immediate: true },
  )
  const setDrops = (list: readonly { paint: string; drops: number }[]): void => {
    drops.value = list.map((d) => ({ id: d.paint, drops: d.drops }))
  }
  const set = (id: string, n: number): void => {
    const there = drops.value.find((d) => d.id === id)
    if (there) there.drops = n
    else drops.value.push({ id, drops: n })
  }
  const putAway = (id: string): void => {
    drops.value = drops.value.filter((d) => d.id !== id)
  }
  return {
    drops,
    laid,
    total,
    target,
    tool,
    undercoat,
    tint,
    coats,
    film,
    about,
    drawn,
    answer,
    solving,
    error,
    paints,
    setDrops,
    set,
    putAway,
  }
})
