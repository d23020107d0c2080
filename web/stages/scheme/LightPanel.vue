<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { text } from '../../i18n'
import { LAMP_RANGE } from '../../../core/paint/optics/lamp'
import { useViewport } from '../../viewport/useViewport'
import { directionText } from '../../shell/directionText'
import type { Light } from './usePreview'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import NumberField from '../../shell/NumberField.vue'

/** By what light the paint is looked at. */
const light = defineModel<Light>({ required: true })
const viewport = useViewport()
const set = (fields: Partial<Light>): void => {
  light.value = { ...light.value, ...fields }
}
const number = (e: Event): number => Number((e.target as HTMLInputElement).value)
const LAMPS: [string, number | null][] = [
  ['daylight', null],
  [text('scheme.lightPanel.bulb2700K'), 2700],
  [text('scheme.lightPanel.warmStrip3500K'), 3500],
  [text('scheme.lightPanel.coolStrip5000K'), 5000],
]
const named = (): boolean => LAMPS.some(([, k]) => k === light.value.kelvin)
/** From where one looks at it now. */
function fromHere(): void {
  const view = viewport.camera()
  if (view) set({ at: view.from })
}
</script>

<template>
  <FoldPanel class="my-2" open>
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.lightPanel.light') }}</h2>
      <span class="soft small ms-2"
        >{{
          light.at
            ? $t('scheme.lightPanel.from', { turn: directionText(light.at.turn, light.at.lift) })
            : $t('scheme.lightPanel.followsTheView')
        }}{{ light.kelvin ? `, ${light.kelvin} K` : $t('scheme.lightPanel.daylight') }}</span
      >
    </template>
    <div class="folded">
      <BFormCheckbox
        :model-value="light.at !== null"
        @update:model-value="set({ at: light.at ? null : { turn: -25, lift: 60 } })"
        >{{ $t('scheme.lightPanel.fixedAsInA') }}</BFormCheckbox
      >
      <template v-if="light.at">
        <label class="slide"
          ><span>{{ $t('scheme.lightPanel.around') }}</span
          ><BFormInput
            type="range"
            min="-180"
            max="180"
            :model-value="light.at.turn"
            :aria-label="$t('scheme.lightPanel.lightDegreesToThe')"
            @input="set({ at: { ...light.at, turn: number($event) } })"
          /><span class="num">{{ light.at.turn }}°</span></label
        >
        <label class="slide"
          ><span>{{ $t('scheme.lightPanel.up') }}</span
          ><BFormInput
            type="range"
            min="-30"
            max="89"
            :model-value="light.at.lift"
            :aria-label="$t('scheme.lightPanel.lightDegreesUp')"
            @input="set({ at: { ...light.at, lift: number($event) } })"
          /><span class="num">{{ light.at.lift }}°</span></label
        >
        <BButton variant="quiet" size="sm" @click="fromHere">{{ $t('scheme.lightPanel.fromTheCurrentView') }}</BButton>
      </template>
      <label class="slide"
        ><span>{{ $t('scheme.lightPanel.lamp') }}</span
        ><ChoiceSelect
          size="sm"
          :model-value="light.kelvin ?? ''"
          :aria-label="$t('scheme.lightPanel.lamp2')"
          @update:model-value="set({ kelvin: Number($event) || null })"
        >
          <option v-for="[name, k] in LAMPS" :key="name" :value="k ?? ''">
            {{ name }}
          </option>
          <option v-if="!named()" :value="light.kelvin">{{ light.kelvin }} K</option>
        </ChoiceSelect>
        <NumberField
          bare
          optional
          whole
          unit="K"
          :min="LAMP_RANGE[0]"
          :max="LAMP_RANGE[1]"
          :step="100"
          :model-value="light.kelvin"
          :label="$t('scheme.lightPanel.colourTemperatureOfThe')"
          @update:model-value="set({ kelvin: $event })"
      /></label>
      <p v-if="light.kelvin" class="soft small m-0">
        {{ $t('scheme.lightPanel.eachPaintIsCalculated', { kelvin: light.kelvin }) }}
      </p>
    </div>
  </FoldPanel>
</template>

<style scoped>
.slide {
  display: grid;
  grid-template-columns: 44px 1fr auto;
  gap: 8px;
  align-items: center;
}
</style>
