import { z } from 'zod'
import { CLEARANCES } from '../core/defaults/fit'
import { HAND, type Hand } from '../core/defaults/paint'
import { ORDER_COSTS } from '../core/defaults/paint'
import { EXERCISE_IDS, WENT } from '../core/defaults/plan'
import { schoolDefaults } from '../core/defaults/plan'
import { isZone } from './calendar'
import { schools } from './pieces'
import { coat } from './scheme'
import { words } from './issues'
import { nameOf } from './name'

const drawnAndMeasured = z.object({
  drawn: z.number().gt(0).max(200).describe('mm'),
  measured: z.number().gt(0).max(200).describe('mm'),
})
const byProcess = z.object({
  sliding: z.number().min(0).max(2).describe('mm per side'),
  press: z.number().min(0).max(2).describe('mm per side'),
  /** a peg and a hole printed and measured; null where none was */
  print: z.object({ peg: drawnAndMeasured, hole: drawnAndMeasured }).nullable().default(null),
})

const bath = z.object({
  litres: z.number().gt(0).max(200),
  resin: z.number().min(0).max(20_000).describe('ml of resin in it'),
  limit: z.number().gt(0).max(60).describe('% of resin by volume at which it no longer cleans'),
})
export type BathRecord = z.infer<typeof bath>

const benchHour = z.object({
  weekday: z.int().min(0).max(6),
  from: z.int().min(0).max(1440),
  to: z.int().min(0).max(1440),
})
/** What masks and cleaning take at a bench. */
export const orderCosts = z.object({
  tape: z.number().min(0).max(60).describe('s a mm of edge, on and off'),
  cover: z.number().min(0).max(3600).describe('s a region covered'),
  cleanSpray: z.number().min(0).max(3600).describe('s for another colour'),
  cleanBrush: z.number().min(0).max(3600).describe('s for another colour'),
  lifts: z.number().min(0).max(1).describe('chance'),
  ghosts: z.number().min(0).max(1).describe('chance'),
})
const share = z.number().min(0).max(1)
/** How this workshop's hands follow a sculpt, in shares of a coat's film. */
export const hand = z.object({
  washOpen: share,
  layerFlat: share,
  layerHollow: share,
  dryBrushHollow: share,
  chipsFlat: share,
  powderOpen: share,
  powderHollow: share,
  powderSheltered: share,
} satisfies Record<keyof Hand, typeof share>)
export const workshop = z.object({
  name: z.string(),
  currency: z.string().length(3),
  temperature: z.number().min(-20).max(50),
  humidity: z.number().min(0).max(100),
  // Rules that came later are the usual ones in a workshop that was there before.
  schools: schools.extend({
    washScope: schools.shape.washScope.default(schoolDefaults.washScope),
    tones: schools.shape.tones.default(schoolDefaults.tones),
    muting: schools.shape.muting.default(schoolDefaults.muting),
    lights: schools.shape.lights.default(schoolDefaults.lights),
  }),
  /** what the order of painting is weighed by */
  orderCosts: orderCosts.default({ ...ORDER_COSTS }),
  /** by which previews follow the sculpt */
  hand: hand.default({ ...HAND }),
  /** money an hour of hands-on work is calculated at */
  labour: z.number().min(0).max(10_000).default(0),
  benchHours: z.array(benchHour).max(40),
  /** who works here; nobody named: one person, in the bench hours */
  people: z
    .array(
      z.object({
        name: nameOf(80, 'forms.giveEverybodyAName'),
        /** their own; null: the bench hours */
        hours: z.array(benchHour).max(40).nullable().default(null),
        off: z.array(z.iso.date()).max(400).default([]),
      }),
    )
    .max(20)
    .refine((p) => new Set(p.map((x) => x.name)).size === p.length, words('forms.twoPeopleHaveTheSame'))
    .default([]),
  /** how many there are of what steps need */
  places: z.record(z.string().max(80), z.int().min(1).max(50)).default({}),
  /** IANA name; of the clock that bench hours are read on */
  timeZone: z.string().max(60).refine(isZone, words('forms.thisTimeZoneIsNot')).nullable().default(null),
  /** the zone that counts, as the server answers it: the one above, or the server's own; not stored */
  zone: z.string().max(60).optional(),
  /** where is sprayed: in the room, or in the open */
  spraysIn: z.enum(['room', 'open']).default('room'),
  clearances: z
    .object({ resin: byProcess, filament: byProcess })
    .default({ resin: { ...CLEARANCES.resin, print: null }, filament: { ...CLEARANCES.filament, print: null } }),
  /** washing liquid: the dirty bath first, then the clean one */
  baths: z
    .object({ first: bath, second: bath })
    .default({ first: { litres: 4, resin: 0, limit: 10 }, second: { litres: 4, resin: 0, limit: 2 } }),
  /** remembered poses: each joint's turn by its name */
  poses: z
    .array(
      z.object({
        name: z.string().max(60),
        turns: z.record(z.string(), z.tuple([z.number(), z.number(), z.number(), z.number()])),
      }),
    )
    .max(200)
    .default([]),
  /** tries at an exercise, on a failed print or the practice body */
  tries: z
    .array(
      z.object({
        id: z.string().max(40),
        exercise: z.enum(EXERCISE_IDS),
        at: z.iso.datetime(),
        went: z.enum(WENT),
        note: z.string().trim().max(1000),
        photo: z.string().length(64).nullable(),
      }),
    )
    .max(2000)
    .default([]),
  /** stacks of coats that are laid out again and again */
  stacks: z
    .array(
      z.object({
        name: nameOf(60, 'forms.giveTheStackAName'),
        coats: z.array(coat).max(60),
      }),
    )
    .max(100)
    .default([]),
  /** how far the demo has been filled in; null where the workshop was never a demo */
  demo: z.enum(['filling', 'done']).nullable().default(null),
  version: z.int(),
})
export type Workshop = z.infer<typeof workshop>
/** Settings as they are changed; what was stored before a rule came is still read. */
export const changedWorkshop = workshop.extend({
  name: nameOf(120, 'forms.giveTheWorkshopAName'),
  currency: z
    .string()
    .trim()
    .regex(/^[A-Z]{3}$/, words('forms.aCurrencyIsThreeLetters')),
})
