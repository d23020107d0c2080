<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { OrientationScore } from '../../../core/print/orientation'

/** The ways up that none beats in every respect: scar against time, as large as their supports, dark where peel is hard. */
const props = defineProps<{ ways: OrientationScore[]; hours: (height: number) => number; on: string }>()
const emit = defineEmits<{ pick: [way: OrientationScore] }>()
interface Plot {
  react: (el: HTMLElement, data: object[], layout: object, config: object) => Promise<void>
  purge: (el: HTMLElement) => void
}
const box = ref<HTMLDivElement | null>(null)
let plotly: Plot | null = null
async function draw(): Promise<void> {
  if (!box.value) return
  plotly ??= ((await import('plotly.js-basic-dist-min')) as { default: Plot }).default
  const { ways } = props
  const most = Math.max(1, ...ways.map((w) => w.resin))
  await plotly.react(
    box.value,
    [
      {
        x: ways.map((w) => w.scar / 100),
        y: ways.map((w) => props.hours(w.height)),
        customdata: ways.map((w) => [
          (w.resin / 1000).toFixed(1),
          (w.peak / 100).toFixed(0),
          (w.cup / 100).toFixed(1),
          (w.focal / 100).toFixed(1),
        ]),
        mode: 'markers',
        type: 'scatter',
        marker: {
          size: ways.map((w) => 6 + 9 * Math.sqrt(w.resin / most)),
          color: ways.map((w) => w.peak),
          colorscale: [
            [0, '#cfe0c8'],
            [0.5, '#3f8079'],
            [1, '#152f45'],
          ],
          line: {
            width: ways.map((w) => (w.quaternion.join() === props.on ? 3 : w.cup > 20 ? 1.5 : 0.5)),
            color: ways.map((w) => (w.quaternion.join() === props.on ? '#26221c' : w.cup > 20 ? '#9c2f1c' : '#fff')),
          },
        },
        hovertemplate:
          'scar that counts %{x:.1f} cm², on focal areas %{customdata[3]}<br>%{y:.1f} h, supports %{customdata[0]} ml<br>largest layer %{customdata[1]} cm², cup %{customdata[2]} cm²<extra></extra>',
      },
    ],
    {
      margin: { l: 38, r: 8, t: 6, b: 34 },
      paper_bgcolor: 'transparent',
      plot_bgcolor: 'transparent',
      font: { family: '"Source Sans 3 Variable", sans-serif', size: 12, color: '#26221c' },
      showlegend: false,
      xaxis: { title: { text: 'scar that counts, cm²' }, gridcolor: '#e0d6c4', zeroline: false },
      yaxis: { title: { text: 'print, h' }, gridcolor: '#e0d6c4', zeroline: false },
    },
    { displayModeBar: false, responsive: true },
  )
  const chart = box.value as HTMLDivElement & {
    on?: (e: string, f: (d: { points: { pointNumber: number }[] }) => void) => void
    removeAllListeners?: (e: string) => void
  }
  chart.removeAllListeners?.('plotly_click')
  chart.on?.('plotly_click', (d) => emit('pick', props.ways[d.points[0]!.pointNumber]!))
}
onMounted(draw)
watch(() => [props.ways, props.on], draw)
onBeforeUnmount(() => {
  if (plotly && box.value) plotly.purge(box.value)
})
</script>

<template>
  <div ref="box" class="front" role="img" :aria-label="`${ways.length} ways up, scar against hours`" />
</template>

<style scoped>
.front {
  height: 190px;
}
</style>
