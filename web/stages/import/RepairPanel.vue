<script setup lang="ts">
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text } from '../../i18n'
import { figure } from '../../manner'
import type { Health } from '../../../core/mesh/health'
import { useCheck } from '../../composables/useCheck'
import { useSurfaceMap } from '../../composables/useSurfaceMap'
import NumberField from '../../shell/NumberField.vue'
import { useFindings } from '../../stores/findings'
import { usePiece } from '../../stores/piece'
import MapLegend from '../../viewport/MapLegend.vue'
import FaultNote from '../../shell/FaultNote.vue'

/** Light repair or a rebuilt skin, with what it was before and after, and where it moved. */
const store = usePiece(),
  found = useFindings()
const mended = computed(() => store.step('rebuild') ?? store.step('repair'))
const before = computed(() => (mended.value ? store.meshBefore('rebuild') : null))
const was = useCheck(
  () => before.value,
  () => ({ kind: 'health' }),
)
const rows = computed(() => {
  const a = was.report.value,
    b = found.health
  if (!a || !b || !mended.value) return []
  const of = (h: Health): [string, number][] => [
    ['faces', h.faces],
    ['shells', h.shells],
    [text('import.repairPanel.openEdges'), h.openEdges.count],
    ['holes', h.holes.count],
    [text('import.repairPanel.edgesWithMoreThan'), h.nonManifold.count],
    [text('import.repairPanel.edgesBetweenTurnedFaces'), h.disoriented.count],
    [text('import.repairPanel.faultyFaces'), h.degenerate.count + h.duplicate.count],
    [text('import.repairPanel.crossingFaces'), h.selfIntersecting.count],
    ['crumbs', h.crumbs.count],
  ]
  return of(a)
    .map(([what, n], i) => ({ what, before: n, after: of(b)[i]![1] }))
    .filter((r) => r.before !== r.after || r.what === 'faces')
})
const voxel = ref(0)
const suggested = computed(() => Number((Math.max(...(found.health?.size ?? [100])) / 256).toFixed(2)) || 0.4)
const chosen = computed({
  get: () => voxel.value || suggested.value,
  set: (v) => {
    voxel.value = v
  },
})
const busy = ref(false)
async function rebuild(): Promise<void> {
  busy.value = true
  await store.tryOut({ kind: 'rebuild', voxel: chosen.value })
  busy.value = false
}
const showing = ref(false)
const { scale, problem } = useSurfaceMap(() =>
  showing.value && before.value
    ? {
        check: { kind: 'difference', other: before.value },
        scale: (values) => ({ kind: 'amount', from: 0, to: Math.max(0.05, most(values)) }),
      }
    : null,
)
const most = (values: Float32Array): number => values.reduce((a, b) => Math.max(a, b), 0)
</script>

<template>
  <section v-if="mended && rows.length > 0" class="sheet p-3 mb-3">
    <h3>{{ store.step('rebuild') ? $t('import.repairPanel.rebuilt') : $t('import.repairPanel.repaired') }}</h3>
    <BTableSimple class="mt-1 mb-2" small>
      <BThead>
        <BTr>
          <BTh></BTh>
          <BTh class="num">{{ $t('import.repairPanel.before') }}</BTh>
          <BTh class="num">{{ $t('import.repairPanel.after') }}</BTh>
        </BTr>
      </BThead>
      <BTbody>
        <BTr v-for="r in rows" :key="r.what">
          <BTd>{{ r.what }}</BTd>
          <BTd class="num">{{ figure(r.before) }}</BTd>
          <BTd class="num">{{ figure(r.after) }}</BTd>
        </BTr>
      </BTbody>
    </BTableSimple>
    <BButton variant="quiet" size="sm" :aria-pressed="showing" @click="showing = !showing">
      {{ showing ? $t('import.repairPanel.hideDeviation') : $t('import.repairPanel.showDeviation') }}
    </BButton>
    <FaultNote :text="problem" />
  </section>
  <section class="mb-3">
    <h2 class="mb-2">{{ $t('import.repairPanel.yourChoices') }}</h2>
    <NumberField
      v-model="chosen"
      :label="$t('import.repairPanel.voxelSizeForRebuilding')"
      unit="mm"
      :step="0.05"
      :min="0.02"
      :max="50"
      :source="voxel ? '' : $t('import.repairPanel.n256AcrossThePart')"
    />
    <div class="d-flex gap-2 mt-1">
      <BButton variant="quiet" size="sm" :disabled="!!store.step('repair')" @click="store.apply({ kind: 'repair' })">
        {{ $t('import.repairPanel.lightRepair') }}
      </BButton>
      <BButton variant="quiet" size="sm" :disabled="busy" @click="rebuild">
        {{ busy ? $t('import.repairPanel.rebuilding') : $t('import.repairPanel.rebuildSurface') }}
      </BButton>
    </div>
    <p class="soft small mt-1 mb-0">
      {{ $t('import.repairPanel.lightRepairChangesOnly') }}
    </p>
  </section>
  <Teleport v-if="showing && scale" to="#middle">
    <MapLegend :title="$t('import.repairPanel.deviationFromTheImported')" :scale="scale" unit="mm" />
  </Teleport>
</template>
