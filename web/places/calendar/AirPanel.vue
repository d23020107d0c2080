<script setup lang="ts">
import { computed, ref } from 'vue'
import { fixed, text } from '../../i18n'
import { charted, unitName } from '../../manner'
import { token } from '../../styles/token'
import { gridColour, usePlot } from '../../composables/usePlot'
import { nextSpray, shutToSpray } from '../../../core/plan/scheduling/air'
import { useCalendar } from '../../stores/calendar'
import { useStock } from '../../stores/stock'
import { momentOf } from './strips'

/** The air at the bench, the hours ahead, and when one may spray. */
const store = useCalendar(),
  stock = useStock()
const c = computed(() => store.calendar)
const where = computed(() => stock.workshop?.spraysIn ?? 'room')
const hours = computed(() => c.value?.forecast ?? [])
const shut = computed(() => shutToSpray(hours.value, where.value))
const next = computed(() => (c.value ? nextSpray(hours.value, where.value, c.value.now) : null))
const box = ref<HTMLDivElement | null>(null)
usePlot(box, () => {
  const x = hours.value.map((h) => new Date(h.at))
  const unit = unitName('°C')
  return {
    data: [
      {
        x,
        y: charted(
          '°C',
          hours.value.map((h) => h[where.value].temperature),
        ),
        mode: 'lines',
        line: { color: token('problem'), width: 1.6 },
        hovertemplate: text('calendar.airPanel.hoverWarm', { unit }),
      },
      {
        x,
        y: hours.value.map((h) => h[where.value].humidity),
        yaxis: 'y2',
        mode: 'lines',
        line: { color: token('note'), width: 1.6, dash: 'dot' },
        hovertemplate: text('calendar.airPanel.hoverDamp'),
      },
    ],
    layout: {
      margin: { l: 30, r: 34, t: 6, b: 22 },
      hovermode: 'x unified',
      xaxis: { type: 'date', tickformat: '%a %d', nticks: 4, gridcolor: gridColour(), fixedrange: true },
      yaxis: { ticksuffix: '°', nticks: 4, gridcolor: gridColour(), fixedrange: true },
      yaxis2: {
        overlaying: 'y',
        side: 'right',
        range: [0, 100],
        ticksuffix: ' %',
        nticks: 3,
        showgrid: false,
        fixedrange: true,
      },
      // Where one cannot spray.
      shapes: shut.value.map(([from, to]) => ({
        type: 'rect',
        yref: 'paper',
        x0: new Date(from),
        x1: new Date(to),
        y0: 0,
        y1: 1,
        line: { width: 0 },
        fillcolor: token('ink', '16'),
        layer: 'below',
      })),
    },
  }
})
</script>

<template>
  <section v-if="c" class="sheet p-3 mb-3" :aria-label="$t('calendar.airPanel.air')">
    <h2>
      {{
        $t('calendar.airPanel.cAtTheBench', {
          temperature: fixed(c.room.temperature, 1),
          humidity: fixed(c.room.humidity, 0),
        })
      }}
    </h2>
    <p class="soft small mb-1">
      {{ c.room.measured ? $t('calendar.airPanel.meanOfTheSensors') : $t('calendar.airPanel.asEnteredUnderWorkshop') }}
    </p>
    <template v-if="hours.length > 0">
      <div
        ref="box"
        class="forecast"
        role="img"
        :aria-label="
          $t('calendar.airPanel.forecastForDaysWhere', {
            round: Math.round(hours.length / 24),
            where: where === 'open',
          })
        "
      />
      <p class="small m-0">
        <span class="key warm-key">°C</span> <span class="key damp-key">{{ $t('calendar.airPanel.humidity') }}</span>
        {{
          $t('calendar.airPanel.whereGreyDoNot', {
            where: where === 'open',
            next: Boolean(next),
            from: next && momentOf(next.from, c.zone),
            to: next && momentOf(next.to, c.zone),
          })
        }}
      </p>
    </template>
  </section>
</template>

<style scoped>
.forecast {
  height: 130px;
}
.key {
  padding-left: 18px;
  background: linear-gradient(var(--problem), var(--problem)) no-repeat left center / 14px 2px;
}
.damp-key {
  background: repeating-linear-gradient(90deg, var(--note) 0 4px, transparent 4px 6px) no-repeat left center / 14px 2px;
}
</style>
