<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed } from 'vue'
import { useAttempt } from '../../composables/useAttempt'
import { duration } from '../../shell/duration'
import { useCalendar } from '../../stores/calendar'
import { letterOf } from './strips'
import FaultNote from '../../shell/FaultNote.vue'

/** Steps of several pieces that are set up alike, and are better done in one go. */
const store = useCalendar()
const { fault, busy, attempt } = useAttempt()
const proposals = computed(() => (store.made?.proposals ?? []).filter((b) => b.saved >= 60).slice(0, 5))
/** Letters of the pieces, as the schedule has them. */
const names = (tasks: readonly string[]): string =>
  [...new Set(tasks.map((id) => store.calendar?.pieces.findIndex((p) => p.id === store.task.get(id)?.piece) ?? -1))]
    .filter((i) => i >= 0)
    .map(letterOf)
    .join(' ')
const open = computed(() =>
  (store.calendar?.batches ?? []).filter((b) => b.tasks.filter((id) => store.task.has(id)).length > 1),
)
const capital = (s: string): string => s[0]!.toUpperCase() + s.slice(1)
</script>

<template>
  <section
    v-if="proposals.length + open.length > 0"
    class="sheet p-3 mb-3"
    :aria-label="$t('calendar.togetherPanel.doneTogether')"
  >
    <h2>{{ $t('calendar.togetherPanel.doneTogether') }}</h2>
    <div v-for="b in open" :key="b.id" class="row1">
      <span
        ><b>{{ capital(b.key) }}</b> <span class="soft small">{{ names(b.tasks) }}</span></span
      >
      <BButton variant="quiet" size="sm" :disabled="busy" @click="attempt(() => store.apart(b.id))">
        {{ $t('calendar.togetherPanel.doSeparately') }}
      </BButton>
    </div>
    <div v-for="b in proposals" :key="b.id" class="row1">
      <span
        >{{ capital(b.key) }}
        <span class="soft small">{{
          $t('calendar.togetherPanel.saves', { tasks: names(b.tasks), saved: duration(b.saved) })
        }}</span></span
      >
      <BButton variant="primary" size="sm" :disabled="busy" @click="attempt(() => store.together(b.key, b.tasks))">
        {{ $t('calendar.togetherPanel.doTogether') }}
      </BButton>
    </div>
    <FaultNote :text="fault" class="mt-2 mb-0" />
  </section>
</template>

<style scoped>
.row1 {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
  padding: 4px 0;
}
.row1 .btn {
  flex: none;
}
</style>
