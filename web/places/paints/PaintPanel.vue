<script setup lang="ts">
import { term, fixed } from '../../i18n'
import { figure } from '../../manner'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { PAINT_FINISHES, paint as paintSchema, type PaintRecord } from '../../../contract/stock'
import { labOfPaint } from '../../../core/paint/recipes/stockPaint'
import { deltaE00, labToHex, type Triple } from '../../../core/paint/optics/colour'
import { PAINT_KINDS } from '../../../core/defaults/paint'
import { useAttempt } from '../../composables/useAttempt'
import DraftInput from '../../shell/DraftInput.vue'
import LabField from '../../shell/LabField.vue'
import NumberField from '../../shell/NumberField.vue'
import { useStock, type Item } from '../../stores/stock'
import SwatchPhoto from './SwatchPhoto.vue'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'
import DateField from '../../shell/DateField.vue'

/** One paint: how it looks, how it hides, how it is thinned, and the bottles that were measured. */
const props = defineProps<{ item: Item<PaintRecord>; used?: { coats: number; ml: number } }>()
const emit = defineEmits<{ gone: [] }>()
const stock = useStock()
const { fault, attempt } = useAttempt()
const p = computed(() => paintSchema.parse(props.item))
const save = (more: Partial<PaintRecord>): Promise<void> => attempt(() => stock.change('paint', props.item.id, more))
/** which colour a photo is read for */
const reading = ref<'hides' | 'black' | 'lot' | null>(null)
const lot = ref('')
/** Of the bottle in use, where bottles were measured; else of the paint. */
function setColour(lab: Triple | null): Promise<void> {
  const [used, ...others] = p.value.lots
  if (used) return lab ? save({ lots: [{ ...used, lab: [...lab] }, ...others] }) : Promise.resolve()
  return save({ lab: lab ? [...lab] : null, hex: lab ? labToHex(lab) : p.value.hex })
}
function took(lab: Triple): void {
  const what = reading.value
  reading.value = null
  if (what === 'hides') void setColour(lab)
  else if (what === 'black') void save({ overBlack: [...lab] })
  else void save({ lots: [{ lot: lot.value.trim() || 'new', lab: [...lab], opened: null }, ...p.value.lots] })
}
const off = (lab: Triple): string => figure(deltaE00(lab, labOfPaint(p.value)), 1)
</script>

<template>
  <section class="sheet p-3 mb-3">
    <div class="d-flex justify-content-between align-items-baseline mb-2">
      <h2>{{ p.name }}</h2>
      <BButton
        variant="quiet"
        size="sm"
        :aria-label="$t('paints.paintPanel.remove', { name: p.name })"
        @click="
          attempt(async () => {
            await stock.remove('paint', item.id)
            emit('gone')
          })
        "
      >
        {{ $t('paints.paintPanel.remove2') }}
      </BButton>
    </div>
    <FaultNote :text="fault" />
    <label class="row-field"
      ><span>{{ $t('paints.paintPanel.name') }}</span
      ><DraftInput
        maxlength="80"
        :value="p.name"
        :aria-label="$t('paints.paintPanel.nameOfThePaint')"
        @done="save({ name: $event })"
    /></label>
    <div class="row-field">
      <span>{{ $t('paints.paintPanel.atFullCoverage') }}</span><LabField
        :lab="labOfPaint(p)"
        :label="$t('paints.paintPanel.colourAtFullCoverage')"
        @change="setColour"
      />
    </div>
    <div class="row-field">
      <span>{{ $t('paints.paintPanel.oneCoatOverBlack') }}</span><LabField
        :lab="p.overBlack"
        :label="$t('paints.paintPanel.colourOfCoatOver')"
        :empty="$t('paints.paintPanel.notMeasured')"
        @change="save({ overBlack: $event ? [...$event] : null })"
      />
    </div>
    <div class="d-flex gap-2 mb-2">
      <BButton variant="quiet" size="sm" :aria-pressed="reading === 'hides'" @click="reading = 'hides'">
        {{ $t('paints.paintPanel.photoAtFullCoverage') }}
      </BButton>
      <BButton variant="quiet" size="sm" :aria-pressed="reading === 'black'" @click="reading = 'black'">
        {{ $t('paints.paintPanel.photoOverBlack') }}
      </BButton>
    </div>
    <SwatchPhoto v-if="reading" class="mb-2" @read="took" />
    <NumberField
      :label="$t('paints.paintPanel.opacityOfBrushedCoat')"
      :model-value="100 * p.opacity"
      unit="%"
      :min="0"
      :max="100"
      :digits="0"
      :source="p.overBlack ? $t('paints.paintPanel.notUsedTheCoat') : $t('paints.paintPanel.asYouEnteredIt')"
      @update:model-value="save({ opacity: $event / 100 })"
    />
    <p v-if="p.opacity === 0" class="soft small">
      {{ $t('paints.paintPanel.aPaintWithoutOpacity') }}
    </p>
    <div class="pair">
      <label class="row-field"
        ><span>{{ $t('paints.paintPanel.kind') }}</span
        ><ChoiceSelect
          size="sm"
          :model-value="p.kind"
          :aria-label="$t('paints.paintPanel.kindOfPaint')"
          @update:model-value="save({ kind: $event as PaintRecord['kind'] })"
        >
          <option v-for="k in PAINT_KINDS" :key="k" :value="k">{{ term('paintKind', k) }}</option>
        </ChoiceSelect></label
      >
      <label class="row-field"
        ><span>{{ $t('paints.paintPanel.finish') }}</span
        ><ChoiceSelect
          size="sm"
          :model-value="p.finish"
          :aria-label="$t('paints.paintPanel.finish')"
          @update:model-value="save({ finish: $event as PaintRecord['finish'] })"
        >
          <option v-for="k in PAINT_FINISHES" :key="k" :value="k">{{ term('paintFinish', k) }}</option>
        </ChoiceSelect></label
      >
    </div>
    <NumberField
      :label="$t('paints.paintPanel.shareOfPaintWhen')"
      :model-value="100 * p.thinning.brush"
      unit="%"
      :min="5"
      :max="100"
      :step="5"
      :digits="0"
      @update:model-value="save({ thinning: { ...p.thinning, brush: $event / 100 } })"
    />
    <NumberField
      :label="$t('paints.paintPanel.shareOfPaintWhen2')"
      :model-value="100 * p.thinning.airbrush"
      unit="%"
      :min="5"
      :max="100"
      :step="5"
      :digits="0"
      @update:model-value="save({ thinning: { ...p.thinning, airbrush: $event / 100 } })"
    />
    <NumberField
      :label="$t('paints.paintPanel.leftInTheBottle')"
      :model-value="p.level"
      unit="ml"
      :min="0"
      :max="5000"
      :digits="1"
      @update:model-value="save({ level: $event })"
    />
    <NumberField
      :label="$t('paints.paintPanel.priceOf1Ml')"
      :model-value="p.price"
      :unit="stock.workshop?.currency ?? ''"
      :min="0"
      :max="10000"
      :step="0.01"
      @update:model-value="save({ price: $event })"
    />
    <div class="row-field">
      <span aria-hidden="true">{{ $t('paints.paintPanel.openSince') }}</span>
      <DateField
        bare
        :value="p.opened ?? ''"
        :label="$t('paints.paintPanel.openSince')"
        @done="save({ opened: $event || null })"
      />
    </div>
    <p class="soft small mb-2">
      {{
        used
          ? $t('paints.paintPanel.loggedInCoatsMl', { coats: used.coats, ml: fixed(used.ml, 1) })
          : $t('paints.paintPanel.notUsedInAny')
      }}
    </p>
    <h3 class="mb-1">{{ $t('paints.paintPanel.measuredBottles') }}</h3>
    <div v-for="(l, i) in p.lots" :key="i" class="lot">
      <span class="swatch" :style="{ background: labToHex(l.lab) }" />
      <span>{{ l.lot || $t('paints.paintPanel.noLot') }}{{ i === 0 ? $t('paints.paintPanel.inUse') : '' }}</span>
      <span class="num soft">{{ i === 0 ? '' : $t('paints.paintPanel.eFromIt', { lab: off(l.lab) }) }}</span>
      <BButton
        variant="quiet"
        size="sm"
        :aria-label="$t('paints.paintPanel.removeLot', { lot: l.lot })"
        @click="save({ lots: p.lots.filter((_, k) => k !== i) })"
      >
        ×
      </BButton>
    </div>
    <p v-if="p.lots.length === 0" class="soft small mb-1">{{ $t('paints.paintPanel.noneAllBottlesCount') }}</p>
    <div class="d-flex gap-2 mt-1">
      <BFormInput
        v-model="lot"
        size="sm"
        :placeholder="$t('paints.paintPanel.lot')"
        :aria-label="$t('paints.paintPanel.lotOfTheNew')"
      />
      <BButton variant="quiet" size="sm" class="text-nowrap" @click="reading = 'lot'">{{
        $t('paints.paintPanel.measureABottle')
      }}</BButton>
    </div>
  </section>
</template>

<style scoped>
.row-field {
  display: grid;
  grid-template-columns: 108px 1fr;
  align-items: center;
  gap: 8px;
  margin-bottom: 6px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.pair .row-field {
  grid-template-columns: auto 1fr;
}
.lot {
  display: grid;
  grid-template-columns: auto 1fr auto auto;
  gap: 8px;
  align-items: center;
  padding: 2px 0;
}
</style>
