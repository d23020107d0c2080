<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import type { BathRecord } from '../../../contract/workshop'
import { saturation } from '../../../core/plan/facts/cleanUp'
import { useAttempt } from '../../composables/useAttempt'
import NumberField from '../../shell/NumberField.vue'
import { useStock } from '../../stores/stock'

/** Both baths of the workshop: how much resin is in them, and how many more washes like this they take. */
const props = defineProps<{ carryOver: { first: number; second: number } | null }>()
const stock = useStock()
const { fault, attempt } = useAttempt()
const NAMES = { first: 'First, dirty bath', second: 'Second, clean bath' }
const FIGURES = [
  { key: 'litres', label: 'Liquid in it', unit: 'l', step: 0.5, min: 0.1, max: 200, digits: 1 },
  { key: 'resin', label: 'Resin in it', unit: 'ml', step: 1, min: 0, max: 20_000, digits: 1 },
  { key: 'limit', label: 'Cleans no more at', unit: '%', step: 0.5, min: 0.1, max: 60, digits: 1 },
] as const
const baths = computed(() => {
  const b = stock.workshop?.baths
  return b
    ? (['first', 'second'] as const).map((which) => ({
        which,
        bath: b[which],
        ...saturation(b[which], props.carryOver?.[which] ?? 0),
      }))
    : []
})
const change = (which: 'first' | 'second', more: Partial<BathRecord>): Promise<void> =>
  attempt(async () => {
    const shop = stock.workshop
    if (shop) await stock.changeWorkshop({ baths: { ...shop.baths, [which]: { ...shop.baths[which], ...more } } })
  })
</script>

<template>
  <section class="mb-3">
    <h2 class="mb-2">Baths</h2>
    <details v-for="b in baths" :key="b.which" class="mb-1" :data-bath="b.which">
      <summary>
        {{ NAMES[b.which]
        }}<span class="soft"
          >: {{ b.now.toFixed(1) }} % of {{ b.bath.limit }} %<template v-if="Number.isFinite(b.runs)"
            >, {{ b.runs > 100 ? 'over 100' : b.runs }} more like this</template
          ></span
        >
        <span class="level" aria-hidden="true"
          ><i
            :style="{ width: `${Math.min(100, (100 * b.now) / b.bath.limit)}%` }"
            :class="{ full: b.now > b.bath.limit }"
        /></span>
      </summary>
      <NumberField
        v-for="f in FIGURES"
        :key="f.key"
        :label="f.label"
        :unit="f.unit"
        :step="f.step"
        :min="f.min"
        :max="f.max"
        :digits="f.digits"
        :model-value="b.bath[f.key]"
        @update:model-value="change(b.which, { [f.key]: $event })"
      />
      <BButton variant="quiet" size="sm" class="mt-1" @click="change(b.which, { resin: 0 })">Mark as refilled</BButton>
    </details>
    <p class="soft small mb-0">
      Nothing down the drain: let what is spent settle in light, cure the sludge, and hand over the rest as local rules
      and the safety data sheet say.
    </p>
    <p v-if="fault" role="alert" class="text-danger small mb-0">{{ fault }}</p>
  </section>
</template>

<style scoped>
.level {
  display: block;
  height: 5px;
  background: var(--paper-sunk);
  border-radius: 2px;
  margin: 3px 0 3px 14px;
}
.level i {
  display: block;
  height: 100%;
  border-radius: 2px;
  background: #5b8a86;
}
.level i.full {
  background: var(--settle);
}
</style>
