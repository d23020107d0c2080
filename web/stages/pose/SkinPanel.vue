<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text } from '../../i18n'
import NumberField from '../../shell/NumberField.vue'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import type { Posing } from './usePosing'

/** A brush that says which joint the skin follows, where the heat of the bones guessed wrong. */
const props = defineProps<{ posing: Posing }>()

const { joints, chosen, paint } = props.posing
const viewport = useViewport()
const radius = ref(6)
const brushing = ref(false)
const follows = computed(() => joints.value[chosen.value]?.name ?? '')
function begin(): void {
  brushing.value = true
}
viewport.describe(() =>
  brushing.value
    ? { mode: 'brush', hint: text('pose.skinPanel.brushOverTheSurface', { follows: follows.value }), onPick: brushed }
    : null,
)
function brushed(p: Picked): void {
  if (p.companion !== null) return
  const last = paint.value.at(-1)
  // One spot for each half radius of a stroke.
  const near =
    last?.joint === chosen.value && Math.hypot(...last.point.map((v, k) => v - p.point[k]!)) < radius.value / 2
  if (!near) paint.value = [...paint.value, { joint: chosen.value, point: p.point, radius: radius.value }]
}
function stop(): void {
  brushing.value = false
}
defineExpose({ brushing })
</script>

<template>
  <FoldPanel class="mb-3" @toggle="$event || stop()">
    <template #title>{{ $t('pose.skinPanel.whichJointTheSurface') }}</template>
    <p class="soft small my-1">
      {{ $t('pose.skinPanel.foundAutomaticallyEachPlace') }}
    </p>
    <NumberField
      v-model="radius"
      :label="$t('pose.skinPanel.brush')"
      unit="mm"
      :step="1"
      :min="0.2"
      :max="200"
      :source="$t('pose.skinPanel.radius')"
    />
    <div class="d-flex flex-wrap gap-1">
      <BButton :variant="brushing ? 'primary' : 'quiet'" size="sm" @click="brushing ? stop() : begin()">
        {{ brushing ? $t('pose.skinPanel.doneBrushing') : $t('pose.skinPanel.brushFor', { follows }) }}
      </BButton>
      <BButton v-if="paint.length > 0" variant="quiet" size="sm" @click="paint = []">
        {{ $t('pose.skinPanel.removeAllBrushedPlaces', { paint: paint.length }) }}
      </BButton>
    </div>
  </FoldPanel>
</template>
