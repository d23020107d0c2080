<script setup lang="ts">
import FoldPanel from '../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed, told } from '../i18n'
import { figure } from '../manner'
import { SCULPT_ENDINGS } from '../../core/formats/endings'
import { tell } from '../api'
import { useScaling } from '../composables/useScaling'
import FindingList from '../shell/FindingList.vue'
import type { StageHandlers } from '../shell/fixHandlers'
import StepList from '../shell/StepList.vue'
import { useFindings } from '../stores/findings'
import type { SculptRecord } from '../../contract/sculpts'
import { usePiece } from '../stores/piece'
import { useSculpts } from '../stores/sculpts'
import { useViewport } from '../viewport/useViewport'
import SculptPicker from '../shell/SculptPicker.vue'
import CalibratePanel from './import/CalibratePanel.vue'
import RepairPanel from './import/RepairPanel.vue'
import ScanPanel from './import/ScanPanel.vue'
import ScannerPanel from './import/ScannerPanel.vue'
import TidyPanel from './import/TidyPanel.vue'
import FileButton from '../shell/FileButton.vue'

const store = usePiece(),
  found = useFindings(),
  viewport = useViewport()
const sculpts = useSculpts()
const scaling = useScaling()
const scanPanel = ref<InstanceType<typeof ScanPanel> | null>(null)
const refused = ref<string[]>([])
viewport.describe(() => ({
  mesh: found.taken,
  markers: found.byStage.import.findings.flatMap((f) => f.places.map((point) => ({ point, kind: f.level }))),
}))
async function choose(files: File[]): Promise<void> {
  refused.value = await store.dropFiles(files)
}
const fixes: StageHandlers<'import'> = {
  repair: {
    run: () => store.apply({ kind: 'repair' }),
    unless() {
      const status = store.step('repair')?.derivation?.status
      if (!store.step('repair') || status === 'failed') return null
      return status === 'done'
        ? text('stages.importStage.itWasRepairedAlready')
        : text('stages.importStage.itIsBeingRepaired')
    },
  },
  scale: ({ factor }) => scaling.by(factor),
  newestEdition() {
    const s = sculpts.byId(store.part?.sculptId)
    const newest = s && sculpts.editions(s.family)[0]
    return newest && store.arrange({ swap: [{ id: store.part!.id, sculpt: newest.id }] })
  },
  makeSurface: () => scanPanel.value?.make(),
  cutFloor({ point, normal, scatter }) {
    const up = Math.max(4 * scatter, 1e-6)
    const above = point.map((v, k) => v + up * normal[k]!) as [number, number, number]
    return store.tryOut({ kind: 'trim', planes: [{ point: above, normal }] })
  },
}
const shelf = ref(false)
async function take(s: SculptRecord): Promise<void> {
  const made = await store.arrange({ create: [{ name: s.name, from: null, sculpt: s.id, operations: [] }] })
  if (made)
    store.partIndex = Math.max(
      0,
      store.piece!.partList.findIndex((p) => p.id === made[0]),
    )
}
const h = computed(() => found.health)
const isScan = computed(() => (h.value?.points ?? 0) > 0 || store.step('surface') !== null)
const notices = computed(() =>
  (store.piece?.intakes ?? []).flatMap((i) => i.passedOver.map((sentence) => ({ id: i.id, sentence }))),
)
</script>

<template>
  <template v-if="store.part">
    <FindingList :judged="found.byStage.import" :fixes="fixes" @show="viewport.show" />
    <section v-if="h && h.points === 0" class="sheet p-3 mb-3">
      <h3 class="mb-1">
        {{ store.part.fileName || store.part.name
        }}<span v-if="store.counted('scale')" class="soft fw-normal">{{ $t('stages.importStage.beforeScaling') }}</span>
      </h3>
      <dl class="facts">
        <dt>{{ $t('stages.importStage.size') }}</dt>
        <dd>{{ $t('stages.importStage.mm', { size: h.size.map((s) => fixed(s, 1)) }) }}</dd>
        <dt>{{ $t('stages.importStage.volume') }}</dt>
        <dd>
          {{
            $t('stages.importStage.mlVolume', {
              abs: told(Math.abs(h.volume) / 1000, 1),
              volume: h.volume < 0,
            })
          }}
        </dd>
        <dt>{{ $t('stages.importStage.surface') }}</dt>
        <dd>{{ $t('stages.importStage.cm', { area: told(h.area / 100, 0) }) }}</dd>
        <dt>{{ $t('stages.importStage.faces') }}</dt>
        <dd>{{ figure(h.faces) }}</dd>
        <dt>{{ $t('stages.importStage.shells') }}</dt>
        <dd>{{ h.shells }}</dd>
        <dt>{{ $t('stages.importStage.openEdges') }}</dt>
        <dd>{{ figure(h.openEdges.count) }}</dd>
      </dl>
    </section>
    <ScanPanel v-if="isScan" ref="scanPanel" />
    <CalibratePanel v-if="isScan" />
    <RepairPanel v-if="h && h.points === 0" />
    <TidyPanel v-if="h" />
    <StepList :kinds="['trim', 'surface', 'rebuild', 'repair', 'calibrate', 'smooth', 'simplify']" />
    <ScannerPanel v-if="h && h.points === 0" />
  </template>
  <section v-else class="mb-3">
    <h2>{{ $t('stages.importStage.addASculpt') }}</h2>
    <p class="soft">
      {{ $t('stages.importStage.dropFilesAnywhereOn') }}
    </p>
  </section>
  <ul class="list-unstyled">
    <li
      v-for="i in store.piece!.intakes.filter((x) => x.status !== 'done')"
      :key="i.id"
      class="intake"
      :class="i.status"
    >
      <span v-if="i.status === 'waiting'">{{ $t('stages.importStage.isBeingRead', { fileName: i.fileName }) }}</span>
      <template v-else
        ><span role="alert">{{ i.problem?.message }}</span>
        <BButton variant="quiet" size="sm" @click="tell('DELETE', `/intakes/${i.id}`)">{{
          $t('stages.importStage.dismiss')
        }}</BButton></template
      >
    </li>
    <li v-for="n in notices" :key="n.sentence" class="intake refused">
      <span role="alert">{{ n.sentence }}</span>
      <BButton variant="quiet" size="sm" @click="tell('DELETE', `/intakes/${n.id}`)">{{
        $t('stages.importStage.dismiss')
      }}</BButton>
    </li>
  </ul>
  <p v-for="r in refused" :key="r" role="alert" class="intake refused">{{ r }}</p>
  <FileButton
    multiple
    :accept="SCULPT_ENDINGS.map((e) => `.${e}`).join(',')"
    :label="$t('stages.importStage.sculptFiles')"
    @files="choose"
    >{{ store.part ? $t('stages.importStage.addAnotherFile') : $t('stages.importStage.chooseFiles') }}</FileButton
  >
  <FoldPanel class="mt-2" @toggle="shelf = $event">
    <template #title>{{ $t('stages.importStage.chooseFromTheLibrary') }}</template>
    <SculptPicker v-if="shelf" @choose="take" />
  </FoldPanel>
</template>

<style scoped>
.intake {
  padding: 7px 10px;
  border-radius: 4px;
  margin-bottom: 8px;
  background: var(--paper-sunk);
}
.intake.refused {
  background: var(--problem-ground);
  border-left: 4px solid var(--problem);
}
</style>
