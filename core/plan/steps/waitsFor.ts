/** A step of a plan with how far it is; times as ISO moments. */
export interface StepAtWork {
  key: string
  title: string
  after: readonly string[]
  doneAt: string | null
  /** end of its wait, while that runs */
  timerUntil: string | null
}
/** What has to be over before a step begins: not done yet, or done and still waiting until that moment. */
export interface Awaited {
  key: string
  title: string
  until: string | null
}

/**
 * What a step has to wait for, in the order of the plan. Empty when it can begin, and when it is done.
 *
 * @param now ms
 */
export function waitsFor(step: StepAtWork, steps: readonly StepAtWork[], now: number): Awaited[] {
  if (step.doneAt !== null) return []
  return steps
    .filter((s) => step.after.includes(s.key))
    .flatMap(({ key, title, doneAt, timerUntil }): Awaited[] => {
      if (doneAt === null) return [{ key, title, until: null }]
      return timerUntil !== null && Date.parse(timerUntil) > now ? [{ key, title, until: timerUntil }] : []
    })
}
