<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, shallowRef, watch } from 'vue'
import { text, fixed } from '../../i18n'
import { svgPage } from '../../../core/formats/svg'
import { svgOutlines } from '../../../core/formats/svgPath'
import { circleOutline, sized, type Emblem } from '../../../core/paint/stencil/emblem'
import { emblemSvg } from '../../../core/paint/stencil/emblemSheet'
import { lettered } from '../../../core/shape/lettering'
import { usePaintWork } from '../../composables/usePaintWork'
import { useAttempt } from '../../composables/useAttempt'
import { saveFile } from '../../shell/downloadFile'
import NumberField from '../../shell/NumberField.vue'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'
import FileButton from '../../shell/FileButton.vue'

/** A circle, letters or a mark of one's own: pressed onto the sculpt, made a region there, and cut out at true size. */
const emit = defineEmits<{
  ask: [asked: { hint: string; taken: (p: Picked) => void } | null]
  region: [name: string, inside: Uint8Array]
}>()
const viewport = useViewport(),
  work = usePaintWork()
const { fault, busy, attempt } = useAttempt()
const shape = ref<'circle' | 'ring' | 'letters' | 'drawing'>('circle'),
  size = ref(10),
  turn = ref(0),
  words = ref('7'),
  drawing = shallowRef<{ name: string; outlines: Float64Array[] } | null>(null)
const at = shallowRef<{ point: [number, number, number]; face: number } | null>(null),
  placed = shallowRef<Emblem | null>(null)
viewport.describe(() => (placed.value ? { guides: [{ colour: 0x7a3f8a, lines: placed.value.lines }] } : null))

/** The mark in its own plane, as wide or tall as is wished; a problem is thrown as a sentence. */
function mark(): Float64Array[] {
  if (shape.value === 'circle') return [circleOutline(size.value / 2)]
  if (shape.value === 'ring') return [circleOutline(size.value / 2), circleOutline(size.value * 0.36)]
  if (shape.value === 'letters') {
    const r = lettered({ text: words.value, face: 'sans', letter: size.value, spacing: 0.03 })
    if (!r.ok) throw new Error(say(r.problem.message, manner))
    return r.value.contours
  }
  if (!drawing.value) throw new Error(text('scheme.emblemPanel.chooseAnSvgDrawing'))
  return sized(drawing.value.outlines, size.value)
}
const name = computed(() =>
  shape.value === 'letters'
    ? `“${words.value}”`
    : shape.value === 'drawing'
      ? (drawing.value?.name ?? 'mark')
      : shape.value,
)
function place(): Promise<void> {
  return attempt(async () => {
    const on = viewport.shown,
      place = at.value
    if (!on || !place) return
    placed.value = null
    const r = await work.emblem(on.mesh, [...place.point], place.face, mark(), turn.value)
    if (!r.ok) throw new Error(say(r.problem.message, manner))
    placed.value = r.value
  })
}
function press(): void {
  emit('ask', {
    hint: text('scheme.emblemPanel.clickWhereTheMiddle', {
      shape: shape.value === 'letters',
      shape2: shape.value,
    }),
    taken: (p) => {
      emit('ask', null)
      if (p.companion !== null) return
      at.value = { point: [...p.point], face: p.face }
      void place()
    },
  })
}
watch([shape, size, turn, words, () => drawing.value], () => {
  if (at.value) void place()
})
watch(
  () => viewport.shown,
  () => {
    at.value = placed.value = null
  },
)
/** bytes */
const MAX_BYTES = 2_000_000
function read(f: File): Promise<void> {
  return attempt(async () => {
    if (f.size > MAX_BYTES) throw new Error(text('scheme.emblemPanel.isTooLargeA', { name: f.name }))
    const r = svgOutlines(await f.text())
    if (!r.ok) throw new Error(`${f.name}: ${say(r.problem.message, manner)}`)
    drawing.value = { name: f.name.replace(/\.svg$/i, ''), outlines: r.value }
  })
}
const svg = (): Promise<void> =>
  attempt(() => {
    const { width, height, parts } = emblemSvg(mark(), name.value, manner)
    saveFile(`mask, ${name.value}.svg`, svgPage(width, height, parts), 'image/svg+xml')
    return Promise.resolve()
  })
function toRegion(): void {
  if (!placed.value) return
  emit('region', name.value, placed.value.inside)
  at.value = placed.value = null
}
</script>

<template>
  <FoldPanel class="my-2">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.emblemPanel.addACircleLetters') }}</h2>
    </template>
    <div class="folded">
      <BFormSelect v-model="shape" size="sm" :aria-label="$t('scheme.emblemPanel.whatToAdd')">
        <option value="circle">{{ $t('scheme.emblemPanel.circle') }}</option>
        <option value="ring">{{ $t('scheme.emblemPanel.ring') }}</option>
        <option value="letters">{{ $t('scheme.emblemPanel.letters') }}</option>
        <option value="drawing">{{ $t('scheme.emblemPanel.yourOwnDrawingSvg') }}</option>
      </BFormSelect>
      <BFormInput
        v-if="shape === 'letters'"
        v-model="words"
        size="sm"
        maxlength="40"
        :aria-label="$t('scheme.emblemPanel.text')"
      />
      <FileButton
        v-if="shape === 'drawing'"
        accept=".svg,image/svg+xml"
        :label="$t('scheme.emblemPanel.svgDrawingOfThe')"
        @files="read($event[0]!)"
        >{{ $t('scheme.emblemPanel.chooseAnSvg') }}</FileButton
      >
      <NumberField
        v-model="size"
        :label="shape === 'letters' ? $t('scheme.emblemPanel.heightOfACapital') : $t('scheme.emblemPanel.width')"
        unit="mm"
        :min="0.5"
        :max="300"
        :step="0.5"
        :digits="1"
      />
      <NumberField
        v-model="turn"
        :label="$t('scheme.emblemPanel.turnedBy')"
        unit="°"
        :min="-180"
        :max="180"
        :step="5"
        :digits="0"
      />
      <BButton variant="quiet" size="sm" :disabled="busy" @click="press">
        {{ at ? $t('scheme.emblemPanel.chooseAnotherPlace') : $t('scheme.emblemPanel.chooseThePlace') }}
      </BButton>
      <FaultNote :text="fault" />
      <template v-if="placed">
        <p class="soft small m-0">
          {{ $t('scheme.emblemPanel.aFlatMaskOn', { value: fixed(100 * placed.stretch, 1) }) }}
        </p>
        <div class="d-flex gap-2">
          <BButton variant="primary" size="sm" @click="toRegion">{{ $t('scheme.emblemPanel.makeItARegion') }}</BButton>
          <BButton variant="quiet" size="sm" @click="svg">{{ $t('scheme.emblemPanel.maskAsSvgSize') }}</BButton>
        </div>
      </template>
    </div>
  </FoldPanel>
</template>
