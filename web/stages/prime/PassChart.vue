<script setup lang="ts">
import { computed, ref } from 'vue'
import { text } from '../../i18n'
import { token } from '../../styles/token'
import { gridColour, usePlot } from '../../composables/usePlot'
import type { Inspection } from '../../../contract/flaws'

/** How many flaws each pass found: it should fall, and end with none. */
const props = defineProps<{ passes: Inspection['passes'] }>()
const words = computed(() =>
  props.passes.map((p) => text('prime.passChart.pass', { pass: p.pass, found: p.found })).join(', '),
)
/** Places for passes that are kept, so that the first is no broad wall. */
const ROOM = 6
const box = ref<HTMLDivElement | null>(null)
usePlot(box, () => ({
  data: [
    {
      type: 'bar',
      x: props.passes.map((p) => p.pass),
      y: props.passes.map((p) => p.found),
      text: props.passes.map((p) => String(p.found)),
      textposition: 'outside',
      cliponaxis: false,
      width: 0.6,
      marker: { color: props.passes.map((p) => token(p.endedAt === null ? 'open-flaw' : 'note')) },
      hovertemplate: text('prime.passChart.hover'),
    },
  ],
  layout: {
    margin: { l: 8, r: 8, t: 18, b: 34 },
    xaxis: {
      title: { text: text('prime.passChart.passAxis') },
      range: [0.5, Math.max(ROOM, props.passes.length) + 0.5],
      dtick: 1,
      fixedrange: true,
    },
    yaxis: { visible: false, rangemode: 'tozero', gridcolor: gridColour(), fixedrange: true },
  },
}))
</script>

<template>
  <div ref="box" class="passes" role="img" :aria-label="$t('prime.passChart.flawsFound', { words })" />
</template>

<style scoped>
.passes {
  height: 130px;
}
</style>
