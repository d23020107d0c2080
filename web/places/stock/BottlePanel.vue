<script setup lang="ts">
import { unitName } from '../../manner'
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { resin as resinSchema, type ResinRecord } from '../../../contract/stock'
import { keepsUntil, spent } from '../../../core/stock/lots'
import { useAttempt } from '../../composables/useAttempt'
import DraftInput from '../../shell/DraftInput.vue'
import { useStock, type Item } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'
import NumberField from '../../shell/NumberField.vue'
import DateField from '../../shell/DateField.vue'

/** Bottles of a resin, one by one: lot, what is left, since when open, and how long it keeps. */
const props = defineProps<{ resin: Item<ResinRecord> }>()
const stock = useStock()
const { fault, attempt } = useAttempt()
const parsed = computed(() => resinSchema.parse(props.resin))
type Bottle = ResinRecord['bottles'][number]
const today = computed(() => stock.today())
const save = (bottles: Bottle[]): Promise<void> => attempt(() => stock.change('resin', props.resin.id, { bottles }))
const change = (i: number, more: Partial<Bottle>): Promise<void> =>
  save(parsed.value.bottles.map((b, k) => (k === i ? { ...b, ...more } : b)))
const add = (): Promise<void> =>
  save([...parsed.value.bottles, { lot: '', ml: parsed.value.level ?? 1000, opened: null, keeps: 12 }])
</script>

<template>
  <section class="sheet p-3 mb-4">
    <h3 class="h6">{{ $t('stock.bottlePanel.bottlesOf', { name: resin.name }) }}</h3>
    <BTableSimple v-if="parsed.bottles.length > 0" class="plain mb-2">
      <BThead>
        <BTr>
          <BTh>{{ $t('stock.bottlePanel.lot') }}</BTh>
          <BTh class="num">{{ $t('stock.bottlePanel.leftMl', { unit: unitName('ml') }) }}</BTh>
          <BTh>{{ $t('stock.bottlePanel.opened') }}</BTh>
          <BTh class="num">{{ $t('stock.bottlePanel.keepsMonths') }}</BTh>
          <BTh>{{ $t('stock.bottlePanel.bestBefore') }}</BTh>
          <BTh />
        </BTr>
      </BThead>
      <BTbody>
        <BTr v-for="(b, i) in parsed.bottles" :key="i">
          <BTd>
            <DraftInput
              maxlength="80"
              :value="b.lot"
              :aria-label="$t('stock.bottlePanel.lotOfBottle', { i: i + 1 })"
              @done="change(i, { lot: $event.trim() })"
            />
          </BTd>
          <BTd class="num">
            <NumberField
              bare
              :min="0"
              :max="1e6"
              :step="10"
              :digits="0"
              unit="ml"
              :model-value="b.ml"
              :label="$t('stock.bottlePanel.millilitresInBottle', { i: i + 1 })"
              @update:model-value="change(i, { ml: $event })"
            />
          </BTd>
          <BTd>
            <DateField
              bare
              :max="today"
              :value="b.opened ?? ''"
              :label="$t('stock.bottlePanel.bottleOpened', { i: i + 1 })"
              @done="change(i, { opened: $event || null })"
            />
          </BTd>
          <BTd class="num">
            <NumberField
              bare
              :min="1"
              :max="120"
              whole
              :model-value="b.keeps"
              :label="$t('stock.bottlePanel.monthsThatBottleKeeps', { i: i + 1 })"
              @update:model-value="change(i, { keeps: $event })"
            />
          </BTd>
          <BTd :class="{ 'text-danger': spent(b, today) }">
            {{ keepsUntil(b) ?? $t('stock.bottlePanel.unopened')
            }}{{ spent(b, today) ? $t('stock.bottlePanel.pastItsDate') : '' }}
          </BTd>
          <BTd class="num">
            <BButton
              variant="quiet"
              size="sm"
              :aria-label="$t('stock.bottlePanel.removeBottle', { i: i + 1 })"
              @click="save(parsed.bottles.filter((_, k) => k !== i))"
            >
              {{ $t('stock.bottlePanel.remove') }}
            </BButton>
          </BTd>
        </BTr>
      </BTbody>
    </BTableSimple>
    <p v-else class="soft small mb-2">{{ $t('stock.bottlePanel.bottlesAreNotCounted') }}</p>
    <BButton variant="primary" size="sm" @click="add">{{ $t('stock.bottlePanel.addABottle') }}</BButton>
    <FaultNote :text="fault" class="mt-1" />
  </section>
</template>

<style scoped>
.short {
  width: 90px;
  margin-left: auto;
  text-align: right;
}
</style>
