<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import type { Workshop } from '../../../contract/workshop'
import { DAYS } from './days'

/** Bench hours, weekday by weekday. */
const hours = defineModel<Workshop['benchHours']>({ required: true })
const props = defineProps<{ whose?: string }>()
const text = (m: number): string => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`
const minutes = (t: string): number => {
  const [h, m] = t.split(':').map(Number)
  return (h ?? 0) * 60 + (m ?? 0)
}
const label = (what: string): string => (props.whose ? `${what}, ${props.whose}` : what)
</script>

<template>
  <div v-for="(h, i) in hours" :key="i" class="d-flex gap-2 mb-1 align-items-center">
    <BFormSelect v-model.number="h.weekday" size="sm" :aria-label="label('Day')">
      <option v-for="(d, n) in DAYS" :key="d" :value="n">{{ d }}</option>
    </BFormSelect>
    <input
      type="time"
      class="form-control form-control-sm"
      :value="text(h.from)"
      :aria-label="label('From')"
      @change="h.from = minutes(($event.target as HTMLInputElement).value)"
    />
    <input
      type="time"
      class="form-control form-control-sm"
      :value="text(h.to)"
      :aria-label="label('To')"
      @change="h.to = minutes(($event.target as HTMLInputElement).value)"
    />
    <BButton variant="quiet" size="sm" :aria-label="label('Remove these hours')" @click="hours.splice(i, 1)">
      ×
    </BButton>
  </div>
  <BButton variant="quiet" size="sm" @click="hours.push({ weekday: 6, from: 600, to: 720 })">
    {{ $t('workshop.hoursEditor.addHours') }}
  </BButton>
</template>
