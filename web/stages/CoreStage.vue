<script setup lang="ts">
import { computed, reactive, ref, watch, watchEffect } from 'vue'
import type { DrainSite } from '../../core/shape/drainSites'
import { useMeans } from '../composables/useMeans'
import FindingList from '../shell/FindingList.vue'
import NumberField from '../shell/NumberField.vue'
import { useDerivations } from '../stores/derivations'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import { useViewport } from '../viewport/useViewport'
import DrainPanel from './core/DrainPanel.vue'

type Hole = { point: [number, number, number]; direction: [number, number, number]; diameter: number; reason?: string }
const store = usePiece(),
  found = useFindings(),
  stock = useStock(),
  viewport = useViewport(),
  derivations = useDerivations()
const { resin } = useMeans()
const op = computed(() => {
  const o = store.step('hollow')?.op
  return o?.kind === 'hollow' ? o : null
})
const height = computed(() => (store.report('scale') ?? store.report('hollow'))?.measures.size[2] ?? 100)
// craft.md 6: about 2 mm for statues up to 300 mm, less for small figurines, more for large busts.
const usualWall = computed(() => (height.value < 80 ? 1.4 : height.value <= 300 ? 2 : 2.8))
const form = reactive({
  wall: op.value?.wall ?? usualWall.value,
  voxel: op.value?.voxel ?? 0.5,
  opening: op.value?.opening ?? 1,
  diameter: 4,
})
watch(op, (o) => {
  if (o) Object.assign(form, { wall: o.wall, voxel: o.voxel, opening: o.opening })
})
const report = computed(() => store.report('hollow')?.hollow ?? null)
const drilled = computed(() => store.report('drill')?.drill ?? null)
const problem = computed(
  () => store.step('hollow')?.derivation?.problem?.message ?? store.step('drill')?.derivation?.problem?.message ?? null,
)
const set = computed<Hole[]>(() => {
  const o = store.step('drill')?.op
  return o?.kind === 'drill' ? o.holes : []
})
const draft = ref<Hole[]>([])
watch(
  set,
  (v) => {
    draft.value = v.map((h) => ({ ...h }))
  },
  { immediate: true },
)
const searching = ref(false),
  placing = ref(false),
  fault = ref('')
const findings = computed(() => found.byStage.core)
viewport.clear()
watchEffect(() => {
  viewport.mesh = store.meshAfter('drill') ?? store.meshAfter('hollow') ?? store.meshBefore('hollow')
  viewport.markers = draft.value.map((h) => ({ point: h.point, kind: 'hole' as const, radius: h.diameter / 2 }))
  viewport.mode = placing.value ? 'pick' : 'look'
  viewport.hint = placing.value ? 'Press on the sculpt where the hole shall be; drag to turn' : ''
})
viewport.picking((p) => {
  if (!placing.value) return
  draft.value.push({
    point: p.point,
    direction: p.normal.map((v) => -v) as [number, number, number],
    diameter: form.diameter,
  })
})
async function propose(): Promise<void> {
  const mesh = store.meshAfter('hollow')
  if (!mesh) return
  searching.value = true
  fault.value = ''
  try {
    const d = await derivations.settled(mesh, { kind: 'drainSites', diameter: form.diameter, down: found.down })
    const sites = (d.report as { sites: DrainSite[] }).sites
    if (sites.length < 2)
      fault.value = `No place takes two ${form.diameter} mm holes. Try a smaller diameter, or click where one may show.`
    draft.value = sites.map(
      (s) => ({ point: [...s.point], direction: [...s.direction], diameter: s.diameter, reason: s.reason }) as Hole,
    )
  } catch (e) {
    fault.value = e instanceof Error ? e.message : String(e)
  } finally {
    searching.value = false
  }
}
function drill(): void {
  placing.value = false
  if (draft.value.length === 0) {
    void store.remove('drill')
    return
  }
  void store.apply({
    kind: 'drill',
    holes: draft.value.map(({ point, direction, diameter }) => ({ point, direction, diameter })),
  })
}
const same = computed(
  () =>
    JSON.stringify(draft.value.map((h) => [h.point, h.diameter])) ===
      JSON.stringify(set.value.map((h) => [h.point, h.diameter])) && !problem.value,
)
const saved = computed(() => (report.value ? (report.value.volumeBefore - report.value.volumeAfter) / 1000 : 0))
async function solid(): Promise<void> {
  await store.change(store.operations().filter((o) => o.kind !== 'hollow' && o.kind !== 'drill'))
}
</script>

<template>
  <FindingList
    v-if="report"
    :findings="findings"
    checked="Every cavity has two holes, and the wall is as thick as asked."
    :acts="['proposeHoles']"
    @show="viewport.show"
    @act="propose"
  />
  <p v-else-if="!store.step('hollow')" class="mb-3">
    <span class="figure-sm">Solid.</span>
    <span class="soft">Hollowing saves resin, weight and peel; a cavity must drain.</span>
  </p>
  <p v-if="problem" role="alert" class="problem">{{ problem }}</p>
  <DrainPanel v-if="found.drained && report" :report="found.drained" />
  <p v-if="found.drainedProblem" role="alert" class="problem">{{ found.drainedProblem }}</p>
  <section v-if="report" class="sheet p-3 mb-3">
    <span class="figure">{{ saved.toFixed(1) }}</span>
    <span class="soft ms-1"
      >ml saved, {{ (((saved * 1000) / report.volumeBefore) * 100).toFixed(0) }} %,
      {{ stock.money((saved / 1000) * (resin?.pricePerLitre ?? 0)) }}</span
    >
    <dl class="facts mt-2">
      <dt>mass</dt>
      <dd>
        {{ ((report.volumeBefore / 1000) * (resin?.density ?? 1.12)).toFixed(0) }} →
        {{ ((report.volumeAfter / 1000) * (resin?.density ?? 1.12)).toFixed(0) }} g
      </dd>
      <dt>wall measured, thinnest</dt>
      <dd>{{ report.wall.minimum.toFixed(2) }} mm</dd>
      <dt>1 in 100 under</dt>
      <dd>{{ report.wall.percentile1.toFixed(2) }} mm</dd>
      <dt>mean</dt>
      <dd>{{ report.wall.mean.toFixed(2) }} mm</dd>
      <dt>centre of mass</dt>
      <dd>{{ report.centreBefore[2].toFixed(1) }} → {{ report.centreAfter[2].toFixed(1) }} mm up</dd>
      <dt>holes</dt>
      <dd>{{ drilled?.holes.length ?? 0 }}</dd>
    </dl>
  </section>
  <section class="mb-3">
    <h2 class="mb-2">Wall</h2>
    <NumberField
      v-model="form.wall"
      label="Wall"
      unit="mm"
      :step="0.1"
      :min="0.4"
      :max="20"
      :source="op ? 'yours' : `usual for ${height.toFixed(0)} mm`"
    />
    <NumberField v-model="form.voxel" label="Voxel" unit="mm" :step="0.1" :min="0.1" :max="3" source="default" />
    <NumberField
      v-model="form.opening"
      label="Close slits under"
      unit="mm"
      :step="0.1"
      :min="0.2"
      :max="10"
      source="radius, default"
    />
    <div class="d-flex gap-2 mt-2">
      <button
        class="btn btn-primary"
        :disabled="!store.meshBefore('hollow')"
        @click="store.apply({ kind: 'hollow', wall: form.wall, voxel: form.voxel, opening: form.opening })"
      >
        {{ op ? 'Hollow again' : 'Hollow it' }}
      </button>
      <button v-if="op" class="btn btn-quiet" @click="solid">Leave it solid</button>
    </div>
  </section>
  <section v-if="report">
    <h2 class="mb-2">Drain holes</h2>
    <NumberField
      v-model="form.diameter"
      label="Diameter"
      unit="mm"
      :step="0.5"
      :min="2"
      :max="20"
      source="default 3 to 5"
    />
    <ul class="list-unstyled my-2">
      <li v-for="(h, i) in draft" :key="i" class="hole">
        <span
          ><b>{{ i + 1 }}</b> · {{ h.diameter }} mm<span v-if="h.reason" class="soft d-block">{{
            h.reason
          }}</span></span
        >
        <span class="d-flex gap-1"
          ><button class="btn btn-sm btn-quiet" @click="viewport.show(h.point)">Show</button
          ><button class="btn btn-sm btn-quiet" :aria-label="`Remove hole ${i + 1}`" @click="draft.splice(i, 1)">
            Remove
          </button></span
        >
      </li>
    </ul>
    <p v-if="fault" role="alert" class="problem">{{ fault }}</p>
    <div class="d-flex gap-2 flex-wrap">
      <button class="btn btn-primary" :disabled="same" @click="drill">
        {{ draft.length === 0 && set.length > 0 ? 'Close all holes' : `Drill ${draft.length}` }}
      </button>
      <button class="btn btn-quiet" :disabled="searching" @click="propose">
        {{ searching ? 'Looking …' : 'Propose two' }}
      </button>
      <button class="btn btn-quiet" :aria-pressed="placing" @click="placing = !placing">
        {{ placing ? 'Done placing' : 'Place by hand' }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.problem {
  background: #f4ddd6;
  border-left: 4px solid var(--settle);
  padding: 7px 10px;
  border-radius: 4px;
}
.hole {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 0.9rem;
}
</style>
