<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { resin as resinSchema, type ResinRecord } from '../../../contract/stock'
import { keepsUntil, spent } from '../../../core/stock/lots'
import { useAttempt } from '../../composables/useAttempt'
import DraftInput from '../../shell/DraftInput.vue'
import { useStock, type Item } from '../../stores/stock'
import FaultNote from '../../shell/FaultNote.vue'

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
          <BTh class="num">{{ $t('stock.bottlePanel.leftMl') }}</BTh>
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
              class="form-control form-control-sm"
              maxlength="80"
              :value="b.lot"
              :aria-label="$t('stock.bottlePanel.lotOfBottle', { i: i + 1 })"
              @done="change(i, { lot: $event.trim() })"
            />
          </BTd>
          <BTd class="num">
            <DraftInput
              class="form-control form-control-sm short"
              type="number"
              min="0"
              :value="b.ml.toFixed(0)"
              :aria-label="$t('stock.bottlePanel.millilitresInBottle', { i: i + 1 })"
              @done="change(i, { ml: Math.max(0, Number($event) || 0) })"
            />
          </BTd>
          <BTd>
            <DraftInput
              class="form-control form-control-sm"
              type="date"
              :max="today"
              :value="b.opened ?? ''"
              :aria-label="$t('stock.bottlePanel.bottleOpened', { i: i + 1 })"
              @done="change(i, { opened: $event || null })"
            />
          </BTd>
          <BTd class="num">
            <DraftInput
              class="form-control form-control-sm short"
              type="number"
              min="1"
              max="120"
              :value="String(b.keeps)"
              :aria-label="$t('stock.bottlePanel.monthsThatBottleKeeps', { i: i + 1 })"
              @done="change(i, { keeps: Math.min(120, Math.max(1, Math.round(Number($event) || 12))) })"
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
