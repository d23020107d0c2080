<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'

/** What went wrong, as a sentence beside what caused it; nothing while nothing did. */
defineProps<{ text: string | null | undefined }>()
</script>

<template>
  <BAlert v-if="text" :model-value="true" variant="danger">{{ text }}</BAlert>
</template>
