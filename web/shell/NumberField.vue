<script setup lang="ts">
import { BFormInvalidFeedback } from 'bootstrap-vue-next/components/BForm'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { ref, watch } from 'vue'
import { text as message } from '../i18n'
import { arithmetic } from './arithmetic'

const props = withDefaults(
  defineProps<{
    modelValue: number
    label: string
    unit?: string
    step?: number
    min?: number
    max?: number
    digits?: number
    source?: string
  }>(),
  { unit: '', step: 1, min: -Infinity, max: Infinity, digits: 2, source: '' },
)
const emit = defineEmits<{ 'update:modelValue': [value: number] }>()
/** The limits as a sentence, those that there are. */
const limits = (): string => {
  const unit = props.unit ? ` ${props.unit}` : ''
  if (props.min === -Infinity) return message('shell.numberField.atMost', { max: props.max, unit })
  return props.max === Infinity
    ? message('shell.numberField.atLeast', { min: props.min, unit })
    : message('shell.numberField.betweenAnd', { min: props.min, max: props.max, unit })
}
const show = (v: number): string => String(Number(v.toFixed(props.digits)))
const text = ref(show(props.modelValue))
const wrong = ref('')
watch(
  () => props.modelValue,
  (v) => {
    text.value = show(v)
  },
)
/** something was typed that is not settled yet */
let typed = false
function settle(): void {
  // Left without a change, a field stays as it is: a sentence that vanished would move what the hand is about to press.
  if (!typed) return
  typed = false
  const v = arithmetic(text.value)
  if (v === null) {
    wrong.value = message('shell.numberField.typeANumberOr')
    return
  }
  const bounded = Math.min(props.max, Math.max(props.min, v))
  wrong.value = bounded !== v ? limits() : ''
  text.value = show(bounded)
  if (bounded !== props.modelValue) emit('update:modelValue', bounded)
}
function nudge(n: number): void {
  const v = arithmetic(text.value) ?? props.modelValue
  text.value = show(Math.min(props.max, Math.max(props.min, v + n * props.step)))
  typed = true
  settle()
}
</script>

<template>
  <label class="field">
    <span class="name"
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
        :aria-label="label"
        :aria-invalid="wrong !== ''"
        :state="wrong === '' ? null : false"
        @input="typed = true"
        @blur="settle"
        @keydown.enter.prevent="settle"
        @keydown.up.prevent="nudge($event.shiftKey ? 10 : 1)"
        @keydown.down.prevent="nudge($event.shiftKey ? -10 : -1)"
      />
      <span class="unit soft">{{ unit }}</span>
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
