<script setup lang="ts">
import { fixed } from '../../i18n'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, reactive } from 'vue'
import { filamentDefaults, filamentEstimate } from '../../../core/print/slice/filament'
import { nameForFile, useDownload } from '../../composables/useDownload'
import { duration } from '../../shell/duration'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { usePiece } from '../../stores/piece'
import FaultNote from '../../shell/FaultNote.vue'

/** Parts of filament, as bases mostly are: they go on no resin plate. What they weigh and take, and their body to slice elsewhere. */
const piece = usePiece(),
  assembly = useAssembly()
const way = reactive({ ...filamentDefaults })
const parts = computed(() =>
  assembly.placed.flatMap(({ part, measures }) => {
    const m = piece.piece?.materials[part.id]
    if (m?.name !== 'filament' || !measures) return []
    const body = { volume: Math.abs(measures.volume), area: measures.area, height: measures.size[2] }
    const infill = m.infill < 1 ? m.infill : way.infill
    return [{ part, mesh: part.meshHash, ...filamentEstimate(body, { ...way, infill }) }]
  }),
)
const { download, fault, busy } = useDownload()
const save = (mesh: string, name: string): Promise<void> =>
  download(mesh, { kind: 'export', format: 'stl', name: name.slice(0, 80) }, `${nameForFile(name)}.stl`)
</script>

<template>
  <section v-if="parts.length > 0" class="mb-3">
    <h2 class="mb-1">{{ $t('plates.filamentPanel.byFilament') }}</h2>
    <div v-for="p in parts" :key="p.part.id" class="line" :data-filament="p.part.name">
      <span
        >{{ p.part.name }}<br /><span class="soft small">{{
          $t('plates.filamentPanel.gLayers', {
            mass: fixed(p.mass, 0),
            seconds: duration(p.seconds),
            layers: p.layers,
          })
        }}</span></span
      >
      <BButton variant="quiet" size="sm" :disabled="busy" @click="save(p.mesh, p.part.name)">{{
        $t('plates.filamentPanel.bodyStl')
      }}</BButton>
    </div>
    <FaultNote :text="fault" class="mb-1" />
    <FoldPanel>
      <template #title>{{ $t('plates.filamentPanel.printSettings') }}</template>
      <NumberField
        v-model="way.shells"
        :label="$t('plates.filamentPanel.wallLines')"
        unit=""
        :step="1"
        :min="1"
        :max="20"
        :digits="0"
      />
      <NumberField
        v-model="way.line"
        :label="$t('plates.filamentPanel.lineWidth')"
        unit="mm"
        :step="0.05"
        :min="0.1"
        :max="3"
      />
      <NumberField
        v-model="way.layerHeight"
        :label="$t('plates.filamentPanel.layerHeight')"
        unit="mm"
        :step="0.05"
        :min="0.05"
        :max="2"
      />
      <NumberField
        :model-value="100 * way.infill"
        :label="$t('plates.filamentPanel.infill')"
        unit="%"
        :step="5"
        :min="0"
        :max="100"
        :digits="0"
        @update:model-value="way.infill = $event / 100"
      />
      <NumberField
        v-model="way.flow"
        :label="$t('plates.filamentPanel.flowRate')"
        unit="mm³/s"
        :step="0.5"
        :min="0.5"
        :max="100"
        :digits="1"
      />
    </FoldPanel>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  padding: 3px 0;
}
</style>
