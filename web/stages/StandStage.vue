<script setup lang="ts">
import { computed, reactive, ref, watch, watchEffect } from 'vue'
import type { OrientationScore } from '../../core/print/orientation'
import { plateSize } from '../../core/print/printer'
import type { DrilledHole } from '../../core/shape/drill'
import type { Finding } from '../../core/findings/finding'
import { multiplyQuaternions, quaternionBetween } from '../../core/mesh/transform'
import { useMeans } from '../composables/useMeans'
import FindingList from '../shell/FindingList.vue'
import NumberField from '../shell/NumberField.vue'
import { useDerivations } from '../stores/derivations'
import { useFindings } from '../stores/findings'
import { usePiece } from '../stores/piece'
import { useViewport, type Quaternion } from '../viewport/useViewport'

const store = usePiece(),
  found = useFindings(),
  viewport = useViewport(),
  derivations = useDerivations()
const { printer, resin } = useMeans()
type Tool = 'none' | 'tilt' | 'face' | 'add' | 'remove'
const tool = ref<Tool>('none')
const draft = ref<Quaternion | null>(null)
const best = ref<OrientationScore[]>([]),
  searching = ref(false),
  fault = ref('')
const supportOp = computed(() => {
  const o = store.step('support')?.op
  return o?.kind === 'support' ? o : null
})
const orientOp = computed(() => {
  const o = store.step('orient')?.op
  return o?.kind === 'orient' ? o : null
})
const form = reactive({
  limit: 40,
  spacing: 3.5,
  clearance: 0.6,
  lift: 5,
  grade: 'strut' as 'whisker' | 'strut' | 'post',
})
watch(
  supportOp,
  (o) => {
    if (o) Object.assign(form, { limit: o.limit, spacing: o.spacing, clearance: o.clearance, lift: o.lift })
  },
  { immediate: true },
)
const report = computed(() => store.report('support')?.support ?? null)
const standing = computed(() => store.meshAfter('support'))
const findings = computed(() => found.byStage.stand)
const editing = computed(() => tool.value === 'add' || tool.value === 'remove')
const posing = computed(() => draft.value !== null || tool.value === 'tilt' || tool.value === 'face')
viewport.clear()
watchEffect(() => {
  if (posing.value) {
    viewport.mesh = store.meshBefore('orient')
    viewport.bodyFaces = undefined
    viewport.quaternion = draft.value ?? orientOp.value?.quaternion ?? [0, 0, 0, 1]
    viewport.markers = []
  } else {
    viewport.mesh = standing.value ?? store.meshBefore('support')
    viewport.bodyFaces = report.value?.bodyFaces
    viewport.quaternion = null
    viewport.markers = [
      ...(report.value?.tips ?? []).map((t) => ({
        point: [...t.point] as [number, number, number],
        kind: t.byHand ? ('hand' as const) : ('tip' as const),
        radius: t.grade === 'post' ? 0.9 : 0.6,
      })),
      ...findings.value.flatMap((f) => f.places.map((point) => ({ point, kind: f.level }))),
    ]
  }
  viewport.mode = tool.value === 'tilt' ? 'tilt' : tool.value === 'none' ? 'look' : 'pick'
  viewport.hint = {
    none: '',
    tilt: 'Drag the sculpt to tip it; drag beside it to turn the table',
    face: 'Press on the face that shall lie down',
    add: 'Press on the skin for a support; drag to turn',
    remove: 'Press near a tip to take it away',
  }[tool.value]
})
viewport.tilting((q) => {
  draft.value = q
})
viewport.picking((p) => {
  if (tool.value === 'face') {
    const q = quaternionBetween(p.normal, [0, 0, -1])
    draft.value = q
    tool.value = 'none'
  } else if (editing.value && supportOp.value) {
    // Edits are kept on the body as it stood before supports lifted it.
    const shift = report.value?.shift ?? [0, 0, 0]
    const back = (q: readonly number[]): [number, number, number] => [
      q[0]! - shift[0]!,
      q[1]! - shift[1]!,
      q[2]! - shift[2]!,
    ]
    const edit =
      tool.value === 'add'
        ? { kind: 'add' as const, point: back(p.point), grade: form.grade }
        : { kind: 'remove' as const, point: back(nearestTip(p.point) ?? p.point) }
    void store.apply({ ...supportOp.value, edits: [...supportOp.value.edits, edit] })
  }
})
function nearestTip(p: [number, number, number]): readonly number[] | null {
  const tips = report.value?.tips ?? []
  const best = tips.reduce<{ d: number; at: readonly number[] | null }>(
    (m, t) => {
      const d = Math.hypot(t.point[0] - p[0], t.point[1] - p[1], t.point[2] - p[2])
      return d < m.d ? { d, at: t.point } : m
    },
    { d: 12, at: null },
  )
  return best.at
}
async function search(): Promise<void> {
  const mesh = store.meshBefore('orient')
  if (!mesh || !printer.value) return
  searching.value = true
  fault.value = ''
  try {
    const d = await derivations.settled(mesh, {
      kind: 'orientations',
      limit: form.limit,
      volume: [...plateSize(printer.value), printer.value.height - form.lift - 1],
    })
    const all = (d.report as { scores: OrientationScore[] }).scores
    // Neighbours of the winner say little: each one listed stands at least 25° from those before it.
    best.value = all.reduce<OrientationScore[]>(
      (list, s) =>
        list.length < 5 && list.every((o) => o.up[0] * s.up[0] + o.up[1] * s.up[1] + o.up[2] * s.up[2] < 0.906)
          ? [...list, s]
          : list,
      [],
    )
    if (best.value[0]) draft.value = [...best.value[0].quaternion]
  } catch (e) {
    fault.value = e instanceof Error ? e.message : String(e)
  } finally {
    searching.value = false
  }
}
function setDown(): void {
  if (!draft.value) return
  void store.apply({ kind: 'orient', quaternion: draft.value })
  draft.value = null
  tool.value = 'none'
}
function putBack(): void {
  draft.value = null
  tool.value = 'none'
}
function spin(axis: [number, number, number], degrees: number): void {
  const a = (degrees * Math.PI) / 360,
    s = Math.sin(a)
  draft.value = multiplyQuaternions(
    [axis[0] * s, axis[1] * s, axis[2] * s, Math.cos(a)],
    draft.value ?? orientOp.value?.quaternion ?? [0, 0, 0, 1],
  )
}
async function grow(spacing = form.spacing): Promise<void> {
  form.spacing = spacing
  if (!store.step('orient')) await store.apply({ kind: 'orient', quaternion: [0, 0, 0, 1] })
  await store.apply({
    kind: 'support',
    limit: form.limit,
    spacing,
    clearance: form.clearance,
    lift: form.lift,
    peelPressure: resin.value?.peelPressure ?? 12_000,
    greenStrength: resin.value?.greenStrength ?? 4.5e6,
    edits: supportOp.value?.edits ?? [],
  })
}
/** Adds a hole where the cup closes first, to the holes there are. */
async function vent(cup: Finding): Promise<void> {
  const mesh = store.meshBefore('drill'),
    place = cup.places[0]
  if (!mesh || !place) return
  searching.value = true
  fault.value = ''
  try {
    const d = await derivations.settled(mesh, {
      kind: 'ventSite',
      point: place,
      quaternion: orientOp.value?.quaternion ?? [0, 0, 0, 1],
      shift: [...(report.value?.shift ?? [0, 0, 0])] as [number, number, number],
      diameter: 3,
    })
    const { site } = d.report as { site: DrilledHole }
    const drill = store.step('drill')?.op
    await store.apply({
      kind: 'drill',
      holes: [
        ...(drill?.kind === 'drill' ? drill.holes : []),
        { point: [...site.point], direction: [...site.direction], diameter: site.diameter },
      ],
    })
  } catch (e) {
    fault.value = e instanceof Error ? e.message : String(e)
  } finally {
    searching.value = false
  }
}
function act(name: string, finding?: Finding): void {
  if (name === 'ventCup' && finding) void vent(finding)
  if (name === 'support') void grow(supportOp.value ? form.spacing * 0.8 : form.spacing)
  if (name === 'denser') void grow(form.spacing * 0.8)
  if (name === 'reorient') void search()
  if (name === 'quarterTurn') {
    spin([0, 0, 1], 90)
    setDown()
  }
}
const tilt = computed(() => {
  const q = draft.value ?? orientOp.value?.quaternion
  return q ? Math.round((Math.acos(Math.max(-1, Math.min(1, 1 - 2 * (q[0] ** 2 + q[1] ** 2)))) * 180) / Math.PI) : 0
})
const why = (s: OrientationScore): string =>
  `${(s.scar / 100).toFixed(1)} cm² to support, ${s.height.toFixed(0)} mm tall, widest layer ${(s.peak / 100).toFixed(0)} cm²${s.fits ? '' : ', does not fit'}`
</script>

<template>
  <FindingList
    v-if="orientOp || supportOp"
    :findings="findings"
    :measuring="found.layersMeasuring"
    checked="Every island has a tip, no cup closes, no tip is overloaded, it fits the printer."
    :acts="
      store.step('hollow')
        ? ['support', 'denser', 'reorient', 'quarterTurn', 'ventCup']
        : ['support', 'denser', 'reorient', 'quarterTurn']
    "
    @show="viewport.show"
    @act="act"
  />
  <p v-else>
    <span class="figure-sm">Not stood up yet.</span>
    <span class="soft">Keep face, hands and emblems away from supports; let layers grow gradually.</span>
  </p>
  <p v-if="fault || found.layersProblem" role="alert" class="text-danger">{{ fault || found.layersProblem }}</p>
  <section class="mb-3">
    <h2 class="mb-2">Which way up</h2>
    <div class="d-flex gap-2 flex-wrap mb-2">
      <button class="btn btn-quiet btn-sm" :disabled="searching" @click="search">
        {{ searching ? 'Trying 714 ways …' : 'Find the best' }}
      </button>
      <button
        class="btn btn-quiet btn-sm"
        :aria-pressed="tool === 'face'"
        @click="tool = tool === 'face' ? 'none' : 'face'"
      >
        This face down
      </button>
      <button
        class="btn btn-quiet btn-sm"
        :aria-pressed="tool === 'tilt'"
        @click="tool = tool === 'tilt' ? 'none' : 'tilt'"
      >
        Tip by hand
      </button>
    </div>
    <ol v-if="best.length > 0" class="ways">
      <li v-for="(s, i) in best" :key="i">
        <button class="way" :class="{ on: draft?.join() === s.quaternion.join() }" @click="draft = [...s.quaternion]">
          {{ why(s) }}
        </button>
      </li>
    </ol>
    <div v-if="posing" class="sheet p-2 mb-2">
      <div class="d-flex align-items-center gap-2 flex-wrap">
        <span class="figure-sm">{{ tilt }}°</span><span class="soft">from upright</span>
        <button class="btn btn-sm btn-quiet" @click="spin([1, 0, 0], -5)">back 5°</button
        ><button class="btn btn-sm btn-quiet" @click="spin([1, 0, 0], 5)">forward 5°</button>
        <button class="btn btn-sm btn-quiet" @click="spin([0, 1, 0], -5)">left 5°</button
        ><button class="btn btn-sm btn-quiet" @click="spin([0, 1, 0], 5)">right 5°</button>
      </div>
      <div class="d-flex gap-2 mt-2">
        <button class="btn btn-primary btn-sm" :disabled="!draft" @click="setDown">Stand it like this</button
        ><button class="btn btn-quiet btn-sm" @click="putBack">Leave it</button>
      </div>
    </div>
  </section>
  <section v-if="report" class="sheet p-3 mb-3">
    <span class="figure">{{ report.tips.length }}</span>
    <span class="soft">tips, {{ (report.supportVolume / 1000).toFixed(1) }} ml of support</span>
    <dl class="facts mt-2">
      <dt>whisker, strut, post</dt>
      <dd>
        {{ ['whisker', 'strut', 'post'].map((g) => report!.tips.filter((t) => t.grade === g).length).join(', ') }}
      </dd>
      <dt>standing on the body</dt>
      <dd>{{ report.tips.filter((t) => t.landsOn === 'body').length }}</dd>
      <dt>skin scarred</dt>
      <dd>{{ report.scarArea.toFixed(1) }} mm²</dd>
      <dt>hardest worked tip</dt>
      <dd>{{ Math.round(Math.max(0, ...report.tips.map((t) => t.utilisation)) * 100) }} %</dd>
      <dt>by hand</dt>
      <dd>{{ supportOp?.edits.length ?? 0 }} edits</dd>
      <dt>height with raft</dt>
      <dd>{{ report.height.toFixed(1) }} mm</dd>
    </dl>
  </section>
  <section>
    <h2 class="mb-2">Supports</h2>
    <NumberField
      v-model="form.limit"
      label="Overhang limit from the plate"
      unit="°"
      :step="1"
      :min="15"
      :max="75"
      source="default 30 to 45"
    />
    <NumberField
      v-model="form.spacing"
      label="Between tips"
      unit="mm"
      :step="0.25"
      :min="0.8"
      :max="20"
      source="default"
    />
    <NumberField
      v-model="form.clearance"
      label="Clear of the body"
      unit="mm"
      :step="0.1"
      :min="0.1"
      :max="5"
      source="default"
    />
    <NumberField
      v-model="form.lift"
      label="Raft to body"
      unit="mm"
      :step="0.5"
      :min="0"
      :max="40"
      source="0 stands on the plate"
    />
    <div class="d-flex gap-2 flex-wrap mt-2">
      <button class="btn btn-primary" :disabled="!store.meshBefore('support')" @click="grow()">
        {{ supportOp ? 'Support again' : 'Generate supports' }}
      </button>
      <button v-if="supportOp" class="btn btn-quiet" @click="store.remove('support')">Take all away</button>
    </div>
    <div v-if="supportOp" class="d-flex gap-2 flex-wrap mt-2 align-items-center">
      <button
        class="btn btn-quiet btn-sm"
        :aria-pressed="tool === 'add'"
        @click="tool = tool === 'add' ? 'none' : 'add'"
      >
        {{ tool === 'add' ? 'Done adding' : 'Add by hand' }}
      </button>
      <select v-model="form.grade" class="form-select form-select-sm w-auto" aria-label="Grade of added supports">
        <option>whisker</option>
        <option>strut</option>
        <option>post</option>
      </select>
      <button
        class="btn btn-quiet btn-sm"
        :aria-pressed="tool === 'remove'"
        @click="tool = tool === 'remove' ? 'none' : 'remove'"
      >
        {{ tool === 'remove' ? 'Done removing' : 'Remove by hand' }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.ways {
  list-style: none;
  padding: 0;
  margin: 0 0 8px;
  display: grid;
  gap: 4px;
}
.way {
  width: 100%;
  text-align: left;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--paper-raised);
  padding: 4px 9px;
  font-size: 0.88rem;
}
.way.on {
  border-color: var(--action);
  box-shadow: inset 4px 0 0 var(--action);
}
</style>
