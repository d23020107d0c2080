<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text } from '../../i18n'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'

/** A brush under which thin places grow outward. */
const store = usePiece(),
  viewport = useViewport()
type BrushSpot = { point: [number, number, number]; radius: number }
const dabs = ref<BrushSpot[]>([])
const radius = ref(4),
  by = ref(0.3)
const brushing = ref(false),
  busy = ref(false)
function begin(): void {
  brushing.value = true
}
viewport.describe(() =>
  brushing.value || dabs.value.length > 0
    ? { markers: dabs.value.map((d) => ({ point: d.point, kind: 'hand' as const, radius: d.radius / 4 })) }
    : null,
)
viewport.describe(() =>
  brushing.value ? { mode: 'brush', hint: text('scale.thickenPanel.brushOverWhatIs'), onPick: brushed } : null,
)
function brushed(p: Picked): void {
  if (p.companion !== null) return
  const near = dabs.value.some((d) => Math.hypot(...d.point.map((v, k) => v - p.point[k]!)) < radius.value / 2)
  if (!near) dabs.value = [...dabs.value, { point: p.point, radius: radius.value }]
}
function stop(): void {
  brushing.value = false
}
function forget(): void {
  dabs.value = []
}
const voxel = computed(() => Math.min(0.5, Math.max(0.05, Number((by.value / 2).toFixed(2)))))
async function grow(): Promise<void> {
  stop()
  busy.value = true
  if (await store.tryOut({ kind: 'thicken', dabs: dabs.value, by: by.value, voxel: voxel.value })) forget()
  busy.value = false
}
</script>

<template>
  <FoldPanel class="mb-3" @toggle="$event || stop()">
    <template #title>{{ $t('scale.thickenPanel.thickenPlaces') }}</template>
    <NumberField v-model="by" :label="$t('scale.thickenPanel.by')" unit="mm" :step="0.1" :min="0.02" :max="10" />
    <NumberField
      v-model="radius"
      :label="$t('scale.thickenPanel.brush')"
      unit="mm"
      :step="1"
      :min="0.1"
      :max="200"
      :source="$t('scale.thickenPanel.radius')"
    />
    <div class="d-flex flex-wrap gap-1">
      <BButton :variant="brushing ? 'primary' : 'quiet'" size="sm" @click="brushing ? stop() : begin()">
        {{ brushing ? $t('scale.thickenPanel.doneBrushing') : $t('scale.thickenPanel.brush') }}
      </BButton>
      <BButton v-if="dabs.length > 0" variant="primary" size="sm" :disabled="busy" @click="grow">
        {{ busy ? $t('scale.thickenPanel.thickening') : $t('scale.thickenPanel.thicken') }}
      </BButton>
      <BButton v-if="dabs.length > 0" variant="quiet" size="sm" @click="forget">
        {{ $t('scale.thickenPanel.removeTheBrushedPlaces', { dabs: dabs.length }) }}
      </BButton>
    </div>
  </FoldPanel>
</template>
