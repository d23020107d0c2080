<script setup lang="ts">
import { dateText } from '../../manner'
import { BButton } from 'bootstrap-vue-next/components/BButton'
import type { PlanStepRecord } from '../../../contract/plan'
import { duration } from '../../shell/duration'
import { usePlan } from '../../stores/plan'
import NumberField from '../../shell/NumberField.vue'

/** One step of the plan: why, with what, how careful, and what comes of it. */
defineProps<{ step: PlanStepRecord }>()
const { begin, tick, correct, startTimer, left } = usePlan()
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
    <div class="d-flex gap-2 flex-wrap">
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
