<script setup lang="ts">
import { BAlert } from 'bootstrap-vue-next/components/BAlert'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { computed, ref, watch } from 'vue'
import { text } from '../../i18n'
import { dateText } from '../../manner'
import type { PlanStepRecord } from '../../../contract/plan'
import { duration } from '../../shell/duration'
import { usePlan } from '../../stores/plan'
import NumberField from '../../shell/NumberField.vue'
import TextField from '../../shell/TextField.vue'

/** One step of the plan: why, with what, how careful, and what comes of it. */
const props = defineProps<{ step: PlanStepRecord }>()
const plan = usePlan()
const { begin, tick, correct, startTimer, write, left } = plan
const awaited = computed(() => plan.awaited(props.step))
const undone = computed(() => awaited.value.filter((a) => a.until === null))
/** What still dries, cures or prints: it keeps this one back, unless somebody knows better and says why. */
const waiting = computed(() => awaited.value.find((a) => a.until !== null) ?? null)
const reason = ref('')
watch(
  () => props.step.key,
  () => (reason.value = ''),
)
async function beginEarly(): Promise<void> {
  const said = text('plan.stepCard.earlyLog', { title: waiting.value?.title, reason: reason.value.trim() })
  if (await write(props.step.key, said, null)) await begin(props.step)
}
const percent = (v: number): string => (v < 0.01 ? 'under 1 %' : `${Math.round(100 * v)} %`)
</script>

<template>
  <section class="step-card sheet p-3 mb-3">
    <h2>{{ step.title }}</h2>
    <p class="mt-1 mb-2">{{ step.why }}</p>
    <ul v-if="step.lines.length > 0" class="lines">
      <li v-for="l in step.lines" :key="l">{{ l }}</li>
    </ul>
    <p v-for="c in step.cautions" :key="c" class="caution">{{ c }}</p>
    <dl class="facts mb-2">
      <dt>{{ $t('plan.stepCard.work') }}</dt>
      <dd>{{ duration(step.handsOn) }}</dd>
      <template v-if="step.doneAt && step.took !== null"
        ><dt>{{ $t('plan.stepCard.itTook') }}</dt>
        <dd>
          <NumberField
            bare
            unit="min"
            :min="0"
            :max="100000"
            :digits="0"
            :model-value="step.took / 60"
            :label="$t('plan.stepCard.minutesThatItTook')"
            @update:model-value="correct(step, 60 * $event)"
          /></dd
      ></template>
      <template v-if="step.waiting > 0"
        ><dt>{{ $t('plan.stepCard.thenWaits') }}</dt>
        <dd>{{ duration(step.waiting) }}</dd></template
      >
      <template v-if="step.window !== null"
        ><dt>{{ $t('plan.stepCard.setsAfter') }}</dt>
        <dd>{{ duration(step.window) }}</dd></template
      >
      <template v-if="step.free && !step.doneAt"
        ><dt>{{ $t('plan.stepCard.nextStepAtThe') }}</dt>
        <dd>
          {{ dateText(step.free, 'weekdayTime') }}
        </dd></template
      >
    </dl>
    <p v-if="step.materials.length + step.tools.length > 0" class="soft small mb-2">
      {{ $t('plan.stepCard.atHand', { value: [...step.materials, ...step.tools].join('; ') }) }}
    </p>
    <p v-for="r in step.risks" :key="r.what" class="soft small mb-2">
      {{ $t('plan.stepCard.riskForToRepair', { chance: percent(r.chance), what: r.what, costs: duration(r.costs) }) }}
    </p>
    <p v-if="undone.length > 0" class="soft small mb-2">
      {{ $t('plan.stepCard.comesAfter', { steps: undone.map((a) => a.title).join('; ') }) }}
    </p>
    <BAlert v-if="waiting && !step.begunAt" :model-value="true" variant="warning" class="py-2 px-3">
      {{ $t('plan.stepCard.stillWaits', { title: waiting.title, until: dateText(waiting.until!, 'weekdayTime') }) }}
      <form class="mt-2" @submit.prevent="beginEarly">
        <TextField v-model="reason" :label="$t('plan.stepCard.whyEarly')" />
        <BButton type="submit" variant="quiet" size="sm" class="mt-2" :disabled="reason.trim() === ''">{{
          $t('plan.stepCard.beginEarly')
        }}</BButton>
      </form>
    </BAlert>
    <div v-else class="d-flex gap-2 flex-wrap">
      <BButton variant="primary" size="sm" @click="tick(step, !step.doneAt)">
        {{ step.doneAt ? $t('plan.stepCard.markAsNotDone') : $t('plan.stepCard.markAsDone') }}
      </BButton>
      <BButton v-if="!step.doneAt && !step.begunAt" variant="quiet" size="sm" @click="begin(step)">{{
        $t('plan.stepCard.start')
      }}</BButton>
      <BButton
        v-if="step.waiting > 0"
        variant="quiet"
        size="sm"
        @click="startTimer(step, left(step) ? 0 : step.waiting)"
      >
        {{
          left(step)
            ? $t('plan.stepCard.stopTimer')
            : $t('plan.stepCard.startTimer', { waiting: duration(step.waiting) })
        }}
      </BButton>
    </div>
  </section>
</template>

<style scoped>
.lines {
  margin: 0 0 8px;
  padding-left: 18px;
  max-height: 190px;
  overflow: auto;
}
.took {
  width: 64px;
  text-align: right;
}
</style>
