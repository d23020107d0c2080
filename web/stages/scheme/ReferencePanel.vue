<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { onBeforeUnmount, ref } from 'vue'
import { z } from 'zod'
import { text } from '../../i18n'
import type { Scheme } from '../../../contract/scheme'
import { toHex } from '../../../core/paint/optics/colour'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import { usePictureView } from '../../composables/usePictureView'
import { preparePhoto } from '../../shell/photo'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'
import FileButton from '../../shell/FileButton.vue'

/** Pictures that a region is painted after: colours are read off them, and they are held behind the sculpt. */
type Region = Scheme['regions'][number]
const region = defineModel<Region>({ required: true })
const emit = defineEmits<{
  target: [hex: string]
  /** a press on the sculpt is waited for; null: no longer */
  ask: [asking: { hint: string; taken: (p: Picked) => void } | null]
}>()
const viewport = useViewport()
const { fault, busy, attempt } = useAttempt()
const url = (hash: string): string => `/api/blobs/${hash}`
const change = (references: Region['references']): void => {
  region.value = { ...region.value, references }
}
const MAX_COLOURS = 8

function add(files: readonly File[]): Promise<void> {
  return attempt(async () => {
    for (const f of files) {
      if (region.value.references.length >= MAX_COLOURS)
        throw new Error(text('scheme.referencePanel.aRegionKeepsPictures', { MAX_COLOURS }))
      const photo = new Uint8Array(await (await preparePhoto(f)).arrayBuffer())
      const { hash } = await api(z.object({ hash: z.string() }), 'POST', '/blobs', photo)
      if (!region.value.references.some((r) => r.photo === hash))
        change([...region.value.references, { photo: hash, x: 0.5, y: 0.5, hex: '#808080' }])
    }
  })
}
/** px about the place whose mean is read, of a picture 600 wide */
const REACH = 5
/** Reads the colour where the picture is pressed: the mean of a few pixels, as the screen shows them. */
function read(i: number, e: MouseEvent): Promise<void> {
  const img = images.value[i]!
  const box = img.getBoundingClientRect()
  // A press by the keyboard has no place: the one that was read last.
  const old = region.value.references[i]!
  const x = e.detail === 0 ? old.x : (e.clientX - box.left) / box.width,
    y = e.detail === 0 ? old.y : (e.clientY - box.top) / box.height
  return attempt(async () => {
    const wide = 600
    const high = Math.max(1, Math.round((wide * img.naturalHeight) / img.naturalWidth))
    const canvas = new OffscreenCanvas(wide, high),
      g = canvas.getContext('2d', { willReadFrequently: true })!
    g.drawImage(img, 0, 0, wide, high)
    const left = Math.max(0, Math.min(wide - 2 * REACH, Math.round(x * wide) - REACH)),
      top = Math.max(0, Math.min(high - 2 * REACH, Math.round(y * high) - REACH))
    const { data } = g.getImageData(left, top, 2 * REACH, Math.min(high, 2 * REACH))
    const mean = [0, 1, 2].map((k) => {
      let sum = 0
      for (let o = k; o < data.length; o += 4) sum += data[o]!
      return sum / (data.length / 4) / 255
    })
    const hex = toHex([mean[0]!, mean[1]!, mean[2]!])
    change(region.value.references.map((r, j) => (j === i ? { ...r, x, y, hex } : r)))
    emit('target', hex)
  })
}
const behind = ref<string | null>(null)
const view = usePictureView(
  (hint, taken) => emit('ask', { hint, taken }),
  () => emit('ask', null),
)
const { size, matrix, half, pairs, dots, told, enough } = view
function hold(photo: string, img: HTMLImageElement | null): void {
  behind.value = behind.value === photo || !img ? null : photo
  view.begin(img?.naturalWidth ?? 1, img?.naturalHeight ?? 1)
}
viewport.describe(() =>
  behind.value ? { backdrop: { url: url(behind.value), size: size.value, opacity: 1, matrix: matrix.value } } : null,
)
/** A press in a picture: the place that was pressed on the sculpt, or a colour. */
function press(i: number, e: MouseEvent): void {
  if (half.value && behind.value === region.value.references[i]!.photo) view.inPicture(e)
  else void read(i, e)
}
const images = ref<HTMLImageElement[]>([])
onBeforeUnmount(() => {
  if (behind.value) emit('ask', null)
})
</script>

<template>
  <FoldPanel class="my-2">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.referencePanel.referencePictures') }}</h2>
      <span class="soft small ms-2">{{
        region.references.length === 0
          ? $t('scheme.referencePanel.noPictureYet')
          : $t('scheme.referencePanel.references', { references: region.references.length })
      }}</span>
    </template>
    <FileButton
      multiple
      class="my-2"
      accept="image/*"
      :disabled="busy"
      :label="$t('scheme.referencePanel.referencePictures2')"
      @files="add"
      >{{ $t('scheme.referencePanel.addPictures') }}</FileButton
    >
    <FaultNote :text="fault" />
    <div class="pictures">
      <figure v-for="(r, i) in region.references" :key="r.photo">
        <BButton
          variant="card"
          class="sample"
          :aria-label="$t('scheme.referencePanel.readTheColourOf', { i: i + 1 })"
          @click="press(i, $event)"
        >
          <img ref="images" :src="url(r.photo)" alt="" />
          <span class="cross" :style="{ left: `${100 * r.x}%`, top: `${100 * r.y}%` }" />
          <template v-if="behind === r.photo">
            <span v-for="(d, k) in dots" :key="k" class="place" :style="{ left: `${d.x}%`, top: `${d.y}%` }">{{
              k + 1
            }}</span>
          </template>
        </BButton>
        <figcaption>
          <span class="swatch" :style="{ background: r.hex }" />
          <BButton
            :variant="behind === r.photo ? 'primary' : 'quiet'"
            size="sm"
            :aria-pressed="behind === r.photo"
            @click="hold(r.photo, images[i] ?? null)"
          >
            {{ $t('scheme.referencePanel.showBehindTheSculpt') }}
          </BButton>
          <BButton
            variant="quiet"
            size="sm"
            :aria-label="$t('scheme.referencePanel.removePicture', { i: i + 1 })"
            @click="change(region.references.filter((_, j) => j !== i))"
          >
            ×
          </BButton>
        </figcaption>
      </figure>
    </div>
    <div v-if="behind" class="my-2">
      <div class="d-flex flex-wrap gap-1">
        <BButton variant="quiet" size="sm" @click="view.pair">
          {{ $t('scheme.referencePanel.clickPlaceOnThe', { pairs: pairs.length + 1 }) }}
        </BButton>
        <BButton v-if="pairs.length >= enough" variant="quiet" size="sm" @click="view.match">{{
          $t('scheme.referencePanel.matchTheView')
        }}</BButton>
      </div>
      <FaultNote :text="view.fault.value" />
      <p class="soft small m-0">
        {{ half ? $t('scheme.referencePanel.nowClickTheSame') : $t('scheme.referencePanel.toSeeTheSculpt', { told }) }}
      </p>
    </div>
    <p v-if="region.references.length > 0" class="soft small m-0">
      {{ $t('scheme.referencePanel.clickWhereTheColour') }}
    </p>
  </FoldPanel>
</template>

<style scoped>
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
figure {
  margin: 0;
}
/* Pressed through: what lies under it is the picture. */
.place {
  position: absolute;
  transform: translate(-50%, -50%);
  background: var(--action);
  color: var(--white);
  border-radius: 9px;
  min-width: 17px;
  font-size: 0.72rem;
  pointer-events: none;
}
.sample {
  position: relative;
  display: block;
  padding: 0;
  border: 1px solid var(--line);
  width: 100%;
  cursor: crosshair;
}
img {
  width: 100%;
  display: block;
}
.cross {
  position: absolute;
  width: 14px;
  height: 14px;
  border: 2px solid var(--white);
  outline: 1.5px solid var(--mark-edge);
  border-radius: 50%;
  transform: translate(-50%, -50%);
  pointer-events: none;
}
figcaption {
  display: flex;
  gap: 6px;
  align-items: center;
  padding-top: 3px;
}
</style>
