<script setup lang="ts">
import { fixed } from '../i18n'
import { quantity } from '../manner'
import FoldPanel from '../shell/FoldPanel.vue'
import { computed, reactive, ref, watch } from 'vue'
import { usePrinterAndResin } from '../composables/usePrinterAndResin'
import FindingList from '../shell/FindingList.vue'
import type { StageHandlers } from '../shell/fixHandlers'
import { useAssembly } from '../stores/assembly'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import { useViewport } from '../viewport/useViewport'
import ChoicesPanel from './hollow/ChoicesPanel.vue'
import DrainPanel from './hollow/DrainPanel.vue'
import HolesPanel from './hollow/HolesPanel.vue'
import WallPanel from './hollow/WallPanel.vue'
import FaultNote from '../shell/FaultNote.vue'

/** Solid, hollow or cast full; the wall; the holes through which all of it drains. */
const store = usePiece(),
  found = useFindings(),
  assembly = useAssembly(),
  viewport = useViewport()
const { resin } = usePrinterAndResin()
const op = computed(() => {
  const o = store.step('hollow')?.op
  return o?.kind === 'hollow' ? o : null
})
const height = computed(() => found.size?.[2] ?? store.report('hollow')?.measures.size[2] ?? 100)
// craft.md 6: about 2 mm for statues up to 300 mm, less for small figurines, more for large busts.
const usualWall = computed(() => (height.value < 80 ? 1.4 : height.value <= 300 ? 2 : 2.8))
const form = reactive({
  wall: op.value?.wall ?? usualWall.value,
  voxel: op.value?.voxel ?? 0.5,
  opening: op.value?.opening ?? 1,
})
watch(op, (o) => {
  if (o) Object.assign(form, { wall: o.wall, voxel: o.voxel, opening: o.opening })
})
// The size may be measured after the stage is open.
watch(usualWall, (w) => {
  if (!op.value) form.wall = w
})
const report = computed(() => store.report('hollow')?.hollow ?? null)
const holes = ref<InstanceType<typeof HolesPanel> | null>(null)
viewport.describe(() => ({
  mesh: store.meshAfter('drill') ?? store.meshAfter('hollow') ?? store.meshBefore('hollow'),
}))
async function solid(): Promise<void> {
  await store.change(store.operations().filter((o) => o.kind !== 'hollow' && o.kind !== 'drill'))
}
const fixes: StageHandlers<'hollow'> = {
  proposeHoles: () => holes.value?.propose(),
  holeAt: ({ place }) => holes.value?.holeAt(place),
  leaveSolid: solid,
}
const cast = computed(() => (store.part ? assembly.materialOf(store.part.id).cast : null))
const grams = (mm3: number): string => quantity((mm3 / 1000) * (resin.value?.density ?? 1.12), 0, 'g')
</script>

<template>
  <FindingList :judged="found.byStage.hollow" :fixes="fixes" @show="viewport.show" />
  <ChoicesPanel v-bind="form" />
  <WallPanel
    v-bind="form"
    :source="op ? $t('stages.hollowStage.yours') : $t('stages.hollowStage.usualForMm', { height: fixed(height, 0) })"
    @change="Object.assign(form, $event)"
  />
  <FoldPanel v-if="report" class="mb-3">
    <template #title
      >{{ $t('stages.hollowStage.wallThicknessMeasured')
      }}<span class="soft">{{
        $t('stages.hollowStage.mmAtItsThinnest', { minimum: fixed(report.wall.minimum, 2) })
      }}</span>
    </template>
    <dl class="facts mt-1">
      <dt>{{ $t('stages.hollowStage.n1OfItIs') }}</dt>
      <dd>{{ $t('stages.hollowStage.mm', { percentile1: fixed(report.wall.percentile1, 2) }) }}</dd>
      <dt>{{ $t('stages.hollowStage.mean') }}</dt>
      <dd>{{ $t('stages.hollowStage.mm2', { mean: fixed(report.wall.mean, 2) }) }}</dd>
      <dt>{{ $t('stages.hollowStage.mass') }}</dt>
      <dd>{{ grams(report.volumeBefore) }} → {{ grams(report.volumeAfter) }}</dd>
      <dt>{{ $t('stages.hollowStage.centreOfMass') }}</dt>
      <dd>
        {{
          $t('stages.hollowStage.mmUp', {
            centreBefore: fixed(report.centreBefore[2], 1),
            centreAfter: fixed(report.centreAfter[2], 1),
          })
        }}
      </dd>
      <dt>{{ $t('stages.hollowStage.keptSolidInside') }}</dt>
      <dd>{{ $t('stages.hollowStage.ml', { kept: fixed(report.kept / 1000, 1) }) }}</dd>
      <template v-if="cast !== null">
        <dt>{{ $t('stages.hollowStage.toBeFilledWith') }}</dt>
        <dd>
          {{
            $t('stages.hollowStage.mlG', {
              cavityVolume: fixed(report.cavityVolume / 1000, 1),
              cavityVolume2: fixed((report.cavityVolume / 1000) * cast, 0),
            })
          }}
        </dd>
      </template>
    </dl>
  </FoldPanel>
  <HolesPanel v-if="report" ref="holes" />
  <DrainPanel v-if="found.drained && report" class="mt-3" :report="found.drained" />
  <FaultNote :text="found.drainedProblem" />
</template>
