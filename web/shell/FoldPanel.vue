<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BCollapse } from 'bootstrap-vue-next/components/BCollapse'
import { ChevronRight } from 'lucide-vue-next'
import { ref, useId, watch } from 'vue'

/** What is not needed at every visit: a title, and its content below once the title is clicked. */
const props = defineProps<{ open?: boolean }>()
const emit = defineEmits<{ toggle: [open: boolean] }>()
const id = useId()
const shown = ref(props.open ?? false)
watch(
  () => props.open,
  (open) => (shown.value = open ?? false),
)
function toggle(): void {
  shown.value = !shown.value
  emit('toggle', shown.value)
}
</script>

<template>
  <div class="fold" :class="{ open: shown }">
    <BButton variant="link" class="fold-title" :aria-expanded="shown" :aria-controls="id" @click="toggle">
      <ChevronRight :size="14" class="sign" aria-hidden="true" /><span><slot name="title" /></span>
    </BButton>
    <BCollapse :id="id" v-model="shown" no-animation><slot /></BCollapse>
  </div>
</template>

<style scoped>
.fold-title {
  display: flex;
  align-items: baseline;
  gap: 4px;
  width: 100%;
  padding: 2px 0;
  border: 0;
  color: inherit;
  text-align: left;
  text-decoration: none;
}
.sign {
  flex: none;
  align-self: center;
  color: var(--ink-soft);
  transition: rotate 0.15s;
}
.open > .fold-title .sign {
  rotate: 90deg;
}
</style>
