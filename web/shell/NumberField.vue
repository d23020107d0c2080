<script setup lang="ts" generic="T extends number | null">
import { BFormInvalidFeedback } from 'bootstrap-vue-next/components/BForm'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { computed, ref, watch } from 'vue'
import { keptValue, plainNumber, shownValue } from '../../core/words/manner'
import { text as message } from '../i18n'
import { manner, unitName } from '../manner'
import { arithmetic } from './arithmetic'

/**
 * A number with its unit. What is typed may be a sum and have any unit of the same measure; it is shown in the unit that
 * was chosen for such, and kept in the field's own.
 *
 * @prop unit in which the value and its limits are kept
 * @prop bare without its label in view, as in a table or in a sentence
 * @prop spoken names it where its label alone would not
 * @prop whole takes whole numbers only
 * @prop optional may be left empty: null
 */
const props = withDefaults(
  defineProps<{
    modelValue: T
    label: string
    unit?: string
    step?: number
    min?: number
    max?: number
    digits?: number
    source?: string
    spoken?: string
    bare?: boolean
    whole?: boolean
    optional?: boolean
    placeholder?: string
  }>(),
  { unit: '', step: 1, min: -Infinity, max: Infinity, digits: 2, source: '', spoken: undefined, placeholder: '' },
)
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
const unitShown = computed(() => unitName(props.unit))
const more = computed(() => shownValue(0, props.unit, manner).more)
/** In the shown unit, without zeros at its end, and with a point or a comma as the region has it. */
const show = (v: number | null): string =>
  v === null
    ? ''
    : plainNumber(
        Number(shownValue(v, props.unit, manner).value.toFixed((props.whole ? 0 : props.digits) + more.value)),
        manner,
      )
/** The limits as a sentence, those that there are. */
const limits = (): string => {
  const unit = unitShown.value ? ` ${unitShown.value}` : ''
  const [min, max] = [show(props.min), show(props.max)]
  if (props.min === -Infinity) return message('shell.numberField.atMost', { max, unit })
  return props.max === Infinity
    ? message('shell.numberField.atLeast', { min, unit })
    : message('shell.numberField.betweenAnd', { min, max, unit })
}
/** something was typed that is not settled yet */
let typed = false
const text = ref(show(props.modelValue))
const wrong = ref('')
watch(
  () => props.modelValue,
  (v) => {
    // What is being typed stays, whatever comes from elsewhere meanwhile.
    if (!typed) text.value = show(v)
  },
)
/** What stands in the field, in the unit in which it is kept; null of what is no number. */
const kept = (): number | null => {
  const v = arithmetic(text.value, unitShown.value)
  return v === null ? null : keptValue(v, props.unit, manner)
}
function settle(): void {
  // Left without a change, a field stays as it is: a sentence that vanished would move what the hand is about to press.
  if (!typed) return
  typed = false
  if (props.optional && text.value.trim() === '') {
    wrong.value = ''
    if (props.modelValue !== null) emit('update:modelValue', null as T)
    return
  }
  const v = kept()
  if (v === null) {
    wrong.value = message('shell.numberField.typeANumberOr')
    return
  }
  const bounded = Math.min(props.max, Math.max(props.min, props.whole ? Math.round(v) : v))
  // What was converted may be beside a limit by the last bit only.
  const by = 1e-9 * Math.max(1, Math.abs(v))
  wrong.value = v < props.min - by || v > props.max + by ? limits() : ''
  text.value = show(bounded)
  if (bounded !== props.modelValue) emit('update:modelValue', bounded as T)
}
function nudge(n: number): void {
  const v = kept() ?? props.modelValue ?? 0
  text.value = show(Math.min(props.max, Math.max(props.min, v + n * props.step)))
  typed = true
  settle()
}
</script>

<template>
  <label class="field" :class="{ bare }">
    <span v-if="!bare" class="name"
      >{{ label
      }}<span v-if="source" class="source" :title="$t('shell.numberField.sourceOfThisValue', { source })">{{
        source
      }}</span></span
    >
    <span class="entry">
      <BFormInput
        v-model="text"
        size="sm"
        class="num"
        inputmode="decimal"
        :placeholder="placeholder"
        :aria-label="spoken ?? label"
        :aria-invalid="wrong !== ''"
        :state="wrong === '' ? null : false"
        @input="typed = true"
        @blur="settle"
        @change="settle"
        @keydown.enter.prevent="settle"
        @keydown.up.prevent="nudge($event.shiftKey ? 10 : 1)"
        @keydown.down.prevent="nudge($event.shiftKey ? -10 : -1)"
      />
      <span v-if="!bare || unit" class="unit soft">{{ unitShown }}</span>
    </span>
    <BFormInvalidFeedback v-if="wrong" :state="false" tag="span" class="wrong">{{ wrong }}</BFormInvalidFeedback>
  </label>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  gap: 2px 10px;
  margin-bottom: 5px;
}
.name {
  display: flex;
  flex-direction: column;
  line-height: 1.15;
}
.source {
  font-size: 0.76rem;
  color: var(--ink-soft);
}
.entry {
  display: grid;
  grid-template-columns: 82px 34px;
  gap: 6px;
  align-items: center;
}
.bare {
  display: inline-grid;
  grid-template-columns: auto;
  margin: 0;
}
.bare .entry {
  grid-template-columns: minmax(48px, 82px) auto;
}
.unit {
  font-size: 0.85rem;
}
.wrong {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 0.82rem;
  text-align: right;
}
</style>
