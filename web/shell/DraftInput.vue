<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea'
import { ref, watch } from 'vue'

/**
 * A field whose text stays while one types in it, whatever arrives from elsewhere meanwhile: a bound value would be written
 * over it at every rendering. What was typed is told when it is done.
 */
const props = withDefaults(defineProps<{ value: string; lines?: number }>(), { lines: 1 })
const emit = defineEmits<{ done: [text: string] }>()
const text = ref(props.value)
let typing = false
watch(
  () => props.value,
  (v) => {
    if (!typing) text.value = v
  },
)
function begin(): void {
  typing = true
}
function end(): void {
  typing = false
  // A field of numbers gives a number.
  const now = String(text.value)
  if (now !== props.value) emit('done', now)
}
</script>

<template>
  <BFormTextarea v-if="lines > 1" v-model="text" size="sm" dir="auto" :rows="lines" @input="begin" @change="end" />
  <BFormInput v-else v-model="text" size="sm" dir="auto" @input="begin" @change="end" />
</template>
