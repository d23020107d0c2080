import { z } from 'zod'
import { GROWN, LID_NAMES } from '../core/defaults/paint'
import { TECHNIQUES } from '../core/defaults/paint'
import { TINT } from '../core/defaults/paint'
import { EFFECT_KINDS } from '../core/defaults/plan'
import { hex } from './colour'
import { nameOf } from './name'

const triple = z.tuple([z.number(), z.number(), z.number()])
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
  target: hex.nullable().default(null),
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
        hex,
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
  /** colour of the primer, where it is tinted */
  tint: hex.default(TINT),
  maps: z.array(labelMap).max(200).default([]),
  /** ids of the coats in a painting order of one's own; those not named come last, as they are listed */
  order: z.array(z.string().max(40)).max(400).default([]),
  /** other stacks of a region, put aside */
  variants: z
    .array(
      z.object({
        id: z.string().max(40),
        regionId: z.int().min(0).max(255),
        name: nameOf(60, 'forms.giveTheStackAName'),
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
