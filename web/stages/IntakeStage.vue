<script setup lang="ts">
import { computed, ref, watchEffect } from 'vue'
import type { Health } from '../../core/mesh/health'
import { openMesh } from '../../core/findings/openMesh'
import { tooThin, SURVIVES } from '../../core/findings/tooThin'
import type { Finding } from '../../core/findings/finding'
import type { Thinness } from '../../core/fit/thinness'
import { tell } from '../api'
import { useCheck } from '../composables/useCheck'
import FindingList from '../shell/FindingList.vue'
import { usePiece } from '../stores/piece'
import { useViewport } from '../viewport/useViewport'

const store = usePiece(), viewport = useViewport()
const mesh = computed(() => store.meshAfter('repair') ?? store.part?.sculptMesh ?? null)
const health = useCheck<Health>(() => mesh.value, () => ({ kind: 'health' }))
const thin = useCheck<Thinness>(() => (health.report.value ? mesh.value : null), () => ({ kind: 'thinness', limit: SURVIVES }))
const repaired = computed(() => store.report('repair')?.repair ?? null)
const findings = computed<Finding[]>(() => [...(health.report.value ? openMesh(health.report.value) : []), ...(thin.report.value ? tooThin(thin.report.value) : [])])
const picker = ref<HTMLInputElement | null>(null)
const refused = ref<string[]>([])
viewport.clear()
watchEffect(() => {
  viewport.mesh = mesh.value
  viewport.markers = findings.value.flatMap((f) => f.places.map((point) => ({ point, kind: f.level })))
})
async function choose(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  refused.value = await store.dropFiles([...(input.files ?? [])])
  input.value = ''
}
function act(name: string): void {
  if (name === 'repair') void store.apply({ kind: 'repair' })
  if (name.startsWith('scale:')) void store.apply({ kind: 'scale', factor: Number(name.slice(6)) })
}
const h = computed(() => health.report.value)
const changes = computed(() => repaired.value ? ([['corners welded', repaired.value.welded], ['faces without area', repaired.value.degenerate], ['doubled faces', repaired.value.duplicate], ['faces at knots removed', repaired.value.nonManifoldFaces], ['faces turned', repaired.value.turned], ['crumbs dropped', repaired.value.crumbs], ['holes filled', repaired.value.holesFilled], ['faces added in patches', repaired.value.patchFaces]] as const).filter(([, n]) => n > 0) : [])
</script>

<template>
  <template v-if="store.part">
    <FindingList :findings="findings" :measuring="health.measuring.value || !h" checked="Closed, oriented, no crossing faces, no crumbs, a plausible size, nothing thinner than 0.6 mm." :acts="store.step('repair') ? ['scale'] : ['repair', 'scale']" @show="viewport.show" @act="act" />
    <p v-if="health.problem.value" role="alert" class="text-danger">{{ health.problem.value }}</p>
    <section v-if="changes.length > 0" class="sheet p-3 mb-3">
      <h3>Repaired</h3>
      <dl class="facts mt-1"><template v-for="[what, n] in changes" :key="what"><dt>{{ what }}</dt><dd>{{ n.toLocaleString() }}</dd></template></dl>
      <button class="btn btn-sm btn-quiet mt-2" @click="store.remove('repair')">Take the repair back</button>
    </section>
    <section v-if="h" class="sheet p-3 mb-3">
      <h3 class="mb-1">{{ store.part.fileName }}</h3>
      <dl class="facts">
        <dt>size</dt><dd>{{ h.size.map((s) => s.toFixed(1)).join(' × ') }} mm</dd>
        <dt>volume</dt><dd>{{ (h.volume / 1000).toFixed(1) }} ml</dd>
        <dt>skin</dt><dd>{{ (h.area / 100).toFixed(0) }} cm²</dd>
        <dt>faces</dt><dd>{{ h.faces.toLocaleString() }}</dd>
        <dt>shells</dt><dd>{{ h.shells }}</dd>
        <dt>open edges</dt><dd>{{ h.openEdges.count.toLocaleString() }}</dd>
        <template v-if="thin.report.value"><dt>thinnest spot</dt><dd>{{ thin.report.value.thinnest.toFixed(2) }} mm</dd></template>
      </dl>
    </section>
  </template>
  <section v-else class="mb-3">
    <h2>Drop a sculpt</h2>
    <p class="soft">STL or OBJ, several at once, anywhere on this page. Each is checked and measured before anything else happens to it.</p>
  </section>
  <ul class="list-unstyled">
    <li v-for="i in store.piece!.intakes.filter((x) => x.status !== 'done')" :key="i.id" class="intake" :class="i.status">
      <span v-if="i.status === 'waiting'">{{ i.fileName }} is being read …</span>
      <template v-else><span role="alert">{{ i.problem?.message }}</span> <button class="btn btn-sm btn-quiet" @click="tell('DELETE', `/intakes/${i.id}`)">Dismiss</button></template>
    </li>
  </ul>
  <p v-for="r in refused" :key="r" role="alert" class="intake refused">{{ r }}</p>
  <input ref="picker" type="file" multiple accept=".stl,.obj" class="visually-hidden" aria-label="Sculpt files" @change="choose">
  <button class="btn btn-quiet btn-sm" @click="picker?.click()">{{ store.part ? 'Add another file' : 'Choose files' }}</button>
</template>

<style scoped>
.intake { padding: 7px 10px; border-radius: 4px; margin-bottom: 8px; background: var(--paper-sunk); }
.intake.refused { background: #f4ddd6; border-left: 4px solid var(--settle); }
</style>
