<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, watch } from 'vue'
import { text, fixed, type Fixed } from '../../i18n'
import type { DrainSite } from '../../../core/shape/drillSkin'
import { rankOf } from '../../../core/operations/registry'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { useDerivations } from '../../stores/derivations'
import { useFindings } from '../../stores/findings'
import { usePiece } from '../../stores/piece'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'
import { messageOf } from '../../messageOf'

/** Drain holes: proposed, set by hand, slid along the skin, and their plugs. */
type Triple = [number, number, number]
interface Hole {
  point: Triple
  direction: Triple
  diameter: number
  /** why it is here, or what is wrong with it */
  note?: string
  score?: DrainSite['score']
  wrong?: string
  instead?: DrainSite | null
}
const store = usePiece(),
  found = useFindings(),
  assembly = useAssembly(),
  viewport = useViewport(),
  derivations = useDerivations()
const diameter = ref(4),
  clearance = ref(0.1)
const drilled = computed(() => store.report('drill')?.drill ?? null)
const problem = computed(() => store.step('drill')?.derivation?.problem?.message ?? null)
const set = computed<Hole[]>(() => {
  const o = store.step('drill')?.op
  return o?.kind === 'drill' ? o.holes.map((h) => ({ ...h })) : []
})
const draft = ref<Hole[]>([])
watch(
  set,
  (v) => {
    // What is known of a hole stays with it when it was drilled.
    draft.value = v.map((h) => ({ ...draft.value.find((d) => same(d, h)), ...h }))
  },
  { immediate: true },
)
const same = (a: Hole, b: Hole): boolean =>
  a.diameter === b.diameter && a.point.every((v, k) => Math.abs(v - b.point[k]!) < 1e-6)
const unchanged = computed(
  () =>
    draft.value.length === set.value.length && draft.value.every((h, i) => same(h, set.value[i]!)) && !problem.value,
)
const searching = ref(false),
  placing = ref(false),
  fault = ref('')
viewport.describe(() => ({
  markers: draft.value.map((h) => ({
    point: h.point,
    kind: h.wrong ? ('problem' as const) : ('hole' as const),
    radius: h.diameter / 2,
  })),
  hint: draft.value.length > 0 ? text('hollow.holesPanel.dragAHoleAlong') : '',
  onGrab: grab,
  onSlide: slide,
}))
viewport.describe(() =>
  placing.value ? { mode: 'pick', hint: text('hollow.holesPanel.clickOnTheSculpt'), onPick: placed } : null,
)
const others = computed(() => assembly.placed.flatMap((p) => (p.part.id !== store.part?.id && p.mesh ? [p.mesh] : [])))
let held = -1
function placed(p: Picked): void {
  if (p.companion !== null) return
  draft.value.push({ point: p.point, direction: inward(p.normal), diameter: diameter.value })
  void feel(draft.value.length - 1)
}
function grab(p: Picked): boolean {
  if (p.companion !== null) return false
  held = draft.value.findIndex(
    (h) => Math.hypot(...h.point.map((v, k) => v - p.point[k]!)) < Math.max(1.5, 0.9 * h.diameter),
  )
  return held >= 0
}
function slide(p: Picked, ended: boolean): void {
  const h = draft.value[held]
  if (!h || p.companion !== null) return
  const moved = p.point.some((v, k) => Math.abs(v - h.point[k]!) > 1e-6)
  draft.value[held] = moved
    ? {
        point: p.point,
        direction: inward(p.normal),
        diameter: h.diameter,
        note: text('hollow.holesPanel.asYouPlacedIt'),
      }
    : h
  if (ended && draft.value[held]!.score === undefined) void feel(held)
}
/** mm */
const NARROWER = [3, 2.5, 2]
const inward = (n: Triple): Triple => n.map((v) => -v) as Triple

/** What the hole there would be: taken under a joint when one is near, or told why it cannot be. */
async function feel(i: number): Promise<void> {
  const mesh = store.meshAfter('hollow'),
    h = draft.value[i]
  if (!mesh || !h) return
  try {
    const r = await derivations.reported(mesh, {
      kind: 'holeNear',
      point: h.point,
      diameter: h.diameter,
      others: others.value,
      snap: 6,
      within: 15,
    })
    const now = draft.value.findIndex((x) => same(x, h))
    if (now < 0) return
    if (r.instead?.covered)
      draft.value[now] = from(
        r.instead,
        text('hollow.holesPanel.movedMm', { h: apart(h, r.instead), instead: words(r.instead) }),
      )
    else if (r.asked) draft.value[now] = from({ ...r.asked, point: h.point, direction: h.direction }, words(r.asked))
    else draft.value[now] = { ...h, wrong: r.problem ? say(r.problem.message, manner) : '', instead: r.instead }
  } catch (e) {
    fault.value = messageOf(e)
  }
}
type Spot = Pick<DrainSite, 'point' | 'direction' | 'diameter' | 'score'>
const from = (s: Spot, note: string): Hole => ({
  point: [...s.point] as Triple,
  direction: [...s.direction] as Triple,
  diameter: s.diameter,
  score: s.score,
  note,
})
const words = (s: DrainSite): string =>
  text('hollow.holesPanel.coveredHiddenWallMm', {
    covered: Boolean(s.covered),
    round: Math.round(100 * s.hidden),
    depth: fixed(s.depth, 1),
    edge: fixed(s.edge, 1),
  })
const apart = (h: Hole, s: DrainSite): Fixed => fixed(Math.hypot(...h.point.map((v, k) => v - s.point[k]!)), 1)
function takeInstead(i: number): void {
  const s = draft.value[i]?.instead
  if (s) draft.value[i] = from(s, words(s))
}

/** A hole at the place of the skin nearest to a place inside that takes one. */
async function holeAt(place: Triple): Promise<void> {
  draft.value.push({
    point: place,
    direction: [0, 0, 1],
    diameter: diameter.value,
    note: text('hollow.holesPanel.atThePlaceOf'),
  })
  const i = draft.value.length - 1
  await feel(i)
  const h = draft.value[i]
  if (h?.instead) takeInstead(i)
  else if (h?.wrong) draft.value.splice(i, 1)
  if (h?.wrong && !h.instead) fault.value = text('hollow.holesPanel.thereIsNoRoom')
}

async function propose(): Promise<void> {
  const mesh = store.meshAfter('hollow')
  if (!mesh) return
  searching.value = true
  fault.value = ''
  try {
    const wanted = 2 * (store.report('hollow')?.hollow.cavities ?? 1)
    let sites: DrainSite[] = []
    // What takes no hole as wide as wished may take a narrower one; 2 mm is the least that drains.
    for (const across of [diameter.value, ...NARROWER.filter((x) => x < diameter.value)]) {
      const { sites: tried } = await derivations.reported(mesh, {
        kind: 'drainSites',
        diameter: across,
        down: found.down,
        others: others.value,
      })
      if (tried.length > sites.length) sites = tried
      if (sites.length >= wanted) break
    }
    const across = sites[0]?.diameter
    if (sites.length === 0) fault.value = text('hollow.holesPanel.thereIsNoRoom2')
    else if (sites.length < wanted)
      fault.value = text('hollow.holesPanel.ofHolesFoundNo', { wanted: wanted - sites.length, wanted2: wanted })
    else if (across !== diameter.value)
      fault.value = text('hollow.holesPanel.holesOfMmDo', { diameter: diameter.value, across })
    draft.value = sites.map((s) => from(s, say(s.reason, manner)))
  } catch (e) {
    fault.value = messageOf(e)
  } finally {
    searching.value = false
  }
}
function drill(): void {
  placing.value = false
  if (draft.value.length === 0) void store.remove('drill')
  else
    void store.apply({
      kind: 'drill',
      holes: draft.value.map(({ point, direction, diameter: d }) => ({ point, direction, diameter: d })),
    })
}
/** A plug is the body that the drill took out, a little smaller, as a part of its own. */
async function plugs(): Promise<void> {
  const part = store.part,
    holes = drilled.value?.holes
  if (!part || !holes) return
  const before = store.operations().filter((o) => rankOf(o.kind) < rankOf('plug'))
  await store.arrange({
    create: holes.map((h, i) => ({
      name: text('hollow.holesPanel.plugOf', { i: i + 1, name: part.name }),
      from: part.id,
      operations: [
        ...before,
        {
          kind: 'plug' as const,
          point: [...h.point] as Triple,
          direction: [...h.direction] as Triple,
          diameter: h.diameter,
          depth: h.depth,
          clearance: clearance.value,
        },
      ],
    })),
  })
}
defineExpose({ propose, holeAt })
</script>

<template>
  <section>
    <h2 class="mb-2">{{ $t('hollow.holesPanel.drainHoles') }}</h2>
    <NumberField
      v-model="diameter"
      :label="$t('hollow.holesPanel.diameter')"
      unit="mm"
      :step="0.5"
      :min="2"
      :max="20"
      :source="$t('hollow.holesPanel.default3To5')"
    />
    <ul class="list-unstyled my-2">
      <li v-for="(h, i) in draft" :key="i" class="hole">
        <span
          ><b>{{ i + 1 }}</b> {{ $t('hollow.holesPanel.mm', { diameter: h.diameter })
          }}<span v-if="h.wrong" class="wrong d-block">{{ h.wrong }}</span
          ><span v-else-if="h.note" class="soft d-block">{{ h.note }}</span>
          <span v-if="h.score" class="scores" :title="$t('hollow.holesPanel.hiddenUsefulForDraining')">
            <span v-for="(v, k) in h.score" :key="k" class="score" :aria-label="`${k} ${Math.round(100 * v)} %`"
              ><span :style="{ width: `${Math.round(100 * v)}%` }"
            /></span> </span
        ></span>
        <span class="d-flex gap-1 align-items-start"
          ><BButton v-if="h.instead" variant="primary" size="sm" @click="takeInstead(i)">
            {{ $t('hollow.holesPanel.mmAway', { h: apart(h, h.instead) }) }}</BButton
          ><BButton variant="quiet" size="sm" @click="viewport.show(h.point)">{{
            $t('hollow.holesPanel.show')
          }}</BButton
          ><BButton
            variant="quiet"
            size="sm"
            :aria-label="$t('hollow.holesPanel.removeHole', { i: i + 1 })"
            @click="draft.splice(i, 1)"
          >
            {{ $t('hollow.holesPanel.remove') }}
          </BButton></span
        >
      </li>
    </ul>
    <FaultNote :text="fault" />
    <div class="d-flex gap-2 flex-wrap">
      <BButton variant="primary" :disabled="unchanged || draft.some((h) => h.wrong)" @click="drill">
        {{
          draft.length === 0 && set.length > 0
            ? $t('hollow.holesPanel.closeAllHoles')
            : $t('hollow.holesPanel.drill', { draft: draft.length })
        }}
      </BButton>
      <BButton variant="quiet" :disabled="searching" @click="propose">
        {{ searching ? $t('hollow.holesPanel.looking') : $t('hollow.holesPanel.proposePlaces') }}
      </BButton>
      <BButton variant="quiet" :aria-pressed="placing" @click="placing = !placing">
        {{ placing ? $t('hollow.holesPanel.donePlacing') : $t('hollow.holesPanel.placeDrainHole') }}
      </BButton>
    </div>
    <FoldPanel v-if="drilled" class="mt-2">
      <template #title>{{ $t('hollow.holesPanel.plugsForTheHoles') }}</template>
      <NumberField
        v-model="clearance"
        :label="$t('hollow.holesPanel.clearance')"
        unit="mm"
        :step="0.05"
        :min="0"
        :max="2"
        :source="$t('hollow.holesPanel.perSide')"
      />
      <BButton variant="quiet" size="sm" @click="plugs">
        {{ $t('hollow.holesPanel.makeHolesPlugsAs', { holes: drilled.holes.length }) }}
      </BButton>
      <p class="soft small mb-0 mt-1">{{ $t('hollow.holesPanel.eachPlugIsThe') }}</p>
    </FoldPanel>
  </section>
</template>

<style scoped>
.wrong {
  color: var(--problem);
}
.hole {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  font-size: 0.9rem;
}
.scores {
  display: flex;
  gap: 3px;
  margin-top: 2px;
}
.score {
  width: 34px;
  height: 4px;
  background: var(--paper-sunk);
  border-radius: 2px;
  overflow: hidden;
}
.score > span {
  display: block;
  height: 100%;
  background: var(--action);
}
</style>
