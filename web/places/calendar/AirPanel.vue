<script setup lang="ts">
import { computed } from 'vue'
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
const span = computed(() => {
  const first = hours.value[0]?.at ?? 0
  return { first, last: (hours.value.at(-1)?.at ?? 0) + 3_600_000 }
})
const x = (ms: number): number => (320 * (ms - span.value.first)) / (span.value.last - span.value.first)
const line = (value: (h: (typeof hours.value)[number]) => number, low: number, high: number): string =>
  hours.value.map((h) => `${x(h.at).toFixed(1)},${(56 - (52 * (value(h) - low)) / (high - low)).toFixed(1)}`).join(' ')
const warmth = computed(() => {
  const t = hours.value.map((h) => h[where.value].temperature)
  return { low: Math.min(8, ...t) - 1, high: Math.max(12, ...t) + 1 }
})
const shut = computed(() => shutToSpray(hours.value, where.value))
const next = computed(() => (c.value ? nextSpray(hours.value, where.value, c.value.now) : null))
</script>

<template>
  <section v-if="c" class="sheet p-3 mb-3" :aria-label="$t('calendar.airPanel.air')">
    <h2>
      {{
        $t('calendar.airPanel.cAtTheBench', {
          temperature: c.room.temperature.toFixed(1),
          humidity: c.room.humidity.toFixed(0),
        })
      }}
    </h2>
    <p class="soft small mb-1">
      {{ c.room.measured ? $t('calendar.airPanel.meanOfTheSensors') : $t('calendar.airPanel.asEnteredUnderWorkshop') }}
    </p>
    <template v-if="hours.length > 0">
      <svg
        viewBox="0 0 320 72"
        class="w-100"
        role="img"
        :aria-label="
          $t('calendar.airPanel.forecastForDaysWhere', {
            round: Math.round(hours.length / 24),
            where: where === 'open',
          })
        "
      >
        <rect v-for="[a, b] in shut" :key="a" :x="x(a)" y="0" :width="x(b) - x(a)" height="60" class="shut" />
        <polyline :points="line((h) => h[where].temperature, warmth.low, warmth.high)" class="warm" />
        <polyline :points="line((h) => h[where].humidity, 20, 110)" class="damp" />
        <template v-for="h in hours" :key="h.at">
          <text v-if="new Date(h.at).getUTCHours() === 12" :x="x(h.at)" y="71" text-anchor="middle">
            {{ momentOf(h.at, c.zone).split(',')[0] }}
          </text>
        </template>
      </svg>
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
.shut {
  fill: var(--paper-sunk);
}
polyline {
  fill: none;
  stroke-width: 1.6;
}
.warm {
  stroke: var(--problem);
}
.damp {
  stroke: var(--note);
  stroke-dasharray: 4 2;
}
text {
  font-size: 9.5px;
  fill: var(--ink-soft);
}
.key {
  padding-left: 18px;
  background: linear-gradient(var(--problem), var(--problem)) no-repeat left center / 14px 2px;
}
.damp-key {
  background: repeating-linear-gradient(90deg, var(--note) 0 4px, transparent 4px 6px) no-repeat left center / 14px 2px;
}
</style>
