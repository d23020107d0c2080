<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { LoadLayer } from '../../../core/print/supportLoad'

/** How hard the whole is pulled off the film, layer by layer, and how hard its worst tip works then. */
const props = defineProps<{ layers: readonly LoadLayer[] }>()
interface Plot {
  react: (el: HTMLElement, data: object[], layout: object, config: object) => Promise<void>
  purge: (el: HTMLElement) => void
}
const box = ref<HTMLDivElement | null>(null)
let plotly: Plot | null = null
async function draw(): Promise<void> {
  if (!box.value) return
  plotly ??= ((await import('plotly.js-basic-dist-min')) as { default: Plot }).default
  const x = props.layers.map((l) => l.z)
  await plotly.react(
    box.value,
    [
      {
        x,
        y: props.layers.map((l) => l.force),
        mode: 'lines',
        line: { color: '#0e5a61', width: 1.5 },
        fill: 'tozeroy',
        fillcolor: '#0e5a6122',
        hovertemplate: '%{x:.0f} mm: %{y:.1f} N<extra></extra>',
      },
      {
        x,
        y: props.layers.map((l) => 100 * l.utilisation),
        yaxis: 'y2',
        mode: 'lines',
        line: { color: '#8a5600', width: 1.2 },
        hovertemplate: 'worst tip %{y:.0f} %<extra></extra>',
      },
    ],
    {
      margin: { l: 38, r: 40, t: 6, b: 34 },
      paper_bgcolor: 'transparent',
      plot_bgcolor: 'transparent',
      font: { family: '"Source Sans 3 Variable", sans-serif', size: 12, color: '#26221c' },
      showlegend: false,
      shapes: [
        {
          type: 'line',
          xref: 'paper',
          x0: 0,
          x1: 1,
          yref: 'y2',
          y0: 100,
          y1: 100,
          line: { color: '#9c2f1c', dash: 'dot', width: 1 },
        },
      ],
      xaxis: { title: { text: 'height above the plate, mm' }, gridcolor: '#e0d6c4', zeroline: false },
      yaxis: { title: { text: 'pull, N' }, gridcolor: '#e0d6c4', rangemode: 'tozero' },
      yaxis2: { title: { text: 'worst tip, %' }, overlaying: 'y', side: 'right', rangemode: 'tozero', showgrid: false },
    },
    { displayModeBar: false, responsive: true },
  )
}
onMounted(draw)
watch(() => props.layers, draw)
onBeforeUnmount(() => {
  if (plotly && box.value) plotly.purge(box.value)
})
</script>

<template>
  <div ref="box" class="load" role="img" aria-label="Pull and worst tip by height" />
</template>

<style scoped>
.load {
  height: 170px;
}
</style>
