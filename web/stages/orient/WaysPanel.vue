<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { text } from '../../i18n'
import type { OrientationScore } from '../../../core/print/orient/orientation'
import { whyThisWay } from '../../../core/print/orient/orientationWords'
import { plateSize, printSeconds } from '../../../core/print/slice/printer'
import { apply3, fromQuaternion, multiplyQuaternions } from '../../../core/math/vectors'
import { usePrinterAndResin } from '../../composables/usePrinterAndResin'
import { useSurfaceMap } from '../../composables/useSurfaceMap'
import NumberField from '../../shell/NumberField.vue'
import { useAssembly } from '../../stores/assembly'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import MapLegend from '../../viewport/MapLegend.vue'
import FocalPanel from './FocalPanel.vue'
import FrontChart from './FrontChart.vue'
import { useStand } from './orientStage'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'
import { messageOf } from '../../messageOf'
const whyWords = (a: OrientationScore, b: OrientationScore, name: string): string => say(whyThisWay(a, b, name), manner)

/** Which way up: the choices that none beats, why one of them is proposed, and what must look up or stand alike. */
const props = defineProps<{ limit: number; lift: number }>()
const store = usePiece(),
  assembly = useAssembly(),
  derivations = useDerivations(),
  stand = useStand()
const { printer, resin } = usePrinterAndResin()
const ways = ref<OrientationScore[]>([]),
  upright = ref<OrientationScore | null>(null)
const searching = ref(false),
  fault = ref('')
const within = ref(60)
const MAX_SHOWN = 40,
  APART = Math.cos((9 * Math.PI) / 180)
const orientOp = computed(() => {
  const o = store.step('orient')?.op
  return o?.kind === 'orient' ? o : null
})
const posing = computed(() => stand.draft !== null || stand.tool === 'tilt' || stand.tool === 'face')
/** Those of the front that are worth telling apart: each stands at least 9° from the better ones, and upright. */
const front = computed(() =>
  ways.value.reduce<OrientationScore[]>(
    (list, w) =>
      w === upright.value || (w.front && list.length < MAX_SHOWN && list.every((o) => dot(w, o) < APART))
        ? [...list, w]
        : list,
    [],
  ),
)
const on = computed(() => stand.draft?.join() ?? '')
const current = computed(() => ways.value.find((w) => w.quaternion.join() === on.value) ?? null)
const hours = (height: number): number =>
  printer.value && resin.value
    ? printSeconds(printer.value, resin.value, Math.ceil((height + props.lift) / printer.value.layerHeight)) / 3600
    : 0
async function search(): Promise<void> {
  const mesh = store.meshBefore('orient')
  if (!mesh || !printer.value) return
  searching.value = true
  fault.value = ''
  const focal = store.step('focal')?.op
  try {
    const r = await derivations.reported(mesh, {
      kind: 'orientations',
      limit: props.limit,
      volume: [...plateSize(printer.value), printer.value.height - props.lift - 1],
      focal: focal?.kind === 'focal' ? focal.dabs.map((x) => ({ ...x })) : [],
      others: assembly.placed.flatMap((p) => (p.part.id !== store.part?.id && p.mesh ? [p.mesh] : [])),
      keep: stand.keep ? { direction: stand.keep, within: within.value } : null,
    })
    ways.value = r.scores
    // As one of the list, so that it is known again.
    upright.value = r.scores.find((w) => w.quaternion.join() === r.upright?.quaternion.join()) ?? null
    if (ways.value[0]) stand.draft = [...ways.value[0].quaternion]
  } catch (e) {
    fault.value = messageOf(e)
  } finally {
    searching.value = false
  }
}
const reason = computed(() => {
  const c = current.value
  if (!c) return ''
  const best = ways.value[0]!
  if (c === best) {
    const next = front.value.find((w) => w !== c && w !== upright.value && dot(w, c) < 0.906)
    return [
      upright.value && upright.value !== c ? whyWords(c, upright.value, text('orient.waysPanel.standingUpright')) : '',
      next ? whyWords(c, next, text('orient.waysPanel.theNextBest')) : '',
    ]
      .filter(Boolean)
      .join(' ')
  }
  return whyWords(c, best, text('orient.waysPanel.theProposedOrientation'))
})
const dot = (a: OrientationScore, b: OrientationScore): number =>
  a.up[0] * b.up[0] + a.up[1] * b.up[1] + a.up[2] * b.up[2]

/** Others that stand as this one does: pairs that shall look alike when they are painted. */
const alike = ref<string[]>([])
const others = computed(() => (store.piece?.partList ?? []).filter((p) => p.id !== store.part?.id))
async function setDown(): Promise<void> {
  const q = stand.draft,
    part = store.part
  if (!q || !part) return
  const op = { kind: 'orient' as const, quaternion: q }
  const with_ = others.value.filter((p) => alike.value.includes(p.id))
  if (with_.length === 0) await store.apply(op)
  else
    await store.arrange({
      lists: [part, ...with_].map((p) => ({ id: p.id, operations: store.withOperation(p, op) })),
    })
  stand.draft = null
  stand.tool = 'none'
}
function putBack(): void {
  stand.draft = null
  stand.tool = 'none'
}
function spin(axis: [number, number, number], degrees: number): void {
  const a = (degrees * Math.PI) / 360,
    s = Math.sin(a)
  stand.draft = multiplyQuaternions(
    [axis[0] * s, axis[1] * s, axis[2] * s, Math.cos(a)],
    stand.draft ?? orientOp.value?.quaternion ?? [0, 0, 0, 1],
  )
}
const tilt = computed(() => {
  const q = stand.draft ?? orientOp.value?.quaternion
  return q ? Math.round((Math.acos(Math.max(-1, Math.min(1, 1 - 2 * (q[0] ** 2 + q[1] ** 2)))) * 180) / Math.PI) : 0
})

/** Steps of the layers on the skin, for the way up that is tried or set. */
const steps = ref(false)
const up = computed<[number, number, number]>(() => {
  const q = stand.draft ?? (posing.value ? orientOp.value?.quaternion : null)
  if (!q) return [0, 0, 1]
  return apply3(fromQuaternion([-q[0], -q[1], -q[2], q[3]]), [0, 0, 1]).map((v) => Number(v.toFixed(6))) as never
})
const { scale, problem } = useSurfaceMap(() =>
  steps.value && printer.value
    ? {
        check: { kind: 'stepsMap', up: up.value, layerHeight: printer.value.layerHeight },
        scale: () => ({ kind: 'amount', from: 0, to: printer.value!.layerHeight, shownBy: 1000 }),
      }
    : null,
)
function toggle(tool: 'face' | 'tilt' | 'keepUp'): void {
  stand.tool = stand.tool === tool ? 'none' : tool
}
defineExpose({ search, spin, setDown })
</script>

<template>
  <section class="mb-3">
    <h2 class="mb-2">{{ $t('orient.waysPanel.orientation') }}</h2>
    <FocalPanel />
    <div class="d-flex gap-1 flex-wrap mb-2">
      <BButton variant="primary" size="sm" :disabled="searching || !printer" @click="search">
        {{ searching ? $t('orient.waysPanel.trying700Orientations') : $t('orient.waysPanel.findTheBest') }}
      </BButton>
      <BButton variant="quiet" size="sm" :aria-pressed="stand.tool === 'face'" @click="toggle('face')">
        {{ $t('orient.waysPanel.putAFaceDown') }}
      </BButton>
      <BButton variant="quiet" size="sm" :aria-pressed="stand.tool === 'tilt'" @click="toggle('tilt')">
        {{ $t('orient.waysPanel.tiltByHand') }}
      </BButton>
      <BButton variant="quiet" size="sm" :aria-pressed="steps" :disabled="!printer" @click="steps = !steps">
        {{ steps ? $t('orient.waysPanel.hideLayerSteps') : $t('orient.waysPanel.showLayerSteps') }}
      </BButton>
    </div>
    <p v-if="!printer" class="soft small">
      {{ $t('orient.waysPanel.theSearchAndThe') }}
      <RouterLink to="/stock">{{ $t('orient.waysPanel.setUpInStock') }}</RouterLink>
    </p>
    <FaultNote :text="fault || problem" />
    <template v-if="front.length > 0">
      <FrontChart :ways="front" :hours="hours" :on="on" @pick="stand.draft = [...$event.quaternion]" />
      <p class="soft small mb-1">
        {{ $t('orient.waysPanel.orientationsNoneOfThem', { front: front.length }) }}
      </p>
      <p v-if="reason" class="mb-2">{{ reason }}</p>
    </template>
    <div v-if="posing" class="sheet p-2 mb-2">
      <div class="d-flex align-items-center gap-2 flex-wrap">
        <span class="figure-sm">{{ tilt }}°</span><span class="soft">{{ $t('orient.waysPanel.fromUpright') }}</span>
        <BButton variant="quiet" size="sm" @click="spin([1, 0, 0], -5)">{{
          $t('orient.waysPanel.back5')
        }}</BButton><BButton variant="quiet" size="sm" @click="spin([1, 0, 0], 5)">{{
          $t('orient.waysPanel.forward5')
        }}</BButton>
        <BButton variant="quiet" size="sm" @click="spin([0, 1, 0], -5)">{{
          $t('orient.waysPanel.left5')
        }}</BButton><BButton variant="quiet" size="sm" @click="spin([0, 1, 0], 5)">{{
          $t('orient.waysPanel.right5')
        }}</BButton>
      </div>
      <div class="d-flex gap-2 mt-2">
        <BButton variant="primary" size="sm" :disabled="!stand.draft" @click="setDown">{{
          $t('orient.waysPanel.applyOrientation')
        }}</BButton><BButton variant="quiet" size="sm" @click="putBack">{{ $t('orient.waysPanel.cancel') }}</BButton>
      </div>
    </div>
    <FoldPanel class="mb-1">
      <template #title
        >{{ $t('orient.waysPanel.conditionsMustPointUp')
        }}<span v-if="stand.keep" class="soft">{{ $t('orient.waysPanel.sideMustPointUp') }}</span>
      </template>
      <div class="d-flex gap-1 flex-wrap my-1">
        <BButton variant="quiet" size="sm" :aria-pressed="stand.tool === 'keepUp'" @click="toggle('keepUp')">
          {{ stand.tool === 'keepUp' ? $t('orient.waysPanel.cancel') : $t('orient.waysPanel.aSideMustPoint') }}
        </BButton>
        <BButton v-if="stand.keep" variant="quiet" size="sm" @click="stand.keep = null">{{
          $t('orient.waysPanel.removeCondition')
        }}</BButton>
      </div>
      <NumberField
        v-model="within"
        :label="$t('orient.waysPanel.within')"
        unit="°"
        :step="5"
        :min="5"
        :max="120"
        :source="$t('orient.waysPanel.ofVertical')"
      />
      <BFormCheckbox v-for="p in others" :key="p.id" v-model="alike" :value="p.id">{{
        $t('orient.waysPanel.isOrientedAlike', { name: p.name })
      }}</BFormCheckbox>
    </FoldPanel>
    <Teleport v-if="scale" to="#middle">
      <MapLegend :title="$t('orient.waysPanel.stepsOfTheLayers')" :scale="scale" unit="µm" />
    </Teleport>
  </section>
</template>
