import { z } from 'zod'
import type { Cause, FlawKind } from '../core/plan/facts/flaws'
import { words } from './issues'

export const FLAW_KINDS = [
  'pit',
  'step',
  'seam',
  'scratch',
  'dust',
  'run',
  'missing',
] as const satisfies readonly FlawKind[]
const place = z.tuple([z.number(), z.number(), z.number()])

/** What the skin shows under primer. */
export const flawFields = z.object({
  kind: z.enum(FLAW_KINDS),
  /** mm across, or along a seam */
  size: z.number().gt(0, words('forms.aFlawHasASize')).max(500),
  note: z.string().max(2000).default(''),
  photo: z.string().length(64).nullable().default(null),
})
export const newFlaw = flawFields.extend({
  /** made by who marks it, so that the same mark sent twice is one */
  id: z.uuid(),
  partId: z.uuid(),
  point: place.describe('mm, on the part as it stands in the piece'),
})
export const FLAW_STATES = ['open', 'mended', 'accepted'] as const
export const changedFlaw = flawFields.partial().extend({ version: z.int(), state: z.enum(FLAW_STATES).optional() })

const flawCause: z.ZodType<Cause> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('tip'), tip: z.number().describe('mm'), focal: z.boolean() }),
  z.object({ kind: z.literal('layers') }),
  z.object({ kind: z.literal('joint') }),
  z.object({ kind: z.literal('sanding') }),
  z.object({ kind: z.literal('spray') }),
])

export const flaw = newFlaw.extend({
  pass: z.int().min(1),
  closedPass: z.int().nullable(),
  state: z.enum(FLAW_STATES),
  cause: flawCause.nullable(),
  region: z.string().nullable().default(null).describe('of the scheme, in which it is'),
  version: z.int(),
})
export type FlawRecord = z.infer<typeof flaw>

export const inspection = z.object({
  passes: z.array(
    z.object({ pass: z.int(), begunAt: z.string(), endedAt: z.string().nullable(), note: z.string(), found: z.int() }),
  ),
  flaws: z.array(flaw),
  /** the last pass found nothing, or what is left was accepted */
  closed: z.boolean(),
})
export type Inspection = z.infer<typeof inspection>
export const endedPass = z.object({ note: z.string().max(2000).default(''), acceptRest: z.boolean().default(false) })
