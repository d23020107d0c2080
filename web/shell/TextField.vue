<script setup lang="ts">
import { BFormInvalidFeedback } from 'bootstrap-vue-next/components/BForm'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { computed, useId } from 'vue'

/**
 * A line of text with what is wrong with it below; it runs from right to left where its text does.
 *
 * @prop label in view, or only for who does not see the field
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{ modelValue: string; label: string; fault?: string; bare?: boolean; placeholder?: string }>()
defineEmits<{ 'update:modelValue': [text: string] }>()
const id = useId()
const wrong = computed(() => Boolean(props.fault))
</script>

<template>
  <div>
    <label :for="id" :class="bare ? 'visually-hidden' : 'soft small'">{{ label }}</label>
    <BFormInput
      v-bind="$attrs"
      :id="id"
      size="sm"
      dir="auto"
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
