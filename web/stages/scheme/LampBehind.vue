<script setup lang="ts">
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
    <label
      ><input
        type="checkbox"
        class="form-check-input me-2"
        :checked="behind !== null"
        @change="behind = behind ? null : { kelvin: 2700, strength: 1 }"
      />A lamp shines from inside</label
    >
    <template v-if="behind">
      <label class="slide"
        ><span class="soft">colour</span
        ><input
          type="range"
          class="form-range"
          :min="LAMP_RANGE[0]"
          :max="LAMP_RANGE[1]"
          step="100"
          :value="behind.kelvin"
          aria-label="Lamp inside: colour temperature in kelvin"
          @input="set({ kelvin: number($event) })"
        /><span class="num">{{ behind.kelvin }} K</span></label
      >
      <label class="slide"
        ><span class="soft">bright</span
        ><input
          type="range"
          class="form-range"
          min="0.1"
          max="5"
          step="0.1"
          :value="behind.strength"
          aria-label="Lamp inside: times as bright as a white card in the case"
          @input="set({ strength: number($event) })"
        /><span class="num">{{ behind.strength.toFixed(1) }} ×</span></label
      >
      <p class="soft small m-0">
        Brightness is the bare part’s, beside a white card in the case. Each coat says what light it leaves; how evenly
        the lamp fills the part is not calculated.
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
