<script setup lang="ts">
import { BFormInvalidFeedback } from 'bootstrap-vue-next/components/BForm'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea'
import { computed, useAttrs, useId } from 'vue'

/**
 * A line of text with what is wrong with it below; it runs from right to left where its text does.
 *
 * @prop label in view, or only for who does not see the field
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  modelValue: string
  label: string
  fault?: string
  bare?: boolean
  placeholder?: string
  /** more than one: a text of several lines */
  lines?: number
}>()
defineEmits<{ 'update:modelValue': [text: string] }>()
const id = useId()
const attrs = useAttrs()
/** Its place on the page is the whole's, and all else the field's. */
const own = computed(() => Object.fromEntries(Object.entries(attrs).filter(([key]) => key !== 'class')))
const wrong = computed(() => Boolean(props.fault))
</script>

<template>
  <div :class="attrs.class">
    <label :for="id" :class="bare ? 'visually-hidden' : 'd-block soft small'">{{ label }}</label>
    <component
      :is="(lines ?? 1) > 1 ? BFormTextarea : BFormInput"
      v-bind="own"
      :id="id"
      size="sm"
      dir="auto"
      :rows="lines"
      :model-value="modelValue"
      :placeholder="placeholder"
      :state="wrong ? false : null"
      :aria-invalid="wrong"
      :aria-describedby="wrong ? `${id}-wrong` : undefined"
      @update:model-value="$emit('update:modelValue', String($event ?? ''))"
    />
    <BFormInvalidFeedback v-if="wrong" :id="`${id}-wrong`" :state="false" role="alert">{{
      fault
    }}</BFormInvalidFeedback>
  </div>
</template>
