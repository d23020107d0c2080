<script setup lang="ts">
import { figure } from '../../manner'
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import type { Region } from '../../../contract/scheme'
import { LAMP_RANGE } from '../../../core/paint/optics/lamp'

/** The lamp inside a clear part. */
const behind = defineModel<Region['behind']>({ required: true })
const number = (e: Event): number => Number((e.target as HTMLInputElement).value)
const set = (fields: Partial<NonNullable<Region['behind']>>): void => {
  behind.value = { ...behind.value!, ...fields }
}
</script>

<template>
  <div class="mt-2">
    <BFormCheckbox
      :model-value="behind !== null"
      @update:model-value="behind = behind ? null : { kelvin: 2700, strength: 1 }"
      >{{ $t('scheme.lampBehind.aLampShinesFrom') }}</BFormCheckbox
    >
    <template v-if="behind">
      <label class="slide"
        ><span class="soft">{{ $t('scheme.lampBehind.colour') }}</span
        ><BFormInput
          type="range"
          :min="LAMP_RANGE[0]"
          :max="LAMP_RANGE[1]"
          step="100"
          :model-value="behind.kelvin"
          :aria-label="$t('scheme.lampBehind.lampInsideColourTemperature')"
          @input="set({ kelvin: number($event) })"
        /><span class="num">{{ behind.kelvin }} K</span></label
      >
      <label class="slide"
        ><span class="soft">{{ $t('scheme.lampBehind.brightness') }}</span
        ><BFormInput
          type="range"
          min="0.1"
          max="5"
          step="0.1"
          :model-value="behind.strength"
          :aria-label="$t('scheme.lampBehind.lampInsideTimesAs')"
          @input="set({ strength: number($event) })"
        /><span class="num">{{ figure(behind.strength, 1) }} ×</span></label
      >
      <p class="soft small m-0">
        {{ $t('scheme.lampBehind.brightnessIsThatOf') }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.slide {
  display: grid;
  grid-template-columns: 52px 1fr 64px;
  gap: 8px;
  align-items: center;
}
</style>
