import { text } from '../i18n'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Scheme } from '../../contract/scheme'
import { ORDER_COSTS, TINT } from '../../core/defaults/paint'
import { failed, known, MEASURING, missing, NONE } from '../../core/findings/facts'
import type { KnownAt } from '../../core/findings/judge'
import { mergedAccess, type RegionAccess } from '../../core/fit/access'
import { undercoatBy } from '../../core/paint/coats/undercoat'
import type { OrderPlan } from '../../core/paint/order/plan'
import type { OrderScheme } from '../../core/paint/order/types'
import { plainPaints } from '../../core/paint/recipes/stockPaint'
import { fetchBytes } from '../api'
import { messageOf } from '../messageOf'
import { newestOnly } from '../composables/newest'
import { plainCoats } from '../composables/paintedScheme'
import { useSlowPaintWork } from '../composables/usePaintWork'
import { useRules } from '../composables/useRules'
import { loadMesh } from '../viewport/meshCache'
import { useScheme } from './scheme'
import { useStock } from './stock'

/** What was found on a copy under its labels, for as long as the page stays. */
const accessOf = new Map<string, RegionAccess[]>()

/** In which order the coats of the scheme go on: the cheapest, one's own beside it, and what the tools reach. */
export const usePaintOrder = defineStore('paintOrder', () => {
  const book = useScheme(),
    stock = useStock(),
    { rule } = useRules()
  const costs = computed(() => stock.workshop?.orderCosts ?? ORDER_COSTS)
  const undercoat = computed(() => undercoatBy(rule('undercoat'), book.scheme?.tint ?? TINT))
  /** the order's own panel is open: every change is weighed, not only what was kept */
  const followed = ref(false)
  /** the stage is open; what tools reach is not looked for otherwise */
  const lookedAt = ref(false)
  const busy = ref(false),
    fault = ref<string | null>(null)
  const found = shallowRef<{ scheme: OrderScheme; plan: OrderPlan; inks: string[] } | null>(null)
  const weigh = newestOnly(async () => {
    const s = book.scheme
    if (!s || s.coats.length === 0) {
      found.value = null
      return
    }
    busy.value = true
    try {
      const weighed = await useSlowPaintWork().order(
        plainCoats(s.coats),
        plainPaints(book.paints),
        s.regions.map((r) => ({
          id: r.id,
          name: r.name,
          area: book.areaOf(r.id),
          glueFace: r.takes === 'glue',
          clear: r.takes === 'light',
        })),
        book.borders.map(({ a, b, mm }) => ({ a, b, mm })),
        [...s.order],
        undercoat.value,
        { ...costs.value },
        rule('lights'),
      )
      // Another piece may have come onto the table meanwhile.
      if (book.scheme === s) found.value = weighed
      fault.value = null
    } catch (e) {
      fault.value = messageOf(e)
    } finally {
      busy.value = false
    }
  })
  watch(
    [() => book.scheme?.version, () => book.paints, undercoat, costs, () => rule('lights'), followed],
    () => void weigh(),
    { immediate: true },
  )
  watch(
    () => book.scheme,
    () => {
      if (followed.value) void weigh()
    },
    { deep: true },
  )

  const reach = shallowRef<ReadonlyMap<number, RegionAccess> | null>(null)
  async function accessOn({ meshHash, labels }: Scheme['maps'][number]): Promise<RegionAccess[]> {
    const key = `${meshHash} ${labels}`
    const there = accessOf.get(key)
    if (there) return there
    const [mesh, bytes] = await Promise.all([loadMesh(meshHash), fetchBytes(labels)])
    const made =
      bytes.length === mesh.positions.length / 3 ? await useSlowPaintWork().reach(mesh, new Uint8Array(bytes)) : []
    accessOf.set(key, made)
    return made
  }
  const onSkin = computed(() => book.scheme?.maps.map((m) => m.meshHash + m.labels).join() ?? '')
  /** what was looked at, and why that failed */
  const looked = ref({ at: '', fault: '' })
  const look = newestOnly(async () => {
    const at = onSkin.value
    if (!lookedAt.value || at === '' || at === looked.value.at) return
    reach.value = null
    looked.value = { at, fault: '' }
    try {
      const made = mergedAccess((await Promise.all(book.scheme!.maps.map(accessOn))).flat())
      reach.value = new Map(made.map((r) => [r.region, r]))
    } catch (e) {
      looked.value = { at, fault: messageOf(e) }
    }
  })
  watch([lookedAt, onSkin], () => void look(), { immediate: true })

  /** somebody has chosen an order */
  const chosen = computed(() => (book.scheme?.order.length ?? 0) > 0)
  const facts = computed<KnownAt<'order'>>(() => {
    const s = book.scheme
    if (s && s.coats.length === 0) return { paintOrder: NONE, reach: NONE }
    const f = found.value
    return {
      paintOrder: f
        ? known({ scheme: f.scheme, plan: f.plan, inks: new Set(f.inks), chosen: chosen.value })
        : fault.value !== null
          ? failed(fault.value)
          : MEASURING,
      reach:
        s && !book.painted
          ? NONE
          : reach.value && looked.value.at === onSkin.value
            ? known(reach.value)
            : looked.value.fault && looked.value.at === onSkin.value
              ? failed(looked.value.fault)
              : lookedAt.value
                ? MEASURING
                : missing(text('stores.paintOrder.thisStageToBe')),
    }
  })
  /** Coats by their ids, as they cost least by now. */
  const cheapest = (): string[] => found.value?.plan.steps.map((s) => found.value!.scheme.coats[s.coat]!.id) ?? []
  return { found, cheapest, busy, costs, undercoat, chosen, reach, followed, lookedAt, known: facts }
})
