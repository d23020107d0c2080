<script setup lang="ts">
import { ref, watch } from 'vue'
import type { z } from 'zod'
import { issueSaid } from '../../contract/issues'
import { say } from '../../core/words/say'
import { manner } from '../manner'
import TextField from './TextField.vue'

/**
 * A named text that is told once it is left, as its schema has it; what the schema does not take is said below, and stays
 * until it is mended. What arrives from elsewhere is shown, but never over what is being typed.
 */
const props = defineProps<{ value: string; label: string; schema: z.ZodType<string>; lines?: number }>()
const emit = defineEmits<{ done: [text: string] }>()
const typed = ref(props.value),
  fault = ref('')
let typing = false
watch(
  () => props.value,
  (v) => {
    if (!typing) typed.value = v
  },
)
function type(v: string): void {
  typing = true
  typed.value = v
  fault.value = ''
}
function end(): void {
  if (!typing) return
  const read = props.schema.safeParse(typed.value, { reportInput: true })
  if (!read.success) {
    fault.value = say(issueSaid(read.error.issues[0]!, false), manner)
    return
  }
  typing = false
  typed.value = read.data
  if (read.data !== props.value) emit('done', read.data)
}
</script>

<template>
  <TextField
    :model-value="typed"
    :label="label"
    :fault="fault"
    :lines="lines"
    @update:model-value="type"
    @change="end"
  />
</template>
