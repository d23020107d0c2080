<script setup lang="ts">
import { onMounted, ref } from 'vue'
const emit = defineEmits<{ close: [] }>()
const close = ref<HTMLButtonElement | null>(null)
onMounted(() => close.value?.focus())
const KEYS = [
  ['?', 'this sheet'],
  ['1 … 9, 0', 'the first ten stages of the piece, in working order'],
  [', .', 'the stage before, the stage after'],
  ['u', 'undo the last operation'],
  ['U', 'do it again'],
  ['b', 'bench mode; in it: space begins and ends a step, p problem, n note, f photo, ← → other steps'],
  ['shift ← → ↑ ↓', 'in the calendar: the step a quarter of an hour, or a day, earlier or later'],
  ['← →', 'turn the table (when the sculpt has focus)'],
  ['↑ ↓', 'step a number; with shift ten steps'],
]
</script>

<template>
  <div class="veil" role="dialog" aria-modal="true" aria-label="Shortcuts" @click.self="emit('close')">
    <div class="sheet p-4">
      <h2 class="mb-3">Shortcuts</h2>
      <dl class="facts">
        <template v-for="[k, what] in KEYS" :key="k"
          ><dt>
            <kbd>{{ k }}</kbd>
          </dt>
          <dd class="text-start">{{ what }}</dd></template
        >
      </dl>
      <button ref="close" class="btn btn-sm btn-primary mt-3" @click="emit('close')">Close</button>
    </div>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  background: #0006;
  display: grid;
  place-items: center;
  z-index: 50;
}
</style>
