<script setup lang="ts">
import { BDatePicker } from 'bootstrap-vue-next/components/BDatePicker'
import { BFormInvalidFeedback } from 'bootstrap-vue-next/components/BForm'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { parseDate, type DateValue } from '@internationalized/date'
import { CalendarDays } from 'lucide-vue-next'
import { computed, ref, useId, watch } from 'vue'
import { dayAt } from '../../core/math/wallClock'
import { dateTyped, momentTyped, timeTyped, typedAs } from '../../core/words/dates'
import { text } from '../i18n'
import { dateLocale, firstWeekday } from '../manner'

/**
 * A day, a time, or both, typed as the region writes them or, a day, taken from a calendar. What is typed stays until it is
 * read; of what is none, it is said beside the field how one writes it.
 *
 * @prop value "2026-11-30", "09:05" or "2026-11-30T09:05"; empty where none is set
 * @prop label name of the field, which is in view unless `bare`; `spoken` names it where its label alone would not
 */
const props = withDefaults(
  defineProps<{
    value: string
    label: string
    kind?: 'date' | 'time' | 'moment'
    bare?: boolean
    /** left empty it is as it was */
    required?: boolean
    spoken?: string
    max?: string
  }>(),
  { kind: 'date', spoken: undefined, max: undefined },
)
const emit = defineEmits<{ done: [kept: string] }>()
const id = useId()
const shown = (kept: string): string => (kept === '' ? '' : typedAs(kept, dateLocale))
const typed = ref(shown(props.value)),
  wrong = ref('')
let typing = false
watch(
  () => props.value,
  (v) => {
    if (!typing) typed.value = shown(v)
  },
)
const read = (s: string): string | null =>
  props.kind === 'time'
    ? timeTyped(s)
    : props.kind === 'date'
      ? dateTyped(s, dateLocale, dayAt())
      : momentTyped(s, dateLocale, dayAt())
const EXAMPLE = { date: '2026-11-30', time: '21:30', moment: '2026-11-30T21:30' }
function begin(): void {
  typing = true
  wrong.value = ''
}
function end(): void {
  if (!typing) return
  const kept = typed.value.trim() === '' ? (props.required ? props.value : '') : read(typed.value)
  if (kept === null)
    wrong.value = text('shell.dateField.isNone', {
      typed: typed.value,
      kind: props.kind,
      example: typedAs(EXAMPLE[props.kind], dateLocale),
    })
  else if (props.max && kept > props.max) wrong.value = text('shell.dateField.isLater', { max: shown(props.max) })
  else tell(kept)
}
function tell(kept: string): void {
  typing = false
  wrong.value = ''
  typed.value = shown(kept)
  if (kept !== props.value) emit('done', kept)
}
const day = computed(() => {
  const kept = props.value.slice(0, 10)
  return /^\d{4}-\d\d-\d\d$/.test(kept) ? parseDate(kept) : null
})
function picked(v: unknown): void {
  if (!v) return
  const time = props.kind === 'moment' ? `T${props.value.slice(11, 16) || '09:00'}` : ''
  tell(`${(v as DateValue).toString().slice(0, 10)}${time}`)
}
const weekStart = (firstWeekday() % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6
</script>

<template>
  <div class="date-field">
    <label :for="id" :class="bare ? 'visually-hidden' : 'd-block soft small'">{{
      bare ? (spoken ?? label) : label
    }}</label>
    <BDatePicker
      v-if="kind !== 'time'"
      size="sm"
      :model-value="day"
      :max-value="max ? parseDate(max) : undefined"
      :locale="dateLocale"
      :week-starts-on="weekStart"
      :state="wrong ? false : null"
      prevent-deselect
      @update:model-value="picked"
    >
      <template #field>
        <!-- The picker’s own keys go from part to part of a date; here they move in the text. -->
        <BFormInput
          :id="id"
          v-model="typed"
          size="sm"
          autocomplete="off"
          :aria-label="spoken"
          :aria-invalid="wrong !== ''"
          :aria-describedby="wrong ? `${id}-wrong` : undefined"
          :placeholder="shown(EXAMPLE[kind])"
          @input="begin"
          @change="end"
          @keydown.stop
          @keydown.enter.prevent="end"
        />
      </template>
      <template #trigger-icon
        ><CalendarDays :size="14" aria-hidden="true" /><span class="visually-hidden">{{
          $t('shell.dateField.openCalendar', { label: spoken ?? label })
        }}</span></template
      >
    </BDatePicker>
    <BFormInput
      v-else
      :id="id"
      v-model="typed"
      size="sm"
      autocomplete="off"
      :aria-label="spoken"
      :state="wrong ? false : null"
      :aria-describedby="wrong ? `${id}-wrong` : undefined"
      @input="begin"
      @change="end"
    />
    <BFormInvalidFeedback v-if="wrong" :id="`${id}-wrong`" :state="false" role="alert">{{
      wrong
    }}</BFormInvalidFeedback>
  </div>
</template>

<style>
.date-field .b-date-picker-field {
  padding: 0 0 0 0.5rem;
}
.date-field .b-date-picker-field input {
  min-width: 6.5em;
  padding: 0.25rem 0;
  border: 0;
  outline: 0;
  box-shadow: none;
  background: none;
  color: inherit;
}
.date-field .b-date-picker-field:focus-within {
  border-color: var(--action);
}
.b-date-picker-trigger,
.b-date-picker-content .btn {
  --bs-btn-color: var(--action);
  --bs-btn-border-color: var(--line);
  --bs-btn-hover-color: var(--action);
  --bs-btn-hover-bg: var(--paper-sunk);
  --bs-btn-hover-border-color: var(--line);
  --bs-btn-active-color: var(--action);
  --bs-btn-active-bg: var(--paper-sunk);
  --bs-btn-active-border-color: var(--line);
}
.b-date-picker-trigger {
  border: 0;
  line-height: 1;
}
.b-date-picker-content {
  z-index: 1060;
}
.b-date-picker-head-cell {
  font-weight: 500;
  font-size: 0.85rem;
  text-align: center;
  color: var(--ink-soft);
}
.b-date-picker-cell {
  padding: 1px;
  text-align: center;
}
.b-date-picker-cell-trigger {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  width: 2rem;
  height: 2rem;
  border-radius: 4px;
  font-size: 0.85rem;
  cursor: pointer;
}
.b-date-picker-cell-trigger:hover {
  background: var(--line);
}
.b-date-picker-cell-trigger[data-today] {
  font-weight: 700;
}
.b-date-picker-cell-trigger[data-selected] {
  background: var(--action);
  color: var(--white);
}
.b-date-picker-cell-trigger[data-outside-view],
.b-date-picker-cell-trigger[data-disabled] {
  opacity: 0.5;
}
</style>
