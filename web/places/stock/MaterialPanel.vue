<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { material as materialSchema, type MaterialRecord } from '../../../contract/stock'
import { STOCK_UNITS } from '../../../core/defaults/stock'
import { ofProduct, SUPPLIES } from '../../../core/plan/materials/supplies'
import { keepsUntil, spent } from '../../../core/stock/lots'
import { amountIn, amountText } from '../../../core/stock/units'
import { useAttempt } from '../../composables/useAttempt'
import DraftField from '../../shell/DraftField.vue'
import DraftInput from '../../shell/DraftInput.vue'
import { useStock, type Item } from '../../stores/stock'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'

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
  attempt(async () => then(amountIn(m.value.unit, text, m.value.density)))
const addLot = (): Promise<void> =>
  save({ lots: [...m.value.lots, { lot: '', amount: 0, opened: null, keeps: 24, bestBefore: null }] })
const number = (text: string): number | null => (text.trim() === '' ? null : Number(text))
const remove = (): Promise<void> =>
  attempt(async () => {
    await stock.remove('material', props.item.id)
    emit('gone')
  })
</script>

<template>
  <section class="sheet p-3 mb-3" aria-label="Material">
    <DraftInput
      class="form-control form-control-sm name"
      maxlength="80"
      :value="m.name"
      aria-label="Name of the material"
      @done="save({ name: $event })"
    />
    <div class="pair mt-2">
      <label
        >Counted in
        <ChoiceSelect
          size="sm"
          :model-value="m.unit"
          @update:model-value="save({ unit: $event as MaterialRecord['unit'] })"
        >
          <option v-for="u in STOCK_UNITS" :key="u">{{ u }}</option>
        </ChoiceSelect></label
      >
      <DraftField
        label="Density, g/ml"
        type="number"
        step="0.01"
        :value="String(m.density ?? '')"
        spoken="Density"
        @done="save({ density: number($event) })"
      />
      <DraftField
        label="Buy at"
        :value="m.reorder === null ? '' : amountText(m.unit, m.reorder)"
        @done="$event.trim() === '' ? save({ reorder: null }) : amount($event, (v) => save({ reorder: v }))"
      />
      <label
        >Price of one {{ m.unit }}
        <DraftInput
          class="form-control form-control-sm"
          type="number"
          step="0.001"
          :value="String(m.price)"
          aria-label="Price"
          @done="save({ price: number($event) ?? 0 })"
      /></label>
      <DraftField
        label="Too late after, min"
        type="number"
        placeholder="as usual"
        :value="String(m.working ?? '')"
        spoken="Working time"
        @done="save({ working: number($event) })"
      />
      <DraftField
        label="Next step after, min"
        type="number"
        placeholder="as usual"
        :value="String(m.next ?? '')"
        spoken="Time to the next step"
        @done="save({ next: number($event) })"
      />
    </div>
    <p class="mt-2 mb-1">Serves as</p>
    <p v-for="w in m.serves" :key="w" class="m-0 d-flex justify-content-between">
      {{ SUPPLIES.find((s) => s.what === w)?.name ?? w }}
      <BButton
        variant="quiet"
        size="sm"
        :aria-label="`No longer ${SUPPLIES.find((s) => s.what === w)?.name ?? w}`"
        @click="save({ serves: m.serves.filter((x) => x !== w) })"
      >
        ×
      </BButton>
    </p>
    <ChoiceSelect
      size="sm"
      :model-value="''"
      aria-label="It serves as"
      @update:model-value="save({ serves: [...m.serves, String($event)] })"
    >
      <option value="" disabled>what steps use it as</option>
      <option v-for="s in SUPPLIES.filter((x) => !m.serves.includes(x.what))" :key="s.what" :value="s.what">
        {{ s.name }}
      </option>
    </ChoiceSelect>
    <p v-if="strange" class="problem mt-1 mb-0">
      Steps use {{ strange.name }} in {{ strange.unit }}, and this is counted in {{ m.unit }}: give its density, or it
      is not counted.
    </p>
    <div v-for="(l, i) in m.lots" :key="i" class="lot" :class="{ old: spent(l, today) }">
      <div class="pair">
        <DraftField
          label="Left"
          :value="amountText(m.unit, l.amount)"
          :spoken="`Left of lot ${i + 1}`"
          @done="amount($event, (v) => lot(i, { amount: v }))"
        />
        <DraftField
          label="Lot"
          maxlength="80"
          :value="l.lot"
          :spoken="`Number of lot ${i + 1}`"
          @done="lot(i, { lot: $event })"
        />
        <DraftField
          label="Opened"
          type="date"
          :value="l.opened ?? ''"
          :spoken="`Lot ${i + 1} opened`"
          @done="lot(i, { opened: $event || null })"
        />
        <DraftField
          label="Keeps, months"
          type="number"
          min="1"
          :value="String(l.keeps)"
          :spoken="`Months that lot ${i + 1} keeps`"
          @done="lot(i, { keeps: Math.round(number($event) ?? 24) })"
        />
      </div>
      <p class="soft small m-0 d-flex justify-content-between align-items-center">
        <span>{{
          keepsUntil(l)
            ? `${spent(l, today) ? 'past its time since' : 'keeps until'} ${keepsUntil(l)}`
            : 'shut, no date on it'
        }}</span>
        <BButton
          variant="quiet"
          size="sm"
          :aria-label="`Lot ${i + 1} is gone`"
          @click="save({ lots: m.lots.filter((_, k) => k !== i) })"
        >
          Gone
        </BButton>
      </p>
    </div>
    <label class="d-block mt-2"
      >Care
      <DraftInput
        class="form-control form-control-sm"
        maxlength="500"
        :value="m.safety"
        aria-label="Care"
        @done="save({ safety: $event })"
    /></label>
    <div class="d-flex gap-2 mt-2">
      <BButton variant="primary" size="sm" @click="addLot">Add a lot</BButton>
      <BButton variant="quiet" size="sm" @click="remove">Take out of stock</BButton>
    </div>
    <p v-if="fault" role="alert" class="problem mt-2 mb-0">{{ fault }}</p>
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
  border-left: 4px solid var(--know);
  padding-left: 8px;
}
</style>
