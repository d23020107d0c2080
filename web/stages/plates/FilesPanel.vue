<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { printer as printerSchema, type PrinterRecord } from '../../../contract/stock'
import { useDownload } from '../../composables/useDownload'
import FaultNote from '../../shell/FaultNote.vue'

/** Files for other programs: the body, with supports where it has them, and its layers as outlines. */
const props = defineProps<{
  body: string
  /** generated supports are part of it */
  supported: boolean
  /** what is sliced, which may be a whole plate */
  sliced: string
  printer: PrinterRecord | null
  /** fit for a file */
  name: string
}>()
const { download, making, fault, busy } = useDownload()
const BODIES = ['stl', 'obj', 'ply', '3mf', 'glb'] as const
const OUTLINES = ['3mf', 'svg'] as const
const save = (format: (typeof BODIES)[number]): Promise<void> =>
  download(props.body, { kind: 'export', format, name: props.name }, `${props.name}.${format}`)
const layersFile = (format: string): string => `${props.name}-layers.${format}`
async function saveLayers(format: (typeof OUTLINES)[number]): Promise<void> {
  if (!props.printer) return
  await download(
    props.sliced,
    { kind: 'outlines', format, printer: printerSchema.parse(props.printer) },
    layersFile(format),
  )
}
</script>

<template>
  <section class="mb-3">
    <h2 class="mb-2">{{ $t('plates.filesPanel.export') }}</h2>
    <dl class="files">
      <dt>{{ supported ? $t('plates.filesPanel.bodyWithSupports') : $t('plates.filesPanel.body') }}</dt>
      <dd>
        <BButton v-for="f in BODIES" :key="f" variant="quiet" size="sm" :disabled="busy" @click="save(f)">
          {{ making === `${name}.${f}` ? $t('plates.filesPanel.writing') : f.toUpperCase() }}
        </BButton>
      </dd>
      <template v-if="printer">
        <dt>{{ $t('plates.filesPanel.layersAsOutlines') }}</dt>
        <dd>
          <BButton
            v-for="f in OUTLINES"
            :key="f"
            variant="quiet"
            size="sm"
            :disabled="busy"
            :aria-label="$t('plates.filesPanel.layersAs', { toUpperCase: f.toUpperCase() })"
            @click="saveLayers(f)"
          >
            {{ making === layersFile(f) ? $t('plates.filesPanel.writing') : f.toUpperCase() }}
          </BButton>
        </dd>
      </template>
    </dl>
    <FaultNote :text="fault" />
  </section>
</template>

<style scoped>
.files {
  margin: 0;
}
.files dt {
  font-weight: 400;
  color: var(--ink-soft);
  font-size: 0.875em;
}
.files dd {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin-bottom: 8px;
}
</style>
