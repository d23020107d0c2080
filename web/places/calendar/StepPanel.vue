<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import FoldPanel from '../../shell/FoldPanel.vue'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { text } from '../../i18n'
import type { CalendarTask, StepEdit } from '../../../contract/bench'
import { isoDay, momentIn, wallClock } from '../../../core/math/wallClock'
import { useAttempt } from '../../composables/useAttempt'
import { duration } from '../../shell/duration'
import { NO_WISH, useCalendar } from '../../stores/calendar'
import { momentOf } from './strips'
import ChoiceSelect from '../../shell/ChoiceSelect.vue'
import FaultNote from '../../shell/FaultNote.vue'
import NumberField from '../../shell/NumberField.vue'
import DateField from '../../shell/DateField.vue'

/** What is chosen in the schedule: when, how sure, and what a hand wants of it. */
const props = defineProps<{ id: string }>()
defineEmits<{ close: [] }>()
const store = useCalendar()
const { fault, attempt } = useAttempt()
const tasks = computed(() => store.tasksOf(props.id))
const zone = computed(() => store.calendar?.zone ?? 'UTC')
const slot = computed(() => {
  const first = tasks.value[0]
  return first ? store.made?.laid.slots.get(first.id) : undefined
})
const pieceName = (id: string): string => store.calendar?.pieces.find((p) => p.id === id)?.name ?? ''
const change = (t: CalendarTask, more: Partial<StepEdit>): Promise<void> =>
  attempt(() => store.wish(t, { ...(t.edit ?? NO_WISH), ...more }))
/** Of the first step; a field that is emptied goes back to what the plan says. */
const minutes = computed<{ work: number | null; waiting: number | null }>(() => ({
  work: tasks.value[0]!.work / 60,
  waiting: tasks.value[0]!.waiting / 60,
}))
/** As the field wants it: the workshop's clock, without a zone. */
function local(iso: string | null): string {
  if (!iso) return ''
  const c = wallClock(zone.value),
    ms = new Date(iso).getTime(),
    m = c.minutesOf(ms)
  const two = (v: number): string => String(v).padStart(2, '0')
  return `${isoDay(c.dayOf(ms))}T${two(Math.floor(m / 60))}:${two(m % 60)}`
}
const moment = (text: string): string | null =>
  text === '' ? null : new Date(momentIn(zone.value, text)).toISOString()
const others = computed(() => (store.calendar?.tasks ?? []).filter((t) => !tasks.value.some((x) => x.id === t.id)))
const named = (a: StepEdit['after'][number]): string => {
  const t = store.task.get(`${a.piece}: ${a.step}`)
  return t ? `${pieceName(a.piece)}: ${t.title}` : text('calendar.stepPanel.aStepThatIs')
}
</script>

<template>
  <section v-if="tasks.length > 0" class="sheet p-3 mb-3" :aria-label="$t('calendar.stepPanel.step')">
    <div class="d-flex justify-content-between gap-2">
      <h2>
        {{ tasks.length > 1 ? $t('calendar.stepPanel.stepsTogether', { tasks: tasks.length }) : tasks[0]!.title }}
      </h2>
      <BButton variant="quiet" size="sm" :aria-label="$t('calendar.stepPanel.close')" @click="$emit('close')"
        >×</BButton
      >
    </div>
    <p v-for="t in tasks" :key="t.id" class="m-0">
      <RouterLink :to="`/pieces/${t.piece}/plan`">{{ pieceName(t.piece) }}</RouterLink><span
        v-if="tasks.length > 1"
        class="soft"
      >
        {{ t.title }}</span
      >
    </p>
    <dl v-if="slot" class="facts my-2">
      <dt>{{ $t('calendar.stepPanel.starts') }}</dt>
      <dd>{{ momentOf(slot.start, zone) }}{{ slot.person ? `, ${slot.person}` : '' }}</dd>
      <dt>{{ $t('calendar.stepPanel.work') }}</dt>
      <dd>{{ duration((slot.end - slot.start) / 1000) }}</dd>
      <template v-if="slot.free > slot.end"
        ><dt>{{ $t('calendar.stepPanel.thenWaitsUntil') }}</dt>
        <dd>{{ momentOf(slot.free, zone) }}</dd></template
      >
      <dt>{{ $t('calendar.stepPanel.slack') }}</dt>
      <dd>{{ slot.slack === 0 ? $t('calendar.stepPanel.noneItDecidesWhen') : duration(slot.slack) }}</dd>
    </dl>
    <p v-else class="text-danger">{{ $t('calendar.stepPanel.noBenchHoursAre') }}</p>
    <FoldPanel v-if="tasks.length === 1" class="wishes" :open="tasks[0]!.edit !== null">
      <template #title>{{ $t('calendar.stepPanel.yourWishesForThis') }}</template>
      <DateField
        kind="moment"
        :label="$t('calendar.stepPanel.startAt')"
        :value="local(tasks[0]!.edit?.notBefore ?? null)"
        @done="change(tasks[0]!, { notBefore: moment($event) })"
      />
      <NumberField
        :label="$t('calendar.stepPanel.workMinutes')"
        unit="min"
        optional
        :min="0"
        :max="10000"
        :digits="0"
        :step="5"
        :model-value="minutes.work"
        @update:model-value="change(tasks[0]!, { handsOn: $event === null ? null : 60 * $event })"
      />
      <NumberField
        :label="$t('calendar.stepPanel.waitMinutes')"
        unit="min"
        optional
        :min="0"
        :max="10000"
        :digits="0"
        :step="5"
        :model-value="minutes.waiting"
        @update:model-value="change(tasks[0]!, { waiting: $event === null ? null : 60 * $event })"
      />
      <label v-if="store.calendar!.people.length > 1"
        >{{ $t('calendar.stepPanel.doneBy') }}
        <ChoiceSelect
          size="sm"
          :model-value="tasks[0]!.edit?.by ?? ''"
          @update:model-value="change(tasks[0]!, { by: String($event) || null })"
        >
          <option value="">{{ $t('calendar.stepPanel.whoeverIsFreeFirst') }}</option>
          <option v-for="p in store.calendar!.people" :key="p.name" :value="p.name">{{ p.name }}</option>
        </ChoiceSelect>
      </label>
      <label
        >{{ $t('calendar.stepPanel.notBeforeThisStep') }}
        <ChoiceSelect
          size="sm"
          :model-value="''"
          @update:model-value="
            change(tasks[0]!, {
              after: [...(tasks[0]!.edit?.after ?? []), JSON.parse(String($event)) as StepEdit['after'][number]],
            })
          "
        >
          <option value="" disabled>{{ $t('calendar.stepPanel.chooseAStep') }}</option>
          <option v-for="o in others" :key="o.id" :value="JSON.stringify({ piece: o.piece, step: o.key })">
            {{ pieceName(o.piece) }}: {{ o.title }}
          </option>
        </ChoiceSelect>
      </label>
      <p v-for="(a, i) in tasks[0]!.edit?.after ?? []" :key="i" class="small m-0 d-flex justify-content-between">
        {{ named(a) }}
        <BButton
          variant="quiet"
          size="sm"
          :aria-label="$t('calendar.stepPanel.removeNotBefore', { a: named(a) })"
          @click="change(tasks[0]!, { after: tasks[0]!.edit!.after.filter((_, k) => k !== i) })"
        >
          ×
        </BButton>
      </p>
      <BFormCheckbox
        v-if="tasks[0]!.shuns || tasks[0]!.edit?.anyway"
        :model-value="tasks[0]!.edit?.anyway ?? false"
        @update:model-value="change(tasks[0]!, { anyway: Boolean($event) })"
        >{{ $t('calendar.stepPanel.sprayEvenIfIt') }}</BFormCheckbox
      >
      <BButton
        v-if="tasks[0]!.edit"
        variant="quiet"
        size="sm"
        class="mt-2"
        @click="attempt(() => store.takeBack(tasks[0]!))"
      >
        {{ $t('calendar.stepPanel.followThePlan') }}
      </BButton>
    </FoldPanel>
    <FaultNote :text="fault" class="mt-2 mb-0" />
  </section>
</template>

<style scoped>
.wishes label {
  display: block;
  margin: 6px 0 0;
  font-size: 0.9rem;
}
summary {
  cursor: pointer;
}
</style>
