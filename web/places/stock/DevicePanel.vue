<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref } from 'vue'
import { text } from '../../i18n'
import { figure, quantity, unitName } from '../../manner'
import { device as deviceSchema, type DeviceRecord } from '../../../contract/runs'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import { useRuns } from '../../stores/runs'
import { useStock } from '../../stores/stock'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import NumberField from '../../shell/NumberField.vue'

/** Machines that were found on the net, and which of the printers in stock each is. */
const runs = useRuns(),
  stock = useStock()
const { fault, attempt: tried } = useAttempt()
const address = ref('')
onMounted(() => void runs.fresh())
const STATES: Record<string, string> = {
  idle: text('stock.devicePanel.idle'),
  receiving: text('stock.devicePanel.receivingAJob'),
  ready: text('stock.devicePanel.hasAJob'),
  printing: text('stock.devicePanel.printing'),
  paused: text('stock.devicePanel.paused'),
  interrupted: text('stock.devicePanel.interrupted'),
  finished: text('stock.devicePanel.finished'),
  stopped: text('stock.devicePanel.stopped'),
  running: text('stock.devicePanel.atWork'),
}
const KINDS = {
  printer: text('stock.devicePanel.printer'),
  station: text('stock.devicePanel.washingAndCuring'),
  scale: text('stock.devicePanel.scale'),
  sensor: text('stock.devicePanel.roomSensor'),
}
const word = (d: DeviceRecord): string =>
  !d.reachable
    ? text('stock.devicePanel.doesNotAnswer')
    : d.card.kind === 'scale'
      ? quantity(Number(d.state?.grams ?? 0), 2, 'g')
      : d.card.kind === 'sensor'
        ? d.state
          ? `${quantity(Number(d.state.temperature), 1, '°C')}, ${figure(Number(d.state.humidity), 0)} %`
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
  <h2>{{ $t('stock.devicePanel.networkDevices') }}</h2>
  <BTableSimple v-if="list.length > 0" class="plain mb-2">
    <BThead>
      <BTr>
        <BTh>{{ $t('stock.devicePanel.name') }}</BTh>
        <BTh>{{ $t('stock.devicePanel.what') }}</BTh>
        <BTh>{{ $t('stock.devicePanel.now') }}</BTh>
        <BTh>{{ $t('stock.devicePanel.isThePrinter') }}</BTh>
        <BTh class="num">{{ $t('stock.devicePanel.inTheVatMl', { unit: unitName('ml') }) }}</BTh>
        <BTh class="num">{{ $t('stock.devicePanel.printSpeedFactor') }}</BTh>
        <BTh />
      </BTr>
    </BThead>
    <BTbody>
      <BTr v-for="d in list" :key="d.serial">
        <BTd>{{ d.card.name }}</BTd>
        <BTd>{{ KINDS[d.card.kind] }}{{ d.card.standIn ? $t('stock.devicePanel.simulated') : '' }}</BTd>
        <BTd :class="{ 'text-danger': !d.reachable }">{{ word(d) }}</BTd>
        <BTd>
          <ChoiceSelect
            v-if="d.card.kind === 'printer'"
            size="sm"
            class="w-auto"
            :model-value="d.printerId ?? ''"
            :aria-label="$t('stock.devicePanel.whichPrinterIs', { name: d.card.name })"
            @update:model-value="link(d, String($event))"
          >
            <option value="">{{ $t('stock.devicePanel.notAssigned') }}</option>
            <option v-for="p in stock.printers" :key="p.id" :value="p.id">{{ p.name }}</option>
          </ChoiceSelect>
        </BTd>
        <BTd class="num">{{ d.card.kind === 'printer' && d.state ? figure(Number(d.state.vat), 0, 'ml') : '' }}</BTd>
        <BTd class="num">
          <NumberField
            v-if="d.card.kind === 'printer' && d.card.standIn"
            bare
            :min="0.1"
            :max="100000"
            :model-value="Number(d.state?.speedUp ?? 1)"
            :label="$t('stock.devicePanel.printSpeedFactorOf', { name: d.card.name })"
            @update:model-value="command(d, { do: 'settings', speedUp: $event })"
          />
        </BTd>
        <BTd class="num text-nowrap">
          <template v-if="d.card.kind === 'printer'">
            <BButton variant="quiet" size="sm" @click="command(d, { do: 'refill', ml: 250 })">
              {{ $t('stock.devicePanel.refillWith250Ml') }}
            </BButton>
            <BButton
              v-if="d.state?.clear === false"
              variant="quiet"
              size="sm"
              class="ms-1"
              @click="command(d, { do: 'clear' })"
            >
              {{ $t('stock.devicePanel.plateIsRemoved') }}
            </BButton>
          </template>
          <BButton v-if="d.card.kind === 'scale'" variant="quiet" size="sm" @click="command(d, { do: 'tare' })">
            {{ $t('stock.devicePanel.tare') }}
          </BButton>
        </BTd>
      </BTr>
    </BTbody>
  </BTableSimple>
  <p v-else class="soft">{{ $t('stock.devicePanel.noDeviceWasFound') }}</p>
  <form class="d-flex gap-2 mb-4 align-items-center" @submit.prevent="look">
    <BFormInput
      v-model="address"
      class="find"
      size="sm"
      :placeholder="$t('stock.devicePanel.portOrHttp127')"
      :aria-label="$t('stock.devicePanel.addressOfADevice')"
    />
    <BButton type="submit" variant="quiet" size="sm" :disabled="address.trim() === ''">{{
      $t('stock.devicePanel.addDevice')
    }}</BButton>
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
