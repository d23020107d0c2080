import { z } from 'zod'
import { CLEARANCES } from '../core/fit/clearance'
import { LANDMARKS } from '../core/fit/stature'
import { GROWN, LID_NAMES } from '../core/paint/eyes'
import { ORDER_COSTS } from '../core/paint/order/types'
import { TECHNIQUES } from '../core/paint/technique'
import { MUTING, TONE_SCHOOLS } from '../core/paint/tones'
import { EFFECT_KINDS } from '../core/plan/effects'
import { EXERCISE_IDS, WENT } from '../core/plan/practice'
import { schoolDefaults } from '../core/plan/schools'
import { isZone } from './calendar'
import { derivation, plateLock } from './derivations'
import { operation } from './operations'

export const schools = z.object({
  strip: z.enum(['beforeWash', 'afterWash', 'afterCure']),
  sanding: z.enum(['wet', 'dry']),
  undercoat: z.enum(['grey', 'white', 'black', 'zenithal']),
  gluing: z.enum(['seamBySeam', 'assembleFirst', 'subAssemblies']),
  joints: z.enum(['pinAll', 'pinLoaded', 'glueOnly']),
  shading: z.enum(['washes', 'glazes', 'airbrush', 'powders']),
  finalCoat: z.enum(['oneMatt', 'byRegion', 'bareMetal']),
  washScope: z.enum(['needed', 'all']),
  tones: z.enum(TONE_SCHOOLS),
  muting: z.enum(MUTING),
  lights: z.enum(['lightFirst', 'darkFirst']),
})
export const finishLevel = z.enum(['shelf', 'display', 'exhibition'])

/** What a part is made of, for its weight. */
export const material = z.object({
  name: z.enum(['resin', 'filament', 'metal']).default('resin'),
  density: z.number().min(0).max(25).default(1.12),
  infill: z.number().min(0).max(1).default(1),
  cast: z.number().min(0.5).max(3).nullable().default(null).describe('g/ml of what its cavities are cast full with'),
})
export type Material = z.infer<typeof material>

const triple = z.tuple([z.number(), z.number(), z.number()])

/** How the parts of a piece are set on plates, by part. */
export const plating = z.object({
  /** printers of the stock that may be used; none named: the piece's own */
  printers: z.array(z.uuid()).max(20).default([]),
  aim: z.enum(['hours', 'soonest']).default('hours'),
  copies: z.record(z.string(), z.int().min(0).max(200)).default({}),
  /** printed besides, in case some fail */
  spares: z.record(z.string(), z.int().min(0).max(50)).default({}),
  /** true of parts that may not be turned */
  straight: z.record(z.string(), z.boolean()).default({}),
  locks: z.record(z.string(), z.array(plateLock).max(200)).default({}),
})
export type Plating = z.infer<typeof plating>
export const pieceFields = z.object({
  name: z.string().trim().min(1, 'Give the piece a name.').max(120),
  client: z.string().trim().max(120).default(''),
  brief: z.string().max(10_000).default(''),
  deadline: z.iso.date().nullable().default(null),
  finish: finishLevel.default('display'),
  /** mm of the real subject, for ratios */
  subjectStature: z.number().min(1).max(100_000).default(1750),
  printerId: z.uuid().nullable().default(null),
  resinId: z.uuid().nullable().default(null),
  schools: schools.partial().default({}),
  /** by part */
  materials: z.record(z.string(), material).default({}),
  /** degrees that the whole should bear being tipped */
  tipWish: z.number().min(1).max(80).default(15),
  plating: plating.default(plating.parse({})),
  /** pairs that were put together dry, by the ids of both parts: mm too tight, below 0 too loose; null: it fits */
  dryFits: z.record(z.string(), z.object({ tight: z.number().min(-10).max(10).nullable() })).default({}),
  /** what for: prints of a sculpt that may not be sold must not be */
  purpose: z.enum(['keep', 'sell', 'commission']).default('keep'),
  /** parts that are moved together, by the name of their group */
  groups: z.record(z.string(), z.string().trim().max(60)).default({}),
  /** fillers and adhesives that are not used on it, by their ids in core/plan/materials */
  without: z.array(z.string().max(40)).max(40).default([]),
  /** laid aside: not on the calendar */
  resting: z.boolean().default(false),
  /** which way the face looks: a direction on the sculpt as it came, and the joint that turns it */
  facing: z
    .object({ partId: z.uuid(), direction: triple, joint: z.string().max(60).nullable() })
    .nullable()
    .default(null),
  /** a standing height along the body: places on the skin, before the size is set, see core/fit/stature */
  landmarks: z
    .object({ partId: z.uuid(), points: z.array(triple).length(LANDMARKS.length) })
    .nullable()
    .default(null),
})
export const newPiece = pieceFields
export const changedPiece = pieceFields.partial().extend({ version: z.int() })

export const partStep = z.object({ op: operation, derivation: derivation.nullable() })
export const part = z.object({
  id: z.uuid(),
  pieceId: z.uuid(),
  name: z.string(),
  version: z.int(),
  sculptMesh: z.string(),
  /** the library's entry; null of a body that was made here */
  sculptId: z.uuid().nullable(),
  fileName: z.string(),
  steps: z.array(partStep),
  /** hash of the mesh after all operations that are done */
  meshHash: z.string(),
})
export type PartRecord = z.infer<typeof part>
export const changedPart = z.object({ version: z.int(), operations: z.array(operation).max(200) })

/**
 * Several parts changed at once, all or none: what a cut, a key in both halves, a new base or a duplicate needs. Each
 * change names the version it was made from.
 */
export const arrangement = z.object({
  changes: z
    .array(changedPart.extend({ id: z.uuid() }))
    .max(200)
    .default([]),
  /** parts that get another sculpt of the library under the same operations; after `changes`, whose versions count on */
  swap: z
    .array(z.object({ id: z.uuid(), version: z.int(), sculpt: z.uuid() }))
    .max(200)
    .default([]),
  /** new parts: a copy of another, a sculpt of the library, or neither: a generated body; each with its operations */
  create: z
    .array(
      z.object({
        name: z.string().trim().min(1).max(120),
        from: z.uuid().nullable(),
        sculpt: z.uuid().nullable().default(null),
        operations: z.array(operation).max(200),
      }),
    )
    .max(50)
    .default([]),
  remove: z.array(z.uuid()).max(200).default([]),
  restore: z.array(z.uuid()).max(200).default([]),
})
export type ArrangementInput = z.input<typeof arrangement>

export const intake = z.object({
  id: z.uuid(),
  fileName: z.string(),
  status: z.enum(['waiting', 'done', 'refused']),
  problem: z.object({ code: z.string(), message: z.string() }).nullable(),
  /** sentences about files of an archive that could not be read while others could */
  passedOver: z.array(z.string()).default([]),
})
export const piece = pieceFields.extend({ id: z.uuid(), version: z.int(), createdAt: z.string() })
export type PieceRecord = z.infer<typeof piece>
export const arranged = z.object({ created: z.array(z.uuid()) })
export const pieceSummary = piece.extend({ parts: z.int(), done: z.int(), thumbnailMesh: z.string().nullable() })
export const pieceDetail = piece.extend({ partList: z.array(part), intakes: z.array(intake) })
export type PieceDetail = z.infer<typeof pieceDetail>

/** Where an airbrush or a lamp stands, degrees to the piece's own left of its front and up. */
const standing = z.object({
  turn: z.number().min(-180).max(180),
  lift: z.number().min(-90).max(90),
})
export const coat = z.object({
  id: z.string().max(40),
  regionId: z.int().min(0).max(255),
  technique: z.enum(TECHNIQUES),
  paintId: z.uuid().nullable().default(null),
  /** or a mix: drops by paint */
  mix: z
    .array(z.object({ paintId: z.uuid(), drops: z.int().min(1).max(12) }))
    .max(4)
    .default([]),
  /** dry film, µm, of all its coats together */
  film: z.number().min(0.5).max(400).default(40),
  /** volume share of paint in the thinned mix */
  pigment: z.number().min(0.02).max(1).default(1),
  tool: z.enum(['brush', 'airbrush']).default('brush'),
  /** where it is sprayed from, and half the angle of the cone; null: as the white from above */
  from: standing
    .extend({ spread: z.number().min(2).max(60) })
    .nullable()
    .default(null),
  /** share of the skin that spots or powder cover where they lie fully */
  coverage: z.number().min(0.02).max(0.95).default(0.4),
  /** mm, of dots and chips */
  grain: z.number().min(0.1).max(20).default(1.5),
})
export type Coat = z.infer<typeof coat>
export const region = z.object({
  id: z.int().min(0).max(255),
  name: z.string().trim().min(1).max(60),
  target: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i)
    .nullable()
    .default(null),
  /** what may come on it: anything; nothing, for it takes glue; inks only, for it is clear */
  takes: z.enum(['paint', 'glue', 'light']).default('paint'),
  /** what shines from inside a clear region: K, and how bright its bare skin is beside a white card in the case */
  behind: z
    .object({ kelvin: z.number().min(1800).max(10_000), strength: z.number().min(0.05).max(10) })
    .nullable()
    .default(null),
  /** pictures that it is painted after, each with the place (share of its width and height) whose colour was read */
  references: z
    .array(
      z.object({
        photo: z.string().length(64),
        x: z.number().min(0).max(1),
        y: z.number().min(0).max(1),
        hex: z.string().regex(/^#[0-9a-f]{6}$/i),
      }),
    )
    .max(8)
    .default([]),
})
export type Region = z.infer<typeof region>
/** Which region each vertex of one part's display copy belongs to. */
export const labelMap = z.object({
  partId: z.uuid(),
  meshHash: z.string().length(64).describe('display mesh on which the labels were painted'),
  labels: z.string().length(64).describe('blob of one byte per vertex'),
  chain: z
    .array(z.string().length(64))
    .max(40)
    .default([])
    .describe('meshes from the one that was on the table back to the sculpt: where the labels lie on it'),
  areas: z.record(z.string(), z.number().min(0)).describe('mm² by region id'),
  /** mm of edge that two regions share on this part */
  borders: z
    .array(
      z.object({
        a: z.int().min(0).max(255),
        b: z.int().min(0).max(255),
        mm: z.number().min(0),
        /** mm of it that tape, putty and liquid mask follow; null where it was not asked */
        masks: z
          .object({ tape: z.number().min(0), putty: z.number().min(0), liquid: z.number().min(0) })
          .nullable()
          .default(null),
      }),
    )
    .max(4096)
    .default([]),
})
export const scheme = z.object({
  version: z.int(),
  regions: z.array(region).min(1).max(64),
  coats: z.array(coat).max(400),
  maps: z.array(labelMap).max(200).default([]),
  /** ids of the coats in a painting order of one's own; those not named come last, as they are listed */
  order: z.array(z.string().max(40)).max(400).default([]),
  /** other stacks of a region, put aside */
  variants: z
    .array(
      z.object({
        id: z.string().max(40),
        regionId: z.int().min(0).max(255),
        name: z.string().trim().min(1, 'Give the stack a name.').max(60),
        coats: z.array(coat).max(60),
      }),
    )
    .max(100)
    .default([]),
  /** what is built up on regions: ground, snow, water, each so thick and over such a share of them */
  effects: z
    .array(
      z.object({
        id: z.string().max(40),
        regionId: z.int().min(0).max(255),
        kind: z.enum(EFFECT_KINDS),
        thickness: z.number().gt(0).max(50),
        coverage: z.number().gt(0).max(1),
      }),
    )
    .max(60)
    .default([]),
  /** both eyes of one part, and what they look at: degrees to the piece's own left and up, mm before the face */
  eyes: z
    .object({
      partId: z.uuid(),
      balls: z
        .array(z.object({ centre: triple, radius: z.number().gt(0).max(500), off: z.number().min(0) }))
        .min(1)
        .max(2),
      turn: z.number().min(-80).max(80).default(0),
      lift: z.number().min(-80).max(80).default(0),
      distance: z.number().min(1).max(100_000).default(300),
      lid: z.enum(LID_NAMES).default('calm'),
      /** of the ball's radius */
      iris: z.number().min(0.3).max(0.75).default(GROWN.iris),
      pupil: z.number().min(0.05).max(0.3).default(GROWN.pupil),
    })
    .nullable()
    .default(null),
})
export type Scheme = z.infer<typeof scheme>

export const logEntry = z.object({
  id: z.uuid(),
  pieceId: z.uuid(),
  stepKey: z.string().nullable(),
  text: z.string(),
  photo: z.string().nullable(),
  at: z.string(),
})
export const newLogEntry = z.object({
  /** made by who writes it, so that the same entry sent twice is one */
  id: z.uuid().optional(),
  /** when it was written, where it could not be sent at once */
  at: z.iso.datetime().optional(),
  stepKey: z.string().max(200).nullable().default(null),
  text: z.string().trim().max(10_000),
  photo: z.string().length(64).nullable().default(null),
})
export type LogEntry = z.infer<typeof logEntry>

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
  orderCosts: z
    .object({
      tape: z.number().min(0).max(60).describe('s a mm of edge, on and off'),
      cover: z.number().min(0).max(3600).describe('s a region covered'),
      cleanSpray: z.number().min(0).max(3600).describe('s for another colour'),
      cleanBrush: z.number().min(0).max(3600).describe('s for another colour'),
      lifts: z.number().min(0).max(1).describe('chance'),
      ghosts: z.number().min(0).max(1).describe('chance'),
    })
    .default({ ...ORDER_COSTS }),
  /** money an hour of hands-on work is reckoned at */
  labour: z.number().min(0).max(10_000).default(0),
  benchHours: z.array(benchHour).max(40),
  /** who works here; nobody named: one person, in the bench hours */
  people: z
    .array(
      z.object({
        name: z.string().trim().min(1, 'Give everybody a name.').max(80),
        /** their own; null: the bench hours */
        hours: z.array(benchHour).max(40).nullable().default(null),
        off: z.array(z.iso.date()).max(400).default([]),
      }),
    )
    .max(20)
    .refine((p) => new Set(p.map((x) => x.name)).size === p.length, 'Two people have the same name. Tell them apart.')
    .default([]),
  /** how many there are of what steps need */
  places: z.record(z.string().max(80), z.int().min(1).max(50)).default({}),
  /** IANA name; of the clock that bench hours are read on */
  timeZone: z
    .string()
    .max(60)
    .refine(isZone, 'This time zone is not known. It is written as Europe/Berlin.')
    .nullable()
    .default(null),
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
    .array(z.object({ name: z.string().trim().min(1, 'Give the stack a name.').max(60), coats: z.array(coat).max(60) }))
    .max(100)
    .default([]),
  /** how far the demo has been filled in; null where the workshop was never a demo */
  demo: z.enum(['filling', 'done']).nullable().default(null),
  version: z.int(),
})
export type Workshop = z.infer<typeof workshop>
