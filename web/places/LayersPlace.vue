<script setup lang="ts">
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { useDropZone } from '@vueuse/core'
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { z } from 'zod'
import { text, fixed } from '../i18n'
import { figure } from '../manner'
import { missing, mapped } from '../../core/findings/facts'
import { judge } from '../../core/findings/judge'
import { api } from '../api'
import { messageOf } from '../messageOf'
import { checkFact } from '../composables/facts'
import { useCheck } from '../composables/useCheck'
import type { CheckOf } from '../stores/derivations'
import FindingList from '../shell/FindingList.vue'
import LayerPicture from '../shell/LayerPicture.vue'
import NumberField from '../shell/NumberField.vue'
import LayerChart from '../stages/LayerChart.vue'
import FaultNote from '../shell/FaultNote.vue'
import FileButton from '../shell/FileButton.vue'

/** Layers made elsewhere: what they would print, and what would go wrong, with the same tools as one's own. */
const route = useRoute(),
  router = useRouter()
const hash = computed(() => (typeof route.params.hash === 'string' && route.params.hash ? route.params.hash : null))
const name = computed(() => (typeof route.query.name === 'string' ? route.query.name : 'layers'))
const fault = ref(''),
  sending = ref(false)
/** what the archive may not say; 0 leaves it to the archive */
const pitch = ref(0),
  thick = ref(0)
const asked = computed<CheckOf<'archive'>>(() => ({
  kind: 'archive',
  ...(pitch.value > 0 ? { pitch: [pitch.value, pitch.value] as [number, number] } : {}),
  ...(thick.value > 0 ? { layerHeight: thick.value } : {}),
}))
const read = useCheck<'archive'>(
  () => hash.value,
  () => asked.value,
)
const report = read.report
const layer = ref(0)
watch(report, (r) => {
  if (r) layer.value = Math.min(layer.value || Math.floor(r.layers / 3), r.layers - 1)
})
const judged = computed(() => {
  const archive = mapped(checkFact(read, missing(text('places.layersPlace.aFileOfLayers'))), (r) => ({
    islands: r.islands,
    cups: r.cups,
    step: r.layerHeight,
    mishaps: r.mishaps,
  }))
  return judge('layers', { archive })
})
async function take(files: ArrayLike<File> | null | undefined): Promise<void> {
  const file = files?.[0]
  if (!file) return
  fault.value = ''
  sending.value = true
  pitch.value = thick.value = 0
  try {
    const stored = await api(z.object({ hash: z.string(), size: z.number() }), 'POST', '/archives', file)
    await router.push({ path: `/layers/${stored.hash}`, query: { name: file.name } })
  } catch (e) {
    fault.value = messageOf(e)
  } finally {
    sending.value = false
  }
}
function goTo([, , height]: [number, number, number]): void {
  const r = report.value
  if (r) layer.value = Math.max(0, Math.min(r.layers - 1, Math.round(height / r.layerHeight - 0.5)))
}
const place = useTemplateRef<HTMLElement>('place')
const { isOverDropZone: dropping } = useDropZone(place, (files) => void take(files))
</script>

<template>
  <div ref="place" class="beside" :class="{ dropping }">
    <div class="middle">
      <template v-if="report && hash">
        <LayerPicture
          :src="`/api/layers/${hash}/${layer}`"
          :alt="$t('places.layersPlace.layer', { layer: layer + 1 })"
          :pixels="report.pixels"
          :pitch="report.pitch"
          >{{
            $t('places.layersPlace.layerOfMm', {
              layer: layer + 1,
              layers: report.layers,
              layer2: fixed((layer + 1) * report.layerHeight, 2),
            })
          }}</LayerPicture
        >
        <BFormInput
          v-model.number="layer"
          type="range"
          min="0"
          :max="report.layers - 1"
          :aria-label="$t('places.layersPlace.layer2')"
        />
        <LayerChart
          :areas="report.areas"
          :peel="report.peel"
          :suction="report.suction"
          :layer-height="report.layerHeight"
          :layer="layer"
          @pick="layer = $event"
        />
      </template>
      <p v-else class="soft wait">
        {{
          sending
            ? $t('places.layersPlace.uploading')
            : read.measuring.value
              ? $t('places.layersPlace.readingTheLayers')
              : $t('places.layersPlace.dropAZipOf')
        }}
      </p>
    </div>
    <aside class="side scroll">
      <h1 class="text-truncate mb-2">{{ hash ? name : $t('places.layersPlace.layersFromAnotherProgram') }}</h1>
      <FindingList v-if="report" :judged="judged" :fixes="{}" @show="goTo" />
      <dl v-if="report" class="facts mb-3">
        <dt>{{ $t('places.layersPlace.writtenAs') }}</dt>
        <dd>{{ report.format }}</dd>
        <dt>{{ $t('places.layersPlace.layers') }}</dt>
        <dd>
          {{ $t('places.layersPlace.ofMm', { layers: report.layers, layerHeight: report.layerHeight }) }}
        </dd>
        <dt>{{ $t('places.layersPlace.panel') }}</dt>
        <dd>{{ report.pixels[0] }} × {{ report.pixels[1] }}</dd>
        <dt>{{ $t('places.layersPlace.aPixel') }}</dt>
        <dd>{{ report.pitch.map((p) => figure(1000 * p, 1)).join(' × ') }} µm</dd>
        <dt>{{ $t('places.layersPlace.curedResin') }}</dt>
        <dd>{{ $t('places.layersPlace.ml', { volume: fixed(report.volume / 1000, 1) }) }}</dd>
        <dt>{{ $t('places.layersPlace.highestPeelForce') }}</dt>
        <dd>
          {{
            figure(
              report.peel.reduce((a, b) => Math.max(a, b), 0),
              1,
            )
          }}
          N
        </dd>
      </dl>
      <FaultNote :text="fault || read.problem.value" />
      <template v-if="hash && (!report || pitch > 0 || thick > 0)">
        <NumberField
          v-model="pitch"
          :label="$t('places.layersPlace.pixelSize0As')"
          unit="mm"
          :step="0.001"
          :min="0"
          :max="1"
          :digits="4"
        />
        <NumberField
          v-model="thick"
          :label="$t('places.layersPlace.layerHeight0As')"
          unit="mm"
          :step="0.01"
          :min="0"
          :max="1"
          :digits="3"
        />
      </template>
      <FileButton
        variant="primary"
        class="mt-2"
        accept=".zip,.cbz,application/zip"
        :label="$t('places.layersPlace.layerArchive')"
        @files="take($event)"
        >{{
          sending
            ? $t('places.layersPlace.uploading')
            : hash
              ? $t('places.layersPlace.openAnotherFile')
              : $t('places.layersPlace.chooseAZip')
        }}</FileButton
      >
    </aside>
  </div>
</template>

<style scoped>
.beside.dropping {
  outline: 3px dashed var(--action);
  outline-offset: -8px;
}
.middle {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto 190px;
  gap: 10px;
  padding: 14px 18px;
  min-height: 0;
  background: var(--studio);
}
.wait {
  max-width: 420px;
  margin: auto;
}
</style>
