<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'

/** A colour, "#rrggbb", told once it is chosen and not at every move over the palette. */
defineProps<{ value: string; label: string }>()
defineEmits<{ chosen: [hex: string] }>()
</script>

<template>
  <BFormInput
    type="color"
    size="sm"
    :model-modifiers="{ lazy: true }"
    :model-value="value"
    :aria-label="label"
    @update:model-value="$emit('chosen', String($event))"
  />
</template>
