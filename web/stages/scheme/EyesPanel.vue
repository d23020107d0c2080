<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BFormInput } from 'bootstrap-vue-next/components/BFormInput'
import { BTableSimple, BTbody, BTd, BTh, BThead, BTr } from 'bootstrap-vue-next/components/BTable'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, watch } from 'vue'
import { text, term, fixed } from '../../i18n'
import { figure, unitName } from '../../manner'
import type { Scheme } from '../../../contract/scheme'
import { bounds } from '../../../core/mesh/mesh'
import { vertexNormals } from '../../../core/mesh/measure'
import { eyeSheet } from '../../../core/paint/eyes/eyeSheet'
import {
  eyeballAt,
  gazeAt,
  gazeTarget,
  lidOpening,
  placesAbout,
  planEyes,
  type EyePlan,
} from '../../../core/paint/eyes/eyes'
import { GROWN, LID_NAMES } from '../../../core/defaults/paint'
import { saveFile } from '../../shell/downloadFile'
import NumberField from '../../shell/NumberField.vue'
import { usePiece } from '../../stores/piece'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'

/** Both eyes planned together: the balls are pressed on the sculpt, the gaze is turned, the sheet is printed. */
type Eyes = NonNullable<Scheme['eyes']>
const eyes = defineModel<Eyes | null>({ required: true })
const emit = defineEmits<{ ask: [asked: { hint: string; taken: (p: Picked) => void } | null] }>()
const viewport = useViewport(),
  store = usePiece()
const open = ref(false),
  fault = ref(''),
  /** mm; at first what an eyeball is of a sculpt this tall */
  reach = ref(1.5),
  times = ref(8)
/** Light from the upper left of who looks at the piece from the front. */
const LIGHT: [number, number, number] = [-0.45, -0.63, 0.63],
  VIEWER: [number, number, number] = [0, -1, 0]
const mine = computed(() => (eyes.value && eyes.value.partId === store.part?.id ? eyes.value : null))
const target = computed(() =>
  mine.value ? gazeTarget(mine.value.balls, mine.value.turn, mine.value.lift, mine.value.distance) : null,
)
/** What the sculpt itself leaves open between the lids, by eye. */
const openings = computed(() => {
  const shown = viewport.shown
  return mine.value && shown ? mine.value.balls.map((b) => lidOpening(shown.mesh.positions, b)) : []
})
const planned = computed(() =>
  mine.value
    ? planEyes(mine.value.balls, target.value!, mine.value.lid, LIGHT, VIEWER, openings.value, mine.value)
    : null,
)
const plans = computed<EyePlan[]>(() => (planned.value?.ok ? planned.value.value : []))
const set = (more: Partial<Eyes>): void => {
  if (mine.value) eyes.value = { ...mine.value, ...more }
}
watch(
  () => viewport.shown,
  (shown) => {
    if (!shown) return
    const { min, max } = bounds(shown.mesh)
    reach.value = Math.max(0.3, Number(((max[2] - min[2]) / 70).toFixed(1)))
  },
  { immediate: true },
)
/** @param other the first eye is placed; `mine` shows it only after the next render */
function press(other: boolean): void {
  emit('ask', {
    hint: other ? text('scheme.eyesPanel.clickTheMiddleOf') : text('scheme.eyesPanel.clickTheMiddleOf2'),
    taken: (p) => {
      const shown = viewport.shown,
        part = store.part
      emit('ask', null)
      if (!shown || !part || p.companion !== null) return
      const { mesh } = shown
      const about = placesAbout(mesh.positions, vertexNormals(mesh), p.point, p.normal, reach.value)
      const ball = eyeballAt(about.places, p.point, about.normal, reach.value)
      fault.value = ball.ok ? '' : say(ball.problem.message, manner)
      if (!ball.ok) return
      const made = { ...ball.value, centre: [...ball.value.centre] as [number, number, number] }
      const first = mine.value?.balls.length === 1 ? mine.value.balls : []
      eyes.value = {
        turn: 0,
        lift: 0,
        distance: 300,
        lid: 'calm',
        ...GROWN,
        ...mine.value,
        partId: part.id,
        balls: [...first, made].sort((a, b) => a.centre[0] - b.centre[0]),
      }
      if (first.length === 0) press(true)
    },
  })
}
/** mm from the eyes at which what they look at is drawn when it is farther */
const DRAWN = 60
const within = (degrees: number): number => Math.max(-80, Math.min(80, degrees))
function aimed(at: [number, number, number]): void {
  const m = mine.value
  if (!m) return
  const { turn, lift, distance } = gazeAt(m.balls, at)
  // What is farther than it is drawn stays as far: the hand turns the gaze.
  set({
    turn: within(turn),
    lift: within(lift),
    ...(m.distance <= DRAWN ? { distance: Math.max(1, Math.round(distance)) } : {}),
  })
}
/** They look at whoever looks at them now. */
function lookHere(): void {
  const view = viewport.camera()
  if (view)
    set({
      turn: within(view.from.turn),
      lift: within(view.from.lift),
      distance: Math.max(1, Math.round(view.distance)),
    })
}
viewport.describe(() => {
  if (!open.value || plans.value.length === 0) return null
  const [a, b] = plans.value
  // From eye to eye by way of what they look at, as far as it can be drawn; that end can be dragged.
  const far = gazeTarget(mine.value!.balls, mine.value!.turn, mine.value!.lift, Math.min(mine.value!.distance, DRAWN))
  const markers = [
    ...plans.value.map((e) => ({ point: [...e.iris] as [number, number, number], kind: 'hand' as const })),
    { point: [...far] as [number, number, number], kind: 'hand' as const, radius: reach.value * 0.5, over: true },
  ]
  const points = [a!.iris, far, ...(b ? [b.iris] : [])].map((p) => [...p] as [number, number, number])
  return { target: [...far], onTarget: aimed, markers, line: { points, closed: false, sharp: true } }
})
function toggled(shown: boolean): void {
  open.value = shown
}
const name = (i: number): string =>
  plans.value.length === 1
    ? text('scheme.eyesPanel.eye2')
    : i === 0
      ? text('scheme.eyesPanel.eyeOnTheLeft')
      : text('scheme.eyesPanel.eyeOnTheRight')
function giveSheet(): void {
  const list = plans.value.map((plan, i) => ({ name: name(i), ball: mine.value!.balls[i]!, plan }))
  saveFile('eyes.svg', eyeSheet(list, times.value, manner).svg, 'image/svg+xml')
}
const mm = (v: number): string => figure(v, 1, 'mm')
</script>

<template>
  <FoldPanel class="mt-3" @toggle="toggled">
    <template #title
      ><h2 class="d-inline">{{ $t('scheme.eyesPanel.eyes') }}</h2>
    </template>
    <FaultNote :text="fault" class="mt-2 mb-1" />
    <p v-if="!mine" class="soft small mt-1 mb-1">
      {{ $t('scheme.eyesPanel.clickBothEyeballsA') }}
    </p>
    <NumberField
      v-model="reach"
      class="mt-2"
      :label="$t('scheme.eyesPanel.surfaceAroundThePlace')"
      unit="mm"
      :min="0.2"
      :max="30"
      :step="0.1"
      :digits="1"
    />
    <BButton variant="quiet" size="sm" @click="press(mine?.balls.length === 1)">
      {{
        !mine
          ? $t('scheme.eyesPanel.chooseTheEyes')
          : mine.balls.length === 1
            ? $t('scheme.eyesPanel.chooseTheEye')
            : $t('scheme.eyesPanel.chooseBothAgain')
      }}
    </BButton>
    <template v-if="mine">
      <div class="mt-2">
        <NumberField
          :label="$t('scheme.eyesPanel.looksToItsOwn')"
          :model-value="mine.turn"
          unit="°"
          :min="-80"
          :max="80"
          :digits="0"
          @update:model-value="set({ turn: $event })"
        />
        <BFormInput
          type="range"
          min="-80"
          max="80"
          :model-value="mine.turn"
          :aria-label="$t('scheme.eyesPanel.gazeToItsOwn')"
          @input="set({ turn: Number(($event.target as HTMLInputElement).value) })"
        />
        <NumberField
          :label="$t('scheme.eyesPanel.looksUp')"
          :model-value="mine.lift"
          unit="°"
          :min="-80"
          :max="80"
          :digits="0"
          @update:model-value="set({ lift: $event })"
        />
        <NumberField
          :label="$t('scheme.eyesPanel.atSomethingThisFar')"
          :model-value="mine.distance"
          unit="mm"
          :min="1"
          :max="100000"
          :step="10"
          :digits="0"
          @update:model-value="set({ distance: $event })"
        />
        <div class="d-flex gap-2 align-items-center my-1">
          <BButton variant="quiet" size="sm" @click="lookHere">{{ $t('scheme.eyesPanel.lookAtMe') }}</BButton>
          <span class="soft small">{{ $t('scheme.eyesPanel.orDragThePoint') }}</span>
        </div>
        <label class="d-flex justify-content-between align-items-center"
          >{{ $t('scheme.eyesPanel.lids')
          }}<ChoiceSelect
            size="sm"
            class="w-auto"
            :model-value="mine.lid"
            :aria-label="$t('scheme.eyesPanel.lids')"
            @update:model-value="set({ lid: $event as Eyes['lid'] })"
          >
            <option v-for="l in LID_NAMES" :key="l" :value="l">{{ term('lids', l) }}</option>
          </ChoiceSelect></label
        >
        <NumberField
          :model-value="100 * mine.iris"
          :label="$t('scheme.eyesPanel.irisShareOfThe')"
          unit="%"
          :min="30"
          :max="75"
          :digits="0"
          :source="mine.iris === GROWN.iris ? $t('scheme.eyesPanel.anAdults') : $t('scheme.eyesPanel.yours')"
          @update:model-value="set({ iris: $event / 100 })"
        />
        <NumberField
          :model-value="100 * mine.pupil"
          :label="$t('scheme.eyesPanel.pupilShareOfThe')"
          unit="%"
          :min="5"
          :max="30"
          :digits="0"
          :source="mine.pupil === GROWN.pupil ? $t('scheme.eyesPanel.anAdultsInMedium') : $t('scheme.eyesPanel.yours')"
          @update:model-value="set({ pupil: $event / 100 })"
        />
      </div>
      <BAlert v-if="planned && !planned.ok" :model-value="true" variant="danger" class="mt-2">{{
        say(planned.problem.message, manner)
      }}</BAlert>
      <BTableSimple v-else class="plain small mt-2">
        <BThead>
          <BTr>
            <BTh>{{ unitName('mm') }}</BTh>
            <BTh class="num">{{ $t('scheme.eyesPanel.ball') }}</BTh>
            <BTh class="num">{{ $t('scheme.eyesPanel.iris') }}</BTh>
            <BTh class="num">{{ $t('scheme.eyesPanel.pupil') }}</BTh>
            <BTh class="num">{{ $t('scheme.eyesPanel.lidOver') }}</BTh>
            <BTh class="num">{{ $t('scheme.eyesPanel.tip') }}</BTh>
          </BTr>
        </BThead>
        <BTbody>
          <BTr v-for="(e, i) in plans" :key="i" data-eye>
            <BTd>
              {{
                plans.length === 1
                  ? $t('scheme.eyesPanel.eye')
                  : i === 0
                    ? $t('scheme.eyesPanel.onYourLeft')
                    : $t('scheme.eyesPanel.onYourRight')
              }}
            </BTd>
            <BTd class="num">{{ mm(2 * mine.balls[i]!.radius) }}</BTd>
            <BTd class="num">{{ mm(2 * e.irisRadius) }}</BTd>
            <BTd class="num">{{ mm(2 * e.pupilRadius) }}</BTd>
            <BTd class="num">{{ mm(e.upperCut) }}</BTd>
            <BTd class="num">{{ figure(e.tip, 2, 'mm') }}</BTd>
          </BTr>
        </BTbody>
      </BTableSimple>
      <p v-if="openings.some((o) => o)" class="small mt-1 mb-0">
        {{
          $t('scheme.eyesPanel.theSculptLeavesOpen', {
            openings: openings
              .map((o) =>
                o
                  ? $t('scheme.eyesPanel.mmAboveAndMm', { up: fixed(o.up, 1), down: fixed(o.down, 1) })
                  : $t('scheme.eyesPanel.noLids'),
              )
              .join('; '),
          })
        }}
      </p>
      <p v-if="plans.length > 0" class="soft small mt-1">
        {{
          $t('scheme.eyesPanel.bothLookWithinOf', {
            max: fixed(Math.max(...plans.map((e) => e.gazeOff)), 1),
            step: plans[0]!.step,
          })
        }}
      </p>
      <div v-if="plans.length > 0" class="d-flex gap-2 align-items-center">
        <BButton variant="quiet" size="sm" @click="giveSheet">{{ $t('scheme.eyesPanel.practiceSheet') }}</BButton>
        <label class="d-flex gap-2 align-items-center small"
          >{{ $t('scheme.eyesPanel.at')
          }}<BFormSelect
            v-model.number="times"
            size="sm"
            class="w-auto"
            :aria-label="$t('scheme.eyesPanel.enlargement')"
          >
            <option v-for="k in [1, 4, 8, 16]" :key="k" :value="k">{{ $t('scheme.eyesPanel.times', { k }) }}</option>
          </BFormSelect></label
        >
      </div>
    </template>
  </FoldPanel>
</template>
