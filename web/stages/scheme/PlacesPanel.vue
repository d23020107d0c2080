<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BTableSimple, BTbody, BTd, BTr } from 'bootstrap-vue-next/components/BTable'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { text, fixed } from '../../i18n'
import { BORDER_LOOK, ZONES, type LightPlaces } from '../../../core/paint/lighting/lightPlaces'
import { newestOnly } from '../../composables/newest'
import { usePaintWork } from '../../composables/usePaintWork'
import { saveFile } from '../../shell/downloadFile'
import { directionText } from '../../shell/directionText'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import type { SchemeSent } from '../../workers/paintedSkin'
import type { Light } from './usePreview'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'

/** Where light and shade are to be painted: borders on the sculpt, and a sheet of them to lay beside it. */
const props = defineProps<{
  region: { id: number; name: string }
  light: Light
  shown: number
  sent: () => SchemeSent | null
}>()
const store = usePiece(),
  viewport = useViewport(),
  work = usePaintWork()
const open = ref(false),
  all = ref(false),
  places = shallowRef<LightPlaces | null>(null)
/** The light that it is looked at by, or else a cabinet's. */
const at = computed(() => props.light.at ?? { turn: -25, lift: 60 })
viewport.describe(
  () =>
    places.value && {
      guides: places.value.borders.map((b) => ({
        colour: parseInt(BORDER_LOOK[b.zone]!.colour.slice(1), 16),
        lines: b.lines,
      })),
    },
)
const find = newestOnly(async () => {
  const s = props.sent()
  if (!open.value || !s) return
  const found = await work.places(s.labels, all.value ? null : props.region.id, { ...at.value })
  if (open.value) places.value = found
})
let timer: ReturnType<typeof setTimeout> | undefined
watch([open, all, () => props.region.id, at, () => props.shown], () => {
  clearTimeout(timer)
  if (open.value) timer = setTimeout(() => void find(), 200)
  else places.value = null
})
onBeforeUnmount(() => clearTimeout(timer))
const what = computed(() => (all.value ? text('scheme.placesPanel.allOfIt') : props.region.name))
async function sheet(): Promise<void> {
  if (!places.value) return
  const title = text('scheme.placesPanel.lightAndShadeOn', {
    name: store.piece?.name ?? 'Piece',
    what: what.value,
    turn: directionText(at.value.turn, at.value.lift),
  })
  const svg = await work.placesSheet(places.value, title, manner)
  if (svg) saveFile(`light and shade, ${what.value}.svg`, svg, 'image/svg+xml')
}
</script>

<template>
  <FoldPanel class="my-2" @toggle="open = $event">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.placesPanel.lightAndShade') }}</h2>
    </template>
    <div class="folded">
      <p class="soft small m-0">
        {{
          $t('scheme.placesPanel.byALightFrom', {
            turn: directionText(at.turn, at.lift),
            at: Boolean(light.at),
          })
        }}
      </p>
      <BFormCheckbox v-model="all">{{ $t('scheme.placesPanel.theWholePartNot', { name: region.name }) }}</BFormCheckbox>
      <BTableSimple v-if="places" class="num">
        <BTbody>
          <BTr v-for="(z, i) in [...ZONES].reverse()" :key="z.id">
            <BTd>
              <span
                class="line"
                :style="{
                  borderTop: `3px ${BORDER_LOOK[ZONES[ZONES.length - 2 - i]?.id ?? '']?.dashed ? 'dashed' : 'solid'} ${BORDER_LOOK[ZONES[ZONES.length - 2 - i]?.id ?? '']?.colour ?? 'transparent'}`,
                }"
              />
            </BTd>
            <BTd>{{ say(z.name, manner) }}</BTd>
            <BTd class="text-end">
              {{ $t('scheme.placesPanel.cm', { areas: fixed((places.areas[ZONES.length - 1 - i] ?? 0) / 100, 1) }) }}
            </BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
      <BButton v-if="places" variant="quiet" size="sm" @click="sheet">{{
        $t('scheme.placesPanel.sheetOfFourViews')
      }}</BButton>
      <p v-else-if="open" class="soft small m-0">{{ $t('scheme.placesPanel.waitingForTheSurface') }}</p>
    </div>
  </FoldPanel>
</template>

<style scoped>
.line {
  display: inline-block;
  width: 26px;
}
td {
  padding: 1px 8px 1px 0;
}
</style>
