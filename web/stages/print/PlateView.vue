<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useTimestamp } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
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
  return at.toLocaleString(undefined, { weekday: 'short', hour: 'numeric', minute: '2-digit' })
})
const DOING: Record<string, string> = {
  printing: 'printing',
  paused: 'paused',
  interrupted: 'cut off',
  finished: 'finished',
  stopped: 'stopped',
  ready: 'about to start',
  sending: 'being sent',
}
const doing = computed(() =>
  props.plate.state === 'planned'
    ? 'not begun'
    : props.plate.state === 'sending'
      ? `sent ${p.value.size > 0 ? Math.floor((100 * p.value.sent) / p.value.size) : 0} %`
      : props.plate.device === null && live.value
        ? 'printing, by hand'
        : p.value.lostAt
          ? 'no answer'
          : (DOING[p.value.state] ?? props.plate.state),
)
</script>

<template>
  <div class="page">
    <header>
      <h2 class="m-0">{{ plate.printerName }}, plate {{ plate.number }}</h2>
      <span class="soft">{{ doing }}</span>
      <span v-if="speed > 1 && live" class="soft small"
        >stand-in, {{ speed.toLocaleString() }} times as fast as a machine</span
      >
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
        <p class="soft small m-0 text-center">mm below the plate</p>
      </div>
      <div class="seen">
        <LayerPicture
          v-if="report"
          :src="`/api/layers/${plate.archive}/${layer}`"
          :alt="`Layer ${layer + 1}`"
          :pixels="report.pixels"
          :pitch="pitch"
          >layer {{ layer + 1 }} of {{ plate.layers.toLocaleString() }},
          {{ ((layer + 1) * plate.layerHeight).toFixed(2) }} mm<BButton
            v-if="held !== null && live"
            variant="quiet"
            size="sm"
            class="ms-2"
            @click="held = null"
            @pointerdown.stop
          >
            Follow the print
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
        <dt>ready</dt>
        <dd>{{ ends }}</dd>
      </div>
      <div>
        <dt>{{ live ? 'still to go' : plate.took ? 'it took' : 'will take' }}</dt>
        <dd>{{ duration(live && plate.device ? p.left : (plate.took ?? plate.estimate.seconds)) }}</dd>
      </div>
      <div v-if="plate.took && plate.device">
        <dt>estimate</dt>
        <dd>
          {{ duration(plate.estimate.seconds) }}, {{ plate.estimate.seconds > plate.took ? '+' : '−'
          }}{{ Math.abs((100 * (plate.estimate.seconds - plate.took)) / plate.took).toFixed(1) }} %
        </dd>
      </div>
      <div>
        <dt>resin</dt>
        <dd>{{ plate.estimate.millilitres.toFixed(0) }} ml</dd>
      </div>
      <div v-if="p.vat !== null && live">
        <dt>in the vat</dt>
        <dd>{{ p.vat.toFixed(0) }} ml</dd>
      </div>
      <div v-if="p.temperature !== null && live">
        <dt>resin is at</dt>
        <dd>{{ p.temperature.toFixed(1) }} °C</dd>
      </div>
      <div v-if="report">
        <dt>area, peel there</dt>
        <dd>{{ (report.areas[layer]! / 100).toFixed(2) }} cm², {{ report.peel[layer]!.toFixed(1) }} N</dd>
      </div>
      <div v-if="plate.weighed !== null">
        <dt>weighed</dt>
        <dd>{{ plate.weighed.toFixed(1) }} g</dd>
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
  background: #f1eadd;
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
