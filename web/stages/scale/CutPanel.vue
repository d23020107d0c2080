<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { text, fixed } from '../../i18n'
import type { FixingRecord } from '../../../core/operations/fix'
import type { OperationInput } from '../../../contract/operations'
import type { CutPlane } from '../../../core/shape/cutPlanes'
import { plateSize } from '../../../core/print/slice/printer'
import { useAttempt } from '../../composables/useAttempt'
import { useCheck } from '../../composables/useCheck'
import { useClearances } from '../../composables/useClearances'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'

/** Cuts the part on the table in two, by a plane or along a line pressed onto its skin, with keys in both halves. */
const store = usePiece(),
  viewport = useViewport(),
  assembly = useAssembly(),
  derivations = useDerivations()
const { printer } = usePrinterAndResin()
type Triple = [number, number, number]
const DIRECTIONS: Record<string, Triple> = {
  level: [0, 0, 1],
  'left from right': [1, 0, 0],
  'front from back': [0, 1, 0],
}
const own = computed(() => assembly.placed.find((p) => p.part.id === store.part?.id) ?? null)
const box = computed(() => own.value?.measures?.box ?? null)
const open = ref(false)
const way = ref<keyof typeof DIRECTIONS | 'line' | 'proposed'>('proposed')
const share = ref(50),
  lean = ref(0)
const line = ref<Triple[]>([])
const keyed = ref(true),
  ownClearance = ref<number | null>(null)
const clearances = useClearances()
const process = computed(() => clearances.processOf(store.part?.id))
const clearance = computed({
  get: () => ownClearance.value ?? clearances.drawn(process.value, 'sliding'),
  set: (v) => (ownClearance.value = v),
})
const { fault, busy, attempt } = useAttempt()

const volume = computed<Triple>(() => {
  const p = printer.value
  return p ? [...plateSize(p), p.height] : [200, 120, 250]
})
const proposals = useCheck(
  () => (open.value && way.value === 'proposed' ? own.value?.mesh : null),
  () => ({ kind: 'cutPlanes', volume: volume.value, focal: [] }),
)
const proposed = ref(0)
const where = (c: CutPlane): string =>
  Math.abs(c.normal[2]) > 0.1
    ? text('scale.cutPanel.mmUp', { point: fixed(c.point[2] - (box.value?.min[2] ?? 0), 0) })
    : Math.abs(c.normal[0]) > 0.5
      ? text('scale.cutPanel.leftFromRight')
      : text('scale.cutPanel.frontFromBack')
const words = (c: CutPlane): string => {
  const way = c.normal[2] > 0.99 ? 'level' : Math.abs(c.normal[2]) < 0.1 ? 'upright' : 'leaning'
  return text('scale.cutPanel.seamMmMmOf', {
    way,
    seam: fixed(c.seam, 0),
    seen: fixed(c.seen, 0),
    value: fixed(100 * c.smaller, 0),
    parts: c.parts,
    pieces: c.pieces,
    room: c.room < 2,
  })
}

const plane = computed(() => {
  const b = box.value
  if (!b) return null
  if (way.value === 'line') return lined(line.value)
  if (way.value === 'proposed') {
    const c = proposals.report.value?.planes[proposed.value]
    return c ? { point: [...c.point] as Triple, normal: [...c.normal] as Triple } : null
  }
  const n = DIRECTIONS[way.value]!
  const axis = n.findIndex((v) => v !== 0)
  const point = [0, 1, 2].map((k) =>
    k === axis ? b.min[k]! + (share.value / 100) * (b.max[k]! - b.min[k]!) : (b.min[k]! + b.max[k]!) / 2,
  ) as Triple
  const a = (lean.value * Math.PI) / 180
  const side = axis === 2 ? 1 : 2
  const normal = n.map((v) => v * Math.cos(a)) as Triple
  normal[side] = normal[side]! + Math.sin(a)
  return { point, normal }
})
/** The plane nearest to the places of a line: through their middle, by Newell's normal of the closed polygon. */
function lined(points: readonly Triple[]): { point: Triple; normal: Triple } | null {
  if (points.length < 3) return null
  const normal: Triple = [0, 0, 0]
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length]!
    normal[0] += (p[1] - q[1]) * (p[2] + q[2])
    normal[1] += (p[2] - q[2]) * (p[0] + q[0])
    normal[2] += (p[0] - q[0]) * (p[1] + q[1])
  })
  const l = Math.hypot(...normal)
  if (l < 1e-9) return null
  const up = normal[2] < 0 ? -l : l
  return {
    point: [0, 1, 2].map((k) => points.reduce((s, p) => s + p[k]!, 0) / points.length) as Triple,
    normal: normal.map((v) => v / up) as Triple,
  }
}
/** The pressed places joined along the skin, drawn taut. */
const skin = useCheck(
  () => (way.value === 'line' && line.value.length > 1 ? own.value?.mesh : null),
  () => ({ kind: 'skinLine', places: line.value, closed: line.value.length > 2 }),
)
const taut = computed(() => skin.report.value?.line ?? [])
viewport.describe(() => (open.value && plane.value ? { plane: plane.value } : null))
viewport.describe(() =>
  open.value && way.value === 'line'
    ? {
        mode: 'pick',
        hint: text('scale.cutPanel.clickPlacesAroundThe'),
        markers: line.value.map((point) => ({ point, kind: 'hand' as const })),
        line: { points: taut.value, closed: line.value.length > 2 },
        onPick: (p) => {
          if (p.companion === null) line.value = [...line.value, p.point]
        },
      }
    : null,
)
function toggle(shown: boolean): void {
  open.value = shown
}

/** mm of body round a key */
const KEY_WALL = 1.5
/** what came of the cut, where that is not all that was asked */
const said = ref('')
const cut = (): Promise<void> => attempt(cutIt)
async function cutIt(): Promise<void> {
  said.value = ''
  const part = store.part,
    at = plane.value,
    mesh = own.value?.mesh
  if (!part || !at || !mesh) return
  const half = (keep: 'above' | 'below'): OperationInput => ({
    kind: 'cut',
    ...at,
    keep,
    line: way.value === 'line' ? (taut.value.length > 2 ? taut.value : line.value) : [],
  })
  // Both halves, and the keys in them, are tried before anything is kept.
  const above = await store.tryOn(mesh, half('above')),
    below = above && (await store.tryOn(mesh, half('below')))
  if (above && below) {
    let sites = keyed.value ? await keys(mesh, at) : []
    const fix = (role: FixingRecord['role']): OperationInput => ({
      kind: 'fix',
      fixings: sites.map((s) => ({ ...s, role })),
    })
    if (sites.length > 0 && !((await store.tryOn(below, fix('plug'))) && (await store.tryOn(above, fix('socket')))))
      sites = []
    const list = (keep: 'above' | 'below', role: FixingRecord['role']): OperationInput[] => {
      const halved: OperationInput[] = store.withOperation(part, half(keep))
      return sites.length > 0 ? ordered([...halved, fix(role)]) : halved
    }
    const made = await store.arrange({
      lists: [{ id: part.id, operations: list('below', 'plug') }],
      create: [
        {
          name: text('scale.cutPanel.upperHalf', { name: part.name }).slice(0, 120),
          from: part.id,
          operations: list('above', 'socket') as never,
        },
      ],
    })
    // Refused, the places that were pressed stay.
    if (!made) return
    line.value = []
    if (keyed.value && sites.length === 0) said.value = text('scale.cutPanel.theSectionHasNo', { KEY_WALL })
  }
}
async function keys(mesh: string, at: { point: Triple; normal: Triple }): Promise<Omit<FixingRecord, 'role'>[]> {
  const { sites } = await derivations.reported(mesh, {
    kind: 'keySites',
    ...at,
    wall: KEY_WALL,
    clearance: clearance.value,
    draft: 3,
  })
  return sites
}
/** A fixing belongs before hollowing and all that follows. */
const ordered = (ops: OperationInput[]): OperationInput[] => {
  const fix = ops.filter((o) => o.kind === 'fix')
  const rest: OperationInput[] = ops.filter((o) => o.kind !== 'fix')
  const place = rest.findIndex((o) => ['hollow', 'drill', 'orient', 'support'].includes(o.kind))
  rest.splice(place < 0 ? rest.length : place, 0, ...fix)
  return rest
}
</script>

<template>
  <FoldPanel class="mb-3" @toggle="toggle">
    <template #title>{{ $t('scale.cutPanel.cutInTwo', { name: store.part?.name }) }}</template>
    <div class="d-flex flex-wrap gap-1 my-2">
      <BButton
        v-for="k in ['proposed', ...Object.keys(DIRECTIONS), 'line']"
        :key="k"
        :variant="way === k ? 'primary' : 'quiet'"
        size="sm"
        @click="way = k"
      >
        {{ k === 'line' ? $t('scale.cutPanel.alongALine') : k }}
      </BButton>
    </div>
    <template v-if="way === 'proposed'">
      <p v-if="proposals.measuring.value" class="soft small mb-1">{{ $t('scale.cutPanel.tryingCuts') }}</p>
      <FaultNote :text="proposals.problem.value" />
      <BButton
        variant="card"
        v-for="(c, i) in proposals.report.value?.planes ?? []"
        :key="i"
        class="proposal"
        :class="{ here: i === proposed }"
        :aria-pressed="i === proposed"
        @click="proposed = i"
      >
        <b>{{ where(c) }}</b>
        <span class="soft small">{{ words(c) }}</span>
      </BButton>
    </template>
    <template v-else-if="way !== 'line'">
      <NumberField
        v-model="share"
        :label="$t('scale.cutPanel.positionAlongTheAxis')"
        unit="%"
        :step="1"
        :min="0"
        :max="100"
        :digits="1"
      />
      <NumberField
        v-model="lean"
        :label="$t('scale.cutPanel.tilt')"
        unit="°"
        :step="5"
        :min="-60"
        :max="60"
        :digits="0"
      />
    </template>
    <p v-else class="soft small mb-1">
      {{ $t('scale.cutPanel.placesLine2', { line: line.length, line2: line.length < 3 }) }}
      <BButton v-if="line.length > 0" variant="quiet" size="sm" @click="line = line.slice(0, -1)">
        {{ $t('scale.cutPanel.removeTheLast') }}
      </BButton>
    </p>
    <BFormCheckbox v-model="keyed">{{ $t('scale.cutPanel.withKeysThatFit') }}</BFormCheckbox>
    <NumberField
      v-if="keyed"
      v-model="clearance"
      :label="$t('scale.cutPanel.clearancePerSide')"
      unit="mm"
      :step="0.05"
      :min="0"
      :max="2"
      :source="ownClearance === null ? clearances.source(process, 'sliding') : ''"
    />
    <p v-if="said" role="status" class="soft small mb-1">{{ said }}</p>
    <FaultNote :text="fault" class="mb-1" />
    <BButton variant="primary" size="sm" class="mt-1" :disabled="busy || !plane" @click="cut">
      {{ busy ? $t('scale.cutPanel.cutting') : $t('scale.cutPanel.cut') }}
    </BButton>
  </FoldPanel>
</template>

<style scoped>
.proposal {
  display: flex;
  flex-direction: column;
  width: 100%;
  text-align: left;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--paper-raised);
  padding: 4px 9px;
  margin-bottom: 4px;
}
.proposal.here {
  border-color: var(--action);
  box-shadow: inset 3px 0 0 var(--action);
}
</style>
