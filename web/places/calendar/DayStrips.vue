<script setup lang="ts">
import { computed, ref } from 'vue'
import { Pin } from 'lucide-vue-next'
import { text } from '../../i18n'
import type { CalendarRecord } from '../../../contract/bench'
import { pointerDrag } from '../../composables/pointerDrag'
import type { WorkshopSchedule } from '../../../core/plan/scheduling/workshop'
import { dayName, hourOf, letterOf, momentOf, rowsOf, tintOf, type Block, type Row } from './strips'

/** Days as strips of bench time, steps on them as they are laid; a step is pulled along a strip or onto another. */
const props = defineProps<{
  calendar: CalendarRecord
  laid: WorkshopSchedule
  first: number
  days: number
  selected: string | null
  /** tasks that stand elsewhere than they did */
  moved: ReadonlySet<string>
  tasksOf: (id: string) => CalendarRecord['tasks']
}>()
const emit = defineEmits<{ select: [id: string]; drop: [id: string, at: number]; leave: [] }>()
const rows = computed(() =>
  shownOf(rowsOf(props.calendar, props.laid, props.first, props.days)).map((r, i, all) => ({
    ...r,
    opens: i === 0 || all[i - 1]!.day !== r.day,
    blocks: r.blocks.map((b) => ({ ...b, ...face(b) })),
  })),
)
const longest = computed(() => Math.max(3_600_000, ...rows.value.map((r) => r.length)))
const pieces = computed(() => new Map(props.calendar.pieces.map((p, i) => [p.id, { ...p, i }])))
const many = computed(() => props.calendar.people.length > 1)
const share = (ms: number): string => `${(100 * ms) / longest.value}%`
const today = computed(() => momentOf(props.calendar.now, props.calendar.zone).split(',')[0])

/** Nobody's empty day stands beside somebody's hours; a day on which nobody works is there once. */
const shownOf = (all: Row[]): Row[] =>
  all.filter((r) => {
    const same = all.filter((x) => x.day === r.day)
    return r.strips.length > 0 || (same.every((x) => x.strips.length === 0) && same[0] === r)
  })

interface Face {
  letters: string
  tint: string
  title: string
  critical: boolean
  wished: boolean
  moved: boolean
}
function face(b: Block): Face {
  const tasks = props.tasksOf(b.id)
  const own = [...new Set(tasks.map((t) => pieces.value.get(t.piece)?.i ?? 0))]
  const slack = Math.min(...tasks.map((t) => props.laid.slots.get(t.id)?.slack ?? 0))
  return {
    letters: own.map(letterOf).join(''),
    tint: own.length > 1 ? `linear-gradient(90deg, ${own.map(tintOf).join(', ')})` : tintOf(own[0] ?? 0),
    title: tasks.map((t) => t.title).join('; '),
    critical: slack === 0,
    wished: tasks.some((t) => t.edit?.notBefore),
    moved: tasks.some((t) => props.moved.has(t.id)),
  }
}
const spoken = (b: Block, f: Face): string =>
  text('calendar.dayStrips.toCritical', {
    letters: f.letters,
    title: f.title,
    start: momentOf(b.start, props.calendar.zone),
    end: hourOf(b.end, props.calendar.zone),
    critical: Boolean(f.critical),
  })

const SNAP = 5 * 60_000
/** px that a press may wander before it is a pull */
const STILL = 5
/** What is pulled, and where in it the hand took hold. The days hold the pointer: a block that is laid elsewhere is another element. */
const pulled = ref<{ id: string; length: number; x: number; y: number; grab: number; on: boolean } | null>(null)
function press(e: PointerEvent): boolean {
  const block = (e.target as Element).closest<HTMLElement>('[data-block]')
  if (!block) return false
  const box = block.getBoundingClientRect()
  const grab = (e.clientX - box.left) / Math.max(1, box.width)
  const { block: id, length } = block.dataset
  pulled.value = { id: id!, length: Number(length), x: e.clientX, y: e.clientY, grab, on: false }
  return true
}
function pull(e: PointerEvent): void {
  const p = pulled.value!
  if (!p.on && Math.hypot(e.clientX - p.x, e.clientY - p.y) < STILL) return
  p.on = true
  const strip = document
    .elementsFromPoint(e.clientX, e.clientY)
    .find((el): el is HTMLElement => el instanceof HTMLElement && el.dataset.from !== undefined)
  if (!strip) return
  const box = strip.getBoundingClientRect(),
    from = Number(strip.dataset.from),
    to = Number(strip.dataset.to)
  const under = from + ((e.clientX - box.left) / box.width) * (to - from)
  const at = Math.round((under - p.grab * p.length) / SNAP) * SNAP
  emit('drop', p.id, Math.max(from, Math.min(to - SNAP, at)))
}
function release(): void {
  const p = pulled.value
  pulled.value = null
  if (p && !p.on) emit('select', p.id)
}
const drag = pointerDrag({
  start: press,
  move: pull,
  end: release,
  cancel: () => {
    pulled.value = null
    emit('leave')
  },
})
const hoursOf = (r: Row): string =>
  text('calendar.dayStrips.many', {
    many: Boolean(many.value),
    person: r.person,
    strips: r.strips
      .map((s) =>
        text('calendar.dayStrips.to', {
          from: hourOf(s.from, props.calendar.zone),
          to: hourOf(s.to, props.calendar.zone),
        }),
      )
      .join(', '),
  })
const STEP: Readonly<Record<string, number>> = {
  ArrowLeft: -15 * 60_000,
  ArrowRight: 15 * 60_000,
  ArrowUp: -86_400_000,
  ArrowDown: 86_400_000,
}
function keys(e: KeyboardEvent, b: Block): void {
  if (e.key === 'Enter' || e.key === ' ') emit('select', b.id)
  else if (e.shiftKey && STEP[e.key]) emit('drop', b.id, b.start + STEP[e.key]!)
  else return
  e.preventDefault()
}
const until = (o: Row['overnight'][number]): string => {
  const tasks = props.tasksOf(o.id)
  const letters = [...new Set(tasks.map((t) => letterOf(pieces.value.get(t.piece)?.i ?? 0)))].join('')
  const [day, hour] = momentOf(o.until, props.calendar.zone).split(', ') as [string, string]
  return text('calendar.dayStrips.phaseUntil', {
    letters,
    phase: tasks[0]?.phase === 'Print',
    slice: day.slice(0, 3),
    hour,
  })
}
</script>

<template>
  <div class="days" role="list" :aria-label="$t('calendar.dayStrips.days')" v-on="drag">
    <div
      v-for="r in rows"
      :key="`${r.day}${r.person}`"
      class="day"
      :class="{ idle: r.strips.length === 0 }"
      role="listitem"
    >
      <span class="name" :class="{ today: dayName(r.day) === today }"
        >{{ many && !r.opens ? '' : dayName(r.day)
        }}<small v-if="r.strips.length > 0" :title="hoursOf(r)">{{ many ? r.person : hoursOf(r) }}</small></span
      >
      <div class="track">
        <div
          v-for="s in r.strips"
          :key="s.from"
          class="strip"
          :style="{ left: share(s.at), width: share(s.to - s.from) }"
          :data-from="s.from"
          :data-to="s.to"
        ></div>
        <div v-for="(s, i) in r.shut" :key="i" class="shut" :style="{ left: share(s.at), width: share(s.length) }" />
        <div
          v-for="b in r.blocks"
          :key="`${b.id}${b.at}`"
          class="block"
          role="button"
          tabindex="0"
          :class="{
            critical: b.critical,
            moved: b.moved,
            on: selected === b.id,
            pulled: pulled?.on && pulled.id === b.id,
          }"
          :style="{ left: share(b.at), width: share(b.length), background: b.tint }"
          :title="spoken(b, b)"
          :aria-label="spoken(b, b)"
          :aria-pressed="selected === b.id"
          :data-block="b.id"
          :data-length="b.end - b.start"
          @keydown="keys($event, b)"
        >
          <Pin v-if="b.wished" :size="11" aria-hidden="true" /><b>{{ b.letters }}</b> {{ b.title }}
        </div>
        <span v-if="r.overnight.length > 0" class="night" :style="{ left: `calc(${share(r.length)} + 10px)` }">{{
          r.overnight.map(until).join(' · ')
        }}</span>
      </div>
    </div>
  </div>
</template>

<style scoped>
.day {
  display: grid;
  grid-template-columns: 82px 1fr;
  align-items: center;
  height: 40px;
  border-bottom: 1px solid var(--line);
}
.day.idle {
  height: 20px;
  font-size: 0.8rem;
  color: var(--ink-soft);
}
.name {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.name.today {
  font-weight: 680;
}
.track {
  position: relative;
  height: 100%;
}
.strip {
  position: absolute;
  top: 4px;
  bottom: 4px;
  background: var(--paper-sunk);
  border-radius: 3px;
}
.name small {
  display: block;
  font-size: 0.72rem;
  line-height: 1.1;
  font-weight: 400;
  color: var(--ink-soft);
}
.shut {
  position: absolute;
  bottom: 4px;
  height: 5px;
  background: repeating-linear-gradient(135deg, var(--note) 0 2px, transparent 2px 5px);
  pointer-events: none;
}
.block {
  position: absolute;
  top: 4px;
  height: 25px;
  border: 1px solid rgba(38, 34, 28, 0.45);
  border-radius: 3px;
  padding: 2px 3px;
  font-size: 0.78rem;
  line-height: 1.3;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: clip;
  cursor: grab;
  touch-action: none;
  user-select: none;
  min-width: 4px;
}
.block.critical {
  border-bottom: 3px solid var(--ink);
}
.block.moved {
  outline: 2px dashed var(--action);
  outline-offset: -1px;
}
.block.on {
  outline: 2px solid var(--action);
  z-index: 2;
}
.block.pulled {
  cursor: grabbing;
  opacity: 0.75;
}
.night {
  position: absolute;
  right: 0;
  top: 0;
  bottom: 0;
  display: flex;
  align-items: center;
  font-size: 0.8rem;
  color: var(--ink-soft);
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  pointer-events: none;
}
</style>
