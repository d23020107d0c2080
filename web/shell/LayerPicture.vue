<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { text, fixed } from '../i18n'
import { pointerDrag } from '../composables/pointerDrag'

/**
 * A layer as the panel shows it: the whole of it, or so near that each pixel is seen. The wheel goes nearer and farther about
 * the pointer, dragging moves it, and the place under the pointer is read off in millimetres from the plate's middle.
 */
const props = defineProps<{ src: string; alt: string; pixels: [number, number]; pitch: [number, number] }>()
const box = ref<HTMLDivElement | null>(null)
/** screen pixels a panel pixel; null shows all of it */
const scale = ref<number | null>(null)
/** panel pixel at the box's middle */
const middle = ref<[number, number]>([0, 0])
const { width, height } = useElementSize(box, { width: 1, height: 1 })
const size = computed<[number, number]>(() => [width.value, height.value])
const fit = computed(() => Math.min(size.value[0] / props.pixels[0], size.value[1] / props.pixels[1]))
const now = computed(() => scale.value ?? fit.value)
const centre = computed<[number, number]>(() =>
  scale.value === null ? [props.pixels[0] / 2, props.pixels[1] / 2] : middle.value,
)
const place = computed(() => ({
  width: `${props.pixels[0] * now.value}px`,
  height: `${props.pixels[1] * now.value}px`,
  left: `${size.value[0] / 2 - centre.value[0] * now.value}px`,
  top: `${size.value[1] / 2 - centre.value[1] * now.value}px`,
  imageRendering: now.value >= 1 ? ('pixelated' as const) : ('auto' as const),
}))
const NEAREST = 24
function at(e: { clientX: number; clientY: number }): [number, number] {
  const b = box.value!.getBoundingClientRect()
  return [
    centre.value[0] + (e.clientX - b.left - size.value[0] / 2) / now.value,
    centre.value[1] + (e.clientY - b.top - size.value[1] / 2) / now.value,
  ]
}
function nearer(by: number, about: [number, number] = centre.value): void {
  const next = Math.min(NEAREST, Math.max(fit.value, now.value * by))
  if (next <= fit.value * 1.001) {
    scale.value = null
    return
  }
  const k = now.value / next
  middle.value = [about[0] + (centre.value[0] - about[0]) * k, about[1] + (centre.value[1] - about[1]) * k]
  scale.value = next
}
const under = ref<[number, number] | null>(null)
/** panel pixel that the hand took hold of, and what was at the middle then */
let held: [number, number] = [0, 0],
  before = middle.value
const drag = pointerDrag({
  start: (e) => {
    held = at(e)
    before = middle.value
    return scale.value !== null
  },
  move: (e) => {
    const p = at(e)
    middle.value = [middle.value[0] + held[0] - p[0], middle.value[1] + held[1] - p[1]]
  },
  end: () => undefined,
  cancel: () => {
    middle.value = before
  },
})
const read = computed(() => {
  const p = under.value
  if (!p || p[0] < 0 || p[1] < 0 || p[0] >= props.pixels[0] || p[1] >= props.pixels[1]) return ''
  const mm = ([0, 1] as const).map((k) => fixed((p[k] - props.pixels[k] / 2) * props.pitch[k], 2))
  return text('shell.layerPicture.mm', { mm: mm[0], mm2: mm[1] })
})
function key(e: KeyboardEvent): void {
  const step = 60 / now.value
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, -step],
    ArrowDown: [0, step],
  }
  if (e.key === '+') nearer(1.5)
  else if (e.key === '-') nearer(1 / 1.5)
  else if (by[e.key] && scale.value !== null)
    middle.value = [middle.value[0] + by[e.key]![0], middle.value[1] + by[e.key]![1]]
  else return
  e.preventDefault()
  e.stopPropagation()
}
</script>

<template>
  <div
    ref="box"
    class="layer"
    :class="{ near: scale !== null }"
    tabindex="0"
    role="group"
    :aria-label="$t('shell.layerPicture.plusAndMinusZoom', { alt })"
    @wheel.prevent="nearer($event.deltaY < 0 ? 1.25 : 0.8, at($event))"
    v-on="drag"
    @pointermove="under = at($event)"
    @pointerleave="under = null"
    @keydown="key"
  >
    <img :src="src" :alt="alt" :style="place" draggable="false" />
    <span class="note"
      ><slot /><template v-if="read">{{ $slots.default ? ' · ' : '' }}{{ read }}</template></span
    >
    <span class="tools">
      <BButton variant="quiet" size="sm" :aria-pressed="scale === 1" @click="nearer(1 / now)" @pointerdown.stop>
        {{ $t('shell.layerPicture.pixelByPixel') }}
      </BButton>
      <BButton v-if="scale !== null" variant="quiet" size="sm" @click="scale = null" @pointerdown.stop>
        {{ $t('shell.layerPicture.wholeLayer') }}
      </BButton>
    </span>
  </div>
</template>

<style scoped>
.layer {
  position: relative;
  background: var(--night-deep);
  border-radius: 6px;
  min-height: 0;
  height: 100%;
  overflow: hidden;
  touch-action: none;
}
.layer.near {
  cursor: grab;
}
img {
  position: absolute;
  max-width: none;
  user-select: none;
  outline: 1px solid var(--night-frame);
}
.note {
  position: absolute;
  left: 12px;
  bottom: 8px;
  color: var(--night-caption);
  background: var(--night-glass);
  padding: 0 6px;
  border-radius: 4px;
  font-variant-numeric: tabular-nums;
}
.tools {
  position: absolute;
  right: 10px;
  bottom: 8px;
  display: flex;
  gap: 6px;
}
</style>
