<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { text } from '../i18n'
import { nextSpray } from '../../core/plan/scheduling/air'
import { known, MEASURING, type Fact, type ScheduleFacts } from '../../core/findings/facts'
import { judge } from '../../core/findings/judge'
import { wallClock } from '../../core/math/wallClock'
import { useAttempt } from '../composables/useAttempt'
import FindingList from '../shell/FindingList.vue'
import type { StageHandlers } from '../shell/fixHandlers'
import { duration } from '../shell/duration'
import { useCalendar } from '../stores/calendar'
import { useStock } from '../stores/stock'
import AirPanel from './calendar/AirPanel.vue'
import DayStrips from './calendar/DayStrips.vue'
import StepPanel from './calendar/StepPanel.vue'
import TimePanel from './calendar/TimePanel.vue'
import TogetherPanel from './calendar/TogetherPanel.vue'
import { dateName, letterOf, momentOf, tintOf } from './calendar/strips'
import FaultNote from '../shell/FaultNote.vue'

/** All pieces on the bench hours there are. */
const store = useCalendar(),
  stock = useStock()
const { fault, busy, attempt } = useAttempt()
onMounted(() => {
  store.watched++
  void store.load()
})
onBeforeUnmount(() => {
  store.watched--
  store.leave()
})
const DAYS = 14
const from = ref(0)
const c = computed(() => store.calendar)
const zone = computed(() => c.value?.zone ?? 'UTC')
const clock = computed(() => wallClock(zone.value))
const first = computed(() => (c.value ? clock.value.dayOf(c.value.now) : 0) + from.value)
const laid = computed(() => store.trial?.laid ?? store.made?.laid ?? null)
const moved = computed(() => new Set(store.trial?.shift.moved.map((m) => m.id)))
const selected = ref<string | null>(null)
const day = (ms: number): string => momentOf(ms, zone.value)
const facts = computed<Fact<ScheduleFacts>>(() => {
  const cal = c.value,
    made = store.made
  if (!cal || !made) return MEASURING
  const sprays = cal.tasks.some((t) => t.shuns !== undefined)
  return known({
    pieces: cal.pieces.map((p) => ({ ...p, finish: made.laid.finish[p.id] ?? null })),
    risks: made.risks,
    impossible: [...made.laid.impossible].map((id) => store.task.get(id)?.title ?? id),
    broken: cal.broken,
    now: cal.now,
    day,
    spray:
      sprays && cal.forecast.length > 0
        ? nextSpray(cal.forecast, stock.workshop?.spraysIn ?? 'room', cal.now)
        : undefined,
    logged: cal.record.length,
  })
})
const judged = computed(() => judge('calendar', { workshopSchedule: facts.value }))
const fixes: StageHandlers<'calendar'> = { showDeciding: ({ piece }) => showDeciding(piece) }
function showDeciding(piece: string): void {
  const made = store.made
  if (!made || !c.value) return
  const decides = c.value.tasks
    .filter((t) => t.piece === piece && made.laid.slots.get(t.id)?.slack === 0)
    .map((t) => made.laid.slots.get(t.id)!)
    .sort((a, b) => a.start - b.start)[0]
  if (!decides) return
  selected.value = decides.id
  from.value = Math.max(0, clock.value.dayOf(decides.start) - clock.value.dayOf(c.value.now))
}
const rows = computed(() =>
  (c.value?.pieces ?? []).map((p, i) => ({
    ...p,
    letter: letterOf(i),
    tint: tintOf(i),
    finish: laid.value?.finish[p.id] ?? null,
    risk: store.made?.risks[p.id],
  })),
)
const pushes = computed(() => {
  const t = store.trial
  if (!t || !c.value) return ''
  const own = new Set(store.tasksOf(t.id).map((x) => x.id))
  const others = t.shift.moved.filter((m) => !own.has(m.id)).length
  const ends = t.shift.finishes.map((f) => {
    const name = c.value!.pieces.find((p) => p.id === f.piece)?.name ?? ''
    return text('places.calendarPlace.isDoneBy', {
      name,
      abs: duration(Math.abs(f.by) / 1000),
      by: f.by > 0,
    })
  })
  return text('places.calendarPlace.othersOthers2Ends', {
    others: others === 0,
    others2: others,
    ends: ends.length > 0,
    ends2: ends.join('; '),
  })
})
const lands = computed(() => {
  const t = store.trial
  const first = t && store.tasksOf(t.id)[0]
  return first ? t.laid.slots.get(first.id) : undefined
})
const feed = `${location.origin}/api/calendar.ics`
</script>

<template>
  <div class="beside">
    <div class="middle scroll">
      <header class="head">
        <h1>{{ $t('places.calendarPlace.calendar') }}</h1>
        <BButton variant="quiet" size="sm" :disabled="from === 0" @click="from = Math.max(0, from - 7)">
          {{ $t('places.calendarPlace.earlier') }}
        </BButton>
        <BButton variant="quiet" size="sm" @click="from += 7">{{ $t('places.calendarPlace.later') }}</BButton>
        <BButton variant="quiet" size="sm" :disabled="!!store.improving" @click="store.improve()">
          {{
            store.improving
              ? $t('places.calendarPlace.optimisingBetter', {
                  from: duration(store.improving.from - store.improving.now),
                })
              : $t('places.calendarPlace.optimiseSchedule')
          }}
        </BButton>
        <a :href="feed" class="feed" :title="$t('places.calendarPlace.giveThisAddressTo')">{{
          $t('places.calendarPlace.feed')
        }}</a>
      </header>
      <FaultNote :text="store.fault || fault" />
      <ul class="pieces" :aria-label="$t('places.calendarPlace.pieces')">
        <li v-for="p in rows" :key="p.id" :class="{ rests: p.resting }">
          <b class="letter" :style="{ background: p.tint }">{{ p.letter }}</b>
          <RouterLink :to="`/pieces/${p.id}/plan`">{{ p.name }}</RouterLink>
          <span class="soft">
            {{
              p.resting
                ? $t('places.calendarPlace.onHold')
                : p.finish
                  ? $t('places.calendarPlace.doneDueDueLate', {
                      dayOf: dateName(clock.dayOf(p.finish)),
                      due: Boolean(p.due),
                      dayOf2: p.due ? dateName(clock.dayOf(p.due)) : '',
                      late: Boolean(p.risk?.late),
                      round: Math.round(100 * (p.risk?.late ?? 0)),
                    })
                  : $t('places.calendarPlace.nothingToDo')
            }}</span
          >
          <BButton variant="quiet" size="sm" :disabled="busy" @click="attempt(() => store.rest(p))">
            {{ p.resting ? $t('places.calendarPlace.resume') : $t('places.calendarPlace.putOnHold') }}
          </BButton>
        </li>
      </ul>
      <p v-if="c && c.tasks.length === 0" class="soft">
        {{ $t('places.calendarPlace.thereIsNothingTo') }}
      </p>
      <DayStrips
        v-else-if="c && laid"
        :calendar="c"
        :laid="laid"
        :first="first"
        :days="DAYS"
        :selected="selected"
        :moved="moved"
        :tasks-of="store.tasksOf"
        @select="selected = $event"
        @drop="(id, at) => store.tryAt(id, at)"
        @leave="store.leave()"
      />
      <p class="soft small mt-2 mb-0">
        {{ $t('places.calendarPlace.dragAStepTo') }}
      </p>
    </div>
    <aside class="side scroll">
      <section
        v-if="store.trial"
        class="sheet trial p-3 mb-3"
        :aria-label="$t('places.calendarPlace.whatMoves')"
        role="status"
      >
        <h2>
          {{
            lands
              ? $t('places.calendarPlace.starts', { start: day(lands.start) })
              : $t('places.calendarPlace.noBenchHoursAre')
          }}
        </h2>
        <p v-if="lands && lands.start > store.trial.at + 60_000" class="soft small mb-1">
          {{ $t('places.calendarPlace.itCannotStartAt', { at: day(store.trial.at) }) }}
        </p>
        <p class="my-1">{{ pushes }}</p>
        <div class="d-flex gap-2">
          <BButton variant="primary" size="sm" :disabled="busy" @click="attempt(() => store.keep())">
            {{ $t('places.calendarPlace.keep') }}
          </BButton>
          <BButton variant="quiet" size="sm" @click="store.leave()">{{ $t('places.calendarPlace.cancel') }}</BButton>
        </div>
      </section>
      <StepPanel v-if="selected && !store.trial" :id="selected" @close="selected = null" />
      <FindingList :judged="judged" :fixes="fixes" />
      <TimePanel class="mt-3" @select="selected = $event" />
      <TogetherPanel />
      <AirPanel />
    </aside>
  </div>
</template>

<style scoped>
.middle {
  padding: 14px 18px;
}
.head {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
}
.feed {
  margin-left: auto;
}
.pieces {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 2px 22px;
  padding: 0;
  margin: 0 0 8px;
}
.pieces li {
  display: flex;
  gap: 8px;
  align-items: center;
  white-space: nowrap;
  overflow: hidden;
  font-size: 0.9rem;
}
.pieces li .btn {
  margin-left: auto;
  padding: 0 7px;
  font-size: 0.8rem;
}
.pieces a {
  overflow: hidden;
  text-overflow: ellipsis;
  color: inherit;
}
.rests .letter {
  border-style: dashed;
}
.letter {
  flex: none;
  width: 22px;
  text-align: center;
  border-radius: 3px;
  border: 1px solid rgba(38, 34, 28, 0.45);
}
.trial {
  border-color: var(--action);
}
</style>
