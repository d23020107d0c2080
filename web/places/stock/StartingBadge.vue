<script setup lang="ts">
import { BBadge } from 'bootstrap-vue-next/components/BBadge'

/** Marks what came with the starter stock and whose figures nobody has set yet. */
</script>

<template>
  <BBadge variant="warning" :title="$t('stock.startingBadge.why')">{{
    $t('stock.startingBadge.startingValues')
  }}</BBadge>
</template>
