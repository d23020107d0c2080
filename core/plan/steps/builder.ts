import { waitingIn, type Setting } from '../materials/drying'
import type { PlanFacts, PlanStep } from './types'

export const MIN = 60
export const DM2 = 10_000
/** How much longer one looks and works for a better finish. */
export const CARE = { shelf: 0.6, display: 1, exhibition: 1.6 } as const

type Optional =
  | 'after'
  | 'waiting'
  | 'window'
  | 'tools'
  | 'lines'
  | 'risks'
  | 'materials'
  | 'uses'
  | 'setup'
  | 'recoat'
  | 'holds'
  | 'sprays'
  | 'cautions'
export type NewStep = Omit<PlanStep, Optional> &
  Partial<Omit<PlanStep, 'waiting'>> & {
    /** s at 20 °C and 50 %, and what the room does to it; or `waiting` as it is in this room */
    wait?: number
    setting?: Setting
    waiting?: number
  }

/** Collects steps; each comes after the one before it unless it says after what. */
export class PlanBuilder {
  readonly steps: PlanStep[] = []
  /** what the next step comes after */
  last: string[] = []

  constructor(readonly facts: PlanFacts) {}

  get care(): number {
    return CARE[this.facts.finish]
  }

  add(step: NewStep): string {
    const { wait = 0, setting = 'none', waiting, ...rest } = step
    this.steps.push({
      window: null,
      tools: [],
      lines: [],
      risks: [],
      materials: [],
      uses: [],
      setup: null,
      recoat: null,
      holds: false,
      sprays: rest.cautions?.includes('spray') ?? false,
      cautions: [],
      after: this.last,
      ...rest,
      handsOn: Math.round(rest.handsOn),
      waiting: Math.round(waiting ?? waitingIn(this.facts.room, wait, setting)),
    })
    this.last = [step.key]
    return step.key
  }
}
