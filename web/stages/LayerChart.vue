<script setup lang="ts">
import { ref } from 'vue'
import { text } from '../i18n'
import { charted, unitName } from '../manner'
import { token } from '../styles/token'
import { suctionTrace } from '../composables/traces'
import { gridColour, usePlot } from '../composables/usePlot'

const props = defineProps<{
  areas: number[]
  peel: number[]
  /** N per layer, what shut cups could pull */
  suction: number[]
  layerHeight: number
  layer: number
}>()
const emit = defineEmits<{ pick: [layer: number] }>()
const box = ref<HTMLDivElement | null>(null)
/** Top of the scale: a raft of a few layers may run out of the picture, so that what stands on it can be read. */
function top(values: readonly number[]): number | undefined {
  const sorted = [...values].sort((a, b) => a - b)
  const most = sorted.at(-1) ?? 0,
    usual = 1.25 * (sorted[Math.floor(0.97 * sorted.length)] ?? 0)
  return usual > 0 && most > 2 * usual ? usual : undefined
}
/** Where the layer is on the axis. */
const at = (): number => charted('mm', [(props.layer + 0.5) * props.layerHeight])[0]!
usePlot(
  box,
  () => {
    const area = top(props.areas),
      force = top(props.peel.map((f, i) => Math.max(f, props.suction[i] ?? 0)))
    const x = charted(
      'mm',
      props.areas.map((_, i) => (i + 0.5) * props.layerHeight),
    )
    return {
      data: [
        {
          x,
          y: charted(
            'cm²',
            props.areas.map((a) => a / 100),
          ),
          name: 'area',
          mode: 'lines',
          line: { color: token('action'), width: 1.5 },
          fill: 'tozeroy',
          fillcolor: token('action', '22'),
          hovertemplate: text('stages.layerChart.mmCmExtraExtra', { length: unitName('mm'), area: unitName('cm²') }),
        },
        {
          x,
          y: props.peel,
          name: 'peel',
          yaxis: 'y2',
          mode: 'lines',
          line: { color: token('warning'), width: 1.2, dash: 'dot' },
          hovertemplate: '%{y:.2f} N<extra></extra>',
        },
        { ...suctionTrace(props.suction, props.layerHeight), yaxis: 'y2' },
      ],
      layout: {
        margin: { l: 48, r: 48, t: 8, b: 36 },
        xaxis: {
          title: { text: text('stages.layerChart.heightAboveThePlate', { unit: unitName('mm') }) },
          gridcolor: gridColour(),
          zeroline: false,
        },
        yaxis: {
          title: { text: text('stages.layerChart.areaCm', { unit: unitName('cm²') }) },
          gridcolor: gridColour(),
          rangemode: 'tozero',
          ...(area ? { range: [0, ...charted('cm²', [area / 100])] } : {}),
        },
        yaxis2: {
          title: { text: text('stages.layerChart.peelSuctionN') },
          overlaying: 'y',
          side: 'right',
          showgrid: false,
          rangemode: 'tozero',
          ...(force ? { range: [0, force] } : {}),
        },
      },
    }
  },
  (layer) => {
    emit('pick', layer)
  },
  () => ({
    shapes: [
      {
        type: 'line',
        x0: at(),
        x1: at(),
        y0: 0,
        y1: 1,
        yref: 'paper',
        line: { color: token('problem'), width: 1.5 },
      },
    ],
  }),
)
</script>

<template>
  <div ref="box" class="chart" role="img" :aria-label="$t('stages.layerChart.areaAndPeelForce')" />
</template>

<style scoped>
.chart {
  width: 100%;
  height: 190px;
  min-width: 0;
}
</style>
