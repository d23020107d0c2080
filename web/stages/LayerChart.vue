<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'

const props = defineProps<{ areas: number[]; peel: number[]; layerHeight: number; layer: number }>()
const emit = defineEmits<{ pick: [layer: number] }>()
const box = ref<HTMLDivElement | null>(null)
interface Plot {
  react: (el: HTMLElement, data: object[], layout: object, config: object) => Promise<void>
  relayout: (el: HTMLElement, layout: object) => Promise<void>
  purge: (el: HTMLElement) => void
}
let plotly: Plot | null = null
const line = (): object[] => [
  {
    type: 'line',
    x0: (props.layer + 0.5) * props.layerHeight,
    x1: (props.layer + 0.5) * props.layerHeight,
    y0: 0,
    y1: 1,
    yref: 'paper',
    line: { color: '#9c2f1c', width: 1.5 },
  },
]
async function draw(): Promise<void> {
  if (!box.value) return
  // Loaded only where a chart is shown.
  plotly ??= ((await import('plotly.js-basic-dist-min')) as { default: Plot }).default
  const x = props.areas.map((_, i) => (i + 0.5) * props.layerHeight)
  await plotly.react(
    box.value,
    [
      {
        x,
        y: props.areas.map((a) => a / 100),
        name: 'area',
        mode: 'lines',
        line: { color: '#0e5a61', width: 1.5 },
        fill: 'tozeroy',
        fillcolor: '#0e5a6122',
        hovertemplate: '%{x:.2f} mm: %{y:.2f} cm²<extra></extra>',
      },
      {
        x,
        y: props.peel,
        name: 'peel',
        yaxis: 'y2',
        mode: 'lines',
        line: { color: '#8a5600', width: 1.2, dash: 'dot' },
        hovertemplate: '%{y:.2f} N<extra></extra>',
      },
    ],
    {
      margin: { l: 48, r: 48, t: 8, b: 36 },
      paper_bgcolor: 'transparent',
      plot_bgcolor: 'transparent',
      font: { family: '"Source Sans 3 Variable", sans-serif', size: 12, color: '#26221c' },
      showlegend: false,
      shapes: line(),
      xaxis: { title: { text: 'height above the plate, mm' }, gridcolor: '#e0d6c4', zeroline: false },
      yaxis: { title: { text: 'area, cm²' }, gridcolor: '#e0d6c4', rangemode: 'tozero' },
      yaxis2: { title: { text: 'peel, N' }, overlaying: 'y', side: 'right', showgrid: false, rangemode: 'tozero' },
    },
    { displayModeBar: false, responsive: true },
  )
  const chart = box.value as HTMLElement & {
    on?: (e: string, f: (d: { points: { pointNumber: number }[] }) => void) => void
    removeAllListeners?: (e: string) => void
  }
  chart.removeAllListeners?.('plotly_click')
  chart.on?.('plotly_click', (d) => emit('pick', d.points[0]!.pointNumber))
}
onMounted(draw)
watch(() => props.areas, draw)
watch(
  () => props.layer,
  () => {
    if (plotly && box.value) void plotly.relayout(box.value, { shapes: line() })
  },
)
onBeforeUnmount(() => {
  if (plotly && box.value) plotly.purge(box.value)
})
</script>

<template>
  <div ref="box" class="chart" role="img" aria-label="Area and peel force over the height of the print" />
</template>

<style scoped>
.chart {
  width: 100%;
  height: 190px;
  min-width: 0;
}
</style>
