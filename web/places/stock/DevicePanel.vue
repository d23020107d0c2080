<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { device as deviceSchema, type DeviceRecord } from '../../../contract/runs'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import DraftInput from '../../shell/DraftInput.vue'
import { useRuns } from '../../stores/runs'
import { useStock } from '../../stores/stock'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'

/** Machines that were found on the net, and which of the printers in stock each is. */
const runs = useRuns(),
  stock = useStock()
const { fault, attempt: tried } = useAttempt()
const address = ref('')
onMounted(() => void runs.fresh())
const STATES: Record<string, string> = {
  idle: 'idle',
  receiving: 'being sent a job',
  ready: 'has a job',
  printing: 'printing',
  paused: 'paused',
  interrupted: 'cut off',
  finished: 'finished',
  stopped: 'stopped',
  running: 'at work',
}
const KINDS = { printer: 'printer', station: 'washing and curing', scale: 'scale', sensor: 'air at the bench' }
const word = (d: DeviceRecord): string =>
  !d.reachable
    ? 'does not answer'
    : d.card.kind === 'scale'
      ? `${Number(d.state?.grams ?? 0).toFixed(2)} g`
      : d.card.kind === 'sensor'
        ? d.state
          ? `${Number(d.state.temperature).toFixed(1)} °C, ${Number(d.state.humidity).toFixed(0)} %`
          : ''
        : (STATES[String(d.state?.state ?? '')] ?? '')
const list = computed(() => [...runs.devices].sort((a, b) => a.card.kind.localeCompare(b.card.kind)))
const attempt = (work: () => Promise<unknown>): Promise<void> =>
  tried(async () => {
    await work()
    await runs.fresh()
  })
const link = (d: DeviceRecord, id: string): Promise<void> =>
  attempt(() => api(deviceSchema, 'PUT', `/devices/${d.serial}/printer`, { printerId: id || null }))
const look = (): Promise<void> =>
  attempt(async () => {
    const text = address.value.trim()
    await api(deviceSchema, 'POST', '/devices', { address: /^\d+$/.test(text) ? `http://127.0.0.1:${text}` : text })
    address.value = ''
  })
const command = (d: DeviceRecord, body: { do: string } & Record<string, unknown>): Promise<void> =>
  attempt(() => runs.command(d.serial, body))
</script>

<template>
  <h2>Machines on the net</h2>
  <table v-if="list.length > 0" class="plain mb-2">
    <thead>
      <tr>
        <th>Name</th>
        <th>What</th>
        <th>Now</th>
        <th>Is the printer</th>
        <th class="num">In the vat, ml</th>
        <th class="num">Times as fast</th>
        <th />
      </tr>
    </thead>
    <tbody>
      <tr v-for="d in list" :key="d.serial">
        <td>{{ d.card.name }}</td>
        <td>{{ KINDS[d.card.kind] }}{{ d.card.standIn ? ', stand-in' : '' }}</td>
        <td :class="{ 'text-danger': !d.reachable }">{{ word(d) }}</td>
        <td>
          <ChoiceSelect
            v-if="d.card.kind === 'printer'"
            size="sm"
            class="w-auto"
            :model-value="d.printerId ?? ''"
            :aria-label="`Which printer ${d.card.name} is`"
            @update:model-value="link(d, String($event))"
          >
            <option value="">not said</option>
            <option v-for="p in stock.printers" :key="p.id" :value="p.id">{{ p.name }}</option>
          </ChoiceSelect>
        </td>
        <td class="num">{{ d.card.kind === 'printer' && d.state ? Number(d.state.vat).toFixed(0) : '' }}</td>
        <td class="num">
          <DraftInput
            v-if="d.card.kind === 'printer' && d.card.standIn"
            class="form-control form-control-sm speed"
            type="number"
            min="1"
            :value="String(d.state?.speedUp ?? 1)"
            :aria-label="`How many times as fast as a machine ${d.card.name} prints`"
            @done="command(d, { do: 'settings', speedUp: Math.max(0.1, Number($event) || 1) })"
          />
        </td>
        <td class="num text-nowrap">
          <template v-if="d.card.kind === 'printer'">
            <BButton variant="quiet" size="sm" @click="command(d, { do: 'refill', ml: 250 })">
              250 ml filled in
            </BButton>
            <BButton
              v-if="d.state?.clear === false"
              variant="quiet"
              size="sm"
              class="ms-1"
              @click="command(d, { do: 'clear' })"
            >
              Plate taken off
            </BButton>
          </template>
          <BButton v-if="d.card.kind === 'scale'" variant="quiet" size="sm" @click="command(d, { do: 'tare' })">
            To zero
          </BButton>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-else class="soft">None was found.</p>
  <form class="d-flex gap-2 mb-4 align-items-center" @submit.prevent="look">
    <input
      v-model="address"
      class="form-control form-control-sm find"
      placeholder="port, or http://127.0.0.1:port"
      aria-label="Address of a machine"
    />
    <BButton type="submit" variant="quiet" size="sm" :disabled="address.trim() === ''">Look for one there</BButton>
    <span v-if="fault" role="alert" class="text-danger small">{{ fault }}</span>
  </form>
</template>

<style scoped>
.speed {
  width: 90px;
  margin-left: auto;
  text-align: right;
}
.find {
  width: 260px;
}
table {
  max-width: 1100px;
}
</style>
