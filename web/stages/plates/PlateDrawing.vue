<script setup lang="ts">
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import { plateSize } from '../../../core/print/slice/printer'
import type { PrinterRecord } from '../../../contract/stock'
import { nestDefaults, type NestedPlate, type Placed } from '../../../core/print/nest/types'
import type { NestReport } from '../../../core/print/nest/nestReport'
import { shapesMeet } from '../../../core/print/nest/outline'
import { pointerDrag } from '../../composables/pointerDrag'

/** A plate seen from above, at the front where one stands: parts by their shadow with half the margin round it. */
const props = defineProps<{
  plate: NestedPlate
  printer: PrinterRecord
  shapes: NestReport['shapes']
  names: Record<string, string>
  locked: Record<string, readonly { copy: number }[]>
}>()
const emit = defineEmits<{ put: [part: Placed] }>()
const size = computed(() => plateSize(props.printer))
const MARGIN = 8
const svg = ref<SVGSVGElement | null>(null)
const held = ref<{ index: number; part: Placed; from: { x: number; y: number } } | null>(null)
type Loops = [number, number][][]
const loopsOf = (p: Placed): Loops => {
  const c = Math.cos(p.angle),
    s = Math.sin(p.angle)
  return (props.shapes.find((q) => q.id === p.id)?.loops ?? []).map((l) =>
    l.map(([x, y]) => [c * x - s * y + p.x, s * x + c * y + p.y] as [number, number]),
  )
}
const parts = computed(() =>
  props.plate.parts.map((p, i) => {
    const now = held.value?.index === i ? held.value.part : p
    return { part: now, loops: loopsOf(now) }
  }),
)
// y runs up on a plate and down on a screen.
const path = (loops: Loops): string =>
  loops.map((l) => `M${l.map(([x, y]) => `${x.toFixed(2)} ${(-y).toFixed(2)}`).join('L')}Z`).join('')
const middle = (loops: Loops): [number, number] => {
  const all = loops.flat()
  const mid = (k: 0 | 1): number => {
    const v = all.map((p) => p[k])
    return (Math.min(...v) + Math.max(...v)) / 2
  }
  return all.length > 0 ? [mid(0), -mid(1)] : [0, 0]
}
const heights = computed<Record<string, number>>(() => Object.fromEntries(props.shapes.map((s) => [s.id, s.height])))
const tallest = computed(() => Math.max(...props.plate.parts.map((p) => heights.value[p.id] ?? 0)))
/** mm that a shadow's own half margin may come to the edge */
const RIM = nestDefaults.margin / 2
/** What a part would meet there: another part, or the edge. */
function meets(index: number, part: Placed): string | null {
  const own = loopsOf(part)
  const [w, d] = size.value
  if (own.some((l) => l.some(([x, y]) => Math.abs(x) > w / 2 - RIM || Math.abs(y) > d / 2 - RIM)))
    return text('plates.plateDrawing.theEdge')
  const other = props.plate.parts.find((p, i) => i !== index && shapesMeet(own, loopsOf(p)))
  return other ? (props.names[other.id] ?? text('plates.plateDrawing.anotherPart')) : null
}
const blocked = computed(() => (held.value ? meets(held.value.index, held.value.part) : null))
function at(e: PointerEvent): { x: number; y: number } {
  const m = svg.value!.getScreenCTM()!.inverse()
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m)
  return { x: p.x, y: -p.y }
}
const drag = pointerDrag({
  start: (e) => {
    const index = Number((e.target as Element).closest<SVGElement>('[data-part]')?.dataset.part ?? NaN)
    const part = props.plate.parts[index]
    if (!part) return false
    const { x, y } = at(e)
    held.value = { index, part: { ...part }, from: { x: x - part.x, y: y - part.y } }
    return true
  },
  move: (e) => {
    const h = held.value!
    const { x, y } = at(e)
    h.part = { ...h.part, x: x - h.from.x, y: y - h.from.y }
  },
  end: drop,
  cancel: () => {
    held.value = null
  },
})
function drop(): void {
  const h = held.value
  held.value = null
  if (!h || meets(h.index, h.part)) return
  const was = props.plate.parts[h.index]!
  if (Math.hypot(was.x - h.part.x, was.y - h.part.y) > 0.2) emit('put', h.part)
}
</script>

<template>
  <figure class="plate">
    <svg
      ref="svg"
      :viewBox="`${-size[0] / 2 - MARGIN} ${-size[1] / 2 - MARGIN} ${size[0] + 2 * MARGIN} ${size[1] + 2 * MARGIN}`"
      role="img"
      :aria-label="$t('plates.plateDrawing.plateOfWithParts', { name: printer.name, parts: plate.parts.length })"
      v-on="drag"
    >
      <rect class="bed" :x="-size[0] / 2" :y="-size[1] / 2" :width="size[0]" :height="size[1]" rx="2" />
      <g
        v-for="(p, i) in parts"
        :key="`${p.part.id}${p.part.copy}`"
        class="part"
        :class="{
          tall: (heights[p.part.id] ?? 0) > 0.98 * tallest,
          kept: locked[p.part.id]?.some((l) => l.copy === p.part.copy),
          bad: held?.index === i && blocked,
        }"
        :data-part="i"
      >
        <path :d="path(p.loops)" fill-rule="evenodd" />
        <text :transform="`translate(${middle(p.loops).join(' ')})`" :font-size="Math.max(3, size[0] / 50)">
          <tspan x="0">{{ names[p.part.id] }}{{ p.part.copy > 0 ? ` ${p.part.copy + 1}` : '' }}</tspan>
          <tspan x="0" dy="1.15em">
            {{ $t('plates.plateDrawing.mmTall', { heights: fixed(heights[p.part.id] ?? 0, 0) }) }}
          </tspan>
        </text>
      </g>
      <text class="side" :x="0" :y="size[1] / 2 + 5.5" :font-size="Math.max(3, size[0] / 55)">
        {{ $t('plates.plateDrawing.frontMm', { size: fixed(size[0], 0), size2: fixed(size[1], 0) }) }}
      </text>
    </svg>
    <figcaption v-if="blocked" role="status" class="text-danger">
      {{ $t('plates.plateDrawing.thereItOverlaps', { blocked }) }}
    </figcaption>
    <figcaption v-else class="soft">
      {{ $t('plates.plateDrawing.theOutlineOfEach') }}
    </figcaption>
  </figure>
</template>

<style scoped>
.plate {
  margin: 0;
  height: 100%;
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 6px;
}
svg {
  width: 100%;
  height: 100%;
  touch-action: none;
  user-select: none;
}
.bed {
  fill: var(--studio-light);
  stroke: var(--drawing-line);
  stroke-width: 0.6;
}
.part path {
  fill: var(--part-fill);
  stroke: var(--part-line);
  stroke-width: 0.4;
}
.part {
  cursor: grab;
}
.part.tall path {
  fill: var(--part-held);
}
.part.kept path {
  stroke: var(--part-locked);
  stroke-width: 1;
}
.part.bad path {
  fill: var(--part-blocked);
}
text {
  text-anchor: middle;
  fill: var(--part-name);
  pointer-events: none;
}
.side {
  fill: var(--drawing-text);
}
</style>
