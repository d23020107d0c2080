<script setup lang="ts">
import { BTooltip } from 'bootstrap-vue-next/components/BTooltip'
import type { TextPiece } from '../../core/words/glossary'

/** A sentence cut at words of the craft, which explain themselves when one points at them. */
defineProps<{ pieces: readonly TextPiece[] }>()
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i">
    <BTooltip v-if="piece.meaning" lazy :delay="{ show: 250, hide: 0 }">
      <template #target
        ><dfn class="term" tabindex="0">{{ piece.text }}</dfn></template
      >{{ piece.meaning }}
    </BTooltip>
    <template v-else>{{ piece.text }}</template>
  </template>
</template>

<style scoped>
.term {
  font-style: normal;
  text-decoration: underline dotted var(--ink-soft);
  text-underline-offset: 3px;
  cursor: help;
}
</style>
