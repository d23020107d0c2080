import { text } from '../../i18n'
import { computed, watch, type Ref } from 'vue'
import type { PlanStepRecord } from '../../../contract/plan'
import { usePlan } from '../../stores/plan'
import { useTimers } from '../../stores/timers'

/** ms within which a second press is a slip of a wet finger, and one on a word that has only just changed is meant for the old */
export const SLIP = 700

/**
 * The one big button: whatever comes next by itself.
 *
 * @param done told of a step that is done now
 */
export function useBigButton(step: Ref<PlanStepRecord | null>, done: (s: PlanStepRecord) => void) {
  const { begin, tick } = usePlan(),
    timers = useTimers()
  let pressed = 0,
    turned = 0
  const word = computed(() =>
    timers.over.length > 0
      ? text('bench.useBigButton.dismiss')
      : !step.value?.begunAt && !step.value?.doneAt
        ? text('bench.useBigButton.start')
        : step.value.doneAt
          ? text('bench.useBigButton.markAsDoneAgain')
          : text('bench.useBigButton.markAsDone'),
  )
  // “Begin” turns into “Done” only once the beginning is kept, however long that takes; a clock may run out at any moment.
  watch(word, () => (turned = Date.now()), { flush: 'sync' })
  async function act(): Promise<void> {
    const now = Date.now(),
      ran = timers.over[0],
      s = step.value
    if (now - Math.max(pressed, turned) < SLIP) return
    pressed = now
    if (ran) await timers.heard(ran)
    else if (!s) return
    else if (!s.begunAt && !s.doneAt) await begin(s)
    else if (await tick(s, true)) done(s)
  }
  return { word, act }
}
