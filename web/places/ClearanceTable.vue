<script setup lang="ts">
import { term, fixed } from '../i18n'
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
    <h2 class="mb-2">{{ $t('places.clearanceTable.clearances') }}</h2>
    <p class="soft">
      {{ $t('places.clearanceTable.clearanceBetweenAPeg') }}
    </p>
    <div v-for="p in PROCESSES" :key="p" class="sheet p-2 px-3 mb-2">
      <h3 class="mb-1">{{ term('process', p) }}</h3>
      <NumberField
        v-model="rules[p].sliding"
        :label="$t('places.clearanceTable.slidingFit')"
        unit="mm"
        :step="0.01"
        :min="0"
        :max="2"
      />
      <NumberField
        v-model="rules[p].press"
        :label="$t('places.clearanceTable.pressFit')"
        unit="mm"
        :step="0.01"
        :min="0"
        :max="2"
      />
      <template v-if="rules[p].print">
        <NumberField
          v-model="rules[p].print.peg.measured"
          :label="$t('places.clearanceTable.pegOf10Mm')"
          unit="mm"
          :step="0.01"
          :min="0.1"
          :max="200"
        />
        <NumberField
          v-model="rules[p].print.hole.measured"
          :label="$t('places.clearanceTable.holeOf10Mm')"
          unit="mm"
          :step="0.01"
          :min="0.1"
          :max="200"
        />
        <p class="soft small mb-1">
          {{
            $t('places.clearanceTable.yourPrinterClosesGaps', {
              print: fixed(closingBy(rules[p].print), 3),
              sliding: fixed(drawnClearance(rules[p].sliding, rules[p].print), 3),
            })
          }}
        </p>
        <BButton variant="quiet" size="sm" @click="rules[p].print = null">{{
          $t('places.clearanceTable.removeFitPrint')
        }}</BButton>
      </template>
      <BButton v-else variant="quiet" size="sm" @click="measure(p)">{{
        $t('places.clearanceTable.enterAFitPrint')
      }}</BButton>
    </div>
  </section>
</template>
