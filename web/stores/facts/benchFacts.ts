import { computed } from 'vue'
import { failed, known, MEASURING, type Fact } from '../../../core/findings/facts'
import type { KnownAt } from '../../../core/findings/judge'
import type { PlanRecord } from '../../../contract/plan'
import { usePiece } from '../piece'
import { usePlan } from '../plan'
import { useStock } from '../stock'

/** What the bench plan of the piece says. */
export function benchFacts() {
  const piece = usePiece(),
    plan = usePlan(),
    stock = useStock()
  const anyHours = computed(() => {
    const shop = stock.workshop
    return !shop || shop.benchHours.length > 0 || shop.people.some((p) => (p.hours?.length ?? 0) > 0)
  })
  const ofPlan = <T>(to: (p: PlanRecord) => T): Fact<T> =>
    plan.plan ? known(to(plan.plan)) : plan.fault ? failed(plan.fault) : MEASURING
  return computed<KnownAt<'plan'>>(() => ({
    schedule: ofPlan(({ steps, finish }) => ({
      steps,
      finish,
      deadline: piece.piece?.deadline ?? null,
      zone: stock.zone,
    })),
    sprayRefused: ofPlan((p) => p.sprayRefused),
    unplaced: ofPlan((p) => ({ steps: p.impossible.length, anyHours: anyHours.value })),
  }))
}
