import { z } from 'zod'
import { finishLevel, schools } from './pieces'

const risk = z.object({
  what: z.string(),
  chance: z.number().min(0).max(1),
  costs: z.number().min(0).describe('s of hands-on work'),
})

export const planStep = z.object({
  key: z.string(),
  phase: z.string(),
  title: z.string(),
  why: z.string(),
  handsOn: z.number().describe('s'),
  waiting: z.number().describe('s'),
  window: z.number().nullable().describe('s in which it must be over once begun'),
  needs: z.string(),
  cautions: z.array(z.string()),
  materials: z.array(z.string()),
  uses: z.array(z.object({ what: z.string(), amount: z.number() })).describe('of supplies, in their own units'),
  setup: z.object({ key: z.string(), seconds: z.number() }).nullable(),
  holds: z.boolean(),
  sprays: z.boolean(),
  tools: z.array(z.string()),
  lines: z.array(z.string()),
  risks: z.array(risk),
  after: z.array(z.string()),
  start: z.number().nullable(),
  end: z.number().nullable(),
  free: z.number().nullable(),
  doneAt: z.string().nullable(),
  begunAt: z.string().nullable(),
  took: z.number().nullable().describe('s'),
  timerUntil: z.string().nullable().describe('its wait'),
  recoat: z.number().nullable().describe('s between its coats, where it has several'),
  critical: z.boolean(),
  dropped: z.boolean().describe('done, and no longer asked for by the plan as it is now'),
})
export type PlanStepRecord = z.infer<typeof planStep>
export const plan = z.object({
  steps: z.array(planStep),
  finish: z.number(),
  impossible: z.array(z.string()),
  over: z
    .object({ primer: z.number(), sanded: z.number() })
    .describe('mm of film over the relief before the first colour, and mm that sanding takes off it'),
  sprayRefused: z.string().nullable(),
  pairs: z
    .array(
      z.object({
        key: z.string(),
        a: z.string(),
        b: z.string(),
        word: z.string(),
        sentence: z.string().describe('how it will go together, as drawn'),
        pin: z
          .object({
            wire: z.number().describe('mm'),
            point: z.array(z.number()).length(3).describe('middle of the joint, mm'),
            outward: z.array(z.number()).length(3).describe('out of the first part'),
            radius: z.number().describe('mm, of a circle as large as the joint'),
            printed: z.boolean().describe('its hole is modelled'),
          })
          .nullable(),
        ids: z.tuple([z.string(), z.string()]),
        tried: z.object({ tight: z.number().nullable() }).nullable(),
        remedies: z.array(z.string()),
      }),
    )
    .describe('in an order that keeps access'),
  pending: z.array(z.string()).describe('keys of derivations by which the plan will be surer'),
})
export type PlanRecord = z.infer<typeof plan>

/** What is asked to be otherwise. */
export const planChange = z.object({
  schools: schools.partial().default({}),
  finish: finishLevel.optional(),
  without: z.array(z.string().max(40)).max(40).optional(),
})
const sum = z.object({
  handsOn: z.number().describe('s'),
  waiting: z.number().describe('s, one after the other'),
  money: z.number(),
  rework: z.number().describe('s of hands-on work to be expected from what may go wrong'),
})
export const planDifference = z.object({
  now: sum,
  then: sum,
  added: z.array(z.string()).describe('titles'),
  removed: z.array(z.string()),
  changed: z.array(z.object({ title: z.string(), handsOn: z.number().describe('s more, or less') })),
  kept: z.int().describe('steps that are done and stay so'),
  lost: z.array(z.string()).describe('titles of steps that are done and that the new plan does not have'),
})
export type PlanDifference = z.infer<typeof planDifference>
