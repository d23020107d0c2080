<script setup lang="ts">
import { ref } from 'vue'
import { text } from '../../i18n'
import { charted, unitName } from '../../manner'
import { token } from '../../styles/token'
import type { LoadLayer } from '../../../core/print/support/supportLoad'
import { suctionTrace } from '../../composables/traces'
import { gridColour, usePlot } from '../../composables/usePlot'

/**
 * How hard the whole is pulled off the film, layer by layer, what shut cups could add to it, and how hard its worst tip works
 * then.
 *
 * @prop suction N per layer of `step` mm
 */
const props = defineProps<{ layers: readonly LoadLayer[]; suction: readonly number[]; step: number }>()
const box = ref<HTMLDivElement | null>(null)
usePlot(box, () => {
  const x = charted(
    'mm',
    props.layers.map((l) => l.z),
  )
  return {
    data: [
      {
        x,
        y: props.layers.map((l) => l.force),
        mode: 'lines',
        line: { color: token('action'), width: 1.5 },
        fill: 'tozeroy',
        fillcolor: token('action', '22'),
        hovertemplate: text('orient.loadChart.mmNExtraExtra', { unit: unitName('mm') }),
      },
      suctionTrace(props.suction, props.step),
      {
        x,
        y: props.layers.map((l) => 100 * l.utilisation),
        yaxis: 'y2',
        mode: 'lines',
        line: { color: token('warning'), width: 1.2 },
        hovertemplate: text('orient.loadChart.worstTipExtraExtra'),
      },
    ],
    layout: {
      margin: { l: 38, r: 40, t: 6, b: 34 },
      shapes: [
        // All that a tip holds.
        {
          type: 'line',
          xref: 'paper',
          x0: 0,
          x1: 1,
          yref: 'y2',
          y0: 100,
          y1: 100,
          line: { color: token('problem'), dash: 'dot', width: 1 },
        },
      ],
      xaxis: {
        title: { text: text('orient.loadChart.heightAboveThePlate', { unit: unitName('mm') }) },
        gridcolor: gridColour(),
        zeroline: false,
      },
      yaxis: { title: { text: text('orient.loadChart.pullN') }, gridcolor: gridColour(), rangemode: 'tozero' },
      yaxis2: {
        title: { text: text('orient.loadChart.worstTip') },
        overlaying: 'y',
        side: 'right',
        rangemode: 'tozero',
        showgrid: false,
      },
    },
  }
})
</script>

<template>
  <div ref="box" class="load" role="img" :aria-label="$t('orient.loadChart.pullAndWorstTip')" />
</template>

<style scoped>
.load {
  height: 170px;
}
</style>
