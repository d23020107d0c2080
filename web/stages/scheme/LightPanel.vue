<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { LAMP_RANGE } from '../../../core/paint/optics/lamp'
import { useViewport } from '../../viewport/useViewport'
import { directionText } from '../../shell/directionText'
import type { Light } from './usePreview'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'

/** By what light the paint is looked at. */
const light = defineModel<Light>({ required: true })
const viewport = useViewport()
const set = (fields: Partial<Light>): void => {
  light.value = { ...light.value, ...fields }
}
const number = (e: Event): number => Number((e.target as HTMLInputElement).value)
const LAMPS: [string, number | null][] = [
  ['daylight', null],
  ['bulb, 2700 K', 2700],
  ['warm strip, 3500 K', 3500],
  ['cool strip, 5000 K', 5000],
]
const named = (): boolean => LAMPS.some(([, k]) => k === light.value.kelvin)
/** From where one looks at it now. */
function fromHere(): void {
  const view = viewport.camera()
  if (view) set({ at: view.from })
}
</script>

<template>
  <details class="my-2" open>
    <summary>
      <h2 class="d-inline">Light</h2>
      <span class="soft small ms-2"
        >{{ light.at ? `from ${directionText(light.at.turn, light.at.lift)}` : 'rides with you'
        }}{{ light.kelvin ? `, ${light.kelvin} K` : ', daylight' }}</span
      >
    </summary>
    <div class="folded">
      <label
        ><input
          type="checkbox"
          class="form-check-input me-2"
          :checked="light.at !== null"
          @change="set({ at: light.at ? null : { turn: -25, lift: 60 } })"
        />Stands still, as in a display case</label
      >
      <template v-if="light.at">
        <label class="slide"
          ><span>round</span
          ><input
            type="range"
            class="form-range"
            min="-180"
            max="180"
            :value="light.at.turn"
            aria-label="Light: degrees to the piece's left of its front"
            @input="set({ at: { ...light.at, turn: number($event) } })"
          /><span class="num">{{ light.at.turn }}°</span></label
        >
        <label class="slide"
          ><span>up</span
          ><input
            type="range"
            class="form-range"
            min="-30"
            max="89"
            :value="light.at.lift"
            aria-label="Light: degrees up"
            @input="set({ at: { ...light.at, lift: number($event) } })"
          /><span class="num">{{ light.at.lift }}°</span></label
        >
        <BButton variant="quiet" size="sm" @click="fromHere">From where I look</BButton>
      </template>
      <label class="slide"
        ><span>lamp</span
        ><ChoiceSelect
          size="sm"
          :model-value="light.kelvin ?? ''"
          aria-label="Lamp"
          @update:model-value="set({ kelvin: Number($event) || null })"
        >
          <option v-for="[name, k] in LAMPS" :key="name" :value="k ?? ''">
            {{ name }}
          </option>
          <option v-if="!named()" :value="light.kelvin">{{ light.kelvin }} K</option>
        </ChoiceSelect>
        <input
          type="number"
          class="form-control form-control-sm num"
          :min="LAMP_RANGE[0]"
          :max="LAMP_RANGE[1]"
          step="100"
          :value="light.kelvin ?? ''"
          placeholder="K"
          aria-label="Colour temperature of the lamp in kelvin"
          @change="
            set({ kelvin: number($event) ? Math.max(LAMP_RANGE[0], Math.min(LAMP_RANGE[1], number($event))) : null })
          "
      /></label>
      <p v-if="light.kelvin" class="soft small m-0">
        Each paint is weighed by a glowing body’s spectrum at {{ light.kelvin }} K; the eye takes most of its cast for
        white. A strip of diodes of that colour may differ.
      </p>
    </div>
  </details>
</template>

<style scoped>
.slide {
  display: grid;
  grid-template-columns: 44px 1fr 64px;
  gap: 8px;
  align-items: center;
}
</style>
