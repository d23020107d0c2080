<script setup lang="ts">
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, watch } from 'vue'
import { text, term } from '../../i18n'
import { TIP_WISH } from '../../../core/defaults/fit'
import { baseSize } from '../../../core/fit/baseSize'
import type { OperationInput } from '../../../contract/operations'
import { useAttempt } from '../../composables/useAttempt'
import { pointerDrag } from '../../composables/pointerDrag'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { usePiece } from '../../stores/piece'
import { SOCLE } from './socle'
import FaultNote from '../../shell/FaultNote.vue'

/** A base under what stands there: its shape, its side, its top. */
const store = usePiece(),
  assembly = useAssembly()
type Base = Extract<OperationInput, { kind: 'base' }>
const SHAPES = {
  disc: { outline: 'round', side: 'plain' },
  slab: { outline: 'rounded', side: 'plain' },
  plinth: { outline: 'rounded', side: 'stepped' },
  socle: { outline: 'round', side: 'turned' },
} as const
const shape = ref<keyof typeof SHAPES>('disc')
const top = ref<'plain' | 'cobbles' | 'planks' | 'rock'>('plain')
/** mm */
const HEIGHTS = { disc: 8, slab: 12, plinth: 18, socle: 36 } as const
const height = ref<number>(HEIGHTS.disc),
  relief = ref(1.5),
  seed = ref(1),
  steps = ref(2)
const profile = ref<[number, number][]>(SOCLE.map((p) => [...p]))
const existing = computed(() => store.step('base')?.op)
const foot = computed(() => {
  const boxes = assembly.placed
    .filter((p) => p.part.id !== baseId.value)
    .flatMap((p) => (p.measures ? [p.measures.box] : []))
  if (boxes.length === 0) return { width: 60, depth: 60, x: 0, y: 0, z: 0 }
  // What touches the ground counts, not how far a coat or an arm reaches.
  const { support } = assembly.balance ?? {}
  if (support && !existing.value) {
    const xs = support.map((p) => p[0]),
      ys = support.map((p) => p[1])
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
    return {
      width: x1 - x0,
      depth: y1 - y0,
      x: (x0 + x1) / 2,
      y: (y0 + y1) / 2,
      z: Math.min(...boxes.map((b) => b.min[2])),
    }
  }
  const lo = [0, 1, 2].map((k) => Math.min(...boxes.map((b) => b.min[k]!))),
    hi = [0, 1, 2].map((k) => Math.max(...boxes.map((b) => b.max[k]!)))
  return {
    width: hi[0]! - lo[0]!,
    depth: hi[1]! - lo[1]!,
    x: (lo[0]! + hi[0]!) / 2,
    y: (lo[1]! + hi[1]!) / 2,
    z: lo[2]!,
  }
})
const baseId = computed(() => (existing.value ? store.part!.id : null))
const width = ref<number | null>(null),
  depth = ref<number | null>(null)
const wish = computed(() => store.piece?.tipWish ?? TIP_WISH)
const proposed = computed(() =>
  baseSize(foot.value, existing.value ? null : (assembly.balance?.centre ?? null), wish.value, height.value),
)
const across = computed(() => width.value ?? proposed.value.width)
const deep = computed(() => depth.value ?? proposed.value.depth)
/** what the proposed size is for */
const reason = computed(() =>
  proposed.value.forTipping
    ? text('combine.basePanel.soThatItStands', { wish: wish.value })
    : text('combine.basePanel.n15WiderThanWhat'),
)
const op = computed<Base>(() => ({
  kind: 'base',
  ...SHAPES[shape.value],
  width: across.value,
  depth: deep.value,
  height: height.value,
  steps: steps.value,
  profile: shape.value === 'socle' ? profile.value : [],
  top: top.value,
  relief: relief.value,
  seed: seed.value,
}))
watch(shape, (name) => {
  if (!existing.value) height.value = HEIGHTS[name]
})
// A base that is there shows what it is.
watch(
  existing,
  (o) => {
    if (o?.kind !== 'base') return
    shape.value =
      (Object.keys(SHAPES) as (keyof typeof SHAPES)[]).find(
        (k) => SHAPES[k].outline === o.outline && SHAPES[k].side === o.side,
      ) ?? 'disc'
    width.value = o.width
    depth.value = o.depth
    height.value = o.height
    steps.value = o.steps
    top.value = o.top
    relief.value = o.relief
    seed.value = o.seed
    if (o.profile.length > 0) profile.value = o.profile.map((p) => [...p])
  },
  { immediate: true },
)
const { fault, busy, attempt } = useAttempt()
async function add(): Promise<void> {
  const { x, y, z } = foot.value
  // It goes under what stands there, and all else stays where it is.
  const made = await store.arrange({
    create: [
      {
        name: term('baseShape', shape.value),
        from: null,
        operations: [
          op.value as never,
          { kind: 'place', quaternion: [0, 0, 0, 1], shift: [x, y, z - height.value], mirror: false },
        ],
      },
    ],
  })
  if (made)
    store.partIndex = Math.max(
      0,
      store.piece!.partList.findIndex((p) => p.id === made[0]),
    )
}
function drag(i: number, k: 0 | 1, v: number): void {
  profile.value = profile.value.map((p, j) => (j === i ? ((k === 0 ? [v, p[1]] : [p[0], v]) as [number, number]) : p))
}
/** The profile's outline in a picture 100 wide and 60 high. */
const drawn = computed(() =>
  profile.value.map(([r, z]) => `${(50 + r * 45).toFixed(1)},${(56 - z * 50).toFixed(1)}`).join(' '),
)
let grabbed = 0,
  before = profile.value
/** The point of the profile that is nearest to where it was pressed follows the pointer. */
function grab(e: PointerEvent): boolean {
  const at = within(e)
  before = profile.value
  grabbed = profile.value.reduce(
    (best, p, i) =>
      Math.hypot(p[0] - at[0], p[1] - at[1]) <
      Math.hypot(profile.value[best]![0] - at[0], profile.value[best]![1] - at[1])
        ? i
        : best,
    0,
  )
  return true
}
const socle = ref<SVGSVGElement | null>(null)
const turning = pointerDrag({
  start: grab,
  move: pull,
  end: () => undefined,
  cancel: () => {
    profile.value = before
  },
})
function pull(e: PointerEvent): void {
  const [r, z] = within(e)
  const below = profile.value[grabbed - 1]?.[1] ?? 0,
    above = profile.value[grabbed + 1]?.[1] ?? 1
  drag(grabbed, 0, Number(Math.min(1.2, Math.max(0.05, r)).toFixed(3)))
  if (grabbed > 0 && grabbed < profile.value.length - 1)
    drag(grabbed, 1, Number(Math.min(above, Math.max(below, z)).toFixed(3)))
}
function within(e: PointerEvent): [number, number] {
  const b = socle.value!.getBoundingClientRect()
  return [(((e.clientX - b.left) / b.width) * 100 - 50) / 45, (56 - ((e.clientY - b.top) / b.height) * 60) / 50]
}
</script>

<template>
  <FoldPanel class="mb-3" :open="!!existing">
    <template #title>{{ existing ? $t('combine.basePanel.thisBase') : $t('combine.basePanel.addABase') }}</template>
    <div class="d-flex flex-wrap gap-1 my-2">
      <BButton
        v-for="(_, name) in SHAPES"
        :key="name"
        :variant="shape === name ? 'primary' : 'quiet'"
        size="sm"
        @click="shape = name"
      >
        {{ term('baseShape', name) }}
      </BButton>
    </div>
    <NumberField
      :model-value="across"
      :label="$t('combine.basePanel.width')"
      unit="mm"
      :min="5"
      :max="1000"
      :digits="1"
      :source="width === null ? reason : ''"
      @update:model-value="width = $event"
    />
    <NumberField
      :model-value="deep"
      :label="$t('combine.basePanel.depth')"
      unit="mm"
      :min="5"
      :max="1000"
      :digits="1"
      @update:model-value="depth = $event"
    />
    <NumberField v-model="height" :label="$t('combine.basePanel.height')" unit="mm" :min="1" :max="500" :digits="1" />
    <NumberField
      v-if="shape === 'plinth'"
      v-model="steps"
      :label="$t('combine.basePanel.steps')"
      :min="1"
      :max="8"
      :digits="0"
    />
    <svg
      v-if="shape === 'socle'"
      ref="socle"
      viewBox="0 0 100 60"
      class="profile"
      role="img"
      :aria-label="$t('combine.basePanel.profileOfTheTurned')"
      v-on="turning"
    >
      <line x1="50" y1="2" x2="50" y2="58" class="axis" />
      <polyline :points="`50,56 ${drawn} 50,6`" class="turned" />
      <circle v-for="(p, i) in profile" :key="i" :cx="50 + p[0] * 45" :cy="56 - p[1] * 50" r="1.4" />
    </svg>
    <label class="soft small" for="base-top">{{ $t('combine.basePanel.top') }}</label>
    <BFormSelect id="base-top" v-model="top" size="sm" class="mb-1">
      <option value="plain">{{ term('baseTop', 'plain') }}</option>
      <option value="cobbles">{{ $t('combine.basePanel.cobbles') }}</option>
      <option value="planks">{{ $t('combine.basePanel.planks') }}</option>
      <option value="rock">{{ $t('combine.basePanel.rock') }}</option>
    </BFormSelect>
    <template v-if="top !== 'plain'">
      <NumberField
        v-model="relief"
        :label="$t('combine.basePanel.relief')"
        unit="mm"
        :step="0.25"
        :min="0.1"
        :max="30"
      />
      <NumberField v-model="seed" :label="$t('combine.basePanel.newVariation')" :min="0" :max="1000000" :digits="0" />
    </template>
    <BButton v-if="existing" variant="primary" size="sm" :disabled="busy" @click="attempt(() => store.tryOut(op))">
      {{ $t('combine.basePanel.changeThisBase') }}
    </BButton>
    <BButton v-else variant="primary" size="sm" :disabled="busy" @click="attempt(add)">
      {{ busy ? $t('combine.basePanel.addingTheBase') : $t('combine.basePanel.addBase') }}
    </BButton>
    <FaultNote :text="fault" />
  </FoldPanel>
</template>

<style scoped>
.profile {
  width: 100%;
  height: 150px;
  background: var(--paper-raised);
  border: 1px solid var(--line);
  border-radius: 4px;
  touch-action: none;
  cursor: grab;
  margin-bottom: 6px;
}
.axis {
  stroke: var(--line);
  stroke-dasharray: 2 2;
}
.turned {
  fill: var(--studio-low);
  stroke: var(--ink-soft);
  stroke-width: 0.6;
}
circle {
  fill: var(--action);
}
</style>
