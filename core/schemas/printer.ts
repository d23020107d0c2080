import { GREEN_STRENGTH, PEEL_PRESSURE } from '../defaults/print'
import { z } from 'zod'

const ratio = z.number().min(0.9).max(1.1)
/** What a printer does to what is drawn: core/print/slice/compensation. */
export const compensation = z.object({
  scale: z.tuple([ratio, ratio, ratio]).default([1, 1, 1]),
  growth: z.number().min(-0.5).max(0.5).default(0).describe('mm per side'),
  bleed: z.number().min(0).max(1).default(0).describe('mm per side'),
  bleedLayers: z.int().min(0).max(200).default(0),
  mirrorX: z.boolean().default(false),
  mirrorY: z.boolean().default(false),
  greys: z.int().min(2).max(256).default(256),
})
/** Whether its figures are those of the starter stock, which nobody has set yet. */
export const starting = z.literal(true).optional()
export const printer = z.object({
  name: z.string().min(1).max(80),
  pixelsX: z.int().min(16).max(40_000),
  pixelsY: z.int().min(16).max(40_000),
  pitchX: z.number().gt(0.005).max(1).describe('mm'),
  pitchY: z.number().gt(0.005).max(1).describe('mm'),
  height: z.number().gt(1).max(2000).describe('mm'),
  layerHeight: z.number().min(0.01).max(0.4).describe('mm'),
  liftTime: z.number().min(0).max(120).default(3.2).describe('s'),
  retractTime: z.number().min(0).max(120).default(2.4).describe('s'),
  restTime: z.number().min(0).max(120).default(1).describe('s'),
  bottomLayers: z.int().min(0).max(100).default(5),
  film: z.string().trim().max(80).default('').describe('the film under the vat'),
  filmPull: z.number().min(0.1).max(5).default(1).describe('peel on it over the resin’s figure'),
  compensation: compensation.default(compensation.parse({})),
  starting,
})
export const resin = z.object({
  name: z.string().min(1).max(80),
  density: z.number().gt(0.5).max(3).default(1.12).describe('g/ml'),
  pricePerLitre: z.number().min(0).default(38),
  exposure: z.number().gt(0).max(600).default(2.4).describe('s'),
  bottomExposure: z.number().gt(0).max(600).default(26).describe('s'),
  peelPressure: z.number().gt(0).default(PEEL_PRESSURE).describe('Pa'),
  greenStrength: z.number().gt(0).default(GREEN_STRENGTH).describe('Pa'),
  clear: z.boolean().default(false),
  level: z.number().min(0).max(1e6).nullable().default(null).describe('ml in all bottles; null when not counted'),
  bottles: z
    .array(
      z.object({
        lot: z.string().trim().max(80).default(''),
        ml: z.number().min(0).max(100_000),
        opened: z.iso.date().nullable().default(null),
        keeps: z.int().min(1).max(120).default(12).describe('months once open'),
      }),
    )
    .max(100)
    .default([])
    .describe('counted one by one; none: `level` stands for all'),
  prints: z
    .array(
      z.object({
        on: z.string().max(40).describe('day'),
        utilisation: z.number().min(0).max(100).describe('of the worst tip, by the figures of then'),
        peelPressure: z.number().gt(0).describe('Pa'),
        greenStrength: z.number().gt(0).describe('Pa'),
        held: z.boolean(),
      }),
    )
    .max(400)
    .default([])
    .describe('what prints taught about supports'),
  starting,
})
/** What slicing needs of a resin: what it is, not what was learned with it. */
export const slicedResin = resin.omit({ prints: true, level: true, bottles: true })
