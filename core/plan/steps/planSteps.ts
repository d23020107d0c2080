import { PlanBuilder } from './builder'
import { cleanSteps } from './clean'
import { joinPlan, joinSteps, lateJoinSteps, maskSteps } from './join'
import { printSteps } from './print'
import { finishSteps } from './finish'
import { paintSteps, primeSteps } from './paint'
import { fillSteps, sandSteps } from './surface'
import type { PlanFacts, PlanStep } from './types'

/** The bench plan of a piece: print, clean up, fit, fill, sand, prime, inspect, paint and finish, each step with its reason. */
export function planSteps(facts: PlanFacts): PlanStep[] {
  const b = new PlanBuilder(facts)
  const joints = joinPlan(facts)
  printSteps(b)
  cleanSteps(b)
  joinSteps(b, joints)
  fillSteps(b, joints)
  sandSteps(b)
  maskSteps(b, joints)
  primeSteps(b)
  paintSteps(b)
  lateJoinSteps(b, joints)
  finishSteps(b)
  return b.steps
}
