<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { ref } from 'vue'
import { pointerDrag } from '../../composables/pointerDrag'

/** Drops of one paint: a line of places for drops, set by dragging along it. */
const props = withDefaults(defineProps<{ name: string; hex: string; drops: number; most?: number }>(), { most: 12 })
const emit = defineEmits<{ set: [drops: number]; away: [] }>()
const line = ref<HTMLElement | null>(null)
function at(e: PointerEvent): void {
  const b = line.value!.getBoundingClientRect()
  const n = Math.round(((e.clientX - b.left) / b.width) * props.most)
  emit('set', Math.max(0, Math.min(props.most, n)))
}
let before = 0
const drag = pointerDrag({
  start: (e) => {
    before = props.drops
    at(e)
    return true
  },
  move: at,
  end: () => undefined,
  cancel: () => emit('set', before),
})
function key(e: KeyboardEvent): void {
  const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[e.key]
  if (by === undefined) return
  e.preventDefault()
  emit('set', Math.max(0, Math.min(props.most, props.drops + by)))
}
</script>

<template>
  <div class="paint-line">
    <span class="swatch" :style="{ background: hex }" />
    <span class="name">{{ name }}</span>
    <div
      ref="line"
      class="line"
      role="slider"
      tabindex="0"
      :aria-label="$t('mixing.dropLine.dropsOf', { name })"
      :aria-valuenow="drops"
      aria-valuemin="0"
      :aria-valuemax="most"
      v-on="drag"
      @keydown="key"
    >
      <i v-for="n in most" :key="n" :style="n <= drops ? { background: hex } : {}" :class="{ full: n <= drops }" />
    </div>
    <b class="num">{{ drops }}</b>
    <BButton variant="quiet" size="sm" :aria-label="$t('mixing.dropLine.remove', { name })" @click="emit('away')"
      >×</BButton
    >
  </div>
</template>

<style scoped>
.paint-line {
  display: grid;
  grid-template-columns: auto 122px 1fr 24px auto;
  gap: 10px;
  align-items: center;
  padding: 3px 0;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  align-items: center;
  height: 26px;
  cursor: ew-resize;
  touch-action: none;
  background: linear-gradient(var(--line), var(--line)) center / 100% 1px no-repeat;
}
.line i {
  justify-self: end;
  width: 10px;
  height: 10px;
  border-radius: 50% 50% 50% 12%;
  rotate: 45deg;
  background: var(--paper);
  border: 1px solid var(--line);
}
.line i.full {
  width: 15px;
  height: 15px;
  border-color: rgba(0, 0, 0, 0.35);
}
</style>
