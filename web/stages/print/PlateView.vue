<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useTimestamp } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { text, fixed } from '../../i18n'
import { dateText, figure, quantity } from '../../manner'
import { derivation, reportOf, type ReportOf } from '../../../contract/derivations'
import type { PlateRecord } from '../../../contract/runs'
import { api } from '../../api'
import LayerPicture from '../../shell/LayerPicture.vue'
import { duration } from '../../shell/duration'
import { useRuns } from '../../stores/runs'
import { useStock } from '../../stores/stock'
import LayerChart from '../LayerChart.vue'
import HangingProfile from './HangingProfile.vue'

/** One plate in the middle: how far it hangs, the layer that is being lit, and what the printer says. */
const props = defineProps<{ plate: PlateRecord }>()
const runs = useRuns()
const report = ref<ReportOf<'slice'> | null>(null)
watch(
  () => props.plate.sliceKey,
  async (key) => {
    report.value = null
    const d = await api(derivation, 'GET', `/derivations/${key}`).catch(() => null)
    if (d && key === props.plate.sliceKey) report.value = reportOf(d, 'slice')
  },
  { immediate: true },
)
/** the layer looked at; null follows the print */
const held = ref<number | null>(null)
watch(
  () => props.plate.id,
  () => (held.value = null),
)
const live = computed(() => props.plate.state === 'printing')
const done = computed(() =>
  ['printing', 'ended', 'judged'].includes(props.plate.state) ? props.plate.progress.layer : 0,
)
const layer = computed(() =>
  Math.max(
    0,
    Math.min(props.plate.layers - 1, held.value ?? (live.value ? done.value - 1 : Math.floor(props.plate.layers / 3))),
  ),
)
const now = useTimestamp({ interval: 1000 })
const p = computed(() => props.plate.progress)
const stock = useStock()
/** mm; as the printer in stock has it, and for one that is gone a square pixel that is near enough to read off by */
const pitch = computed<[number, number]>(() => {
  const q = stock.printers.find((x) => x.id === props.plate.printerId)
  return q ? [q.pitchX, q.pitchY] : [0.05, 0.05]
})
const device = computed(() => runs.deviceOf(props.plate))
const speed = computed(() => Number(device.value?.state?.speedUp ?? 1))
const ends = computed(() => {
  const at = new Date(now.value + (p.value.left * 1000) / speed.value)
  return dateText(at, 'weekdayTime')
})
const DOING: Record<string, string> = {
  printing: text('print.plateView.printing'),
  paused: text('print.plateView.paused'),
  interrupted: text('print.plateView.interrupted'),
  finished: text('print.plateView.finished'),
  stopped: text('print.plateView.stopped'),
  ready: text('print.plateView.aboutToStart'),
  sending: text('print.plateView.beingSent'),
}
const doing = computed(() =>
  props.plate.state === 'planned'
    ? text('print.plateView.notStarted')
    : props.plate.state === 'sending'
      ? text('print.plateView.sent', { value: p.value.size > 0 ? Math.floor((100 * p.value.sent) / p.value.size) : 0 })
      : props.plate.device === null && live.value
        ? text('print.plateView.printingByHand')
        : p.value.lostAt
          ? text('print.plateView.noAnswer')
          : (DOING[p.value.state] ?? props.plate.state),
)
</script>

<template>
  <div class="page">
    <header>
      <h2 class="m-0">{{ $t('print.plateView.plate', { printerName: plate.printerName, number: plate.number }) }}</h2>
      <span class="soft">{{ doing }}</span>
      <span v-if="speed > 1 && live" class="soft small">{{
        $t('print.plateView.simulatedDevicePrintSpeed', { speed: speed })
      }}</span>
    </header>
    <div class="body">
      <div class="hang">
        <HangingProfile
          v-if="report"
          :areas="report.areas"
          :layer-height="report.layerHeight"
          :done="done"
          :layer="layer"
          :islands="report.islands"
          :cups="report.cups"
          :stops="plate.stops"
          @pick="held = $event"
        />
        <p class="soft small m-0 text-center">{{ $t('print.plateView.mmBelowThePlate') }}</p>
      </div>
      <div class="seen">
        <LayerPicture
          v-if="report"
          :src="`/api/layers/${plate.archive}/${layer}`"
          :alt="$t('print.plateView.layer', { layer: layer + 1 })"
          :pixels="report.pixels"
          :pitch="pitch"
          >{{
            $t('print.plateView.layerOfMm', {
              layer: layer + 1,
              layers: plate.layers,
              layer2: fixed((layer + 1) * plate.layerHeight, 2),
            })
          }}<BButton
            v-if="held !== null && live"
            variant="quiet"
            size="sm"
            class="ms-2"
            @click="held = null"
            @pointerdown.stop
          >
            {{ $t('print.plateView.followThePrint') }}
          </BButton></LayerPicture
        >
        <div v-else />
        <LayerChart
          v-if="report"
          :areas="report.areas"
          :peel="report.peel"
          :suction="report.suction"
          :layer-height="report.layerHeight"
          :layer="layer"
          @pick="held = $event"
        />
      </div>
    </div>
    <dl class="row-facts">
      <div v-if="live && plate.device && !p.lostAt">
        <dt>{{ $t('print.plateView.ready') }}</dt>
        <dd>{{ ends }}</dd>
      </div>
      <div>
        <dt>
          {{
            live
              ? $t('print.plateView.timeLeft')
              : plate.took
                ? $t('print.plateView.itTook')
                : $t('print.plateView.willTake')
          }}
        </dt>
        <dd>{{ duration(live && plate.device ? p.left : (plate.took ?? plate.estimate.seconds)) }}</dd>
      </div>
      <div v-if="plate.took && plate.device">
        <dt>{{ $t('print.plateView.estimate') }}</dt>
        <dd>
          {{ duration(plate.estimate.seconds) }}, {{ plate.estimate.seconds > plate.took ? '+' : '−'
          }}{{ figure(Math.abs((100 * (plate.estimate.seconds - plate.took)) / plate.took), 1) }} %
        </dd>
      </div>
      <div>
        <dt>{{ $t('print.plateView.resin') }}</dt>
        <dd>{{ $t('print.plateView.ml', { millilitres: fixed(plate.estimate.millilitres, 0) }) }}</dd>
      </div>
      <div v-if="p.vat !== null && live">
        <dt>{{ $t('print.plateView.inTheVat') }}</dt>
        <dd>{{ $t('print.plateView.ml2', { vat: fixed(p.vat, 0) }) }}</dd>
      </div>
      <div v-if="p.temperature !== null && live">
        <dt>{{ $t('print.plateView.resinTemperature') }}</dt>
        <dd>{{ quantity(p.temperature, 1, '°C') }}</dd>
      </div>
      <div v-if="report">
        <dt>{{ $t('print.plateView.areaAndPeelForce') }}</dt>
        <dd>
          {{
            $t('print.plateView.cmN', {
              areas: fixed(report.areas[layer]! / 100, 2),
              peel: fixed(report.peel[layer]!, 1),
            })
          }}
        </dd>
      </div>
      <div v-if="plate.weighed !== null">
        <dt>{{ $t('print.plateView.weighed') }}</dt>
        <dd>{{ quantity(plate.weighed, 1, 'g') }}</dd>
      </div>
    </dl>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 10px;
  height: 100%;
  padding: 14px 18px;
  background: var(--studio);
}
header {
  display: flex;
  gap: 12px;
  align-items: baseline;
}
.body {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 14px;
  min-height: 0;
}
.hang {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
}
.seen {
  display: grid;
  grid-template-rows: minmax(0, 1fr) 190px;
  gap: 10px;
  min-height: 0;
  min-width: 0;
}
.row-facts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 28px;
  margin: 0;
}
.row-facts dt {
  font-weight: 400;
  color: var(--ink-soft);
  font-size: 0.82rem;
}
.row-facts dd {
  margin: 0;
  font-size: 1.05rem;
  font-variant-numeric: tabular-nums;
}
</style>
