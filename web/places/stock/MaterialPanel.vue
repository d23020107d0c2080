<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { material as materialSchema, type MaterialRecord } from '../../../contract/stock'
import { STOCK_UNITS } from '../../../core/defaults/stock'
import { ofProduct, SUPPLIES, supplyName } from '../../../core/plan/materials/supplies'
import { keepsUntil, spent } from '../../../core/stock/lots'
import { amountIn, amountText } from '../../../core/stock/units'
import { manner } from '../../manner'
import { useAttempt } from '../../composables/useAttempt'
import DraftField from '../../shell/DraftField.vue'
import DraftInput from '../../shell/DraftInput.vue'
import { useStock, type Item } from '../../stores/stock'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'
import NumberField from '../../shell/NumberField.vue'
import { say } from '../../../core/words/say'
import DateField from '../../shell/DateField.vue'

/** One material: what it serves as, its care, and its lots. Amounts are typed in any unit that can be turned into its own. */
const props = defineProps<{ item: Item<MaterialRecord> }>()
const emit = defineEmits<{ gone: [] }>()
const stock = useStock()
const { fault, attempt } = useAttempt()
const m = computed(() => materialSchema.parse(props.item))
/** What it is to serve as, and cannot be counted for. */
const strange = computed(() =>
  SUPPLIES.find((s) => m.value.serves.includes(s.what) && ofProduct(m.value, s.what) === null),
)
const today = computed(() => stock.today())
const save = (more: Partial<MaterialRecord>): Promise<void> =>
  attempt(() => stock.change('material', props.item.id, more))
type Lot = MaterialRecord['lots'][number]
const lot = (i: number, more: Partial<Lot>): Promise<void> =>
  save({ lots: m.value.lots.map((l, k) => (k === i ? { ...l, ...more } : l)) })
/** What is no amount is said, and nothing is changed. */
const amount = (text: string, then: (v: number) => Promise<void>): Promise<void> =>
  attempt(async () => then(amountIn(m.value.unit, text, m.value.density, manner)))
const addLot = (): Promise<void> =>
  save({ lots: [...m.value.lots, { lot: '', amount: 0, opened: null, keeps: 24, bestBefore: null }] })
const remove = (): Promise<void> =>
  attempt(async () => {
    await stock.remove('material', props.item.id)
    emit('gone')
  })
</script>

<template>
  <section class="sheet p-3 mb-3" :aria-label="$t('stock.materialPanel.material')">
    <DraftInput
      class="name"
      maxlength="80"
      :value="m.name"
      :aria-label="$t('stock.materialPanel.nameOfTheMaterial')"
      @done="save({ name: $event })"
    />
    <div class="pair mt-2">
      <label
        >{{ $t('stock.materialPanel.unit') }}
        <ChoiceSelect
          size="sm"
          :model-value="m.unit"
          @update:model-value="save({ unit: $event as MaterialRecord['unit'] })"
        >
          <option v-for="u in STOCK_UNITS" :key="u">{{ u }}</option>
        </ChoiceSelect></label
      >
      <NumberField
        :label="$t('stock.materialPanel.density')"
        unit="g/ml"
        optional
        :min="0.01"
        :max="25"
        :step="0.01"
        :digits="3"
        :model-value="m.density"
        @update:model-value="save({ density: $event })"
      />
      <DraftField
        :label="$t('stock.materialPanel.buyAt')"
        :value="m.reorder === null ? '' : amountText(m.unit, m.reorder, manner)"
        @done="$event.trim() === '' ? save({ reorder: null }) : amount($event, (v) => save({ reorder: v }))"
      />
      <NumberField
        :label="$t('stock.materialPanel.pricePer', { unit: m.unit })"
        :spoken="$t('stock.materialPanel.price')"
        :unit="stock.workshop?.currency ?? ''"
        :min="0"
        :max="1e6"
        :step="0.001"
        :digits="4"
        :model-value="m.price"
        @update:model-value="save({ price: $event })"
      />
      <NumberField
        :label="$t('stock.materialPanel.workingTime')"
        unit="min"
        optional
        :min="0.1"
        :max="1440"
        :placeholder="$t('stock.materialPanel.asUsual')"
        :model-value="m.working"
        @update:model-value="save({ working: $event })"
      />
      <NumberField
        :label="$t('stock.materialPanel.timeToTheNext')"
        unit="min"
        optional
        :min="0.1"
        :max="14400"
        :placeholder="$t('stock.materialPanel.asUsual')"
        :model-value="m.next"
        @update:model-value="save({ next: $event })"
      />
    </div>
    <p class="mt-2 mb-1">{{ $t('stock.materialPanel.usedAs') }}</p>
    <p v-for="w in m.serves" :key="w" class="m-0 d-flex justify-content-between">
      {{ supplyName(w, manner) }}
      <BButton
        variant="quiet"
        size="sm"
        :aria-label="$t('stock.materialPanel.remove', { name: supplyName(w, manner) })"
        @click="save({ serves: m.serves.filter((x) => x !== w) })"
      >
        ×
      </BButton>
    </p>
    <ChoiceSelect
      size="sm"
      :model-value="''"
      :aria-label="$t('stock.materialPanel.itIsUsedAs')"
      @update:model-value="save({ serves: [...m.serves, String($event)] })"
    >
      <option value="" disabled>{{ $t('stock.materialPanel.whatStepsUseIt') }}</option>
      <option v-for="s in SUPPLIES.filter((x) => !m.serves.includes(x.what))" :key="s.what" :value="s.what">
        {{ say(s.name, manner) }}
      </option>
    </ChoiceSelect>
    <BAlert v-if="strange" :model-value="true" variant="danger" class="mt-1 mb-0">
      {{
        $t('stock.materialPanel.stepsUseInAnd', { name: say(strange.name, manner), unit: strange.unit, unit2: m.unit })
      }}
    </BAlert>
    <div v-for="(l, i) in m.lots" :key="i" class="lot" :class="{ old: spent(l, today) }">
      <div class="pair">
        <DraftField
          :label="$t('stock.materialPanel.left')"
          :value="amountText(m.unit, l.amount, manner)"
          :spoken="$t('stock.materialPanel.leftOfLot', { i: i + 1 })"
          @done="amount($event, (v) => lot(i, { amount: v }))"
        />
        <DraftField
          :label="$t('stock.materialPanel.lot')"
          maxlength="80"
          :value="l.lot"
          :spoken="$t('stock.materialPanel.numberOfLot', { i: i + 1 })"
          @done="lot(i, { lot: $event })"
        />
        <DateField
          :label="$t('stock.materialPanel.opened')"
          :value="l.opened ?? ''"
          :spoken="$t('stock.materialPanel.lotOpened', { i: i + 1 })"
          @done="lot(i, { opened: $event || null })"
        />
        <NumberField
          :label="$t('stock.materialPanel.keepsMonths')"
          :spoken="$t('stock.materialPanel.monthsThatLotKeeps', { i: i + 1 })"
          :min="1"
          :max="240"
          whole
          :model-value="l.keeps"
          @update:model-value="lot(i, { keeps: $event })"
        />
      </div>
      <p class="soft small m-0 d-flex justify-content-between align-items-center">
        <span>{{
          keepsUntil(l)
            ? $t('stock.materialPanel.l', { l: Boolean(spent(l, today)), l2: keepsUntil(l) })
            : $t('stock.materialPanel.unopenedNoDate')
        }}</span>
        <BButton
          variant="quiet"
          size="sm"
          :aria-label="$t('stock.materialPanel.removeLot', { i: i + 1 })"
          @click="save({ lots: m.lots.filter((_, k) => k !== i) })"
        >
          {{ $t('stock.materialPanel.remove2') }}
        </BButton>
      </p>
    </div>
    <label class="d-block mt-2"
      >{{ $t('stock.materialPanel.storage') }}
      <DraftInput
        maxlength="500"
        :value="m.safety"
        :aria-label="$t('stock.materialPanel.storage')"
        @done="save({ safety: $event })"
    /></label>
    <div class="d-flex gap-2 mt-2">
      <BButton variant="primary" size="sm" @click="addLot">{{ $t('stock.materialPanel.addALot') }}</BButton>
      <BButton variant="quiet" size="sm" @click="remove">{{ $t('stock.materialPanel.deleteMaterial') }}</BButton>
    </div>
    <FaultNote :text="fault" class="mt-2 mb-0" />
  </section>
</template>

<style scoped>
.name {
  font-weight: 650;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 10px;
}
label {
  font-size: 0.84rem;
}
.lot {
  border-top: 1px solid var(--line);
  margin-top: 8px;
  padding-top: 6px;
}
.lot.old {
  border-left: 4px solid var(--warning);
  padding-left: 8px;
}
</style>
