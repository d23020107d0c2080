import { z } from 'zod'
import { nameOf } from './name'

export const maySell = z.enum(['yes', 'ask', 'no'])
export const sculptFields = z.object({
  name: nameOf(120, 'forms.giveTheSculptAName'),
  tags: z.array(z.string().trim().toLowerCase().min(1).max(40)).max(30).default([]),
  origin: z.string().trim().max(1000).default('').describe('who made it, where it is from'),
  licence: z.string().trim().max(2000).default('').describe('what was agreed about its use'),
  maySell: maySell.default('ask').describe('whether prints of it may be sold'),
})

/** A sculpt or scan as it came, to be used in any number of pieces. Editions of one sculpt share their family. */
export const sculpt = sculptFields.extend({
  id: z.uuid(),
  version: z.int(),
  family: z.uuid(),
  edition: z.int(),
  fileName: z.string(),
  mesh: z.string(),
  createdAt: z.string(),
  usedIn: z.array(z.object({ id: z.uuid(), name: z.string() })),
})
export type SculptRecord = z.infer<typeof sculpt>
export const changedSculpt = sculptFields.partial().extend({ version: z.int() })
export const editionOf = z.object({ version: z.int(), of: z.uuid().nullable() })
