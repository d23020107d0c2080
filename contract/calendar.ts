import { z } from 'zod'
import { words } from './issues'

const DAYS = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'] as const
export function isZone(name: string): boolean {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== ''
  } catch {
    return false
  }
}
const time = z
  .string()
  .regex(/^([01]?\d|2[0-4]):[0-5]\d$/, words('forms.timesAreWrittenAs1800'))
  .transform((t) => {
    const [h, m] = t.split(':').map(Number)
    return h! * 60 + m!
  })
const hours = z
  .object({ day: z.enum(DAYS), from: time, to: time })
  .refine((h) => h.to > h.from, { message: words('forms.theBenchClosesBeforeIt') })
  .transform((h) => ({ weekday: DAYS.indexOf(h.day), from: h.from, to: h.to }))

/** Who works when, and with how many of what. */
export const calendarFile = z.object({
  start: z.iso.datetime({ local: true, offset: true }).optional().describe('from when on; else from now'),
  people: z
    .array(
      z.object({
        name: z.string().min(1).max(80),
        hours: z.array(hours).min(1).max(40),
        off: z.array(z.iso.date()).max(400).default([]),
      }),
    )
    .min(1, words('forms.nobodyIsThereToDo'))
    .max(20),
  resources: z.record(z.string(), z.int().min(1).max(50)).default({}),
  zone: z
    .string()
    .max(60)
    .refine(isZone, words('forms.thisTimeZoneIsNot'))
    .optional()
    .describe('of the hours; else that of the machine'),
  noSpraying: z
    .array(z.tuple([z.iso.datetime({ local: true, offset: true }), z.iso.datetime({ local: true, offset: true })]))
    .max(1000)
    .default([])
    .describe('stretches that are too cold or damp'),
})

const seconds = z
  .number()
  .min(0, words('forms.aDurationCannotBeNegative'))
  .max(31_536_000, words('forms.noStepTakesLongerThan'))
/** A piece's plan, as the API gives it or as it is written by hand. */
export const planFile = z.object({
  name: z.string().min(1).max(120).optional(),
  due: z.iso.date().nullable().optional(),
  steps: z
    .array(
      z.object({
        key: z.string().min(1).max(200),
        title: z.string().max(300).default(''),
        handsOn: seconds,
        waiting: seconds.default(0),
        needs: z.string().max(80).default('bench'),
        holds: z.boolean().default(false),
        sprays: z.boolean().default(false),
        after: z.array(z.string()).default([]),
        doneAt: z.iso.datetime().nullable().optional(),
      }),
    )
    .max(2000),
})
