<script setup lang="ts">
import FoldPanel from '../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, watch } from 'vue'
import { text, fixed } from '../i18n'
import { figure, unitName } from '../manner'
import { loadDefaults } from '../../core/fit/wallLoad'
import { resinUse } from '../../core/print/slice/printer'
import { usePrinterAndResin } from '../composables/usePrinterAndResin'
import CutPanel from './scale/CutPanel.vue'
import RatioTable from './scale/RatioTable.vue'
import { useScaling } from '../composables/useScaling'
import FindingList from '../shell/FindingList.vue'
import type { StageHandlers } from '../shell/fixHandlers'
import NumberField from '../shell/NumberField.vue'
import StepList from '../shell/StepList.vue'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import { thickening } from '../../core/findings/tooThin'
import { statureAlong } from '../../core/fit/stature'
import { useViewport } from '../viewport/useViewport'
import SizeMaps from './scale/SizeMaps.vue'
import StaturePanel from './scale/StaturePanel.vue'
import ThickenPanel from './scale/ThickenPanel.vue'

const store = usePiece(),
  found = useFindings(),
  stock = useStock(),
  viewport = useViewport()
const { resin } = usePrinterAndResin()
/** g/ml; without a resin that of a usual one, and the screen says so */
const density = computed(() => resin.value?.density ?? loadDefaults.density)
const source = computed(() => store.meshBefore('scale'))
const applied = computed(() => {
  const op = store.step('scale')?.op
  return op?.kind === 'scale' ? op.factor : 1
})
const factor = ref(applied.value)
// News from elsewhere does not take away what is being tried here.
watch(applied, (v, before) => {
  if (factor.value === before) factor.value = v
})
const base = computed(() => found.measures)
const size = computed(
  () => base.value?.size.map((s, k) => s * factor.value * axes.value[k]!) as [number, number, number] | undefined,
)
const volume = computed(
  () => Math.abs(base.value?.volume ?? 0) * factor.value ** 3 * axes.value[0] * axes.value[1] * axes.value[2],
)
/** Of a stretched skin: exact when all axes grow alike, else by the mean. */
const area = computed(
  () => (base.value?.area ?? 0) * factor.value ** 2 * (axes.value[0] * axes.value[1] * axes.value[2]) ** (2 / 3),
)
const ml = computed(() => resinUse(volume.value, area.value))
const judged = computed(() => found.sizeAt(factor.value, axes.value))
const stature = computed(() => store.piece?.subjectStature ?? 1750)
const axes = ref<[number, number, number]>([1, 1, 1])
const setAxes = computed(() => {
  const op = store.step('scale')?.op
  return op?.kind === 'scale' ? op.axes : ([1, 1, 1] as [number, number, number])
})
watch(setAxes, (v) => (axes.value = [...v]), { immediate: true })
/** mm of stature at factor 1: along the body where that was measured, else the sculpt's own height. */
const ownStature = computed(() => {
  const l = store.piece?.landmarks
  return l && l.partId === store.part?.id
    ? statureAlong(l.points, axes.value)
    : (base.value?.size[2] ?? 1) * axes.value[2]
})
const ratio = computed(() => stature.value / (ownStature.value * factor.value))
const RATIOS = [4, 6, 9, 12, 16]
viewport.describe(() => ({ mesh: store.meshAfter('channel') ?? source.value }))
const fixes: StageHandlers<'scale'> = {
  scale(fix) {
    factor.value *= fix.factor
  },
  thicken: ({ places, by }) => store.tryOut(thickening(places, by)),
}
const scaling = useScaling()
const several = computed(() => (store.piece?.partList.length ?? 0) > 1)
const setSize = (): Promise<void> => scaling.set(factor.value, axes.value)
const changed = computed(
  () =>
    Math.abs(factor.value / applied.value - 1) > 1e-6 ||
    axes.value.some((a, k) => Math.abs(a - setAxes.value[k]!) > 1e-6),
)
function back(): void {
  factor.value = applied.value
  axes.value = [...setAxes.value]
}
const AXES = [
  text('stages.scaleStage.stretchWidth'),
  text('stages.scaleStage.stretchDepth'),
  text('stages.scaleStage.stretchHeight'),
] as const
const setAxis = (k: number, v: number): void => {
  axes.value = axes.value.map((a, i) => (i === k ? v : a)) as typeof axes.value
}
</script>

<template>
  <FindingList :judged="judged" :fixes="fixes" @show="viewport.show" />
  <section v-if="base && size" class="sheet p-3 mb-3">
    <div class="d-flex justify-content-between align-items-baseline">
      <span
        ><span class="figure">{{ figure(size[2], 1, 'mm') }}</span>
        <span class="soft">{{ ' ' }}{{ $t('stages.scaleStage.mmTall', { unit: unitName('mm') }) }}</span></span
      ><span class="soft">1 : {{ figure(ratio, 1) }}</span>
    </div>
    <dl class="facts mt-2">
      <dt>{{ $t('stages.scaleStage.widthDepth') }}</dt>
      <dd>{{ $t('stages.scaleStage.mm', { size: fixed(size[0], 1), size2: fixed(size[1], 1) }) }}</dd>
      <dt>{{ $t('stages.scaleStage.solidVolume') }}</dt>
      <dd>{{ $t('stages.scaleStage.ml', { volume: fixed(volume / 1000, 1) }) }}</dd>
      <dt>{{ $t('stages.scaleStage.resinIfPrintedSolid') }}</dt>
      <dd>{{ $t('stages.scaleStage.ml2', { ml: fixed(ml, 1) }) }}</dd>
      <dt>{{ $t('stages.scaleStage.mass') }}</dt>
      <dd>{{ $t('stages.scaleStage.gAtGMl', { volume: fixed((volume / 1000) * density, 0), density }) }}</dd>
      <dt>{{ $t('stages.scaleStage.priceOfResin') }}</dt>
      <dd>{{ resin ? stock.money((ml / 1000) * resin.pricePerLitre) : $t('stages.scaleStage.noResinChosen') }}</dd>
    </dl>
  </section>
  <section v-if="base && size" class="mb-3">
    <h2 class="mb-2">{{ $t('stages.scaleStage.yourChoices') }}</h2>
    <NumberField
      :model-value="size[2]"
      :label="$t('stages.scaleStage.height')"
      unit="mm"
      :min="1"
      :max="4000"
      :digits="1"
      @update:model-value="factor = $event / (base.size[2] * axes[2])"
    />
    <NumberField
      :model-value="factor"
      :label="$t('stages.scaleStage.scaleFactor')"
      unit="×"
      :step="0.05"
      :min="0.0001"
      :max="10000"
      :digits="4"
      @update:model-value="factor = $event"
    />
    <NumberField
      :model-value="ratio"
      :label="$t('stages.scaleStage.scaleRatio1To')"
      unit=""
      :step="1"
      :min="0.1"
      :max="500"
      :digits="2"
      :source="$t('stages.scaleStage.subjectMm', { stature })"
      @update:model-value="factor = stature / $event / ownStature"
    />
    <div class="d-flex gap-1 flex-wrap mt-2">
      <BButton v-for="r in RATIOS" :key="r" variant="quiet" size="sm" @click="factor = stature / r / ownStature">
        1:{{ r }}
      </BButton>
    </div>
    <FoldPanel class="mt-2">
      <template #title>{{ $t('stages.scaleStage.stretchAlongAxis') }}</template>
      <NumberField
        v-for="(word, k) in AXES"
        :key="word"
        :model-value="axes[k]!"
        :label="word"
        unit="×"
        :step="0.05"
        :min="0.01"
        :max="100"
        :digits="3"
        @update:model-value="setAxis(k, $event)"
      />
    </FoldPanel>
  </section>
  <div class="d-flex gap-2 mb-3">
    <BButton variant="primary" :disabled="!changed" @click="setSize">
      {{ several ? $t('stages.scaleStage.scaleAllParts') : $t('stages.scaleStage.scale') }}
    </BButton>
    <BButton v-if="changed" variant="quiet" @click="back">
      {{ $t('stages.scaleStage.backToApplied', { applied, applied2: fixed(applied, 3) }) }}
    </BButton>
  </div>
  <StaturePanel v-if="base" :applied="applied" :stature="stature" />
  <RatioTable
    v-if="base"
    :base="base"
    :own-stature="ownStature"
    :stature="stature"
    :factor="factor"
    :applied="applied"
    @choose="factor = $event"
  />
  <SizeMaps v-if="base" :factor="factor" :applied="applied" />
  <ThickenPanel v-if="base" />
  <CutPanel v-if="base" />
  <StepList :kinds="['scale', 'thicken', 'cut', 'fix']" />
</template>
