<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'

/** True scale of a scan: two places picked on it, and how far apart they are in truth. */
const store = usePiece(),
  viewport = useViewport()
type Place = [number, number, number]
const picking = ref(false)
const places = ref<Place[]>([])
const distance = ref(100)
const apart = computed(() =>
  places.value.length === 2 ? Math.hypot(...places.value[0]!.map((v, k) => v - places.value[1]![k]!)) : 0,
)
const done = computed(() => store.step('calibrate'))
function start(): void {
  places.value = []
  picking.value = true
}
const HINTS = [text('import.calibratePanel.clickTheFirstOf'), text('import.calibratePanel.clickTheSecondPlace'), '']
viewport.describe(() =>
  picking.value
    ? {
        mode: 'pick',
        hint: HINTS[places.value.length] ?? '',
        markers: places.value.map((point) => ({ point, kind: 'hand' as const })),
        onPick: (p) => {
          places.value = places.value.length === 2 ? [p.point] : [...places.value, p.point]
        },
      }
    : null,
)
function stop(): void {
  picking.value = false
}
async function apply(): Promise<void> {
  const [from, to] = places.value
  if (!from || !to) return
  // The places were picked on what stands there now; calibrating again goes through the earlier factor.
  const before = done.value?.op.kind === 'calibrate' ? (store.report('calibrate')?.factor ?? 1) : 1
  const back = (p: Place): Place => p.map((v) => v / before) as Place
  if (await store.tryOut({ kind: 'calibrate', from: back(from), to: back(to), distance: distance.value })) stop()
}
</script>

<template>
  <section class="mb-3">
    <h2 class="mb-2">{{ $t('import.calibratePanel.trueScale') }}</h2>
    <p v-if="done" class="soft small mb-1">
      {{
        $t('import.calibratePanel.calibratedByAKnown', {
          factor: store.report('calibrate') ? fixed(store.report('calibrate')!.factor, 4) : '…',
        })
      }}
      <BButton variant="quiet" size="sm" @click="store.remove('calibrate')">{{
        $t('import.calibratePanel.removeCalibration')
      }}</BButton>
    </p>
    <BButton v-if="!picking" variant="quiet" size="sm" @click="start">{{
      $t('import.calibratePanel.chooseTwoPlaces')
    }}</BButton>
    <template v-else>
      <p v-if="apart > 0" class="mb-1">
        <span class="figure-sm">{{ apart.toPrecision(4) }}</span>
        <span class="soft">{{ ' ' }}{{ $t('import.calibratePanel.unitsApartNow') }}</span>
      </p>
      <NumberField
        v-model="distance"
        :label="$t('import.calibratePanel.trueDistance')"
        unit="mm"
        :min="0.01"
        :max="100000"
        :digits="2"
      />
      <div class="d-flex gap-2">
        <BButton variant="primary" size="sm" :disabled="apart === 0" @click="apply">{{
          $t('import.calibratePanel.calibrate')
        }}</BButton>
        <BButton variant="quiet" size="sm" @click="stop">{{ $t('import.calibratePanel.cancel') }}</BButton>
      </div>
    </template>
  </section>
</template>
