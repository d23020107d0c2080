<script setup lang="ts">
import { BModal } from 'bootstrap-vue-next/components/BModal'

const open = defineModel<boolean>({ required: true })
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
  <BModal v-model="open" title="Shortcuts" ok-only ok-title="Close" ok-variant="primary" button-size="sm" centered>
    <dl class="facts">
      <template v-for="[k, what] in KEYS" :key="k"
        ><dt>
          <kbd>{{ k }}</kbd>
        </dt>
        <dd class="text-start">{{ what }}</dd></template
      >
    </dl>
  </BModal>
</template>
