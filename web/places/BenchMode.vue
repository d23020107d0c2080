<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { storeToRefs } from 'pinia'
import { clock, duration } from '../shell/duration'
import { usePiece } from '../stores/piece'
import { usePlan } from '../stores/plan'

const route = useRoute(),
  router = useRouter()
const id = computed(() => String(route.params.id))
const store = usePlan()
const { plan, fault, next } = storeToRefs(store)
const { tick, startTimer, write, left } = store
store.lookedAt()
watch(
  id,
  (v) => {
    usePiece()
      .open(v)
      .catch((e: unknown) => {
        fault.value = e instanceof Error ? e.message : String(e)
      })
  },
  { immediate: true },
)
const at = ref<string | null>(null)
const steps = computed(() => plan.value?.steps ?? [])
const step = computed(() => steps.value.find((s) => s.key === at.value) ?? next.value)
const index = computed(() => (step.value ? steps.value.indexOf(step.value) : -1))
const go = (by: number): void => {
  const s = steps.value[index.value + by]
  if (s) at.value = s.key
}
async function done(): Promise<void> {
  if (step.value && (await tick(step.value, true))) at.value = null
}
const running = computed(() => steps.value.filter((s) => (left(s) ?? 0) > 0))
// A timer that runs out says so once, also to a screen reader.
const rang = ref('')
const ringing = new Set<string>()
watch(
  () => steps.value.map((s) => [s.key, left(s)] as const),
  (list) => {
    for (const [key, l] of list) {
      if (l !== null && l > 0) ringing.add(key)
      if (l === 0 && ringing.delete(key)) {
        rang.value = `${steps.value.find((s) => s.key === key)?.title}: the wait is over.`
        chime()
      }
    }
  },
)
function chime(): void {
  try {
    const a = new AudioContext()
    for (const [i, f] of [523, 659, 784].entries()) {
      const o = a.createOscillator(),
        g = a.createGain()
      o.frequency.value = f
      g.gain.value = 0.12
      o.connect(g).connect(a.destination)
      o.start(a.currentTime + i * 0.25)
      o.stop(a.currentTime + i * 0.25 + 0.22)
    }
  } catch {
    /* no sound here; the words are on the screen */
  }
}
const picker = ref<HTMLInputElement | null>(null),
  said = ref('')
async function photo(e: Event): Promise<void> {
  const f = (e.target as HTMLInputElement).files?.[0]
  if (f && (await write(step.value?.key ?? null, 'Photo from the bench', f))) said.value = 'Photo is in the log.'
}
function keys(e: KeyboardEvent): void {
  if (e.key === 'ArrowRight') go(1)
  if (e.key === 'ArrowLeft') go(-1)
  if (e.key === 'Enter' && !(e.target instanceof HTMLButtonElement)) void done()
  if (e.key === 'Escape') void router.push(`/pieces/${id.value}/plan`)
}
onMounted(() => {
  window.addEventListener('keydown', keys)
  void navigator.wakeLock?.request('screen').catch(() => undefined)
})
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <div class="bench">
    <header class="d-flex justify-content-between align-items-center fs-5">
      <span>{{ index + 1 }} of {{ steps.length }}</span>
      <span v-for="s in running" :key="s.key" class="timer"
        >{{ s.title }} <b>{{ clock(left(s)!) }}</b></span
      >
      <RouterLink class="btn btn-lg btn-outline-light" :to="`/pieces/${id}/plan`">Leave bench mode</RouterLink>
    </header>
    <p v-if="rang" class="rang" role="alert">
      {{ rang }} <button class="btn btn-lg btn-light" @click="rang = ''">Heard</button>
    </p>
    <p v-if="fault" role="alert">{{ fault }}</p>
    <main v-if="step">
      <p class="phase">
        {{ step.phase }} · {{ duration(step.handsOn) }} of work{{
          step.waiting ? `, then ${duration(step.waiting)} of waiting` : ''
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
      <p v-for="c in step.cautions" :key="c" class="caution">{{ c }}</p>
    </main>
    <main v-else-if="plan">
      <h1>{{ steps.length ? 'All done.' : 'Nothing to do yet.' }}</h1>
    </main>
    <footer v-if="step">
      <button class="big" :disabled="index <= 0" @click="go(-1)">Before</button>
      <button v-if="step.waiting" class="big" @click="startTimer(step, left(step) ? 0 : step.waiting)">
        {{ left(step) ? 'Stop timer' : 'Timer' }}
      </button>
      <button class="big" @click="picker?.click()">Photo</button>
      <button class="big main" @click="done">{{ step.doneAt ? 'Done again' : 'Done' }}</button>
      <button class="big" :disabled="index >= steps.length - 1" @click="go(1)">Next</button>
    </footer>
    <p class="visually-hidden" role="status">{{ said }}</p>
    <input
      ref="picker"
      type="file"
      accept="image/*"
      capture="environment"
      class="visually-hidden"
      aria-label="Photo"
      @change="photo"
    />
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  background: #1f1c18;
  color: #f1e9db;
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
h1 {
  font-size: 3.1rem;
  line-height: 1.12;
  margin: 8px 0 18px;
}
.phase {
  color: #d0b98d;
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
  color: #cfc6b5;
}
.caution {
  border-left: 6px solid #e0a23a;
  background: #3a3122;
  padding: 10px 16px;
  font-size: 1.2rem;
  border-radius: 5px;
}
.timer {
  color: #9ed4d8;
  font-size: 1.2rem;
}
.timer b {
  font-variant-numeric: tabular-nums;
}
.rang {
  background: #0e5a61;
  padding: 12px 18px;
  border-radius: 6px;
  font-size: 1.4rem;
  margin: 0;
}
footer {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: 14px;
}
.big {
  min-height: 92px;
  font-size: 1.5rem;
  border-radius: 8px;
  border: 1px solid #6b6252;
  background: #2d2923;
  color: inherit;
}
.big.main {
  background: #0e6a72;
  border-color: #2b949c;
  font-weight: 650;
}
.big:disabled {
  opacity: 0.35;
}
</style>
