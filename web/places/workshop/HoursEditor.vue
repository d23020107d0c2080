<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import type { Workshop } from '../../../contract/workshop'
import { firstWeekday } from '../../manner'
import { DAYS } from './days'
import DateField from '../../shell/DateField.vue'

/** Bench hours, weekday by weekday. */
const hours = defineModel<Workshop['benchHours']>({ required: true })
const props = defineProps<{ whose?: string }>()
const text = (m: number): string => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`
const minutes = (t: string): number => {
  const [h, m] = t.split(':').map(Number)
  return (h ?? 0) * 60 + (m ?? 0)
}
/** Weekdays in the order of this region's weeks. */
const week = DAYS.map((_, n) => (firstWeekday() + n) % 7)
const label = (what: string): string => (props.whose ? `${what}, ${props.whose}` : what)
</script>

<template>
  <div v-for="(h, i) in hours" :key="i" class="d-flex gap-2 mb-1 align-items-center">
    <BFormSelect v-model.number="h.weekday" size="sm" :aria-label="label($t('workshop.hoursEditor.day'))">
      <option v-for="n in week" :key="n" :value="n">{{ DAYS[n] }}</option>
    </BFormSelect>
    <DateField
      kind="time"
      bare
      required
      :value="text(h.from)"
      :label="label($t('workshop.hoursEditor.from'))"
      @done="h.from = minutes($event)"
    />
    <DateField
      kind="time"
      bare
      required
      :value="text(h.to)"
      :label="label($t('workshop.hoursEditor.to'))"
      @done="h.to = minutes($event)"
    />
    <BButton
      variant="quiet"
      size="sm"
      :aria-label="label($t('workshop.hoursEditor.removeTheseHours'))"
      @click="hours.splice(i, 1)"
    >
      ×
    </BButton>
  </div>
  <BButton variant="quiet" size="sm" @click="hours.push({ weekday: 6, from: 600, to: 720 })">
    {{ $t('workshop.hoursEditor.addHours') }}
  </BButton>
</template>
