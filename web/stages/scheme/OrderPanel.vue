<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { VueDraggable } from 'vue-draggable-plus'
import { storeToRefs } from 'pinia'
import { computed, onBeforeUnmount } from 'vue'
import { text } from '../../i18n'
import type { OrderCosts } from '../../../core/defaults/paint'
import type { OrderCost, OrderScheme, OrderStep } from '../../../core/paint/order/types'
import { useAttempt } from '../../composables/useAttempt'
import { duration } from '../../shell/duration'
import FindingList from '../../shell/FindingList.vue'
import type { StageHandlers } from '../../shell/fixHandlers'
import NumberField from '../../shell/NumberField.vue'
import { useFindings } from '../../stores/findings'
import { usePaintOrder } from '../../stores/paintOrder'
import { useScheme } from '../../stores/scheme'
import { useStock } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'

/** In which order the coats go on: the cheapest there is, one's own beside it, and the masks of each step. */
defineProps<{ fixes: StageHandlers<'order'> }>()
const emit = defineEmits<{ order: [ids: string[]] }>()
const book = useScheme(),
  stock = useStock(),
  judged = useFindings(),
  order = usePaintOrder()
const { found, busy, costs, chosen: own, reach, followed: open } = storeToRefs(order)
onBeforeUnmount(() => {
  open.value = false
})
const { fault, attempt } = useAttempt()
/** For all pieces: it is the bench that they are of. */
const setCost = (fields: Partial<OrderCosts>): Promise<unknown> =>
  attempt(() => stock.changeWorkshop({ orderCosts: { ...costs.value, ...fields } }))
const COSTS: { key: keyof OrderCosts; label: string; unit: string; max: number; by: number }[] = [
  {
    key: 'tape',
    label: text('scheme.orderPanel.putOnAndRemove'),
    unit: text('scheme.orderPanel.sPerMm'),
    max: 60,
    by: 1,
  },
  { key: 'cover', label: text('scheme.orderPanel.coveringARegion'), unit: 's', max: 3600, by: 1 },
  { key: 'cleanSpray', label: text('scheme.orderPanel.anotherColourAirbrush'), unit: 's', max: 3600, by: 1 },
  { key: 'cleanBrush', label: text('scheme.orderPanel.anotherColourBrush'), unit: 's', max: 3600, by: 1 },
  { key: 'lifts', label: text('scheme.orderPanel.aMaskLiftsOr'), unit: '%', max: 100, by: 100 },
  { key: 'ghosts', label: text('scheme.orderPanel.aLightCoatHas'), unit: '%', max: 100, by: 100 },
]
const shown = computed<OrderStep[]>(() =>
  found.value ? (own.value ? found.value.plan.hand!.steps : found.value.plan.steps) : [],
)
const rows = computed<{ name: string; cost: OrderCost; broken: number }[]>(() => {
  const p = found.value?.plan
  if (!p) return []
  return [
    { name: text('scheme.orderPanel.cheapestWithinTheRules'), cost: p.cost, broken: p.broken.length },
    {
      name: own.value ? text('scheme.orderPanel.yours') : text('scheme.orderPanel.asListed'),
      cost: p.hand!.cost,
      broken: p.hand!.broken.length,
    },
    {
      name: text('scheme.orderPanel.largestRegionFirst'),
      cost: p.largestFirst.cost,
      broken: p.largestFirst.broken.length,
    },
  ]
})
const region = (id: number): string => found.value?.scheme.regions.find((r) => r.id === id)?.name ?? '?'
const reached = computed(() => [...(reach.value?.values() ?? [])].filter((r) => region(r.region) !== '?'))
const coatOf = (s: OrderStep): OrderScheme['coats'][number] => found.value!.scheme.coats[s.coat]!
const ids = (): string[] => shown.value.map((s) => coatOf(s).id)
/** The same as a list that is put in another order by dragging. */
const listed = computed({
  get: () => shown.value,
  set: (steps) =>
    emit(
      'order',
      steps.map((s) => coatOf(s).id),
    ),
})
function move(i: number, by: number): void {
  const list = ids()
  const [id] = list.splice(i, 1)
  list.splice(i + by, 0, id!)
  emit('order', list)
}
/** Tape, putty or liquid, by how the edges of it turn; the greater first. */
function means(s: OrderStep, covered: number): string {
  const sum = { tape: 0, putty: 0, liquid: 0 }
  for (const m of s.masks) {
    if (m.covered !== covered) continue
    const edge = book.borders.find(
      (b) => (b.a === m.covered && b.b === m.against) || (b.b === m.covered && b.a === m.against),
    )
    if (!edge?.masks) continue
    for (const k of ['tape', 'putty', 'liquid'] as const) sum[k] += edge.masks[k]
  }
  const whole = sum.tape + sum.putty + sum.liquid
  const named = Object.entries(sum)
    .filter(([, mm]) => mm > 0.1 * whole)
    .sort((x, y) => y[1] - x[1])
    .map(([k]) => k)
  return named.length > 0 ? ` (${named.join(', then ')})` : ''
}
function masks(s: OrderStep): string {
  const by = new Map<number, number>()
  for (const m of s.masks) by.set(m.covered, (by.get(m.covered) ?? 0) + m.mm)
  return [...by]
    .map(([r, mm]) => text('scheme.orderPanel.alongMm', { r: region(r), round: Math.round(mm), s: means(s, r) }))
    .join('; ')
}
</script>

<template>
  <FoldPanel class="mt-3" :open="open" @toggle="open = $event">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.orderPanel.orderOfPaintingAnd') }}</h2>
    </template>
    <p v-if="open && !found" class="soft small">
      {{ busy ? $t('scheme.orderPanel.comparingOrders') : $t('scheme.orderPanel.noCoatsYet') }}
    </p>
    <template v-if="found && found.scheme.coats.length > 0">
      <FindingList class="mt-2" :judged="judged.byStage.order" :fixes="fixes" />
      <BTableSimple class="plain small">
        <BThead>
          <BTr>
            <BTh>{{ $t('scheme.orderPanel.order') }}</BTh>
            <BTh class="num">{{ $t('scheme.orderPanel.masking') }}</BTh>
            <BTh class="num">{{ $t('scheme.orderPanel.cleaning') }}</BTh>
            <BTh class="num">{{ $t('scheme.orderPanel.inAll') }}</BTh>
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="r in rows" :key="r.name" :data-order="r.name">
            <BTd>
              {{ r.name
              }}<span v-if="r.broken > 0" class="soft d-block">{{
                $t('scheme.orderPanel.breaksBroken', { broken: r.broken })
              }}</span>
            </BTd>
            <BTd class="num text-nowrap" :title="$t('scheme.orderPanel.mmOfTape', { round: Math.round(r.cost.tape) })">
              {{ duration(r.cost.masking) }}
            </BTd>
            <BTd class="num">{{ duration(r.cost.cleaning) }}</BTd>
            <BTd class="num text-nowrap">
              <b>{{ duration(r.cost.total) }}</b>
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
      <BTableSimple v-if="reach" class="plain small mt-2">
        <BThead>
          <BTr>
            <BTh>{{ $t('scheme.orderPanel.region') }}</BTh>
            <BTh class="num">{{ $t('scheme.orderPanel.airbrushReaches') }}</BTh>
            <BTh class="num">{{ $t('scheme.orderPanel.brush') }}</BTh>
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="r in reached" :key="r.region" :data-reach="r.region">
            <BTd>{{ region(r.region) }}</BTd>
            <BTd class="num">{{ Math.round(100 * r.airbrush) }} %</BTd>
            <BTd class="num">{{ Math.round(100 * r.brush) }} %</BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
      <p v-else-if="(book.scheme?.maps.length ?? 0) > 0" class="soft small">
        {{ $t('scheme.orderPanel.calculatingWhatTheAirbrush') }}
      </p>
      <div class="d-flex gap-2 my-2 align-items-center">
        <span class="soft small flex-grow-1">{{
          own ? $t('scheme.orderPanel.inYourOrderThe') : $t('scheme.orderPanel.inTheCheapestOrder')
        }}</span>
        <BButton variant="quiet" size="sm" class="text-nowrap" @click="emit('order', order.cheapest())">
          {{ own ? $t('scheme.orderPanel.useTheCheapest') : $t('scheme.orderPanel.useForThePlan') }}
        </BButton>
      </div>
      <VueDraggable v-model="listed" tag="ol" class="steps" handle=".what" :animation="120">
        <li v-for="(s, i) in listed" :key="coatOf(s).id" :data-step="coatOf(s).id">
          <span class="what"
            ><b>{{ region(coatOf(s).region) }}</b
            >: {{ say(coatOf(s).name, manner)
            }}<span class="soft">{{ coatOf(s).spray ? $t('scheme.orderPanel.sprayed') : '' }}</span
            ><span v-if="s.masks.length > 0" class="masks">{{
              $t('scheme.orderPanel.mask', { s: masks(s), masking: duration(s.masking) })
            }}</span></span
          >
          <span class="moves"
            ><BButton
              variant="quiet"
              size="sm"
              :disabled="i === 0"
              :aria-label="
                $t('scheme.orderPanel.moveOnEarlier', {
                  name: say(coatOf(s).name, manner),
                  region: region(coatOf(s).region),
                })
              "
              @click="move(i, -1)"
            >
              ↑</BButton
            ><BButton
              variant="quiet"
              size="sm"
              :disabled="i === shown.length - 1"
              :aria-label="
                $t('scheme.orderPanel.moveOnLater', {
                  name: say(coatOf(s).name, manner),
                  region: region(coatOf(s).region),
                })
              "
              @click="move(i, 1)"
            >
              ↓
            </BButton></span
          >
        </li>
      </VueDraggable>
      <FoldPanel class="small">
        <template #title>{{ $t('scheme.orderPanel.costOfMasksAnd') }}</template>
        <NumberField
          v-for="c in COSTS"
          :key="c.key"
          :model-value="costs[c.key] * c.by"
          :label="c.label"
          :unit="c.unit"
          :min="0"
          :max="c.max"
          @update:model-value="setCost({ [c.key]: $event / c.by })"
        />
        <p class="soft m-0">
          {{ $t('scheme.orderPanel.startingValuesAreEstimates') }}
        </p>
        <FaultNote :text="fault" />
      </FoldPanel>
    </template>
  </FoldPanel>
</template>

<style scoped>
.steps {
  padding-left: 20px;
  margin: 0 0 6px;
  font-size: 0.9rem;
}
.steps li {
  border-top: 1px solid var(--line);
  padding: 3px 0;
}
.what {
  display: inline-block;
  vertical-align: top;
  width: calc(100% - 76px);
  line-height: 1.25;
}
.masks {
  display: block;
  color: var(--warning);
}
.moves {
  float: right;
  white-space: nowrap;
}
.moves .btn {
  padding: 1px 8px;
}
</style>
