<script setup lang="ts">
import { ref } from 'vue'
import { text } from '../../i18n'
import { charted, quantity, unitName } from '../../manner'
import { token } from '../../styles/token'
import type { OrientationScore } from '../../../core/print/orient/orientation'
import { gridColour, usePlot } from '../../composables/usePlot'

/** The ways up that none beats in every respect: scar against time, as large as their supports, dark where peel is hard. */
const props = defineProps<{ ways: OrientationScore[]; hours: (height: number) => number; on: string }>()
const emit = defineEmits<{ pick: [way: OrientationScore] }>()
const box = ref<HTMLDivElement | null>(null)
const chosen = (w: OrientationScore): boolean => w.quaternion.join() === props.on
/** mm²: a cup larger than this pulls by more than 2 N */
const CUP = 20
usePlot(
  box,
  () => {
    const { ways } = props
    const most = Math.max(1, ...ways.map((w) => w.resin))
    return {
      data: [
        {
          x: charted(
            'cm²',
            ways.map((w) => w.scar / 100),
          ),
          y: ways.map((w) => props.hours(w.height)),
          customdata: ways.map((w) => [
            quantity(w.resin / 1000, 1, 'ml'),
            quantity(w.peak / 100, 0, 'cm²'),
            quantity(w.cup / 100, 1, 'cm²'),
            quantity(w.focal / 100, 1, 'cm²'),
          ]),
          mode: 'markers',
          type: 'scatter',
          marker: {
            size: ways.map((w) => 6 + 9 * Math.sqrt(w.resin / most)),
            color: ways.map((w) => w.peak),
            colorscale: [
              [0, token('scale-low')],
              [0.5, token('scale-middle')],
              [1, token('scale-high')],
            ],
            line: {
              width: ways.map((w) => (chosen(w) ? 3 : w.cup > CUP ? 1.5 : 0.5)),
              color: ways.map((w) => (chosen(w) ? token('ink') : w.cup > CUP ? token('problem') : token('white'))),
            },
          },
          hovertemplate: text('orient.frontChart.scarThatCountsCm', { unit: unitName('cm²') }),
        },
      ],
      layout: {
        margin: { l: 38, r: 8, t: 6, b: 34 },
        xaxis: {
          title: { text: text('orient.frontChart.scarThatCountsCm2', { unit: unitName('cm²') }) },
          gridcolor: gridColour(),
          zeroline: false,
        },
        yaxis: { title: { text: text('orient.frontChart.printH') }, gridcolor: gridColour(), zeroline: false },
      },
    }
  },
  (i) => {
    emit('pick', props.ways[i]!)
  },
)
</script>

<template>
  <div
    ref="box"
    class="front"
    role="img"
    :aria-label="$t('orient.frontChart.orientationsScarAreaAgainst', { ways: ways.length })"
  />
</template>

<style scoped>
.front {
  height: 190px;
}
</style>
