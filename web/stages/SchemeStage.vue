<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, onBeforeUnmount, ref, shallowRef, watch, watchEffect } from 'vue'
import { TECHNIQUES, type Coat } from '../../contract/pieces'
import { vertexNormals } from '../../core/mesh/measure'
import { brushLabels, regionAreas } from '../../core/paint/regions'
import { api, fetchBytes } from '../api'
import { useCheck } from '../composables/useCheck'
import { usePaintWork } from '../composables/usePaintWork'
import FindingList from '../shell/FindingList.vue'
import CoatRow from './CoatRow.vue'
import { useScheme } from '../stores/scheme'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import { loadMesh } from '../viewport/meshCache'
import { useViewport } from '../viewport/useViewport'
import { z } from 'zod'

const store = usePiece(),
  stock = useStock(),
  book = useScheme(),
  viewport = useViewport(),
  work = usePaintWork()
const { scheme, paints } = storeToRefs(book)
const current = ref(0),
  brushing = ref(false),
  radius = ref(4),
  fault = ref(''),
  saving = ref(false)
const labels = shallowRef<Uint8Array>(new Uint8Array(0))
const normals = shallowRef<Float32Array>(new Float32Array(0))
const facts = ref<Map<string, { toHide: number | null; hex: string }>>(new Map())
const undercoat = computed(() => store.piece?.schools.undercoat ?? stock.workshop?.schools.undercoat ?? 'grey')
viewport.clear()
watchEffect(() => {
  viewport.mesh = store.meshAfter('scale') ?? store.part?.sculptMesh ?? null
})
// Light from above and a little in front, as a display case has it.
const maps = useCheck<{ vertices: number }>(
  () => viewport.shown?.hash,
  () => ({ kind: 'surfaceMaps', brush: 1.2, direction: [0.1, -0.34, 0.935] }),
)
const region = computed(() => scheme.value?.regions.find((r) => r.id === current.value) ?? null)
const coats = computed(() => scheme.value?.coats.filter((c) => c.regionId === current.value) ?? [])

watch(
  () => scheme.value === null,
  (gone) => {
    if (gone) return
    current.value = scheme.value!.regions[0]!.id
    void lay()
  },
  { immediate: true },
)
/** Fits the part's stored labels to the copy on the table: as they are, carried over from another copy, or all one region. */
async function lay(): Promise<void> {
  const shown = viewport.shown,
    s = scheme.value
  if (!shown || !s) return
  const n = shown.mesh.positions.length / 3
  normals.value = vertexNormals(shown.mesh)
  let next = new Uint8Array(n).fill(s.regions[0]!.id)
  const map = s.maps.find((m) => m.partId === store.part?.id)
  try {
    if (map) {
      const stored = await fetchBytes(map.labels)
      next = new Uint8Array(
        map.meshHash === shown.hash && stored.length === n
          ? stored
          : await work.carry(await loadMesh(map.meshHash), stored, shown.mesh),
      )
    }
    fault.value = ''
  } catch (e) {
    fault.value = e instanceof Error ? e.message : String(e)
  }
  labels.value = next
  await refresh()
}
watch(() => viewport.shown, lay)
watch(
  [paints, () => maps.derivation.value?.blobs.maps],
  async ([p, m]) => {
    await work.setPaints(p)
    if (m) {
      const bytes = await fetchBytes(m)
      await work.setMaps(new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4))
    }
    await refresh()
  },
  { immediate: true },
)
let drawing = false,
  again = false
async function refresh(): Promise<void> {
  const s = scheme.value
  if (!s) return
  // While one preview is computed, further changes wait and are answered together.
  if (drawing) {
    again = true
    return
  }
  drawing = true
  try {
    const plain = JSON.parse(JSON.stringify(s.coats)) as Coat[]
    facts.value = new Map((await work.facts(plain, undercoat.value)).map((f) => [f.id, f]))
    if (maps.derivation.value?.status === 'done' && labels.value.length === viewport.shown?.mesh.positions.length! / 3)
      viewport.colours = await work.preview(
        labels.value,
        s.regions.map((r) => r.id),
        plain,
        undercoat.value,
      )
  } finally {
    drawing = false
  }
  if (again) {
    again = false
    await refresh()
  }
}
onBeforeUnmount(() => {
  viewport.colours = null
  document.removeEventListener('visibilitychange', saveNow)
  saveNow()
})
let timer: ReturnType<typeof setTimeout> | undefined
let dirtyLabels = false
function changed(): void {
  void refresh()
  clearTimeout(timer)
  saving.value = true
  timer = setTimeout(() => void save(), 700)
}
/** What waits for the hand to rest does not wait when the stage or the page is left. */
function saveNow(): void {
  if (timer !== undefined) void save()
}
document.addEventListener('visibilitychange', saveNow)
async function save(): Promise<void> {
  clearTimeout(timer)
  timer = undefined
  const s = scheme.value,
    shown = viewport.shown,
    part = store.part
  if (!s) {
    saving.value = false
    return
  }
  if (dirtyLabels && shown && part) {
    dirtyLabels = false
    await store.guarded(async () => {
      const { hash } = await api(z.object({ hash: z.string() }), 'POST', '/blobs', labels.value.slice())
      const areas = regionAreas(shown.mesh, labels.value)
      s.maps = [
        ...s.maps.filter((m) => m.partId !== part.id),
        { partId: part.id, meshHash: shown.hash, labels: hash, areas },
      ]
    })
  }
  await book.save()
  saving.value = timer !== undefined
}
watchEffect(() => {
  viewport.mode = brushing.value ? 'brush' : 'look'
  viewport.hint = brushing.value ? `Brush “${region.value?.name}” onto the sculpt; drag beside it to turn` : ''
})
viewport.picking((p) => {
  const shown = viewport.shown
  if (!brushing.value || !shown || !region.value) return
  if (brushLabels(shown.mesh, normals.value, labels.value, p.point, p.normal, radius.value, region.value.id) > 0) {
    dirtyLabels = true
    changed()
  }
})
function fillPart(): void {
  if (region.value) {
    labels.value.fill(region.value.id)
    dirtyLabels = true
    changed()
  }
}
function addRegion(): void {
  const s = scheme.value!
  const id = Math.max(-1, ...s.regions.map((r) => r.id)) + 1
  s.regions.push({ id, name: `Region ${id + 1}`, target: null })
  current.value = id
  changed()
}
function addCoat(technique: Coat['technique']): void {
  const film = { base: 40, wash: 16, 'dry brush': 8, glaze: 10, layer: 20, varnish: 10 }[technique]
  scheme.value!.coats.push({
    id: crypto.randomUUID(),
    regionId: current.value,
    technique,
    paintId: null,
    mix: [],
    film,
    pigment: technique === 'glaze' ? 0.25 : 1,
    tool: 'brush',
  })
  changed()
}
function drop(c: Coat): void {
  const list = scheme.value!.coats
  list.splice(list.indexOf(c), 1)
  changed()
}
function replace(c: Coat, next: Coat): void {
  const list = scheme.value!.coats
  list[list.findIndex((x) => x.id === c.id)] = next
  changed()
}
function take(drops: { paint: string; drops: number }[]): void {
  const s = scheme.value!
  const mix = drops.map((d) => ({ paintId: d.paint, drops: d.drops }))
  const base = s.coats.find((c) => c.regionId === current.value && c.technique === 'base')
  if (base) Object.assign(base, { mix, paintId: null })
  else
    s.coats.unshift({
      id: crypto.randomUUID(),
      regionId: current.value,
      technique: 'base',
      paintId: null,
      mix,
      film: 40,
      pigment: 1,
      tool: 'brush',
    })
  changed()
}
function setTarget(hex: string): void {
  region.value!.target = hex
  changed()
}
const COATS: Coat['technique'][] = [...TECHNIQUES]
</script>

<template>
  <FindingList
    v-if="scheme?.regions.some((r) => r.target)"
    :findings="book.findings"
    checked="Every target can be mixed from the stock."
  />
  <p v-if="fault || book.fault || maps.problem.value" role="alert" class="text-danger">
    {{ fault || book.fault || maps.problem.value }}
  </p>
  <p v-if="maps.measuring.value" class="soft">Feeling the surface for recesses and ridges …</p>
  <template v-if="scheme">
    <div class="d-flex justify-content-between align-items-baseline mb-2">
      <h2>Regions</h2>
      <span class="soft small"
        >over {{ undercoat === 'zenithal' ? 'black, white from above' : undercoat
        }}{{ saving ? ', saving …' : '' }}</span
      >
    </div>
    <div class="regions">
      <button
        v-for="r in scheme.regions"
        :key="r.id"
        class="region"
        :class="{ on: r.id === current }"
        :aria-pressed="r.id === current"
        @click="current = r.id"
      >
        <span
          class="swatch"
          :style="{
            background:
              [...facts]
                .filter(([id]) => scheme!.coats.find((c) => c.id === id)?.regionId === r.id)
                .map(([, f]) => f.hex)[0] ?? '#b9ac98',
          }"
        />
        {{ r.name }}
      </button>
      <button class="region add" @click="addRegion">+ region</button>
    </div>
    <section v-if="region" class="sheet p-3 my-3">
      <label class="name"
        ><span class="soft">Name</span
        ><input v-model="region.name" class="form-control form-control-sm" maxlength="60" @change="changed"
      /></label>
      <div class="d-flex gap-2 mt-2 flex-wrap align-items-center">
        <button
          class="btn btn-sm"
          :class="brushing ? 'btn-primary' : 'btn-quiet'"
          :aria-pressed="brushing"
          @click="brushing = !brushing"
        >
          {{ brushing ? 'Done brushing' : 'Brush it on' }}
        </button>
        <label class="d-flex gap-2 align-items-center small"
          >size<input
            v-model.number="radius"
            type="range"
            class="form-range"
            style="width: 84px"
            min="1"
            max="25"
            aria-label="Brush radius in mm"
          /><span class="num">{{ radius }} mm</span></label
        >
        <button class="btn btn-sm btn-quiet" @click="fillPart">Whole part</button>
      </div>
    </section>
    <div class="d-flex justify-content-between align-items-baseline"><h2>Coats, first to last</h2></div>
    <p v-if="coats.length === 0" class="soft mt-1">No coat yet. Begin with a base.</p>
    <CoatRow
      v-for="(c, i) in coats"
      :key="c.id"
      :model-value="c"
      :number="i + 1"
      :paints="stock.paints"
      :fact="facts.get(c.id)"
      @update:model-value="replace(c, $event)"
      @remove="drop(c)"
    />
    <div class="d-flex gap-1 flex-wrap my-2">
      <button v-for="t in COATS" :key="t" class="btn btn-sm btn-quiet" @click="addCoat(t)">+ {{ t }}</button>
    </div>
    <section v-if="region" class="mt-3">
      <h2>Mix for a colour</h2>
      <div class="d-flex gap-2 align-items-center my-2">
        <input
          type="color"
          class="form-control form-control-sm form-control-color"
          :value="region.target ?? '#a0705a'"
          aria-label="Target colour"
          @change="setTarget(($event.target as HTMLInputElement).value)"
        />
        <span class="soft">{{ region.target ?? 'pick the colour it should be' }}</span>
      </div>
      <ul v-if="book.answer(region.target)" class="list-unstyled">
        <li v-for="(r, i) in book.answer(region.target)!.recipes" :key="i" class="recipe">
          <span class="swatch" :style="{ background: region.target ?? '' }" /><span
            class="swatch"
            :style="{ background: r.hex }"
          />
          <span class="what">{{ r.drops.map((d) => `${d.drops} ${d.name}`).join(' + ') }}</span>
          <span class="num soft" title="CIEDE2000 difference to the target at full hiding"
            >ΔE {{ r.error.toFixed(1) }}</span
          >
          <button class="btn btn-sm btn-quiet" @click="take(r.drops)">Use</button>
        </li>
      </ul>
      <p v-if="(book.answer(region.target)?.excluded.length ?? 0) > 0" class="soft small">
        Left out: {{ book.answer(region.target)!.excluded.length }} metallic or fluorescent paints; mixing arithmetic
        does not describe them.
      </p>
    </section>
  </template>
</template>

<style scoped>
.regions {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.region {
  border: 1px solid var(--line);
  background: var(--paper-raised);
  border-radius: 4px;
  padding: 3px 9px 3px 5px;
}
.region.on {
  border-color: var(--action);
  box-shadow: inset 0 -3px 0 var(--action);
}
.region.add {
  color: var(--action);
  padding-left: 9px;
}
.name {
  display: grid;
  grid-template-columns: 60px 1fr;
  align-items: center;
}
.recipe {
  display: grid;
  grid-template-columns: auto auto 1fr auto auto;
  gap: 6px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 0.88rem;
}
</style>
