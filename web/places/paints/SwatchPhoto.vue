<script setup lang="ts">
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onMounted, ref, watch } from 'vue'
import { text, fixed } from '../../i18n'
import { figure } from '../../manner'
import { token } from '../../styles/token'
import { labToHex, type Triple } from '../../../core/paint/optics/colour'
import { readSwatch, SPREAD, type Pixels, type SwatchRead } from '../../../core/paint/recipes/swatchPhoto'
import { preparePhoto } from '../../shell/photo'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'
import FileButton from '../../shell/FileButton.vue'
import { messageOf } from '../../messageOf'

/**
 * A colour read off a photo: the grey card is pressed first, then the swatch in a few places. Exposure and the light's
 * colour are set right by the card.
 */
const emit = defineEmits<{ read: [lab: Triple] }>()
const canvas = ref<HTMLCanvasElement | null>(null),
  picker = ref<InstanceType<typeof FileButton> | null>(null)
// Who asked for this has pressed a button for it already.
onMounted(() => picker.value?.open())
const fault = ref(''),
  there = ref(false)
const card = ref<[number, number] | null>(null),
  spots = ref<[number, number][]>([]),
  grey = ref(0.18)
let picture: ImageData | null = null
const WIDE = 900
async function choose(f: File): Promise<void> {
  fault.value = ''
  card.value = null
  spots.value = []
  try {
    const image = await createImageBitmap(await preparePhoto(f))
    const scale = Math.min(1, WIDE / image.width)
    const c = canvas.value!
    c.width = Math.round(image.width * scale)
    c.height = Math.round(image.height * scale)
    const g = c.getContext('2d', { willReadFrequently: true })!
    g.drawImage(image, 0, 0, c.width, c.height)
    image.close()
    picture = g.getImageData(0, 0, c.width, c.height)
    there.value = true
  } catch (err) {
    fault.value = messageOf(err)
  }
}
/** px about a pressed place that are read */
const reach = (): number => Math.max(3, Math.round((picture?.width ?? 0) * 0.014))
function pixels([x, y]: [number, number]): Pixels {
  const out: number[] = []
  const r = reach(),
    { width, height, data } = picture!
  for (let v = Math.max(0, y - r); v <= Math.min(height - 1, y + r); v++)
    for (let u = Math.max(0, x - r); u <= Math.min(width - 1, x + r); u++)
      if ((u - x) ** 2 + (v - y) ** 2 <= r * r) {
        const o = 4 * (v * width + u)
        out.push(data[o]!, data[o + 1]!, data[o + 2]!)
      }
  return Uint8Array.from(out)
}
function press(e: MouseEvent): void {
  if (!picture) return
  const c = canvas.value!,
    b = c.getBoundingClientRect()
  const at: [number, number] = [
    Math.round(((e.clientX - b.left) / b.width) * c.width),
    Math.round(((e.clientY - b.top) / b.height) * c.height),
  ]
  if (!card.value) card.value = at
  else spots.value = [...spots.value, at]
}
const answer = computed(() =>
  card.value && spots.value.length > 0 ? readSwatch(pixels(card.value), spots.value.map(pixels), grey.value) : null,
)
const read = computed<SwatchRead | null>(() => (answer.value?.ok ? answer.value.value : null))
watch(answer, (a) => {
  if (!a) return
  fault.value = a.ok ? '' : say(a.problem.message, manner)
  if (a.ok) return
  // A card that is none is pressed again; of the swatch only the last place.
  if (a.problem.code !== 'swatch-clipped') card.value = null
  spots.value = a.problem.code === 'swatch-clipped' ? spots.value.slice(0, -1) : []
})
watch([card, spots, there], () => {
  if (!picture) return
  const g = canvas.value!.getContext('2d')!
  g.putImageData(picture, 0, 0)
  const ring = ([x, y]: [number, number], colour: string): void => {
    g.lineWidth = 3
    g.strokeStyle = colour
    g.beginPath()
    g.arc(x, y, reach() + 2, 0, 2 * Math.PI)
    g.stroke()
  }
  if (card.value) ring(card.value, token('white'))
  for (const s of spots.value) ring(s, token('action'))
})
const again = (): void => {
  card.value = null
  spots.value = []
  fault.value = ''
}
const light = (r: SwatchRead): string =>
  text('paints.swatchPhoto.stopsStopsLightRed', {
    abs: fixed(Math.abs(r.stops), 1),
    stops: r.stops > 0,
    red: r.red < 0.97,
    blue: r.blue < 0.97,
  })
</script>

<template>
  <div class="photo">
    <div class="d-flex gap-2 align-items-center mb-1">
      <FileButton
        ref="picker"
        accept="image/*"
        :label="$t('paints.swatchPhoto.photoOfASwatch')"
        @files="choose($event[0]!)"
        >{{ there ? $t('paints.swatchPhoto.chooseAnotherPhoto') : $t('paints.swatchPhoto.chooseThePhoto') }}</FileButton
      >
      <label v-if="there" class="small d-flex gap-1 align-items-center"
        >{{ $t('paints.swatchPhoto.card')
        }}<BFormSelect v-model.number="grey" size="sm" class="w-auto" :aria-label="$t('paints.swatchPhoto.greyCard')">
          <option :value="0.18">18 %</option>
          <option :value="0.12">12 %</option>
          <option :value="0.5">50 %</option>
          <option :value="0.9">{{ $t('paints.swatchPhoto.white90') }}</option>
        </BFormSelect></label
      >
      <BButton v-if="card" variant="quiet" size="sm" @click="again">{{ $t('paints.swatchPhoto.startAgain') }}</BButton>
    </div>
    <FaultNote :text="fault" />
    <canvas v-show="there" ref="canvas" @click="press" />
    <p v-if="there" class="soft small m-0">
      {{
        !card
          ? $t('paints.swatchPhoto.clickTheGreyCard')
          : spots.length === 0
            ? $t('paints.swatchPhoto.nowClickTheSwatch')
            : $t('paints.swatchPhoto.spotsRead', { spots: spots.length })
      }}
    </p>
    <div v-if="read" class="d-flex gap-2 align-items-center mt-1">
      <span class="swatch big" :style="{ background: labToHex(read.lab) }" />
      <span class="small flex-grow-1"
        ><b class="num">{{ read.lab.map((v) => figure(v, 1)).join(' / ') }}</b
        ><br /><span class="soft">{{
          $t('paints.swatchPhoto.spreadESpread2', {
            spread: fixed(read.spread, 1),
            spread2: read.spread > SPREAD,
            read: light(read),
          })
        }}</span></span
      >
      <BButton variant="primary" size="sm" @click="emit('read', read.lab)">{{
        $t('paints.swatchPhoto.useThisColour')
      }}</BButton>
    </div>
  </div>
</template>

<style scoped>
canvas {
  width: 100%;
  border: 1px solid var(--line);
  border-radius: 4px;
  cursor: crosshair;
}
.big {
  width: 2.4em;
  height: 2.4em;
}
</style>
