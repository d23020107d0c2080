<script setup lang="ts">
import { fixed } from '../i18n'
import { figure } from '../manner'
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BLink } from 'bootstrap-vue-next/components/BLink'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { storeToRefs } from 'pinia'
import { RouterLink, useRouter } from 'vue-router'
import type { Fix } from '../../core/findings/fix'
import { partAt } from '../../core/print/nest/partAt'
import type { Placed } from '../../core/print/nest/types'
import { nameForFile } from '../composables/useDownload'
import { usePrinterAndResin } from '../composables/usePrinterAndResin'
import { duration } from '../shell/duration'
import { useScaling } from '../composables/useScaling'
import FindingList from '../shell/FindingList.vue'
import type { StageHandlers } from '../shell/fixHandlers'
import LayerPicture from '../shell/LayerPicture.vue'
import LayerChart from './LayerChart.vue'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import { useRequestedFix } from '../stores/requestedFix'
import { usePlating } from '../stores/plating'
import { useStock } from '../stores/stock'
import { useViewport } from '../viewport/useViewport'
import FilamentPanel from './plates/FilamentPanel.vue'
import FilesPanel from './plates/FilesPanel.vue'
import NestPanel from './plates/NestPanel.vue'
import PlateDrawing from './plates/PlateDrawing.vue'
import { messageOf } from '../messageOf'

const store = usePiece(),
  found = useFindings(),
  stock = useStock(),
  plating = usePlating()
const { printer, resin, chosen } = usePrinterAndResin()
const mesh = computed(() => store.meshAfter('support'))
const { sliced, sliceReport: report } = storeToRefs(found)
const zip = computed(() => (sliced.value?.status === 'done' ? sliced.value.blobs.zip : undefined))
const fault = ref(''),
  layer = ref(0)
async function slice(): Promise<void> {
  fault.value = ''
  try {
    await found.slice()
  } catch (e) {
    fault.value = messageOf(e)
  }
}
watch(report, (r) => {
  if (r) layer.value = Math.min(layer.value || Math.floor(r.layers / 3), r.layers - 1)
})
onMounted(() => {
  plating.open = true
  if (store.counted('support')) void slice()
})
onBeforeUnmount(() => {
  plating.open = false
})
/** What is looked at in the middle: layers of what was sliced, or the plates from above. */
const looking = ref<'layers' | 'sculpt' | 'plates'>(
  store.piece && store.piece.partList.length > 1 ? 'plates' : 'layers',
)
const printing = computed(() => plating.target?.printer ?? printer.value)
const viewport = useViewport()
// On the sculpt the layer is a plane through what is printed, at its height.
viewport.describe(() =>
  looking.value === 'sculpt' && report.value !== null
    ? {
        stands: true,
        mesh: plating.target?.mesh ?? mesh.value,
        plane: { point: [0, 0, (layer.value + 0.5) * report.value.layerHeight], normal: [0, 0, 1] },
      }
    : null,
)
const names = computed(() => Object.fromEntries(plating.parts.map((p) => [p.part.id, p.part.name])))
const platePrinter = computed(() => (plating.plate ? plating.printerOf(plating.plate) : null))
function put({ id, copy, x, y, angle }: Placed): void {
  const p = plating.plate
  if (!p) return
  const others = (plating.wish.locks[id] ?? []).filter((l) => l.copy !== copy)
  const lock = { copy, printer: p.printer, plate: p.number, x, y, angle }
  void plating.change({ locks: { ...plating.wish.locks, [id]: [...others, lock] } })
}
async function slicePlate(): Promise<void> {
  looking.value = 'layers'
  await slice()
}
function partAlone(): void {
  plating.target = null
  void slice()
}
const requested = useRequestedFix(),
  router = useRouter()
const scaling = useScaling()
/** What stands on the plate is mended at Stand: the part that it concerns is taken there. */
const mendAtStand = (fix: Fix<'support' | 'reorient' | 'quarterTurn' | 'ventCup'>): Promise<unknown> => {
  const of = found.byStage.plates.findings.find((f) => f.places.length > 0 && f.fixes.some((x) => x.act === fix.act))
  const place = 'place' in fix ? fix.place : of?.places[0]
  const { target } = plating
  const on = target && place ? partAt(target.plate.parts, plating.report?.shapes ?? [], place) : null
  const i = store.piece!.partList.findIndex((p) => p.id === on?.id)
  if (i >= 0) store.partIndex = i
  requested.request('orient', 'place' in fix && on ? { ...fix, place: on.place } : fix)
  return router.push(`/pieces/${store.piece!.id}/orient`)
}
const fixes: StageHandlers<'plates'> = {
  support: mendAtStand,
  reorient: mendAtStand,
  quarterTurn: mendAtStand,
  ventCup: mendAtStand,
  scale: ({ factor }) => scaling.by(factor),
}
const fileName = computed(() => nameForFile(store.piece?.name ?? 'piece'))
function goTo(place: [number, number, number]): void {
  if (report.value)
    layer.value = Math.max(0, Math.min(report.value.layers - 1, Math.round(place[2] / report.value.layerHeight - 0.5)))
}
</script>

<template>
  <Teleport to="#middle" defer>
    <div v-if="looking === 'plates' && plating.plate && platePrinter" class="page above">
      <div class="views">
        <BButton variant="quiet" size="sm" @click="looking = 'layers'">{{ $t('stages.platesStage.layers') }}</BButton>
        <BButton variant="primary" size="sm" aria-pressed="true">{{ $t('stages.platesStage.fromAbove') }}</BButton>
      </div>
      <PlateDrawing
        :plate="plating.plate"
        :printer="platePrinter"
        :shapes="plating.report!.shapes"
        :names="names"
        :locked="plating.wish.locks"
        @put="put"
      />
    </div>
    <div v-else class="page viewed" :class="{ onSculpt: looking === 'sculpt' }">
      <div v-if="(report && zip) || plating.plate" class="views">
        <BButton
          v-for="v in ['layers', 'sculpt'] as const"
          :key="v"
          :variant="looking === v ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="looking === v"
          @click="looking = v"
        >
          {{ v === 'layers' ? $t('stages.platesStage.layers') : $t('stages.platesStage.onTheSculpt') }}
        </BButton>
        <BButton v-if="plating.plate" variant="quiet" size="sm" @click="looking = 'plates'">{{
          $t('stages.platesStage.fromAbove')
        }}</BButton>
        <span class="soft small">{{
          $t('stages.platesStage.ofTargetPlateAlone', {
            target: Boolean(plating.target),
            name: plating.target?.printer.name,
            number: (plating.target?.plate.number ?? 0) + 1,
            name2: store.part?.name ?? $t('stages.platesStage.thePart'),
          })
        }}</span>
        <BButton v-if="plating.target" variant="quiet" size="sm" @click="partAlone">{{
          $t('stages.platesStage.showThePartAlone')
        }}</BButton>
      </div>
      <template v-if="report && zip">
        <LayerPicture
          v-if="looking !== 'sculpt'"
          :src="`/api/layers/${zip}/${layer}`"
          :alt="$t('stages.platesStage.layer', { layer: layer + 1 })"
          :pixels="report.pixels"
          :pitch="printing ? [printing.pitchX, printing.pitchY] : [0.05, 0.05]"
        />
        <div class="scrub">
          <label class="d-flex gap-3 align-items-center"
            ><span class="num at">{{ $t('stages.platesStage.layer2', { layer: layer + 1 }) }}</span
            ><BFormInput
              v-model.number="layer"
              type="range"
              min="0"
              :max="report.layers - 1"
              :aria-label="$t('stages.platesStage.layer3')"
            /><span class="num at">{{
              $t('stages.platesStage.mm', { layer: fixed((layer + 1) * report.layerHeight, 2) })
            }}</span></label
          >
          <p class="soft small m-0">
            {{
              $t('stages.platesStage.cmExposedNPeel', {
                areas: fixed(report.areas[layer]! / 100, 2),
                peel: fixed(report.peel[layer]!, 2),
                perimeters: fixed(report.perimeters[layer]!, 0),
              })
            }}
          </p>
        </div>
        <LayerChart
          :areas="report.areas"
          :peel="report.peel"
          :suction="report.suction"
          :layer-height="report.layerHeight"
          :layer="layer"
          @pick="layer = $event"
        />
      </template>
      <div v-else class="wait">
        <p v-if="!store.part" class="soft">{{ $t('stages.platesStage.addASculptUnder') }}</p>
        <p v-else-if="!store.counted('orient')" class="soft">
          {{ $t('stages.platesStage.thePartHasNo') }}
          <RouterLink :to="`/pieces/${store.piece!.id}/orient`">{{
            $t('stages.platesStage.chooseAnOrientationAnd')
          }}</RouterLink>{{ $t('stages.platesStage.thenSliceIt') }}
        </p>
        <p v-else-if="sliced && sliced.status !== 'failed'" class="soft">
          {{ $t('stages.platesStage.slicing', { round: Math.round(sliced.progress * 100) }) }}
        </p>
        <p v-else class="soft">{{ $t('stages.platesStage.sliceItToSee') }}</p>
      </div>
    </div>
  </Teleport>
  <FindingList :judged="found.byStage.plates" :fixes="fixes" @show="goTo" />
  <BAlert v-if="fault || sliced?.problem" :model-value="true" variant="danger">{{
    fault || sliced?.problem?.message
  }}</BAlert>
  <NestPanel @show="looking = 'plates'" @slice="slicePlate" />
  <FilamentPanel />
  <section v-if="report" class="sheet p-3 mb-3">
    <span class="figure">{{ duration(report.seconds) }}</span>
    <span class="soft"
      >{{ ' '
      }}{{
        $t('stages.platesStage.forTargetPlateOn', {
          target: Boolean(plating.target),
          number: (plating.target?.plate.number ?? 0) + 1,
          name: store.part?.name ?? $t('stages.platesStage.thePart'),
          name2: (plating.target?.printer ?? printer)?.name,
        })
      }}</span
    >
    <dl class="facts mt-2">
      <dt>{{ $t('stages.platesStage.layers2') }}</dt>
      <dd>
        {{ $t('stages.platesStage.ofMm', { layers: report.layers, layerHeight: report.layerHeight }) }}
      </dd>
      <dt>{{ $t('stages.platesStage.resin') }}</dt>
      <dd>{{ $t('stages.platesStage.ml', { resinMl: fixed(report.resinMl, 1) }) }}</dd>
      <dt>{{ $t('stages.platesStage.costOfResin') }}</dt>
      <dd>{{ stock.money(report.resinCost) }}</dd>
      <dt>{{ $t('stages.platesStage.highestPeelForce') }}</dt>
      <dd>{{ figure(Math.max(...report.peel), 1) }} N</dd>
      <template v-if="report.brokenRows > 0"
        ><dt>{{ $t('stages.platesStage.rowsLeftEmpty') }}</dt>
        <dd>{{ report.brokenRows }}</dd></template
      >
      <template v-if="report.mended"
        ><dt>{{ $t('stages.platesStage.holesRepairedBeforeSlicing') }}</dt>
        <dd>{{ report.mended.holesFilled }}</dd></template
      >
    </dl>
  </section>
  <section class="mb-3">
    <p v-if="!chosen" class="soft small">
      <template v-if="printer && resin">{{
        $t('stages.platesStage.noPrinterAndResin', { name: printer.name, name2: resin.name })
      }}</template>
      <template v-else
        >{{ $t('stages.platesStage.slicingNeedsAPrinter') }}
        <RouterLink to="/stock">{{ $t('stages.platesStage.setThemUpIn') }}</RouterLink></template
      >
    </p>
    <div class="d-flex gap-2 flex-wrap">
      <BButton
        v-if="!report"
        variant="primary"
        :disabled="!mesh || !printer || !resin || (sliced !== null && sliced.status !== 'failed')"
        @click="slice"
      >
        {{ $t('stages.platesStage.sliceFor', { name: printer?.name ?? 'a printer' }) }}
      </BButton>
      <BLink
        v-if="zip"
        class="btn btn-primary"
        :href="`/api/blobs/${zip}?download=${fileName}-layers.zip`"
        :download="`${fileName}-layers.zip`"
        >{{ $t('stages.platesStage.downloadLayersZip') }}</BLink
      >
    </div>
  </section>
  <FilesPanel
    v-if="mesh"
    :body="mesh"
    :supported="(store.report('support')?.support?.tips.length ?? 0) > 0"
    :sliced="plating.target?.mesh ?? mesh"
    :printer="printing"
    :name="fileName"
  />
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto 190px;
  height: 100%;
  padding: 14px 18px;
  gap: 10px;
  background: var(--studio);
}
.page.viewed {
  grid-template-rows: auto minmax(0, 1fr) auto 190px;
}
.page.above {
  grid-template-rows: auto minmax(0, 1fr);
}
.views {
  display: flex;
  gap: 6px;
  align-items: center;
}
/* The sculpt stands behind: what is not a control lets the hand through to it. */
.page.onSculpt {
  background: none;
  grid-template-rows: auto minmax(0, 1fr) auto 190px;
}
.onSculpt .scrub {
  grid-row: 3;
}
.onSculpt :deep(.chart) {
  grid-row: 4;
}
.onSculpt .scrub,
.onSculpt .views,
.onSculpt :deep(.chart) {
  pointer-events: auto;
  background: var(--studio-glass);
  border-radius: 6px;
}
.onSculpt .views {
  justify-self: end;
  padding: 4px 6px;
}
.onSculpt .scrub {
  padding: 4px 10px;
}
.at {
  min-width: 84px;
}
.wait {
  grid-row: 1 / -1;
  display: grid;
  place-items: center;
}
</style>
