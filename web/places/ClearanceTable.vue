<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { PROCESSES, type Process } from '../../core/defaults/fit'
import { closingBy, drawnClearance } from '../../core/fit/clearance'
import type { Workshop } from '../../contract/workshop'
import NumberField from '../shell/NumberField.vue'

/** What parts need between them by process, and what a printed peg and hole say of the machine. */
const rules = defineModel<Workshop['clearances']>({ required: true })
function measure(p: Process): void {
  rules.value[p].print = { peg: { drawn: 10, measured: 10 }, hole: { drawn: 10, measured: 10 } }
}
</script>

<template>
  <section>
    <h2 class="mb-2">Clearances</h2>
    <p class="soft">
      Between a peg and its hole, per side. Print a peg and a hole of 10 mm and measure both: keys, joints and relieved
      parts are drawn wider by what your machine closes.
    </p>
    <div v-for="p in PROCESSES" :key="p" class="sheet p-2 px-3 mb-2">
      <h3 class="mb-1">{{ p }}</h3>
      <NumberField v-model="rules[p].sliding" label="Sliding" unit="mm" :step="0.01" :min="0" :max="2" />
      <NumberField v-model="rules[p].press" label="Press" unit="mm" :step="0.01" :min="0" :max="2" />
      <template v-if="rules[p].print">
        <NumberField
          v-model="rules[p].print.peg.measured"
          label="Peg of 10 mm measures"
          unit="mm"
          :step="0.01"
          :min="0.1"
          :max="200"
        />
        <NumberField
          v-model="rules[p].print.hole.measured"
          label="Hole of 10 mm measures"
          unit="mm"
          :step="0.01"
          :min="0.1"
          :max="200"
        />
        <p class="soft small mb-1">
          Closes by {{ closingBy(rules[p].print).toFixed(3) }} mm a side: sliding parts are drawn
          {{ drawnClearance(rules[p].sliding, rules[p].print).toFixed(3) }} mm apart.
        </p>
        <BButton variant="quiet" size="sm" @click="rules[p].print = null">Forget the print</BButton>
      </template>
      <BButton v-else variant="quiet" size="sm" @click="measure(p)">Enter a fit print</BButton>
    </div>
  </section>
</template>
