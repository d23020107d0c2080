<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import type { Workshop } from '../../../contract/workshop'
import HoursEditor from './HoursEditor.vue'
import DateField from '../../shell/DateField.vue'
import { dateText } from '../../manner'
import type { useFieldFaults } from '../../composables/useFieldFaults'
import TextField from '../../shell/TextField.vue'
import { text } from '../../i18n'

/** Who works here, with hours of their own and days off. */
/** @prop faults what is wrong with their fields, by path */
defineProps<{ faults?: Pick<ReturnType<typeof useFieldFaults>, 'of' | 'mend'> }>()
const people = defineModel<Workshop['people']>({ required: true })
type Person = Workshop['people'][number]
const own = (p: Person, on: boolean, usual: Person['hours']): void => {
  p.hours = on ? (usual ?? []) : null
}
function off(p: Person, day: string): void {
  if (/^\d{4}-\d\d-\d\d$/.test(day) && !p.off.includes(day)) p.off = [...p.off, day].sort()
}
</script>

<template>
  <h2 class="mt-4 mb-2">{{ $t('workshop.peoplePanel.people') }}</h2>
  <p v-if="people.length === 0" class="soft small">{{ $t('workshop.peoplePanel.onePersonWorksIn') }}</p>
  <div v-for="(p, i) in people" :key="i" class="sheet p-2 mb-2">
    <div class="d-flex gap-2">
      <TextField
        v-model="p.name"
        class="flex-grow-1"
        bare
        :label="$t('workshop.peoplePanel.person', { i: i + 1 })"
        :fault="faults?.of(`people.${i}.name`)"
        @update:model-value="faults?.mend(`people.${i}.name`)"
      />
      <BButton
        variant="quiet"
        size="sm"
        :aria-label="$t('workshop.peoplePanel.remove', { name: p.name })"
        @click="people.splice(i, 1)"
      >
        ×
      </BButton>
    </div>
    <BFormCheckbox
      class="small mt-1"
      :model-value="p.hours !== null"
      @update:model-value="own(p, Boolean($event), [])"
      >{{ $t('workshop.peoplePanel.hasOwnHours') }}</BFormCheckbox
    >
    <HoursEditor v-if="p.hours" v-model="p.hours" :whose="p.name" />
    <DateField
      :key="p.off.length"
      class="mt-1"
      value=""
      :label="$t('workshop.peoplePanel.aDayOff')"
      :spoken="$t('workshop.peoplePanel.aDayOffOf', { name: p.name })"
      @done="off(p, $event)"
    />
    <span v-for="d in p.off" :key="d" class="small me-2"
      >{{ dateText(d, 'date') }}
      <BButton
        variant="quiet"
        size="sm"
        class="py-0 px-1"
        :aria-label="$t('workshop.peoplePanel.removeSDayOff', { name: p.name, d: dateText(d, 'date') })"
        @click="p.off = p.off.filter((x) => x !== d)"
      >
        ×
      </BButton></span
    >
  </div>
  <BButton
    variant="quiet"
    size="sm"
    @click="people.push({ name: text('names.person', { n: people.length + 1 }), hours: null, off: [] })"
  >
    {{ $t('workshop.peoplePanel.addAPerson') }}
  </BButton>
</template>
