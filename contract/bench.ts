import { z } from 'zod'
import { words } from './issues'

const moment = z.iso.datetime()
const stepKey = z.string().min(1).max(200)
/** s: longer than this no step lasts, and no wait */
const MONTH = 31 * 86_400
const seconds = z.number().min(0, words('forms.aDurationCannotBeNegative')).max(MONTH, words('forms.noStepTakesAMonth'))

/** What became of a step. Of a change only what is sent counts. */
export const tick = z.object({
  stepKey,
  begunAt: moment.nullable().optional(),
  doneAt: moment.nullable().optional(),
  took: seconds.nullable().optional().describe('s of hands-on work; else from begun to done'),
  planned: seconds.optional().describe('s, as it stood in the plan'),
  /** what the step is called, so that the record knows it when the plan no longer has it */
  title: z.string().max(300).optional(),
  phase: z.string().max(40).optional(),
  /** s after it is done until what comes next may begin, and s from its beginning in which what is mixed sets */
  waits: seconds.optional(),
  sets: seconds.optional(),
})
export type TickInput = z.input<typeof tick>

export const TIMER_KINDS = ['wait', 'pot', 'recoat'] as const
export const timer = z.object({
  id: z.uuid(),
  pieceId: z.uuid(),
  piece: z.string(),
  stepKey,
  kind: z.enum(TIMER_KINDS),
  title: z.string(),
  until: z.string(),
})
export type TimerRecord = z.infer<typeof timer>
export const timers = z.object({
  now: z.string().describe('by the server, whose clock counts'),
  timers: z.array(timer),
})
export const newTimer = z.object({
  pieceId: z.uuid(),
  stepKey,
  kind: z.enum(TIMER_KINDS),
  title: z.string().max(300).default(''),
  seconds: seconds.refine((s) => s > 0, words('forms.aTimerRunsForSome')),
})

/** What a hand wants of a step, over what the plan says. */
export const stepEdit = z.object({
  handsOn: seconds.nullable().default(null),
  waiting: seconds.nullable().default(null),
  notBefore: moment.nullable().default(null).describe('not before it, and as soon after as can be'),
  by: z.string().max(80).nullable().default(null),
  /** sprayed whatever the air is */
  anyway: z.boolean().default(false),
  /** steps, of this piece or others, that must be over first */
  after: z
    .array(z.object({ piece: z.uuid(), step: stepKey }))
    .max(50)
    .default([]),
})
export type StepEdit = z.infer<typeof stepEdit>

export const newBatch = z.object({
  id: z.uuid(),
  key: z.string().min(1).max(200).describe('the set-up that is shared'),
  steps: z
    .array(z.object({ piece: z.uuid(), step: stepKey }))
    .min(2, words('forms.doneTogetherAreTwoSteps'))
    .max(200),
})
export const stepOrder = z.object({ order: z.array(z.string().max(260)).max(5000) })

const air = z.object({ temperature: z.number(), humidity: z.number() })
export const calendarTask = z.object({
  id: z.string(),
  piece: z.string(),
  key: z.string(),
  title: z.string(),
  phase: z.string(),
  work: z.number(),
  waiting: z.number(),
  needs: z.string(),
  after: z.array(z.string()),
  notBefore: z.number().optional(),
  holds: z.boolean().optional(),
  by: z.string().optional(),
  wanted: z.number().optional(),
  shuns: z.string().optional(),
  setup: z.object({ key: z.string(), seconds: z.number() }).nullable().optional(),
  window: z.number().nullable().optional(),
  risks: z.array(z.object({ what: z.string(), chance: z.number(), costs: z.number() })),
  edit: stepEdit.nullable(),
})
export type CalendarTask = z.infer<typeof calendarTask>
/** Everything a schedule of the whole workshop is made from. */
export const calendar = z.object({
  now: z.number().describe('ms, by the server'),
  zone: z.string(),
  people: z.array(
    z.object({
      name: z.string(),
      hours: z.array(z.object({ weekday: z.number(), from: z.number(), to: z.number() })),
      off: z.array(z.string()),
    }),
  ),
  resources: z.record(z.string(), z.number()),
  closed: z.record(z.string(), z.array(z.tuple([z.number(), z.number()]))),
  pieces: z.array(
    z.object({
      id: z.string(),
      name: z.string(),
      due: z.number().nullable(),
      resting: z.boolean(),
      done: z.int().describe('steps'),
      version: z.int(),
    }),
  ),
  tasks: z.array(calendarTask),
  batches: z.array(z.object({ id: z.string(), key: z.string(), tasks: z.array(z.string()) })),
  order: z.array(z.string()),
  record: z.array(z.object({ kind: z.string(), planned: z.number(), took: z.number() })),
  broken: z.array(z.string()).describe('titles of steps whose hand-made order waits for itself; it is not kept'),
  room: air.extend({ measured: z.boolean(), at: z.number().nullable() }),
  forecast: z.array(z.object({ at: z.number(), room: air, open: air })).describe('by the hour'),
})
export type CalendarRecord = z.infer<typeof calendar>
