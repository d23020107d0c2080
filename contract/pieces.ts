import { z } from 'zod'
import { LANDMARKS, TIP_WISH } from '../core/defaults/fit'
import { UNDERCOATS } from '../core/defaults/paint'
import { MUTING, TONE_SCHOOLS } from '../core/defaults/paint'
import { plateLock } from '../core/schemas/plateLock'
import { derivation } from './derivations'
import { operation } from './operations'
import { nameOf } from './name'

export const schools = z.object({
  strip: z.enum(['beforeWash', 'afterWash', 'afterCure']),
  sanding: z.enum(['wet', 'dry']),
  undercoat: z.enum(UNDERCOATS),
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
  name: nameOf(120, 'forms.giveThePieceAName'),
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
  tipWish: z.number().min(1).max(80).default(TIP_WISH),
  plating: plating.default(plating.parse({})),
  /** pairs that were put together dry, by the ids of both parts: mm too tight, below 0 too loose; null: it fits */
  dryFits: z.record(z.string(), z.object({ tight: z.number().min(-10).max(10).nullable() })).default({}),
  /** what for: prints of a sculpt that may not be sold must not be */
  purpose: z.enum(['keep', 'sell', 'commission']).default('keep'),
  /** parts that are moved together, by the name of their group */
  groups: z.record(z.string(), z.string().trim().max(60)).default({}),
  /** fillers and adhesives that are not used on it, by their ids in core/plan/materials/materials */
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
