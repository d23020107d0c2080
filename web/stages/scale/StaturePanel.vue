<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import { LANDMARKS } from '../../../core/defaults/fit'
import { statureAlong } from '../../../core/fit/stature'
import { usePicking } from '../../composables/usePicking'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'

/** Standing height along the body, from places pressed on it, so that a crouching pose keeps its ratio. */
const props = defineProps<{ applied: number; stature: number }>()
const store = usePiece(),
  viewport = useViewport(),
  picking = usePicking()
type Triple = [number, number, number]
const places = ref<Triple[]>([])
viewport.describe(() =>
  places.value.length > 0
    ? {
        markers: places.value.map((point) => ({ point, kind: 'hand' as const })),
        line: { points: places.value, closed: false },
      }
    : null,
)
const set = computed(() => store.piece?.landmarks?.partId === store.part?.id)
function begin(): void {
  places.value = []
  ask()
}
function ask(): void {
  picking.ask(text('scale.staturePanel.clickTheOnThe', { LANDMARKS: LANDMARKS[places.value.length] }), (p) => {
    if (p.companion !== null || !store.part) return
    places.value = [...places.value, p.point]
    if (places.value.length < LANDMARKS.length) return ask()
    picking.stop()
    // Kept as on the sculpt before its size is set: at any size the chain is as many times longer.
    const points = places.value.map((q) => q.map((v) => v / props.applied) as Triple)
    void store.save({ landmarks: { partId: store.part.id, points } })
  })
}
function stop(): void {
  picking.stop()
  places.value = []
}
const along = computed(() => {
  const l = store.piece?.landmarks
  return l && set.value ? statureAlong(l.points) * props.applied : null
})
</script>

<template>
  <FoldPanel class="mb-3">
    <template #title
      >{{
        $t('scale.staturePanel.statureAlongMmAlong', {
          along: along !== null,
          along2: along === null ? '' : fixed(along, 1),
        })
      }}
    </template>
    <p v-if="along === null" class="soft small my-1">
      {{ $t('scale.staturePanel.untilItIsMeasured') }}
    </p>
    <NumberField
      :model-value="stature"
      :label="$t('scale.staturePanel.heightOfTheSubject')"
      unit="mm"
      :step="10"
      :min="1"
      :max="100000"
      :digits="0"
      @update:model-value="store.save({ subjectStature: $event })"
    />
    <div class="d-flex gap-1">
      <BButton variant="quiet" size="sm" @click="picking.asking.value ? stop() : begin()">
        {{
          picking.asking.value
            ? $t('scale.staturePanel.cancel')
            : set
              ? $t('scale.staturePanel.measureAgain')
              : $t('scale.staturePanel.measureAlongTheBody')
        }}
      </BButton>
      <BButton v-if="set" variant="quiet" size="sm" @click="store.save({ landmarks: null })">{{
        $t('scale.staturePanel.removeMeasurement')
      }}</BButton>
    </div>
  </FoldPanel>
</template>
