<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watchEffect } from 'vue'
import { matchView, type PicturePair } from '../../../core/pose/matchView'
import { usePicking } from '../../composables/usePicking'
import { useViewport } from '../../viewport/useViewport'

/**
 * A picture laid behind the sculpt, at the view it was taken from: the same places are pressed on the sculpt and in the
 * picture, and the turntable turns to where they meet.
 */
const viewport = useViewport(),
  picking = usePicking()
const url = ref(''),
  size = ref<[number, number]>([1, 1])
const strength = ref(55)
const pairs = ref<PicturePair[]>([])
const half = ref<[number, number, number] | null>(null)
const fault = ref('')
const error = ref<number | null>(null)
const picker = ref<HTMLInputElement | null>(null)

async function choose(e: Event): Promise<void> {
  const f = (e.target as HTMLInputElement).files?.[0]
  if (!f) return
  fault.value = ''
  const next = URL.createObjectURL(f)
  const image = new Image()
  image.src = next
  try {
    await image.decode()
  } catch {
    URL.revokeObjectURL(next)
    fault.value = `${f.name} is not a picture that this browser reads. Take a PNG or a JPEG.`
    return
  }
  forget()
  url.value = next
  size.value = [image.naturalWidth, image.naturalHeight]
}
function forget(): void {
  if (url.value) URL.revokeObjectURL(url.value)
  url.value = ''
  pairs.value = []
  error.value = null
  viewport.backdrop = null
  picking.stop()
}
onBeforeUnmount(forget)
const fit = ref<{ matrix: [number, number, number, number, number, number] } | null>(null)
watchEffect(() => {
  viewport.backdrop = url.value
    ? { url: url.value, size: size.value, opacity: strength.value / 100, matrix: fit.value?.matrix ?? null }
    : null
})
function pair(): void {
  half.value = null
  picking.ask('Press a place on the sculpt that the picture shows too', (p) => {
    if (p.companion !== null) return
    half.value = p.point
    viewport.markers = [...pairs.value.map((x) => x.point), p.point].map((point) => ({
      point: [...point] as [number, number, number],
      kind: 'hand' as const,
    }))
    viewport.hint = 'Now press the same place in the small picture on the right'
  })
}
function inPicture(e: MouseEvent): void {
  const b = (e.currentTarget as HTMLElement).getBoundingClientRect()
  if (!half.value) return
  const at = [
    ((e.clientX - b.left) / b.width) * size.value[0],
    ((e.clientY - b.top) / b.height) * size.value[1],
  ] as const
  pairs.value = [...pairs.value, { point: half.value, picture: at }]
  half.value = null
  picking.stop()
  if (pairs.value.length >= 4) match()
}
function match(): void {
  const view = viewport.camera()
  if (!view) return
  const m = matchView(pairs.value, view.middle, view.distance)
  if (!m) {
    fault.value = 'These places lie on one line. Press some more, well apart.'
    return
  }
  error.value = (100 * m.error) / Math.hypot(...size.value)
  viewport.turnView(m.azimuth, m.elevation)
  // Picture to view is the inverse of what was fitted; the view is drawn at so many pixels a millimetre.
  const k = view.pixelsPerMm / m.scale,
    c = Math.cos(-m.roll) * k,
    s = Math.sin(-m.roll) * k
  const [x, y] = view.centre
  fit.value = {
    matrix: [c, s, -s, c, x - (c * m.shift[0] - s * m.shift[1]), y - (s * m.shift[0] + c * m.shift[1])],
  }
}
const dots = computed(() =>
  pairs.value.map((p) => ({ x: (100 * p.picture[0]) / size.value[0], y: (100 * p.picture[1]) / size.value[1] })),
)
</script>

<template>
  <details class="mb-3">
    <summary>Against a picture</summary>
    <input
      ref="picker"
      type="file"
      accept="image/*"
      class="visually-hidden"
      aria-label="Reference picture"
      @change="choose"
    />
    <p v-if="fault" role="alert" class="text-danger small my-1">{{ fault }}</p>
    <button v-if="!url" class="btn btn-sm btn-quiet mt-2" @click="picker?.click()">Lay a picture behind it</button>
    <template v-else>
      <div class="shot mt-2">
        <img :src="url" alt="The reference picture" :class="{ aim: half }" @click="inPicture" />
        <span v-for="(d, i) in dots" :key="i" :style="{ left: `${d.x}%`, top: `${d.y}%` }">{{ i + 1 }}</span>
      </div>
      <label class="d-flex gap-2 align-items-center"
        ><span class="soft small">Strength</span
        ><input
          v-model.number="strength"
          type="range"
          class="form-range"
          min="0"
          max="100"
          aria-label="Strength of the picture"
      /></label>
      <div class="d-flex flex-wrap gap-1">
        <button class="btn btn-sm btn-primary" @click="picking.asking.value ? picking.stop() : pair()">
          {{ picking.asking.value ? 'Leave it' : `Press place ${pairs.length + 1}` }}
        </button>
        <button v-if="pairs.length >= 4" class="btn btn-sm btn-quiet" @click="match">Match the view</button>
        <button class="btn btn-sm btn-quiet" @click="forget">Take it away</button>
      </div>
      <p class="soft small mt-1 mb-0">
        {{
          pairs.length < 4
            ? `${4 - pairs.length} more until the view can be matched.`
            : error !== null
              ? `Matched; the places lie ${error.toFixed(1)} % of the picture apart in the mean.`
              : ''
        }}
      </p>
    </template>
  </details>
</template>

<style scoped>
.shot {
  position: relative;
  border: 1px solid var(--line);
  margin-bottom: 6px;
}
.shot img {
  width: 100%;
  display: block;
}
.shot img.aim {
  cursor: crosshair;
}
.shot span {
  position: absolute;
  transform: translate(-50%, -50%);
  background: var(--action);
  color: #fff;
  border-radius: 9px;
  min-width: 17px;
  text-align: center;
  font-size: 0.72rem;
  pointer-events: none;
}
</style>
