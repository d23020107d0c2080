<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { ref } from 'vue'
import { PRINTS } from '../../../core/findings/tooThin'
import { useDetailLimits } from '../../composables/useDetailLimits'
import { useSurfaceMap } from '../../composables/useSurfaceMap'
import { usePiece } from '../../stores/piece'
import MapLegend from '../../viewport/MapLegend.vue'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'

/** Where the sculpt is thin at the size that is tried, and where its detail drowns in layers, pixels and paint. */
const props = defineProps<{ factor: number; applied: number }>()
const store = usePiece(),
  viewport = useViewport()
const limits = useDetailLimits()
/** mm that a limb needs to stand alone (craft.md 5) */
const ALONE = 1
const shown = ref<'nothing' | 'thickness' | 'detail'>('nothing')
const { scale, problem } = useSurfaceMap(() => {
  const mesh = viewport.scene.mesh
  if (!mesh || shown.value === 'nothing') return null
  // The sculpt stands there as large as it was last set.
  const k = props.factor / props.applied
  if (shown.value === 'thickness')
    return {
      check: { kind: 'thicknessMap' },
      key: k,
      scale: () => ({ kind: 'lack', from: PRINTS / k, to: ALONE / k, shownBy: k }),
    }
  return {
    check: { kind: 'detailMap', other: mesh, factor: k, ...limits.value },
    scale: () => ({ kind: 'lack', from: 0, to: 1.5 }),
  }
})
const toggle = (what: 'thickness' | 'detail'): void => {
  shown.value = shown.value === what ? 'nothing' : what
}
</script>

<template>
  <div v-if="store.part" class="d-flex flex-wrap gap-1 mb-3">
    <BButton variant="quiet" size="sm" :aria-pressed="shown === 'thickness'" @click="toggle('thickness')">
      {{ shown === 'thickness' ? $t('scale.sizeMaps.hideThickness') : $t('scale.sizeMaps.showThickness') }}
    </BButton>
    <BButton variant="quiet" size="sm" :aria-pressed="shown === 'detail'" @click="toggle('detail')">
      {{ shown === 'detail' ? $t('scale.sizeMaps.hideDetail') : $t('scale.sizeMaps.showWhichDetailRemains') }}
    </BButton>
    <FaultNote :text="problem" />
  </div>
  <Teleport v-if="scale" to="#middle">
    <MapLegend
      :title="shown === 'thickness' ? $t('scale.sizeMaps.thickness') : $t('scale.sizeMaps.depthOfDetailAs')"
      :scale="scale"
      :unit="shown === 'thickness' ? 'mm' : '×'"
    />
  </Teleport>
</template>
