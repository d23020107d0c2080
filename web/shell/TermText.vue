<script setup lang="ts">
import { BTooltip } from 'bootstrap-vue-next/components/BTooltip'
import { computed, inject } from 'vue'
import { explained } from '../../core/words/glossary'
import { KNOWN_TERMS } from './knownTerms'

/** A sentence whose words of the craft are explained where they are first used on a screen. */
const props = defineProps<{ text: string }>()
const screen = inject(KNOWN_TERMS, null)
/** Which terms this text explains, taken once: a text that changes does not lose them to its neighbours. */
const mine = new Set<string>()
const pieces = computed(() => {
  const others = new Set([...(screen ?? [])].filter((m) => !mine.has(m)))
  const before = new Set(others)
  const list = explained(props.text, others)
  for (const meaning of others) {
    if (before.has(meaning)) continue
    mine.add(meaning)
    screen?.add(meaning)
  }
  return list
})
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i">
    <BTooltip v-if="piece.meaning" :delay="{ show: 250, hide: 0 }">
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
