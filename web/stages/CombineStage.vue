<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { Copy, Trash2 } from 'lucide-vue-next'
import { text } from '../i18n'
import { figure, unitName } from '../manner'
import { useCombineFixes } from '../composables/useCombineFixes'
import { useSurfaceMap } from '../composables/useSurfaceMap'
import FindingList from '../shell/FindingList.vue'
import StepList from '../shell/StepList.vue'
import { useAssembly } from '../stores/assembly'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import MapLegend from '../viewport/MapLegend.vue'
import { useViewport } from '../viewport/useViewport'
import BasePanel from './combine/BasePanel.vue'
import BustPanel from './combine/BustPanel.vue'
import FacingPanel from './combine/FacingPanel.vue'
import JoinPanel from './combine/JoinPanel.vue'
import LightPanel from './combine/LightPanel.vue'
import NameplatePanel from './combine/NameplatePanel.vue'
import PlacePanel from './combine/PlacePanel.vue'
import StandsPanel from './combine/StandsPanel.vue'
import SwapPanel from './combine/SwapPanel.vue'
import FaultNote from '../shell/FaultNote.vue'

/** All parts where they belong, tried for fit and balance before anything is printed. */
const store = usePiece(),
  found = useFindings(),
  assembly = useAssembly(),
  viewport = useViewport()
const own = computed(() => assembly.placed.find((p) => p.part.id === store.part?.id) ?? null)
viewport.describe(() => ({
  mesh: own.value?.mesh ?? null,
  companions: assembly.placed.filter((p) => p !== own.value && p.mesh).map((p) => p.mesh!),
}))
viewport.describe(() => ({
  markers: found.byStage.combine.findings.flatMap((f) => f.places.map((point) => ({ point, kind: f.level }))),
}))
const signed = (v: number): string => figure(v, 2, 'mm')
const mapped = ref<string | null>(null)
const pair = computed(() => assembly.pairs.find((p) => p.key === mapped.value) ?? null)
const { scale, problem } = useSurfaceMap(() => {
  const p = pair.value
  if (!p || !own.value) return null
  const other = p.a.part.id === own.value.part.id ? p.b : p.a
  return other.mesh && other !== own.value
    ? {
        check: { kind: 'gapMap', other: other.mesh, reach: 1.5 },
        scale: () => ({ kind: 'sides', from: -0.6, to: 0.6 }),
      }
    : null
})
function showMap(key: string): void {
  mapped.value = mapped.value === key ? null : key
  const p = pair.value
  if (p && store.part?.id !== p.a.part.id && store.part?.id !== p.b.part.id) select(p.a.part.id)
}
function select(id: string): void {
  store.partIndex = Math.max(
    0,
    store.piece!.partList.findIndex((p) => p.id === id),
  )
}
const fixes = useCombineFixes()
async function copy(): Promise<void> {
  const p = store.part
  if (!p) return
  const made = await store.arrange({
    create: [{ name: text('stages.combineStage.copy', { name: p.name }), from: p.id, operations: store.operations() }],
  })
  if (made) select(made[0]!)
}
const remove = (id: string): Promise<string[] | null> => store.arrange({ remove: [id] })
</script>

<template>
  <template v-if="store.part">
    <FindingList :judged="found.byStage.combine" :fixes="fixes" @show="viewport.show" />
    <BTableSimple v-if="assembly.pairs.length > 0" class="mb-3" small>
      <BThead>
        <BTr>
          <BTh>{{ $t('stages.combineStage.whereTheyMeet') }}</BTh>
          <BTh class="num">{{ $t('stages.combineStage.gapMm', { unit: unitName('mm') }) }}</BTh>
          <BTh class="num">{{ $t('stages.combineStage.overlapMm') }}</BTh>
          <BTh></BTh>
        </BTr>
      </BThead>
      <BTbody>
        <BTr v-for="p in assembly.pairs" :key="p.key">
          <BTd>{{ p.a.part.name }} – {{ p.b.part.name }}</BTd>
          <BTd class="num text-nowrap">
            {{
              p.fit
                ? p.fit.touching
                  ? $t('stages.combineStage.to', { p5: signed(p.fit.p5), p95: signed(p.fit.p95) })
                  : $t('stages.combineStage.apart')
                : p.problem
                  ? '–'
                  : '…'
            }}
          </BTd>
          <BTd class="num">{{ p.fit ? figure(p.fit.overlap, 1) : '' }}</BTd>
          <BTd class="text-end">
            <BButton
              variant="quiet"
              size="sm"
              :aria-pressed="mapped === p.key"
              :disabled="!p.fit?.touching"
              @click="showMap(p.key)"
            >
              {{ mapped === p.key ? $t('stages.combineStage.hide') : $t('stages.combineStage.map') }}
            </BButton>
          </BTd>
        </BTr>
      </BTbody>
    </BTableSimple>
    <BAlert v-for="p in assembly.pairs.filter((x) => x.problem)" :key="p.key" :model-value="true" variant="danger">
      {{ p.a.part.name }} – {{ p.b.part.name }}: {{ p.problem }}
    </BAlert>
    <FaultNote :text="problem" />
    <div class="d-flex gap-1 mb-2">
      <BButton variant="quiet" size="sm" @click="copy">
        <Copy :size="14" aria-hidden="true" /> {{ $t('stages.combineStage.duplicate', { name: store.part.name }) }}
      </BButton>
      <BButton v-if="assembly.several" variant="quiet" size="sm" @click="remove(store.part.id)">
        <Trash2 :size="14" aria-hidden="true" /> {{ $t('stages.combineStage.deletePart') }}
      </BButton>
    </div>
    <PlacePanel />
    <SwapPanel />
    <JoinPanel v-if="assembly.several" />
    <BasePanel />
    <NameplatePanel />
    <BustPanel />
    <LightPanel />
    <StandsPanel />
    <FacingPanel />
    <StepList :kinds="['base', 'nameplate', 'place', 'join', 'cut', 'fix', 'channel', 'bay']" />
  </template>
  <p v-else class="soft">{{ $t('stages.combineStage.addASculptUnder') }}</p>
  <Teleport v-if="scale" to="#middle">
    <MapLegend :title="$t('stages.combineStage.overlapAndGap')" :scale="scale" unit="mm" />
  </Teleport>
</template>
