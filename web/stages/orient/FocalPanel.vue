<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { regionDabs } from '../../../core/paint/surface/regionDabs'
import { fetchBytes } from '../../api'
import { messageOf } from '../../messageOf'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import { useScheme } from '../../stores/scheme'
import { loadMesh } from '../../viewport/meshCache'
import { useStand, type BrushSpot } from './orientStage'
import FaultNote from '../../shell/FaultNote.vue'

/** Where no support may leave a scar: brushed, or taken from the regions of the scheme. */
const store = usePiece(),
  scheme = useScheme(),
  stand = useStand()
const op = computed(() => {
  const o = store.step('focal')?.op
  return o?.kind === 'focal' ? o : null
})
/** Regions whose names say that eyes rest on them. */
const TELLING = /face|skin|hand|eye|lip|nose|brow|emblem|badge|crest/i
const map = computed(() => scheme.scheme?.maps.find((m) => m.partId === store.part?.id) ?? null)
const regions = computed(() =>
  map.value ? (scheme.scheme?.regions ?? []).filter((r) => (map.value!.areas[r.id] ?? 0) > 0) : [],
)
const chosen = ref<number[] | null>(null)
const picked = computed(() => chosen.value ?? regions.value.filter((r) => TELLING.test(r.name)).map((r) => r.id))
const fault = ref(''),
  busy = ref(false)
function begin(): void {
  stand.dabs = (op.value?.dabs ?? []).map((d) => ({ ...d }))
  stand.tool = 'focal'
}
async function keep(dabs: readonly BrushSpot[]): Promise<void> {
  stand.tool = 'none'
  if (dabs.length === 0) await store.remove('focal')
  else await store.apply({ kind: 'focal', dabs: [...dabs] })
  stand.dabs = []
}
async function fromRegions(): Promise<void> {
  const m = map.value
  if (!m) return
  busy.value = true
  fault.value = ''
  try {
    const [mesh, labels] = await Promise.all([loadMesh(m.meshHash), fetchBytes(m.labels)])
    const size = store.report('scale')?.measures.size ?? [100, 100, 100]
    await keep(regionDabs(mesh, labels, new Set(picked.value), Math.max(1, Math.max(...size) / 60)) as BrushSpot[])
  } catch (e) {
    fault.value = messageOf(e)
  } finally {
    busy.value = false
  }
}
const toggle = (id: number): void => {
  chosen.value = picked.value.includes(id) ? picked.value.filter((x) => x !== id) : [...picked.value, id]
}
</script>

<template>
  <FoldPanel class="mb-2">
    <template #title
      >{{ $t('orient.focalPanel.keepClean')
      }}<span class="soft"
        >:
        {{
          op
            ? $t('orient.focalPanel.brushedPlaces', { dabs: op.dabs.length })
            : $t('orient.focalPanel.nothingMarkedYet')
        }}</span
      >
    </template>
    <NumberField
      v-model="stand.radius"
      :label="$t('orient.focalPanel.brush')"
      unit="mm"
      :step="1"
      :min="0.5"
      :max="200"
      :source="$t('orient.focalPanel.radius')"
    />
    <div class="d-flex flex-wrap gap-1 mb-1">
      <BButton v-if="stand.tool !== 'focal'" variant="quiet" size="sm" @click="begin">
        {{ $t('orient.focalPanel.brushWhatMustStay') }}
      </BButton>
      <template v-else>
        <BButton variant="primary" size="sm" @click="keep(stand.dabs)">{{
          $t('orient.focalPanel.applyPlaces', { dabs: stand.dabs.length })
        }}</BButton>
        <BButton variant="quiet" size="sm" @click="stand.dabs = []">{{ $t('orient.focalPanel.removeAll') }}</BButton>
        <BButton variant="quiet" size="sm" @click="stand.tool = 'none'">{{ $t('orient.focalPanel.cancel') }}</BButton>
      </template>
    </div>
    <template v-if="regions.length > 0">
      <p class="soft small mb-1">{{ $t('orient.focalPanel.orTheRegionsOf') }}</p>
      <BFormCheckbox
        v-for="r in regions"
        :key="r.id"
        class="me-2"
        :model-value="picked.includes(r.id)"
        @update:model-value="toggle(r.id)"
        >{{ r.name }}</BFormCheckbox
      >
      <BButton variant="quiet" size="sm" :disabled="busy || picked.length === 0" @click="fromRegions">
        {{ $t('orient.focalPanel.markThese') }}
      </BButton>
    </template>
    <FaultNote :text="fault" />
  </FoldPanel>
</template>
