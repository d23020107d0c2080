import { z } from 'zod'
import { lab } from './colour'
import { words } from './issues'
import { nameOf } from './name'

const blob = z.string().length(64)
/** A mix that was used: what is needed to mix it again, and to see how far off the next lot is. */
export const mixFields = z.object({
  name: nameOf(120, 'forms.giveTheMixAName'),
  pieceId: z.uuid().nullable().default(null),
  region: z.string().trim().max(60).default(''),
  coat: z.string().trim().max(60).default(''),
  tool: z.enum(['brush', 'airbrush']).default('brush'),
  target: lab.nullable().default(null),
  /** at full hiding, by the optics of then */
  predicted: lab,
  /** read off a swatch of the pot */
  measured: lab.nullable().default(null),
  drops: z
    .array(
      z.object({
        paintId: z.uuid(),
        name: z.string().max(80).describe('as it was called then'),
        lot: z.string().max(80).default(''),
        lab: lab.describe('of the bottle of then'),
        drops: z.int().min(1).max(999),
      }),
    )
    .min(1, words('forms.aMixHasAtLeast'))
    .max(8),
  /** how often the drops were counted out */
  batches: z.number().min(0.5).max(1000).default(1),
  /** ml put by for touching up */
  kept: z.number().min(0).max(1000).default(0),
  mixedOn: z.iso.date(),
  photo: blob.nullable().default(null),
  note: z.string().max(2000).default(''),
})
export type MixFields = z.infer<typeof mixFields>
export type MixInput = z.input<typeof mixFields>
export const mixRecord = mixFields.extend({ id: z.uuid(), version: z.int() })
export type MixRecord = z.infer<typeof mixRecord>
export const changedMix = mixFields.partial().extend({ version: z.int() })
