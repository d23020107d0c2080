<script setup lang="ts">
import { BFormFile } from 'bootstrap-vue-next/components/BFormFile'
import { ref } from 'vue'

/**
 * A button that asks for files, reached by the keyboard as any field; the same file may be chosen again.
 *
 * @prop label names the field to who does not see the button
 */
withDefaults(
  defineProps<{
    label: string
    accept: string
    multiple?: boolean
    variant?: 'quiet' | 'primary' | 'bare'
    disabled?: boolean
    capture?: 'environment'
  }>(),
  { variant: 'quiet', capture: undefined },
)
const emit = defineEmits<{ files: [files: File[]] }>()
const root = ref<HTMLLabelElement | null>(null)
const key = ref(0)
function chosen(value: unknown): void {
  if (!value) return
  emit('files', (Array.isArray(value) ? value : [value]) as File[])
  // A new field: the same file may be chosen twice.
  key.value++
}
defineExpose({ open: () => root.value?.click() })
</script>

<template>
  <label
    ref="root"
    class="ask"
    :class="variant === 'bare' ? '' : `btn btn-sm btn-${variant}${disabled ? ' disabled' : ''}`"
    :aria-disabled="disabled || undefined"
    ><slot /><BFormFile
      :key="key"
      plain
      class="visually-hidden"
      :accept="accept"
      :multiple="multiple"
      :disabled="disabled"
      :capture="capture"
      :aria-label="label"
      @update:model-value="chosen"
  /></label>
</template>

<style scoped>
.ask {
  position: relative;
  margin: 0;
  cursor: pointer;
}
.ask:focus-within {
  outline: 2px solid var(--action);
  outline-offset: 2px;
}
</style>
