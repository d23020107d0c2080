<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { nextTick, useTemplateRef } from 'vue'

/**
 * A select whose value belongs to whoever gives it: what is chosen is told, and shown once it is given back. A choice that was
 * refused goes back, and a menu whose value is always '' shows its first line again. The library's select keeps what was chosen.
 */
const props = defineProps<{ modelValue: string | number | null | undefined }>()
const emit = defineEmits<{ 'update:modelValue': [value: unknown] }>()
const select = useTemplateRef<{ element: HTMLSelectElement | null }>('select')
async function chosen(value: unknown): Promise<void> {
  emit('update:modelValue', value)
  await nextTick()
  const shown = select.value?.element
  if (shown) shown.value = String(props.modelValue ?? '')
}
</script>

<template>
  <BFormSelect ref="select" :model-value="modelValue ?? ''" @update:model-value="chosen"><slot /></BFormSelect>
</template>
