<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text } from '../../i18n'
import NumberField from '../../shell/NumberField.vue'
import { useFindings } from '../../stores/findings'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'

/** Cropping to a box, fewer faces, and smoothing that does not shrink: what a scan mostly needs, and some files too. */
const store = usePiece(),
  found = useFindings(),
  viewport = useViewport()
type Triple = [number, number, number]
const box = computed(() => found.health?.measures.box ?? null)
const SIDES = [
  [text('import.tidyPanel.fromTheLeft'), 0, 'min'],
  [text('import.tidyPanel.fromTheRight'), 0, 'max'],
  [text('import.tidyPanel.fromTheFront'), 1, 'min'],
  [text('import.tidyPanel.fromTheBack'), 1, 'max'],
  [text('import.tidyPanel.fromBelow'), 2, 'min'],
  [text('import.tidyPanel.fromAbove'), 2, 'max'],
] as const
/** percent of the size that each side of the box is moved in */
const inward = ref<number[]>(SIDES.map(() => 0))
const cropping = ref(false)
const crop = computed(() => {
  const b = box.value
  if (!b) return null
  const min = [...b.min] as Triple,
    max = [...b.max] as Triple
  SIDES.forEach(([, axis, end], i) => {
    const by = (inward.value[i]! / 100) * (b.max[axis] - b.min[axis])
    if (end === 'min') min[axis] += by
    else max[axis] -= by
  })
  return { min, max }
})
const empty = computed(() => !crop.value || crop.value.min.some((v, k) => v >= crop.value!.max[k]!))
viewport.describe(() => {
  const c = crop.value
  if (!cropping.value || !c) return null
  const at = (i: number): Triple => [0, 1, 2].map((k) => ((i >> k) & 1 ? c.max[k]! : c.min[k]!)) as Triple
  // Along all twelve edges in one stroke.
  const points = [0, 1, 3, 2, 0, 4, 5, 1, 5, 7, 3, 7, 6, 2, 6, 4].map(at)
  return { line: { points, closed: false, sharp: true } }
})
function leave(): void {
  cropping.value = false
}
const busy = ref('')
async function cut(): Promise<void> {
  busy.value = 'Cropping …'
  if (crop.value && (await store.tryOut({ kind: 'trim', planes: [], box: crop.value }))) {
    inward.value = SIDES.map(() => 0)
    leave()
  }
  busy.value = ''
}
const hasFaces = computed(() => (found.health?.points ?? 0) === 0)
const wishedFaces = ref<number | null>(null)
const faces = computed(() => wishedFaces.value ?? Math.round((found.health?.faces ?? 2000) / 2))
const passes = ref(10),
  limit = ref(0.2)
async function lighten(): Promise<void> {
  busy.value = text('import.tidyPanel.reducingFaces')
  await store.tryOut({ kind: 'simplify', faces: faces.value })
  busy.value = ''
}
async function smooth(): Promise<void> {
  busy.value = 'Smoothing …'
  await store.tryOut({ kind: 'smooth', passes: passes.value, limit: limit.value })
  busy.value = ''
}
</script>

<template>
  <FoldPanel class="mb-3" @toggle="cropping = $event || (leave(), false)">
    <template #title>{{ $t('import.tidyPanel.cropToABox') }}</template>
    <NumberField
      v-for="([word], i) in SIDES"
      :key="word"
      v-model="inward[i]!"
      :label="word"
      unit="%"
      :min="0"
      :max="99"
      :digits="1"
    />
    <BButton variant="primary" size="sm" :disabled="busy !== '' || empty || inward.every((v) => v === 0)" @click="cut">
      {{ busy || $t('import.tidyPanel.keepWhatIsInside') }}
    </BButton>
  </FoldPanel>
  <FoldPanel v-if="hasFaces" class="mb-3">
    <template #title>{{ $t('import.tidyPanel.fewerFacesSmootherSurface') }}</template>
    <NumberField
      :model-value="faces"
      :label="$t('import.tidyPanel.faces')"
      unit=""
      :step="10000"
      :min="100"
      :max="20000000"
      :digits="0"
      :source="wishedFaces === null ? $t('import.tidyPanel.halfOfThePresent') : ''"
      @update:model-value="wishedFaces = $event"
    />
    <BButton variant="primary" size="sm" class="mb-2" :disabled="busy !== ''" @click="lighten">
      {{ busy || $t('import.tidyPanel.reduceFaces') }}
    </BButton>
    <NumberField
      v-model="passes"
      :label="$t('import.tidyPanel.passes')"
      unit=""
      :min="1"
      :max="200"
      :digits="0"
      :source="$t('import.tidyPanel.volumeIsKept')"
    />
    <NumberField v-model="limit" :label="$t('import.tidyPanel.moveAtMost')" unit="mm" :step="0.05" :min="0" :max="50" />
    <BButton variant="primary" size="sm" :disabled="busy !== ''" @click="smooth">{{
      busy || $t('import.tidyPanel.smooth')
    }}</BButton>
  </FoldPanel>
</template>
