<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton'
import { BFormTextarea } from 'bootstrap-vue-next/components/BFormTextarea'
import { onMounted, ref, useTemplateRef } from 'vue'
import type { PlanStepRecord } from '../../../contract/plan'
import { text as message } from '../../i18n'
import { usePlan } from '../../stores/plan'

/** What went wrong at a step, or what is to be remembered of it: goes to the log, and the step stays open. */
const props = defineProps<{ kind: 'problem' | 'note'; step: PlanStepRecord }>()
const emit = defineEmits<{ said: [sentence: string] }>()
const { write, startTimer } = usePlan()
const text = ref('')
const field = useTemplateRef<{ focus(): void }>('field')
onMounted(() => field.value?.focus())

/** What goes wrong at a bench, in one click; what is not dry is looked at again. */
const NOT_DRY = message('places.benchMode.notDryOrStill')
const PROBLEMS = [
  NOT_DRY,
  message('places.benchMode.doesNotFit'),
  message('places.benchMode.broke'),
  message('places.benchMode.detailIsGone'),
  message('places.benchMode.ranOutOfMaterial'),
  message('places.benchMode.somethingElse'),
]
/** s until what was not dry is looked at again */
const AGAIN = 1800
async function problem(what: string): Promise<void> {
  const { step } = props
  const more = text.value.trim()
  const what2 = message('places.benchMode.problemMore', { what, more: more !== '', more2: more })
  if (!(await write(step.key, what2, null))) return
  const again = what === NOT_DRY && (await startTimer(step, AGAIN))
  emit(
    'said',
    again
      ? message('places.benchMode.savedATimerRuns')
      : message('places.benchMode.savedTheStepStays', { what: what.toLowerCase() }),
  )
}
async function note(): Promise<void> {
  const entry = text.value.trim()
  if (entry && (await write(props.step.key, entry, null))) emit('said', message('places.benchMode.savedInTheLog'))
}
</script>

<template>
  <section
    class="panel"
    :aria-label="kind === 'problem' ? $t('places.benchMode.whatIsWrong') : $t('places.benchMode.note')"
  >
    <BFormTextarea
      ref="field"
      v-model="text"
      rows="2"
      maxlength="2000"
      dir="auto"
      :placeholder="kind === 'problem' ? $t('places.benchMode.moreAboutItIf') : $t('places.benchMode.whatToRemember')"
      :aria-label="kind === 'problem' ? $t('places.benchMode.moreAboutIt') : $t('places.benchMode.note')"
    />
    <div v-if="kind === 'problem'" class="grid">
      <BButton variant="card" v-for="p in PROBLEMS" :key="p" class="big" @click="problem(p)">{{ p }}</BButton>
    </div>
    <div v-else class="grid">
      <BButton variant="card" class="big main" @click="note">{{ $t('places.benchMode.save') }}</BButton>
    </div>
  </section>
</template>

<style scoped>
.panel {
  flex: 1;
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-height: 0;
}
textarea {
  font-size: 1.5rem;
  background: var(--night-field);
  color: inherit;
  border: 1px solid var(--night-line);
  border-radius: 8px;
  padding: 12px 16px;
}
textarea::placeholder {
  color: var(--night-faint);
}
.grid {
  flex: 1;
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  grid-auto-rows: minmax(92px, 1fr);
  gap: 14px;
  max-height: 330px;
}
</style>
