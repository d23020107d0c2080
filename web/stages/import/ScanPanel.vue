<script setup lang="ts">
import { figure } from '../../manner'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, watch } from 'vue'
import NumberField from '../../shell/NumberField.vue'
import { useFindings } from '../../stores/findings'
import { usePiece } from '../../stores/piece'

/** From a cloud to a closed surface: how fine, and what came of it. */
const store = usePiece(),
  found = useFindings()
const report = computed(() => store.report('surface')?.surface ?? null)
const voxel = ref(1),
  softness = ref(1.5)
watch(
  () => found.suggestedVoxel,
  (v) => {
    if (v) voxel.value = v
  },
  { immediate: true },
)
const busy = ref(false)
async function make(): Promise<void> {
  busy.value = true
  await store.tryOut({ kind: 'surface', voxel: voxel.value, softness: softness.value })
  busy.value = false
}
defineExpose({ make })
</script>

<template>
  <section v-if="report" class="sheet p-3 mb-3">
    <h3>{{ $t('import.scanPanel.surfaceOfTheScan') }}</h3>
    <dl class="facts mt-1">
      <dt>{{ $t('import.scanPanel.pointsOfWhichUsed') }}</dt>
      <dd>{{ figure(report.points) }}, {{ figure(report.used) }}</dd>
      <dt>{{ $t('import.scanPanel.betweenNeighbours') }}</dt>
      <dd>{{ report.spacing.toPrecision(3) }}</dd>
      <dt>{{ $t('import.scanPanel.noiseAveragedOut') }}</dt>
      <dd>{{ report.residual.toPrecision(2) }}</dd>
      <dt>{{ $t('import.scanPanel.gapsFilledIn') }}</dt>
      <dd>{{ report.invented.length }}</dd>
    </dl>
    <BButton variant="quiet" size="sm" class="mt-2" @click="store.remove('surface')">{{
      $t('import.scanPanel.backToThePoints')
    }}</BButton>
  </section>
  <section v-else class="mb-3">
    <h2 class="mb-2">{{ $t('import.scanPanel.yourChoices') }}</h2>
    <NumberField
      v-model="voxel"
      :label="$t('import.scanPanel.voxel')"
      unit="units"
      :step="0.05"
      :min="0.0005"
      :max="1000"
      :digits="4"
      :source="$t('import.scanPanel.fromThePointsSpacing')"
    />
    <NumberField
      v-model="softness"
      :label="$t('import.scanPanel.smoothing')"
      unit="voxels"
      :step="0.25"
      :min="0.5"
      :max="8"
      :source="$t('import.scanPanel.moreRemovesMoreNoise')"
    />
    <BButton variant="primary" :disabled="busy" @click="make">
      {{ busy ? $t('import.scanPanel.makingTheSurface') : $t('import.scanPanel.makeASurface') }}
    </BButton>
  </section>
</template>
