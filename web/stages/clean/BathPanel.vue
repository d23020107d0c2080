<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text, fixed } from '../../i18n'
import type { BathRecord } from '../../../contract/workshop'
import { saturation } from '../../../core/plan/facts/cleanUp'
import { useAttempt } from '../../composables/useAttempt'
import NumberField from '../../shell/NumberField.vue'
import { useStock } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'

/** Both baths of the workshop: how much resin is in them, and how many more washes like this they take. */
const props = defineProps<{ carryOver: { first: number; second: number } | null }>()
const stock = useStock()
const { fault, attempt } = useAttempt()
const NAMES = { first: text('clean.bathPanel.firstDirtyBath'), second: text('clean.bathPanel.secondCleanBath') }
const FIGURES = [
  { key: 'litres', label: text('clean.bathPanel.liquid'), unit: 'l', step: 0.5, min: 0.1, max: 200, digits: 1 },
  {
    key: 'resin',
    label: text('clean.bathPanel.resinInTheLiquid'),
    unit: 'ml',
    step: 1,
    min: 0,
    max: 20_000,
    digits: 1,
  },
  { key: 'limit', label: text('clean.bathPanel.usedUpAt'), unit: '%', step: 0.5, min: 0.1, max: 60, digits: 1 },
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
    <h2 class="mb-2">{{ $t('clean.bathPanel.baths') }}</h2>
    <FoldPanel v-for="b in baths" :key="b.which" class="mb-1" :data-bath="b.which">
      <template #title
        >{{ NAMES[b.which]
        }}<span class="soft"
          >{{ $t('clean.bathPanel.of', { now: fixed(b.now, 1), limit: b.bath.limit })
          }}<template v-if="Number.isFinite(b.runs)">{{
            $t('clean.bathPanel.enoughForRunsMore', { runs: b.runs > 100, runs2: b.runs })
          }}</template></span
        >
        <span class="level" aria-hidden="true"
          ><i
            :style="{ width: `${Math.min(100, (100 * b.now) / b.bath.limit)}%` }"
            :class="{ full: b.now > b.bath.limit }"
        /></span>
      </template>
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
      <BButton variant="quiet" size="sm" class="mt-1" @click="change(b.which, { resin: 0 })">{{
        $t('clean.bathPanel.markAsRefilled')
      }}</BButton>
    </FoldPanel>
    <p class="soft small mb-0">
      {{ $t('clean.bathPanel.putNothingDownThe') }}
    </p>
    <FaultNote :text="fault" />
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
  background: var(--resin);
}
.level i.full {
  background: var(--problem);
}
</style>
