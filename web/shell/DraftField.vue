<script setup lang="ts">
import DraftInput from './DraftInput.vue'

/** A named field whose text is told when it is done; `spoken` names it where its label alone would not. */
defineOptions({ inheritAttrs: false })
withDefaults(defineProps<{ label: string; value: string; type?: string; spoken?: string }>(), {
  type: 'text',
  spoken: undefined,
})
defineEmits<{ done: [text: string] }>()
</script>

<template>
  <label class="draft"
    >{{ label }}
    <DraftInput
      v-bind="$attrs"
      :type="type"
      :value="value"
      :aria-label="spoken ?? label"
      @done="$emit('done', $event)"
    />
  </label>
</template>

<style scoped>
.draft {
  display: block;
  font-size: 0.87rem;
}
</style>
