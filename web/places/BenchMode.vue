<script setup lang="ts">
import { BLink } from 'bootstrap-vue-next/components/BLink'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { useEventListener, useWakeLock } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { storeToRefs } from 'pinia'
import { text as message } from '../i18n'
import { clock, duration } from '../shell/duration'
import { usePiece } from '../stores/piece'
import { usePlan } from '../stores/plan'
import { useOutbox } from '../stores/outbox'
import { useTimers } from '../stores/timers'
import CoatPair from './bench/CoatPair.vue'
import { useBigButton } from './bench/useBigButton'
import WritePanel from './bench/WritePanel.vue'
import TimerTray from '../shell/TimerTray.vue'
import type { TimerRecord } from '../../contract/bench'
import type { PlanStepRecord } from '../../contract/plan'
import { messageOf } from '../messageOf'
import FileButton from '../shell/FileButton.vue'

const route = useRoute(),
  router = useRouter()
const id = computed(() => String(route.params.id))
const store = usePlan()
const { plan, fault, next } = storeToRefs(store)
const { tick, startTimer, write } = store
store.lookedAt()
watch(
  id,
  (v) => {
    usePiece()
      .open(v)
      .catch((e: unknown) => {
        fault.value = messageOf(e)
      })
  },
  { immediate: true },
)
const timers = useTimers(),
  outbox = useOutbox()
async function stopClock(t: TimerRecord): Promise<void> {
  fault.value = ''
  await timers.stop(t).catch((e: unknown) => {
    fault.value = messageOf(e)
  })
}
// Kept awake while the page is in front; the words on the screen say where the device does not allow it.
const { isActive: awake, request } = useWakeLock()
onMounted(() => void request('screen').catch(() => undefined))
const at = ref<string | null>(typeof route.query.step === 'string' ? route.query.step : null)
const steps = computed(() => plan.value?.steps ?? [])
const step = computed(() => steps.value.find((s) => s.key === at.value) ?? next.value)
const index = computed(() => (step.value ? steps.value.indexOf(step.value) : -1))
const go = (by: number): void => {
  const s = steps.value[index.value + by]
  if (s) at.value = s.key
}

const last = ref<PlanStepRecord | null>(null)
const { word, act } = useBigButton(step, (s) => {
  last.value = s
  at.value = null
})
async function takeBack(): Promise<void> {
  const s = last.value
  last.value = null
  if (s && (await tick(s, false))) at.value = s.key
}
const own = computed(() => (step.value ? timers.of(id.value, step.value.key) : []))
const others = computed(() => timers.running.filter((t) => !own.value.includes(t)))
const coat = computed(() => own.value.find((t) => t.kind === 'recoat'))

const panel = ref<'problem' | 'note' | null>(null),
  said = ref('')
const open = (which: 'problem' | 'note'): void => {
  panel.value = panel.value === which ? null : which
}
function written(sentence: string): void {
  said.value = sentence
  panel.value = null
}
const RUNNING: Record<TimerRecord['kind'], string> = {
  pot: message('places.benchMode.untilTheMixSets'),
  recoat: message('places.benchMode.untilTheNextCoat'),
  wait: message('places.benchMode.ofWaitingAreLeft'),
}
const camera = ref<InstanceType<typeof FileButton> | null>(null)
async function photo(file: File): Promise<void> {
  if (await write(step.value?.key ?? null, message('places.benchMode.photoFromTheBench'), file))
    said.value = message('places.benchMode.thePhotoIsSaved')
}
watch(said, () => setTimeout(() => (said.value = ''), 9000))

const KEYS: Readonly<Record<string, () => void>> = {
  ArrowRight: () => go(1),
  ArrowLeft: () => go(-1),
  Enter: () => void act(),
  ' ': () => void act(),
  p: () => open('problem'),
  n: () => open('note'),
  f: () => camera.value?.open(),
  Escape: () => (panel.value ? (panel.value = null) : void router.push(`/pieces/${id.value}/plan`)),
}
function keys(e: KeyboardEvent): void {
  const typing = e.target instanceof HTMLElement && e.target.closest('textarea')
  const onButton = e.target instanceof HTMLElement && e.target.closest('button, a, input')
  if (typing && e.key !== 'Escape') return
  // A button that has the focus is pressed by itself.
  if (onButton && (e.key === 'Enter' || e.key === ' ')) return
  const does = KEYS[e.key]
  if (!does) return
  e.preventDefault()
  does()
}
useEventListener('keydown', keys)
</script>

<template>
  <div class="bench">
    <header class="d-flex justify-content-between align-items-center fs-5 gap-4">
      <span class="text-nowrap">{{ $t('places.benchMode.of', { index: index + 1, steps: steps.length }) }}</span>
      <span class="now">
        <span v-if="outbox.waiting.length > 0" role="status">{{
          $t('places.benchMode.keptOnThisDevice', { waiting: outbox.waiting.length })
        }}</span>
        <span v-for="t in others.slice(0, 2)" :key="t.id" class="timer"
          >{{ t.title }} <b>{{ clock(timers.left(t)) }}</b></span
        >
        <span v-if="!awake" class="soft-dark">{{ $t('places.benchMode.thisScreenMayTurn') }}</span>
      </span>
      <BLink class="btn btn-lg btn-outline-light" :to="`/pieces/${id}/plan`">{{
        $t('places.benchMode.leaveBenchMode')
      }}</BLink>
    </header>
    <TimerTray dark />
    <p v-if="fault" role="alert" class="fault">{{ fault }}</p>
    <p v-if="last" class="said">
      {{ $t('places.benchMode.done', { title: last.title }) }}
      <BButton variant="outline-light" size="lg" @click="takeBack">{{ $t('places.benchMode.markAsNotDone') }}</BButton>
    </p>
    <p v-if="said" class="said" role="status">{{ said }}</p>
    <WritePanel v-if="panel && step" :key="panel" :kind="panel" :step="step" @said="written" />
    <main v-else-if="step">
      <p class="phase">
        {{
          $t('places.benchMode.ofWorkWaitingThen', {
            phase: step.phase,
            handsOn: duration(step.handsOn),
            waiting: Boolean(step.waiting),
            waiting2: duration(step.waiting),
          })
        }}
      </p>
      <h1>{{ step.title }}</h1>
      <p class="why">{{ step.why }}</p>
      <ul v-if="step.lines.length" class="lines">
        <li v-for="l in step.lines" :key="l">{{ l }}</li>
      </ul>
      <p v-if="step.materials.length + step.tools.length" class="mats">
        {{ [...step.materials, ...step.tools].join(' · ') }}
      </p>
      <CoatPair :step="step" :steps="steps" />
      <p v-for="c in step.cautions" :key="c" class="caution">{{ c }}</p>
      <p v-for="t in own" :key="t.id" class="running" role="timer">
        <b>{{ clock(timers.left(t)) }}</b>
        {{ RUNNING[t.kind] }}
        <BButton variant="outline-light" size="lg" @click="stopClock(t)">{{
          $t('places.benchMode.stopTimer')
        }}</BButton>
      </p>
    </main>
    <main v-else-if="plan">
      <h1>{{ steps.length ? $t('places.benchMode.allDone') : $t('places.benchMode.nothingToDoYet') }}</h1>
    </main>
    <footer v-if="step">
      <BButton variant="card" class="big" :disabled="index <= 0" @click="go(-1)">{{
        $t('places.benchMode.before')
      }}</BButton>
      <BButton variant="card" class="big" :aria-expanded="panel === 'problem'" @click="open('problem')">
        {{ $t('places.benchMode.problem') }}
      </BButton>
      <BButton variant="card" class="big" :aria-expanded="panel === 'note'" @click="open('note')">
        {{ $t('places.benchMode.note') }}
      </BButton>
      <FileButton
        ref="camera"
        variant="bare"
        class="big"
        accept="image/*"
        capture="environment"
        :label="$t('places.benchMode.photo')"
        @files="photo($event[0]!)"
        >{{ $t('places.benchMode.photo') }}</FileButton
      >
      <BButton
        variant="card"
        v-if="step.recoat && !coat && step.begunAt"
        class="big"
        @click="startTimer(step, step.recoat, 'recoat')"
      >
        {{ $t('places.benchMode.coatIsOn') }}
      </BButton>
      <BButton variant="card" class="big main" @click="act">{{ word }}</BButton>
      <BButton variant="card" class="big" :disabled="index >= steps.length - 1" @click="go(1)">
        {{ $t('places.benchMode.next') }}
      </BButton>
    </footer>
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  background: var(--night);
  color: var(--night-ink);
  padding: 22px 34px;
  display: flex;
  flex-direction: column;
  gap: 14px;
}
main {
  flex: 1;
  min-height: 0;
  overflow: auto;
  display: flex;
  flex-direction: column;
  justify-content: center;
  max-width: 1060px;
}
main > * {
  flex: none;
}
main:has(.pictures) {
  padding-right: 480px;
  max-width: none;
  position: relative;
}
@media (max-width: 1100px) {
  main:has(.pictures) {
    padding-right: 0;
  }
}
h1 {
  font-size: 3.1rem;
  line-height: 1.12;
  margin: 8px 0 18px;
}
.phase {
  color: var(--night-title);
  font-size: 1.3rem;
  margin: 0;
}
.why {
  font-size: 1.55rem;
  max-width: 46ch;
}
.lines {
  font-size: 1.3rem;
  max-width: 60ch;
  margin: 0 0 12px;
}
.mats {
  font-size: 1.3rem;
  color: var(--night-soft);
}
.caution {
  border-left: 6px solid var(--night-warning);
  background: var(--night-caution);
  padding: 10px 16px;
  font-size: 1.2rem;
  border-radius: 5px;
}
.timer {
  color: var(--night-link);
  font-size: 1.2rem;
}
.timer b {
  font-variant-numeric: tabular-nums;
}
.now {
  display: flex;
  gap: 26px;
  flex: 1;
  min-width: 0;
  font-size: 1.1rem;
  white-space: nowrap;
  overflow: hidden;
}
.soft-dark {
  color: var(--night-faint);
}
.said,
.fault {
  display: flex;
  gap: 18px;
  align-items: center;
  margin: 0;
  font-size: 1.25rem;
}
.fault {
  background: var(--night-problem);
  padding: 10px 16px;
  border-radius: 6px;
}
.running b {
  font-size: 2.6rem;
  font-variant-numeric: tabular-nums;
  color: var(--night-link);
}
.running {
  font-size: 1.3rem;
  margin: 10px 0 0;
}
footer {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 12px;
}
</style>
