<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch, watchEffect } from 'vue'
import { scheme as schemeSchema, TECHNIQUES, type Coat, type Scheme } from '../../contract/pieces'
import { colourUnreached } from '../../core/findings/colourUnreached'
import type { Finding } from '../../core/findings/finding'
import { vertexNormals } from '../../core/mesh/measure'
import { brushLabels, carryLabels, regionAreas } from '../../core/paint/regions'
import type { RecipeAnswer, StockPaint } from '../../core/paint/recipe'
import { api, fetchBytes } from '../api'
import { useCheck } from '../composables/useCheck'
import { usePaintWork } from '../composables/usePaintWork'
import FindingList from '../shell/FindingList.vue'
import CoatRow from './CoatRow.vue'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import { loadMesh } from '../viewport/meshCache'
import { useViewport } from '../viewport/useViewport'
import { z } from 'zod'

const store = usePiece(), stock = useStock(), viewport = useViewport(), work = usePaintWork()
const scheme = ref<Scheme | null>(null)
const current = ref(0), brushing = ref(false), radius = ref(4), fault = ref(''), saving = ref(false)
const labels = shallowRef<Uint8Array>(new Uint8Array(0))
const normals = shallowRef<Float32Array>(new Float32Array(0))
const facts = ref<Map<string, { toHide: number | null; hex: string }>>(new Map())
const answers = ref<Map<number, RecipeAnswer>>(new Map())
const undercoat = computed(() => store.piece?.schools.undercoat ?? stock.workshop?.schools.undercoat ?? 'grey')
const paints = computed<StockPaint[]>(() => stock.paints.map((p) => ({ id: p.id, name: p.name, hex: p.hex, opacity: p.opacity, kind: p.kind })))
viewport.clear()
watchEffect(() => { viewport.mesh = store.meshAfter('scale') ?? store.part?.sculptMesh ?? null })
// Light from above and a little in front, as a display case has it.
const maps = useCheck<{ vertices: number }>(() => viewport.shown?.hash, () => ({ kind: 'surfaceMaps', brush: 1.2, direction: [0.1, -0.34, 0.935] }))
const region = computed(() => scheme.value?.regions.find((r) => r.id === current.value) ?? null)
const coats = computed(() => scheme.value?.coats.filter((c) => c.regionId === current.value) ?? [])

async function load(): Promise<void> {
  try { scheme.value = await api(schemeSchema, 'GET', `/pieces/${store.piece!.id}/scheme`); current.value = scheme.value.regions[0]!.id; await lay() } catch (e) { fault.value = e instanceof Error ? e.message : String(e) }
}
onMounted(load)
/** Fits the stored labels to the copy on the table: as they are, carried over from another copy, or all one region. */
async function lay(): Promise<void> {
  const shown = viewport.shown, s = scheme.value
  if (!shown || !s) return
  const n = shown.mesh.positions.length / 3
  normals.value = vertexNormals(shown.mesh)
  let next = new Uint8Array(n).fill(s.regions[0]!.id)
  if (s.labels && s.meshHash) {
    const stored = await fetchBytes(s.labels)
    next = new Uint8Array(s.meshHash === shown.hash && stored.length === n ? stored : carryLabels(await loadMesh(s.meshHash), stored, shown.mesh))
  }
  labels.value = next
  await refresh()
}
watch(() => viewport.shown, lay)
watch([paints, () => maps.derivation.value?.blobs.maps], async ([p, m]) => {
  await work.setPaints(p)
  if (m) {
    const bytes = await fetchBytes(m)
    await work.setMaps(new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4))
  }
  await refresh()
}, { immediate: true })
let drawing = false, again = false
async function refresh(): Promise<void> {
  const s = scheme.value
  if (!s) return
  // While one preview is computed, further changes wait and are answered together.
  if (drawing) { again = true; return }
  drawing = true
  try {
    const plain = JSON.parse(JSON.stringify(s.coats)) as Coat[]
    facts.value = new Map((await work.facts(plain, undercoat.value)).map((f) => [f.id, f]))
    if (maps.derivation.value?.status === 'done' && labels.value.length === viewport.shown?.mesh.positions.length! / 3)
      viewport.colours = await work.preview(labels.value, s.regions.map((r) => r.id), plain, undercoat.value)
  } finally { drawing = false }
  if (again) { again = false; await refresh() }
}
onBeforeUnmount(() => { viewport.colours = null; clearTimeout(timer) })
let timer: ReturnType<typeof setTimeout> | undefined
let dirtyLabels = false
function changed(): void { void refresh(); clearTimeout(timer); timer = setTimeout(() => void save(), 700) }
async function save(): Promise<void> {
  const s = scheme.value, piece = store.piece
  if (!s || !piece) return
  saving.value = true
  const ok = await store.guarded(async () => {
    if (dirtyLabels && viewport.shown) {
      dirtyLabels = false
      const { hash } = await api(z.object({ hash: z.string() }), 'POST', '/blobs', labels.value.slice())
      s.labels = hash
      s.meshHash = viewport.shown.hash
      const areas = regionAreas(viewport.shown.mesh, labels.value)
      for (const r of s.regions) r.area = areas[r.id]!
    }
    s.version = (await api(schemeSchema, 'PUT', `/pieces/${piece.id}/scheme`, s)).version
  })
  saving.value = false
  if (!ok) await load()
}
watchEffect(() => { viewport.mode = brushing.value ? 'brush' : 'look'; viewport.hint = brushing.value ? `Brush “${region.value?.name}” onto the sculpt; drag beside it to turn` : '' })
viewport.picking((p) => {
  const shown = viewport.shown
  if (!brushing.value || !shown || !region.value) return
  if (brushLabels(shown.mesh, normals.value, labels.value, p.point, p.normal, radius.value, region.value.id) > 0) { dirtyLabels = true; changed() }
})
function fillPart(): void { if (region.value) { labels.value.fill(region.value.id); dirtyLabels = true; changed() } }
function addRegion(): void {
  const s = scheme.value!
  const id = Math.max(-1, ...s.regions.map((r) => r.id)) + 1
  s.regions.push({ id, name: `Region ${id + 1}`, target: null, area: null })
  current.value = id
  changed()
}
function addCoat(technique: Coat['technique']): void {
  const film = { base: 40, wash: 16, 'dry brush': 8, glaze: 10, layer: 20, varnish: 10 }[technique]
  scheme.value!.coats.push({ id: crypto.randomUUID(), regionId: current.value, technique, paintId: null, mix: [], film, pigment: technique === 'glaze' ? 0.25 : 1, tool: 'brush' })
  changed()
}
function replace(c: Coat, next: Coat): void { const list = scheme.value!.coats; list[list.findIndex((x) => x.id === c.id)] = next; changed() }
async function solve(): Promise<void> {
  const r = region.value
  if (!r?.target) return
  answers.value = new Map(answers.value).set(r.id, await work.recipe(r.target, JSON.parse(JSON.stringify(paints.value)) as StockPaint[]))
}
watch(() => [region.value?.id, region.value?.target, paints.value.length], () => { if (region.value?.target && !answers.value.has(region.value.id)) void solve() })
function take(drops: { paint: string; drops: number }[]): void {
  const s = scheme.value!
  const mix = drops.map((d) => ({ paintId: d.paint, drops: d.drops }))
  const base = s.coats.find((c) => c.regionId === current.value && c.technique === 'base')
  if (base) Object.assign(base, { mix, paintId: null })
  else s.coats.unshift({ id: crypto.randomUUID(), regionId: current.value, technique: 'base', paintId: null, mix, film: 40, pigment: 1, tool: 'brush' })
  changed()
}
const findings = computed<Finding[]>(() => [...answers.value].flatMap(([id, a]) => { const r = scheme.value?.regions.find((x) => x.id === id); return r?.target ? colourUnreached(r.name, r.target, a) : [] }))
function setTarget(hex: string): void { region.value!.target = hex; void solve(); changed() }
const COATS: Coat['technique'][] = [...TECHNIQUES]
</script>

<template>
  <FindingList v-if="findings.length > 0" :findings="findings" checked="" />
  <p v-if="fault || maps.problem.value" role="alert" class="text-danger">{{ fault || maps.problem.value }}</p>
  <p v-if="maps.measuring.value" class="soft">Feeling the surface for recesses and ridges …</p>
  <template v-if="scheme">
    <div class="d-flex justify-content-between align-items-baseline mb-2"><h2>Regions</h2><span class="soft small">over {{ undercoat === 'zenithal' ? 'black, white from above' : undercoat }}{{ saving ? ', saving …' : '' }}</span></div>
    <div class="regions">
      <button v-for="r in scheme.regions" :key="r.id" class="region" :class="{ on: r.id === current }" :aria-pressed="r.id === current" @click="current = r.id">
        <span class="swatch" :style="{ background: [...facts].filter(([id]) => scheme!.coats.find((c) => c.id === id)?.regionId === r.id).map(([, f]) => f.hex)[0] ?? '#b9ac98' }" /> {{ r.name }}
      </button>
      <button class="region add" @click="addRegion">+ region</button>
    </div>
    <section v-if="region" class="sheet p-3 my-3">
      <label class="name"><span class="soft">Name</span><input v-model="region.name" class="form-control form-control-sm" maxlength="60" @change="changed"></label>
      <div class="d-flex gap-2 mt-2 flex-wrap align-items-center">
        <button class="btn btn-sm" :class="brushing ? 'btn-primary' : 'btn-quiet'" :aria-pressed="brushing" @click="brushing = !brushing">{{ brushing ? 'Done brushing' : 'Brush it on' }}</button>
        <label class="d-flex gap-2 align-items-center small">size<input v-model.number="radius" type="range" class="form-range" style="width: 84px" min="1" max="25" aria-label="Brush radius in mm"><span class="num">{{ radius }} mm</span></label>
        <button class="btn btn-sm btn-quiet" @click="fillPart">Whole part</button>
      </div>
    </section>
    <div class="d-flex justify-content-between align-items-baseline"><h2>Coats, first to last</h2></div>
    <p v-if="coats.length === 0" class="soft mt-1">No coat yet. Begin with a base.</p>
    <CoatRow
      v-for="(c, i) in coats" :key="c.id" :model-value="c" :number="i + 1" :paints="stock.paints" :fact="facts.get(c.id)"
      @update:model-value="replace(c, $event)" @remove="scheme.coats.splice(scheme.coats.indexOf(c), 1); changed()"
    />
    <div class="d-flex gap-1 flex-wrap my-2"><button v-for="t in COATS" :key="t" class="btn btn-sm btn-quiet" @click="addCoat(t)">+ {{ t }}</button></div>
    <section v-if="region" class="mt-3">
      <h2>Mix for a colour</h2>
      <div class="d-flex gap-2 align-items-center my-2">
        <input type="color" class="form-control form-control-sm form-control-color" :value="region.target ?? '#a0705a'" aria-label="Target colour" @change="setTarget(($event.target as HTMLInputElement).value)">
        <span class="soft">{{ region.target ?? 'pick the colour it should be' }}</span>
      </div>
      <ul v-if="answers.get(region.id)" class="list-unstyled">
        <li v-for="(r, i) in answers.get(region.id)!.recipes" :key="i" class="recipe">
          <span class="swatch" :style="{ background: region.target ?? '' }" /><span class="swatch" :style="{ background: r.hex }" />
          <span class="what">{{ r.drops.map((d) => `${d.drops} ${d.name}`).join(' + ') }}</span>
          <span class="num soft" title="CIEDE2000 difference to the target at full hiding">ΔE {{ r.error.toFixed(1) }}</span>
          <button class="btn btn-sm btn-quiet" @click="take(r.drops)">Use</button>
        </li>
      </ul>
      <p v-if="(answers.get(region.id)?.excluded.length ?? 0) > 0" class="soft small">Left out: {{ answers.get(region.id)!.excluded.length }} metallic or fluorescent paints; mixing arithmetic does not describe them.</p>
    </section>
  </template>
</template>

<style scoped>
.regions { display: flex; flex-wrap: wrap; gap: 5px; }
.region { border: 1px solid var(--line); background: var(--paper-raised); border-radius: 4px; padding: 3px 9px 3px 5px; }
.region.on { border-color: var(--action); box-shadow: inset 0 -3px 0 var(--action); }
.region.add { color: var(--action); padding-left: 9px; }
.name { display: grid; grid-template-columns: 60px 1fr; align-items: center; }
.recipe { display: grid; grid-template-columns: auto auto 1fr auto auto; gap: 6px; align-items: center; padding: 4px 0; border-bottom: 1px solid var(--line); font-size: 0.88rem; }
</style>
