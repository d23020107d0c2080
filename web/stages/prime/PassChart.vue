<script setup lang="ts">
import { computed } from 'vue'
import { text } from '../../i18n'
import type { Inspection } from '../../../contract/flaws'

/** How many flaws each pass found: it should fall, and end with none. */
const props = defineProps<{ passes: Inspection['passes'] }>()
const most = computed(() => Math.max(1, ...props.passes.map((p) => p.found)))
const WIDE = 46,
  TALL = 64
const bars = computed(() => props.passes.map((p, i) => ({ ...p, x: i * WIDE, h: (TALL * p.found) / most.value })))
const words = computed(() =>
  props.passes.map((p) => text('prime.passChart.pass', { pass: p.pass, found: p.found })).join(', '),
)
</script>

<template>
  <svg
    class="passes"
    role="img"
    :aria-label="$t('prime.passChart.flawsFound', { words })"
    :viewBox="`0 0 ${Math.max(6, passes.length) * WIDE} ${TALL + 34}`"
  >
    <line x1="0" :x2="Math.max(6, passes.length) * WIDE" :y1="TALL + 16" :y2="TALL + 16" class="ground" />
    <g v-for="b in bars" :key="b.pass" :transform="`translate(${b.x} 0)`" :class="{ now: b.endedAt === null }">
      <rect x="8" :y="TALL + 16 - b.h" :width="WIDE - 16" :height="b.h" />
      <text :x="WIDE / 2" :y="TALL + 10 - b.h">{{ b.found }}</text>
      <text :x="WIDE / 2" :y="TALL + 30" class="soft">{{ b.pass }}</text>
    </g>
  </svg>
</template>

<style scoped>
.passes {
  width: 100%;
  max-height: 120px;
  display: block;
}
rect {
  fill: var(--note);
}
.now rect {
  fill: var(--open-flaw);
}
.ground {
  stroke: var(--line);
}
text {
  text-anchor: middle;
  font-size: 12px;
  fill: currentColor;
  font-variant-numeric: tabular-nums;
}
text.soft {
  fill: var(--ink-soft);
}
</style>
