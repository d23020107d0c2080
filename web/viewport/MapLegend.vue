<script setup lang="ts">
import { computed } from 'vue'
import { scaleGradient, type Scale } from './mapColours'

const props = defineProps<{ title: string; scale: Scale; unit: string }>()
const ticks = computed(() =>
  [0, 0.5, 1].map((t) => {
    const { from, to, shownBy = 1 } = props.scale
    return Number((shownBy * (from + t * (to - from))).toPrecision(2))
  }),
)
</script>

<template>
  <div
    class="legend"
    role="img"
    :aria-label="$t('viewport.mapLegend.fromTo', { title, ticks: ticks[0], ticks2: ticks[2], unit })"
  >
    <span>{{ title }}</span>
    <span class="bar" :style="{ background: scaleGradient(scale.kind) }" />
    <span class="ticks num"
      ><span>{{ ticks[0] }}</span
      ><span>{{ ticks[1] }}</span
      ><span>{{ ticks[2] }} {{ unit }}</span></span
    >
  </div>
</template>

<style scoped>
.legend {
  position: absolute;
  right: 14px;
  top: 12px;
  width: 230px;
  padding: 7px 10px 5px;
  border-radius: 5px;
  background: rgb(251 247 239 / 92%);
  border: 1px solid var(--line);
  font-size: 0.84rem;
  display: grid;
  gap: 3px;
}
.bar {
  height: 9px;
  border-radius: 2px;
}
.ticks {
  display: flex;
  justify-content: space-between;
}
</style>
