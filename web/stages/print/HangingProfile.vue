<script setup lang="ts">
import { computed } from 'vue'

/** The print as it hangs in the printer: the plate on top, each layer as wide as its area, lit down to where it has come. */
const props = defineProps<{
  areas: readonly number[]
  layerHeight: number
  /** layers printed, and the one that is looked at */
  done: number
  layer: number
  islands: readonly { layer: number }[]
  cups: readonly { firstLayer: number; lastLayer: number }[]
  stops: readonly { layer: number; why: string }[]
}>()
const emit = defineEmits<{ pick: [layer: number] }>()
const WIDE = 150,
  TALL = 540
const layers = computed(() => props.areas.length)
const y = (layer: number): number => 10 + (layer / Math.max(1, layers.value)) * TALL
/** Half the width of a square of that area. A raft is far wider than what hangs on it, and would make all else thin: it is cut off. */
const half = computed(() => {
  const sorted = [...props.areas].sort((a, b) => a - b)
  const most = Math.sqrt(Math.max(1e-6, 1.3 * (sorted[Math.floor(0.95 * sorted.length)] ?? 0)))
  const step = Math.max(1, Math.floor(layers.value / 300))
  const out: { layer: number; w: number }[] = []
  for (let i = 0; i < layers.value; i += step) {
    // The widest of a bundle stands for it: a thin layer in between must not hide a broad one.
    const area = Math.max(...props.areas.slice(i, i + step))
    out.push({ layer: i, w: Math.min(1, Math.sqrt(area) / most) * (WIDE / 2 - 8) })
  }
  return out
})
const outline = (from: number, to: number): string => {
  const rows = half.value.filter((h) => h.layer >= from && h.layer < to)
  if (rows.length === 0) return ''
  const right = rows.map((h) => `${(WIDE / 2 + h.w).toFixed(1)} ${y(h.layer).toFixed(1)}`)
  const left = rows.map((h) => `${(WIDE / 2 - h.w).toFixed(1)} ${y(h.layer).toFixed(1)}`).reverse()
  return `M${right.join('L')}L${left.join('L')}Z`
}
const ticks = computed(() => {
  const height = layers.value * props.layerHeight
  const step = [5, 10, 20, 50, 100].find((s) => height / s <= 8) ?? 200
  return Array.from({ length: Math.floor(height / step) + 1 }, (_, i) => i * step)
})
function pick(e: MouseEvent): void {
  const svg = e.currentTarget as SVGSVGElement
  const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM()!.inverse())
  emit('pick', Math.min(layers.value - 1, Math.max(0, Math.floor(((at.y - 10) / TALL) * layers.value))))
}
</script>

<template>
  <svg
    class="profile"
    :viewBox="`-34 0 ${WIDE + 40} ${TALL + 24}`"
    role="img"
    :aria-label="$t('print.hangingProfile.thePrintAsIt', { done, layers })"
    @click="pick"
  >
    <rect class="plate" x="0" y="2" :width="WIDE" height="8" rx="1" />
    <path class="to-come" :d="outline(0, layers)" />
    <path class="printed" :d="outline(0, done)" />
    <g v-for="t in ticks" :key="t">
      <line class="tick" x1="-6" x2="0" :y1="y(t / layerHeight)" :y2="y(t / layerHeight)" />
      <text x="-9" :y="y(t / layerHeight) + 4">{{ t }}</text>
    </g>
    <rect
      v-for="(c, i) in cups"
      :key="`c${i}`"
      class="cup"
      :x="WIDE - 5"
      :y="y(c.firstLayer)"
      width="5"
      :height="Math.max(2, y(c.lastLayer) - y(c.firstLayer))"
    >
      <title>
        {{ $t('print.hangingProfile.sealedCupLayersTo', { firstLayer: c.firstLayer + 1, lastLayer: c.lastLayer + 1 }) }}
      </title>
    </rect>
    <path v-for="(s, i) in islands" :key="`i${i}`" class="island" :d="`M${WIDE - 12} ${y(s.layer)}l7 -4v8z`">
      <title>{{ $t('print.hangingProfile.startsInTheAir', { layer: s.layer + 1 }) }}</title>
    </path>
    <g v-for="(s, i) in stops" :key="`s${i}`">
      <line class="stop" x1="0" :x2="WIDE" :y1="y(s.layer)" :y2="y(s.layer)">
        <title>{{ $t('print.hangingProfile.stoppedAtLayer', { layer: s.layer + 1, why: s.why }) }}</title>
      </line>
    </g>
    <line v-if="done > 0 && done < layers" class="film" x1="-2" :x2="WIDE + 2" :y1="y(done)" :y2="y(done)" />
    <line class="looked" x1="0" :x2="WIDE" :y1="y(layer + 0.5)" :y2="y(layer + 0.5)" />
  </svg>
</template>

<style scoped>
.profile {
  width: 100%;
  height: 100%;
  cursor: ns-resize;
}
.plate {
  fill: var(--part-line);
}
.to-come {
  fill: var(--profile-rest);
  stroke: var(--drawing-line);
  stroke-width: 0.8;
}
.printed {
  fill: var(--resin);
}
.film {
  stroke: var(--action);
  stroke-width: 3;
}
.looked {
  stroke: var(--problem);
  stroke-width: 1;
}
.stop {
  stroke: var(--warning);
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}
.cup {
  fill: var(--warning);
}
.island {
  fill: var(--problem);
}
.tick {
  stroke: var(--profile-scale);
}
text {
  font-size: 11px;
  text-anchor: end;
  fill: var(--ink-soft);
}
</style>
