<script setup lang="ts">
import { BLink } from 'bootstrap-vue-next/components/BLink'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text } from '../../i18n'
import type { PlateRecord } from '../../../contract/runs'
import { useAttempt } from '../../composables/useAttempt'
import { duration } from '../../shell/duration'
import { useRuns } from '../../stores/runs'
import FaultNote from '../../shell/FaultNote.vue'

/** A plate of a run: on which machine, how far, and what can be done with it now. */
const props = defineProps<{ plate: PlateRecord; chosen: boolean }>()
const runs = useRuns()
const { fault, busy, attempt } = useAttempt()
const device = computed(() => runs.deviceOf(props.plate))
const fitting = computed(() => runs.fitting(props.plate))
const failed = computed(() => props.plate.outcomes.filter((o) => o.result === 'failed').length)
const word = computed(() => {
  const { state, progress: p, layers, parts } = props.plate
  switch (state) {
    case 'planned':
      return text('print.plateCard.parts', { parts: parts.length, seconds: duration(props.plate.estimate.seconds) })
    case 'sending':
      return p.lostAt
        ? text('print.plateCard.noAnswer')
        : text('print.plateCard.sent', { value: p.size > 0 ? Math.floor((100 * p.sent) / p.size) : 0 })
    case 'printing':
      if (!props.plate.device) return text('print.plateCard.printingByHand')
      return p.lostAt
        ? text('print.plateCard.noAnswer')
        : p.state === 'paused'
          ? text('print.plateCard.pausedAtLayer', { layer: p.layer })
          : p.state === 'interrupted'
            ? text('print.plateCard.interruptedAtLayer', { layer: p.layer })
            : text('print.plateCard.layerOf', { layer: p.layer, layers })
    case 'ended':
      return text('print.plateCard.resultNotEntered')
    case 'judged':
      return failed.value > 0
        ? text('print.plateCard.ofFailed', { failed: failed.value, parts: parts.length })
        : text('print.plateCard.allPartsSucceeded')
  }
  return ''
})
const share = computed(() =>
  props.plate.state === 'sending'
    ? props.plate.progress.sent / Math.max(1, props.plate.progress.size)
    : props.plate.progress.layer / Math.max(1, props.plate.layers),
)
const still = computed(() => ['paused', 'interrupted'].includes(props.plate.progress.state))
function look(): void {
  runs.chosen = props.plate.id
  runs.judging = true
}
</script>

<template>
  <article class="plate" :class="{ chosen }" :data-plate="plate.number">
    <BButton variant="card" class="head" :aria-pressed="chosen" @click="runs.chosen = plate.id">
      <span>{{ $t('print.plateCard.plate', { printerName: plate.printerName, number: plate.number }) }}</span>
      <span class="soft small" data-plate-word>{{ word }}</span>
    </BButton>
    <div v-if="plate.state === 'sending' || plate.state === 'printing'" class="bar" aria-hidden="true">
      <i :style="{ width: `${100 * share}%` }" />
    </div>
    <div v-if="chosen" class="d-flex gap-1 flex-wrap mt-1">
      <template v-if="plate.state === 'planned'">
        <BButton
          v-for="d in fitting"
          :key="d.serial"
          variant="primary"
          size="sm"
          :disabled="busy || !d.reachable"
          :title="d.reachable ? '' : $t('print.plateCard.itDoesNotAnswer')"
          @click="attempt(() => runs.send(plate, d.serial))"
        >
          {{ $t('print.plateCard.sendToAndStart', { name: d.card.name }) }}
        </BButton>
        <BButton variant="quiet" size="sm" :disabled="busy" @click="attempt(() => runs.send(plate, null))">
          {{ $t('print.plateCard.startedByHand') }}
        </BButton>
        <BLink
          class="btn btn-sm btn-quiet"
          :href="`/api/blobs/${plate.archive}?download=plate-${plate.number}.zip`"
          :download="`plate-${plate.number}.zip`"
          >{{ $t('print.plateCard.layersZip') }}</BLink
        >
      </template>
      <template v-else-if="plate.state === 'printing' || plate.state === 'sending'">
        <template v-if="plate.device && plate.state === 'printing'">
          <BButton
            v-if="still"
            variant="primary"
            size="sm"
            :disabled="busy"
            @click="attempt(() => runs.order(plate, 'resume'))"
          >
            {{ $t('print.plateCard.continue') }}
          </BButton>
          <BButton v-else variant="quiet" size="sm" :disabled="busy" @click="attempt(() => runs.order(plate, 'pause'))">
            {{ $t('print.plateCard.pause') }}
          </BButton>
        </template>
        <BButton variant="quiet" size="sm" :disabled="busy" @click="attempt(() => runs.order(plate, 'stop'))">
          {{
            plate.state === 'sending'
              ? $t('print.plateCard.doNotPrint')
              : plate.device
                ? $t('print.plateCard.stop')
                : $t('print.plateCard.markAsPrinted')
          }}
        </BButton>
      </template>
      <template v-else>
        <BButton :variant="plate.state === 'ended' ? 'primary' : 'quiet'" size="sm" @click="look">
          {{ $t('print.plateCard.enterResult') }}
        </BButton>
        <BButton
          v-if="device && device.state?.clear === false && device.state?.job === plate.id"
          variant="quiet"
          size="sm"
          :disabled="busy"
          @click="attempt(() => runs.command(device!.serial, { do: 'clear' }))"
        >
          {{ $t('print.plateCard.plateIsRemoved') }}
        </BButton>
      </template>
    </div>
    <p v-if="chosen && plate.state === 'planned' && fitting.length === 0" class="soft small mb-0 mt-1">
      {{ $t('print.plateCard.noNetworkDeviceIs', { printerName: plate.printerName }) }}
    </p>
    <FaultNote :text="fault" class="mt-1" />
  </article>
</template>

<style scoped>
.plate {
  border-left: 3px solid var(--line);
  padding: 4px 0 6px 10px;
  margin-bottom: 6px;
}
.plate.chosen {
  border-color: var(--action);
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  font-weight: 550;
  color: inherit;
}
.head .soft {
  font-weight: 400;
  font-variant-numeric: tabular-nums;
}
.bar {
  height: 5px;
  background: var(--paper-sunk);
  border-radius: 2px;
  margin-top: 4px;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--resin);
  border-radius: 2px;
}
</style>
