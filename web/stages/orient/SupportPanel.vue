<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { text, term, fixed } from '../../i18n'
import { figure } from '../../manner'
import { GREEN_STRENGTH, PEEL_PRESSURE } from '../../../core/defaults/print'
import { computed, reactive, ref, watch } from 'vue'
import { INSPECTION_STEP } from '../../../core/raster/layerGraph'
import type { SupportReport } from '../../../core/print/support/support'
import { orientedDabs } from '../../../core/shape/orient'
import { peelOn } from '../../../core/print/slice/printer'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { useDerivations } from '../../stores/derivations'
import { useFindings } from '../../stores/findings'
import { usePiece } from '../../stores/piece'
import LoadChart from './LoadChart.vue'
import OutcomePanel from './OutcomePanel.vue'
import { useStand, type BrushSpot, type Tool } from './orientStage'
import FaultNote from '../../shell/FaultNote.vue'
import { messageOf } from '../../messageOf'

/** Supports: how they are thought of, grown, set by hand, painted in and out, and what they cost and bear. */
const props = defineProps<{ focal: BrushSpot[] }>()
const store = usePiece(),
  assembly = useAssembly(),
  derivations = useDerivations(),
  found = useFindings(),
  stand = useStand()
const { printer, resin } = usePrinterAndResin()
type Triple = [number, number, number]
const op = computed(() => {
  const o = store.step('support')?.op
  return o?.kind === 'support' ? o : null
})
const report = computed(() => store.report('support')?.support ?? null)
const form = reactive({
  limit: 40,
  spacing: 3.5,
  clearance: 0.6,
  lift: 5,
  school: 'plain' as 'plain' | 'broad' | 'heavy' | 'joints',
  grade: 'strut' as 'whisker' | 'strut' | 'post',
})
watch(
  op,
  (o) => {
    if (o)
      Object.assign(form, {
        limit: o.limit,
        spacing: o.spacing,
        clearance: o.clearance,
        lift: o.lift,
        school: o.school ?? 'plain',
      })
  },
  { immediate: true },
)
/** What the scars were before the last change, to hold the new ones against. */
const last = ref<SupportReport | null>(null)
watch(report, (_, before) => {
  if (before) last.value = before
})
const fault = ref(''),
  busy = ref(false)
const back = (q: readonly number[]): Triple => {
  // Edits are kept on the body as it stood before supports lifted it.
  const shift = report.value?.shift ?? [0, 0, 0]
  return [q[0]! - shift[0]!, q[1]! - shift[1]!, q[2]! - shift[2]!]
}

/** Skin that other parts will cover, on the body as it stands. */
async function jointFaces(): Promise<BrushSpot[]> {
  const mesh = store.meshBefore('orient'),
    orient = store.step('orient')?.op,
    offset = store.report('orient')?.offset ?? [0, 0, 0]
  if (!mesh) return []
  const covered = await derivations.reported(mesh, {
    kind: 'coveredDabs',
    others: assembly.placed.flatMap((p) => (p.part.id !== store.part?.id && p.mesh ? [p.mesh] : [])),
    spacing: 1.5,
  })
  return orientedDabs(covered.dabs.slice(0, 2000), orient?.kind === 'orient' ? orient.quaternion : [0, 0, 0, 1], offset)
}
async function grow(more: Partial<NonNullable<typeof op.value>> = {}): Promise<void> {
  busy.value = true
  fault.value = ''
  try {
    await store.applyIfNone({ kind: 'orient', quaternion: [0, 0, 0, 1] })
    const only = form.school === 'joints' ? await jointFaces() : undefined
    if (only?.length === 0) {
      fault.value = text('orient.supportPanel.noPartCoversThis')
      return
    }
    const o = op.value
    await store.apply({
      kind: 'support',
      limit: form.limit,
      spacing: form.spacing,
      clearance: form.clearance,
      lift: form.lift,
      peelPressure: resin.value ? peelOn(printer.value ?? {}, resin.value) : PEEL_PRESSURE,
      greenStrength: resin.value?.greenStrength ?? GREEN_STRENGTH,
      edits: o?.edits ?? [],
      ...(o?.none ? { none: o.none } : {}),
      ...(o?.more ? { more: o.more } : {}),
      ...(form.school === 'plain' ? {} : { school: form.school }),
      ...(only ? { only } : {}),
      ...(props.focal.length > 0 ? { focal: props.focal } : {}),
      ...more,
    })
  } catch (e) {
    fault.value = messageOf(e)
  } finally {
    busy.value = false
  }
}
async function denser(closer: boolean): Promise<void> {
  if (closer) form.spacing = Math.max(0.8, form.spacing * 0.8)
  await grow()
}
/** A body that carries supports stands as it came: nothing is turned, lifted or added. */
async function leaveAsIs(): Promise<void> {
  await store.applyIfNone({ kind: 'orient', quaternion: [0, 0, 0, 1] })
  form.lift = 0
  await grow({ lift: 0, automatic: false, edits: [] })
}

/** mm round a press within which the nearest tip is meant */
const MEANT_BY_PRESS = 12
function nearestTip(p: Triple): Triple | null {
  const best = (report.value?.tips ?? []).reduce<{ d: number; at: Triple | null }>(
    (m, t) => {
      const d = Math.hypot(t.point[0] - p[0], t.point[1] - p[1], t.point[2] - p[2])
      return d < m.d ? { d, at: [...t.point] as Triple } : m
    },
    { d: MEANT_BY_PRESS, at: null },
  )
  return best.at
}
type Edit = NonNullable<typeof op.value>['edits'][number]
const edit = (e: Edit): void => {
  if (op.value) void store.apply({ ...op.value, edits: [...op.value.edits, e] })
}
/** A press on the sculpt with one of the hand's tools. */
function pressed(p: Triple): void {
  if (!op.value) return
  if (stand.tool === 'add') edit({ kind: 'add', point: back(p), grade: form.grade })
  else if (stand.tool === 'drop') edit({ kind: 'drop', point: back(p) })
  else if (stand.tool === 'clear') edit({ kind: 'remove', point: back(p), radius: stand.radius })
  else if (stand.tool === 'move' && stand.held) {
    edit({ kind: 'move', point: back(stand.held), to: back(p) })
    stand.held = null
  } else {
    const tip = nearestTip(p)
    fault.value = tip ? '' : text('orient.supportPanel.thereIsNoTip', { MEANT_BY_PRESS })
    if (!tip) return
    if (stand.tool === 'move') stand.held = tip
    else if (stand.tool === 'regrade') edit({ kind: 'regrade', point: back(tip), grade: form.grade })
    else if (stand.tool === 'remove') edit({ kind: 'remove', point: back(tip) })
  }
}
/** mm from a press to the tip that it takes hold of */
const GRIP = 3
/** A tip can be pulled along the skin: whether the press is on one. */
function grab(p: Triple): boolean {
  if (stand.tool !== 'move' || stand.held) return false
  const tip = nearestTip(p)
  if (!tip || Math.hypot(...tip.map((v, k) => v - p[k]!)) > GRIP) return false
  stand.held = tip
  return true
}
/** Where it is pulled to. A press that pulls nothing leaves it in the hand, for the next press to say where it goes. */
function slide(p: Triple, ended: boolean): void {
  const from = stand.held
  if (!from) return
  stand.slid = ended ? null : p
  if (!ended || Math.hypot(...from.map((v, k) => v - p[k]!)) < GRIP / 2) return
  edit({ kind: 'move', point: back(from), to: back(p) })
  stand.held = null
}
function take(tool: Tool): void {
  stand.held = stand.slid = null
  stand.dabs = []
  stand.tool = stand.tool === tool ? 'none' : tool
}
/** Paint joins what was painted before, and the supports are grown again round what was set by hand. */
async function keepPaint(): Promise<void> {
  const kind = stand.tool === 'bar' ? 'none' : 'more'
  const dabs = stand.dabs.map((d) => ({ point: back(d.point), radius: d.radius }))
  stand.tool = 'none'
  stand.dabs = []
  if (op.value && dabs.length > 0) await grow({ [kind]: [...(op.value[kind] ?? []), ...dabs] })
}
async function forgetPaint(): Promise<void> {
  if (!op.value) return
  await store.apply({ ...op.value, none: undefined, more: undefined })
}
const TOOLS: { tool: Tool; word: string; done: string }[] = [
  { tool: 'add', word: text('orient.supportPanel.add'), done: text('orient.supportPanel.doneAdding') },
  { tool: 'remove', word: text('orient.supportPanel.remove'), done: text('orient.supportPanel.doneRemoving') },
  { tool: 'clear', word: text('orient.supportPanel.removeAround'), done: text('orient.supportPanel.doneRemoving2') },
  { tool: 'move', word: text('orient.supportPanel.move'), done: text('orient.supportPanel.doneMoving') },
  { tool: 'regrade', word: text('orient.supportPanel.changeSize'), done: text('orient.supportPanel.doneChanging') },
  { tool: 'drop', word: text('orient.supportPanel.doNotPrint'), done: text('orient.supportPanel.done') },
  { tool: 'bar', word: text('orient.supportPanel.noSupportsHere'), done: text('orient.supportPanel.cancel') },
  { tool: 'more', word: text('orient.supportPanel.moreHere'), done: text('orient.supportPanel.cancel') },
]
const SCHOOLS = [
  { key: 'plain', word: text('orient.supportPanel.byCalculatedLoad') },
  { key: 'broad', word: text('orient.supportPanel.denseThenThinnedOut') },
  { key: 'heavy', word: text('orient.supportPanel.fewAndStrong') },
  { key: 'joints', word: text('orient.supportPanel.jointFacesOnly') },
] as const
const worst = computed(() => Math.max(0, ...(report.value?.tips.map((t) => t.utilisation) ?? [])))
const suction = computed(() => found.layers?.suction ?? [])
const cupPull = computed(() => suction.value.reduce((a, b) => Math.max(a, b), 0))
const painted = computed(() => (op.value?.none?.length ?? 0) + (op.value?.more?.length ?? 0))
const by = (r: SupportReport | null, f: (r: SupportReport) => number, digits = 0, unit = ''): string => {
  if (!r) return ''
  const now = figure(f(r), digits, unit)
  const was = last.value && last.value !== r ? figure(f(last.value), digits, unit) : now
  return was === now ? now : `${was} → ${now}`
}
defineExpose({ pressed, grab, slide, denser, leaveAsIs })
</script>

<template>
  <section v-if="report" class="sheet p-3 mb-3">
    <span class="figure">{{ report.tips.length }}</span>
    <span class="soft"
      >{{ ' ' }}{{ $t('orient.supportPanel.tipsMlOfSupport', { supportVolume: fixed(report.supportVolume / 1000, 1) })
      }}<template v-if="report.thinned > 0">{{
        $t('orient.supportPanel.removedAsUnneeded', { thinned: report.thinned })
      }}</template></span
    >
    <dl class="facts mt-2">
      <dt>{{ $t('orient.supportPanel.fineMediumStrong') }}</dt>
      <dd>
        {{
          (['whisker', 'strut', 'post'] as const)
            .map((g) => report!.tips.filter((t) => t.grade === g).length)
            .join(', ')
        }}
      </dd>
      <dt>{{ $t('orient.supportPanel.onTheBodyOn') }}</dt>
      <dd>{{ report.tips.filter((t) => t.landsOn === 'body').length }}, {{ report.joined }}</dd>
      <dt>{{ $t('orient.supportPanel.surfaceMarkedByTips') }}</dt>
      <dd>{{ $t('orient.supportPanel.mm', { report: by(report, (r) => r.scarArea, 1) }) }}</dd>
      <dt>{{ $t('orient.supportPanel.ofThatOnAreas') }}</dt>
      <dd>
        {{
          op?.focal
            ? $t('orient.supportPanel.mm', { report: by(report, (r) => r.focalScar, 1) })
            : $t('orient.supportPanel.notMarkedWhenGenerated')
        }}
      </dd>
      <dt>{{ $t('orient.supportPanel.highestLoadOfA') }}</dt>
      <dd>{{ Math.round(worst * 100) }} %</dd>
      <dt>{{ $t('orient.supportPanel.byHand') }}</dt>
      <dd>{{ $t('orient.supportPanel.edits', { edits: op?.edits.length ?? 0 }) }}</dd>
      <dt>{{ $t('orient.supportPanel.heightWithRaft') }}</dt>
      <dd>{{ $t('orient.supportPanel.mm2', { height: fixed(report.height, 1) }) }}</dd>
    </dl>
    <FoldPanel class="mt-1">
      <template #title
        >{{ $t('orient.supportPanel.peelForceOverThe')
        }}<span v-if="cupPull > 0" class="soft">{{
          $t('orient.supportPanel.suctionCupsUpTo', { cupPull: fixed(cupPull, 1) })
        }}</span>
      </template>
      <LoadChart :layers="report.layers" :suction="suction" :step="INSPECTION_STEP" />
      <p class="soft small mb-0">{{ $t('orient.supportPanel.peelForceOfThe') }}</p>
    </FoldPanel>
    <OutcomePanel v-if="op" :utilisation="worst" :peel-pressure="op.peelPressure" :green-strength="op.greenStrength" />
  </section>
  <section>
    <h2 class="mb-2">{{ $t('orient.supportPanel.supports') }}</h2>
    <label class="d-flex align-items-center gap-2 mb-1"
      ><span>{{ $t('orient.supportPanel.method') }}</span>
      <BFormSelect v-model="form.school" size="sm" class="w-auto">
        <option v-for="s in SCHOOLS" :key="s.key" :value="s.key">{{ s.word }}</option>
      </BFormSelect></label
    >
    <NumberField
      v-model="form.spacing"
      :label="$t('orient.supportPanel.betweenTips')"
      unit="mm"
      :step="0.25"
      :min="0.8"
      :max="20"
      :source="$t('orient.supportPanel.default')"
    />
    <FoldPanel class="mb-1">
      <template #title>{{ $t('orient.supportPanel.limitClearanceLift') }}</template>
      <NumberField
        v-model="form.limit"
        :label="$t('orient.supportPanel.overhangLimitFromThe')"
        unit="°"
        :step="1"
        :min="15"
        :max="75"
        :source="$t('orient.supportPanel.default30To45')"
      />
      <NumberField
        v-model="form.clearance"
        :label="$t('orient.supportPanel.clearanceFromTheBody')"
        unit="mm"
        :step="0.1"
        :min="0.1"
        :max="5"
        :source="$t('orient.supportPanel.default')"
      />
      <NumberField
        v-model="form.lift"
        :label="$t('orient.supportPanel.raftToBody')"
        unit="mm"
        :step="0.5"
        :min="0"
        :max="40"
        :source="$t('orient.supportPanel.n0StandsOnThe')"
      />
    </FoldPanel>
    <FaultNote :text="fault" class="mb-1" />
    <div class="d-flex gap-2 flex-wrap mt-2">
      <BButton variant="primary" :disabled="busy || !store.meshBefore('support')" @click="grow()">
        {{ op ? $t('orient.supportPanel.generateSupportsAgain') : $t('orient.supportPanel.generateSupports') }}
      </BButton>
      <BButton v-if="op" variant="quiet" @click="store.remove('support')">{{
        $t('orient.supportPanel.removeSupports')
      }}</BButton>
    </div>
    <template v-if="op">
      <h3 class="mt-3 mb-1">{{ $t('orient.supportPanel.byHand2') }}</h3>
      <div class="d-flex gap-1 flex-wrap align-items-center">
        <BButton
          v-for="t in TOOLS"
          :key="t.tool"
          :variant="stand.tool === t.tool ? 'primary' : 'quiet'"
          size="sm"
          :aria-pressed="stand.tool === t.tool"
          @click="take(t.tool)"
        >
          {{ stand.tool === t.tool ? t.done : t.word }}
        </BButton>
        <BFormSelect
          v-model="form.grade"
          size="sm"
          class="w-auto"
          :aria-label="$t('orient.supportPanel.sizeOfTipsPlaced')"
        >
          <option value="whisker">{{ term('tipSize', 'whisker') }}</option>
          <option value="strut">{{ term('tipSize', 'strut') }}</option>
          <option value="post">{{ term('tipSize', 'post') }}</option>
        </BFormSelect>
      </div>
      <div v-if="stand.tool === 'bar' || stand.tool === 'more' || stand.tool === 'clear'" class="mt-1">
        <NumberField
          v-model="stand.radius"
          :label="$t('orient.supportPanel.brush')"
          unit="mm"
          :step="1"
          :min="0.5"
          :max="100"
          :source="$t('orient.supportPanel.radius')"
        />
        <BButton
          v-if="stand.tool !== 'clear'"
          variant="primary"
          size="sm"
          :disabled="stand.dabs.length === 0"
          @click="keepPaint"
        >
          {{ $t('orient.supportPanel.generateAgainAroundPlaces', { dabs: stand.dabs.length }) }}
        </BButton>
      </div>
      <BButton v-if="painted > 0" variant="quiet" size="sm" class="mt-1" @click="forgetPaint">
        {{ $t('orient.supportPanel.removeTheBrushedAreas', { painted }) }}
      </BButton>
    </template>
  </section>
</template>
