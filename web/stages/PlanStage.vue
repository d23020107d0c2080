<script setup lang="ts">
import { BFormCheckbox } from 'bootstrap-vue-next/components/BFormCheckbox'
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { storeToRefs } from 'pinia'
import { RouterLink } from 'vue-router'
import { computed, ref } from 'vue'
import { text as message } from '../i18n'
import { dateText, timeRange } from '../manner'
import type { PlanStepRecord } from '../../contract/plan'
import { clock, duration } from '../shell/duration'
import FindingList from '../shell/FindingList.vue'
import { useFindings } from '../stores/findings'
import { usePlan } from '../stores/plan'
import ComparePanel from './plan/ComparePanel.vue'
import DryFitSheet from './plan/DryFitSheet.vue'
import StepCard from './plan/StepCard.vue'
import FaultNote from '../shell/FaultNote.vue'
import FileButton from '../shell/FileButton.vue'

const store = usePlan(),
  findings = useFindings()
const { plan, log, fault, next } = storeToRefs(store)
const { tick, write, left } = store
/** Why a step cannot be ticked off yet; its card asks for a reason to start it all the same. */
function kept(s: PlanStepRecord): string | undefined {
  const waits = s.begunAt ? undefined : store.awaited(s).find((a) => a.until !== null)
  return (
    waits && message('plan.stepCard.stillWaits', { title: waits.title, until: dateText(waits.until!, 'weekdayTime') })
  )
}
store.lookedAt()
const open = ref<string | null>(null)
const selected = computed(() => plan.value?.steps.find((s) => s.key === open.value) ?? next.value)
const days = computed(() => {
  const out: { day: string; steps: PlanStepRecord[] }[] = []
  for (const s of plan.value?.steps ?? []) {
    const at = s.doneAt ? new Date(s.doneAt) : s.start ? new Date(s.start) : null
    const day = at ? dateText(at, 'longDay') : message('stages.planStage.noBenchHours')
    if (out.at(-1)?.day === day) out.at(-1)!.steps.push(s)
    else out.push({ day, steps: [s] })
  }
  return out
})
const when = (s: PlanStepRecord): string => (s.start !== null && s.end !== null ? timeRange(s.start, s.end) : '')
const total = computed(() => (plan.value?.steps ?? []).filter((s) => !s.doneAt).reduce((a, s) => a + s.handsOn, 0))
const text = ref(''),
  photo = ref<File | null>(null)
async function note(): Promise<void> {
  if (text.value.trim() === '' && !photo.value) return
  if (await write(selected.value?.key ?? null, text.value, photo.value)) {
    text.value = ''
    photo.value = null
  }
}
const titleOf = (key: string | null): string => plan.value?.steps.find((s) => s.key === key)?.title ?? ''
</script>

<template>
  <Teleport to="#middle" defer>
    <div class="page">
      <p v-if="!plan && !fault" class="soft p-4">{{ $t('stages.planStage.calculatingThePlan') }}</p>
      <p v-if="plan?.steps.length === 0" class="soft p-4">
        {{ $t('stages.planStage.addASculptUnder') }}
      </p>
      <section v-for="d in days" :key="d.day + d.steps[0]!.key">
        <h3 class="day">{{ d.day }}</h3>
        <ul class="list-unstyled m-0">
          <li v-for="s in d.steps" :key="s.key" class="step" :class="{ done: s.doneAt, on: s.key === selected?.key }">
            <BFormCheckbox
              :model-value="s.doneAt !== null"
              :aria-label="$t('stages.planStage.done', { title: s.title })"
              :disabled="kept(s) !== undefined"
              :title="kept(s)"
              @update:model-value="tick(s, Boolean($event))"
            />
            <BButton variant="card" class="what" @click="open = s.key">
              <span class="phase soft">{{ $t('stages.planStage.phase', { phase: s.phase }) }}</span>{{ s.title }}
            </BButton>
            <span class="num soft">{{
              s.doneAt
                ? s.dropped
                  ? $t('stages.planStage.doneNoLongerNeeded')
                  : $t('stages.planStage.done2')
                : when(s)
            }}</span>
            <span class="num">{{ duration(s.handsOn) }}</span>
            <span class="num wait" :class="{ running: (left(s) ?? 0) > 0 }">{{
              left(s) !== null
                ? left(s) === 0
                  ? $t('stages.planStage.ready')
                  : clock(left(s)!)
                : s.waiting > 0
                  ? `+ ${duration(s.waiting)}`
                  : ''
            }}</span>
          </li>
        </ul>
      </section>
    </div>
  </Teleport>
  <FindingList v-if="plan" :judged="findings.byStage.plan" :fixes="{}" />
  <FaultNote :text="fault" />
  <section v-if="plan && plan.steps.length > 0" class="sheet p-3 mb-3">
    <span class="figure">{{ duration(total) }}</span> <span class="soft">{{ $t('stages.planStage.ofWorkLeft') }}</span>
    <dl class="facts mt-2">
      <dt>{{ $t('stages.planStage.doneBy') }}</dt>
      <dd>
        {{ dateText(plan.finish, 'weekday') }}
      </dd>
      <dt>{{ $t('stages.planStage.steps') }}</dt>
      <dd>
        {{ $t('stages.planStage.of', { filter: plan.steps.filter((s) => s.doneAt).length, steps: plan.steps.length }) }}
      </dd>
    </dl>
    <p v-if="plan.steps.some((s) => s.key === 'print' && s.waiting === 0 && !s.doneAt)" class="soft small mb-1">
      {{ $t('stages.planStage.withoutPrinting') }}
    </p>
    <p v-if="!plan.steps.some((s) => s.phase === 'Paint')" class="soft small mb-1">
      {{ $t('stages.planStage.withoutPainting') }}
      <RouterLink to="scheme">{{ $t('composables.useStages.paintScheme') }}</RouterLink>
    </p>
    <p v-if="plan.pending.length > 0" class="soft small mb-0" role="status">
      {{ $t('stages.planStage.stillMeasuringPendingThe', { pending: plan.pending.length }) }}
    </p>
  </section>
  <StepCard v-if="selected" :step="selected" />
  <DryFitSheet v-if="selected?.key === 'dryfit'" />
  <ComparePanel v-if="plan && plan.steps.length > 0" />
  <section>
    <h2>{{ $t('stages.planStage.log') }}</h2>
    <form class="my-2" @submit.prevent="note">
      <BFormTextarea
        v-model="text"
        size="sm"
        rows="2"
        :placeholder="
          selected ? $t('stages.planStage.about', { title: selected.title }) : $t('stages.planStage.whatHappened')
        "
        :aria-label="$t('stages.planStage.logEntry')"
      />
      <div class="d-flex gap-2 mt-1 align-items-center">
        <BButton type="submit" variant="primary" size="sm" :disabled="text.trim() === '' && !photo">{{
          $t('stages.planStage.addEntry')
        }}</BButton>
        <FileButton
          accept="image/png,image/jpeg,image/webp"
          :label="$t('stages.planStage.photo')"
          @files="photo = $event[0] ?? null"
          >{{ photo ? photo.name : $t('stages.planStage.addAPhoto') }}</FileButton
        >
      </div>
    </form>
    <article v-for="e in log" :key="e.id" class="entry">
      <span class="soft small"
        >{{ dateText(e.at, 'moment') }}{{ titleOf(e.stepKey) ? ` · ${titleOf(e.stepKey)}` : '' }}</span
      >
      <p class="m-0">{{ e.text }}</p>
      <img
        v-if="e.photo"
        :src="`/api/blobs/${e.photo}?type=image/png`"
        :alt="$t('stages.planStage.photoOfTheStep')"
        class="photo"
      />
    </article>
  </section>
</template>

<style scoped>
.page {
  padding: 10px 20px 24px;
}
.day {
  margin: 14px 0 4px;
  padding-bottom: 3px;
  border-bottom: 1px solid var(--line);
}
.step {
  display: grid;
  grid-template-columns: 22px 1fr 124px 62px 72px;
  gap: 8px;
  align-items: center;
  padding: 3px 8px;
  border-radius: 4px;
}
.step.on {
  background: var(--paper-sunk);
}
.step.done .what {
  color: var(--ink-soft);
  text-decoration: line-through;
}
.what {
  background: none;
  border: 0;
  text-align: left;
  padding: 1px 0;
  color: inherit;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.phase {
  display: inline-block;
  width: 52px;
  font-size: 0.82rem;
}
.wait {
  color: var(--ink-soft);
}
.wait.running {
  color: var(--action);
  font-weight: 650;
}
.entry {
  border-top: 1px solid var(--line);
  padding: 7px 0;
}
.photo {
  max-width: 100%;
  max-height: 190px;
  border-radius: 4px;
  margin-top: 5px;
}
.step .num {
  white-space: nowrap;
}
</style>
