import { z } from 'zod'
import { PAINT_KINDS } from '../core/paint/recipes/recipe'
import { hex, lab } from './colour'

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
  film: z.string().trim().max(80).default('').describe('what lies under the vat'),
  filmPull: z.number().min(0.1).max(5).default(1).describe('peel on it over the resin’s figure'),
  compensation: compensation.default(compensation.parse({})),
})
export const resin = z.object({
  name: z.string().min(1).max(80),
  density: z.number().gt(0.5).max(3).default(1.12).describe('g/ml'),
  pricePerLitre: z.number().min(0).default(38),
  exposure: z.number().gt(0).max(600).default(2.4).describe('s'),
  bottomExposure: z.number().gt(0).max(600).default(26).describe('s'),
  peelPressure: z.number().gt(0).default(12_000).describe('Pa'),
  greenStrength: z.number().gt(0).default(4.5e6).describe('Pa'),
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
})
/** What slicing needs of a resin: what it is, not what was learned with it. */
export const slicedResin = resin.omit({ prints: true, level: true, bottles: true })
export const PAINT_FINISHES = ['matt', 'satin', 'gloss', 'metal'] as const
export const paint = z.object({
  name: z.string().trim().min(1, 'Give it a name.').max(80),
  /** what it looks like on a screen where it hides */
  hex,
  /** the same as measured or as it is published; null: by `hex` */
  lab: lab.nullable().default(null),
  /** one brushed coat over black, where a second swatch was made */
  overBlack: lab.nullable().default(null),
  opacity: z.number().min(0).max(1).describe('contrast ratio of one brushed coat'),
  kind: z.enum(PAINT_KINDS),
  finish: z.enum(PAINT_FINISHES).default('matt'),
  /** volume share of paint in what is laid, by tool */
  thinning: z
    .object({ brush: z.number().min(0.05).max(1), airbrush: z.number().min(0.05).max(1) })
    .default({ brush: 0.8, airbrush: 0.5 }),
  /** ml left */
  level: z.number().min(0).default(17),
  price: z.number().min(0).max(1e4).default(0).describe('money for 1 ml; 0 where it is not known'),
  opened: z.iso.date().nullable().default(null),
  /** bottles that were measured, the one in use first: lots of one paint differ */
  lots: z
    .array(z.object({ lot: z.string().trim().max(80), lab, opened: z.iso.date().nullable().default(null) }))
    .max(50)
    .default([]),
})
export const STOCK_UNITS = ['ml', 'g', 'mm', 'sheets', 'pieces'] as const
/** What steps use up, by hand, brush or can. */
export const material = z.object({
  name: z.string().trim().min(1, 'Give it a name.').max(80),
  /** supplies that it serves as, as core/plan/materials/supplies names them */
  serves: z.array(z.string().max(80)).max(20).default([]),
  unit: z.enum(STOCK_UNITS).default('ml'),
  density: z.number().gt(0).max(25).nullable().default(null).describe('g/ml'),
  price: z.number().min(0).max(1e6).default(0).describe('money for one of its unit'),
  reorder: z.number().min(0).max(1e6).nullable().default(null).describe('amount at which more is bought'),
  safety: z.string().max(500).default(''),
  /** as it says on this product: until it is too late, and until it may be worked on; null: as usual for what it serves as */
  working: z.number().gt(0).max(1440).nullable().default(null).describe('min at 20 °C'),
  next: z.number().gt(0).max(14_400).nullable().default(null).describe('min at 20 °C and 50 %'),
  lots: z
    .array(
      z.object({
        lot: z.string().trim().max(80).default(''),
        amount: z.number().min(0, 'Less than nothing is left of no lot.').max(1e7),
        opened: z.iso.date().nullable().default(null),
        keeps: z.int().min(1).max(240).default(24).describe('months once open'),
        bestBefore: z.iso.date().nullable().default(null).describe('while it is shut'),
      }),
    )
    .max(100)
    .default([]),
})
export type MaterialRecord = z.infer<typeof material>
export const stockKind = z.enum(['printer', 'resin', 'paint', 'material'])

export const shoppingRow = z.object({
  what: z.string(),
  name: z.string(),
  unit: z.enum(STOCK_UNITS),
  need: z.number().describe('by all that is planned'),
  have: z.number().describe('that keeps until it is needed'),
  spoils: z.number().describe('that there is, but will not keep until then'),
  buy: z.number(),
  cost: z.number(),
  by: z.number().nullable().describe('ms at which it is needed first'),
  pieces: z.array(z.string()),
  itemId: z.string().nullable(),
  why: z.enum(['short', 'none', 'reorder']),
})
export type ShoppingRow = z.infer<typeof shoppingRow>

/** What `undercut slice --printer` reads: a printer with the resin in it. */
export const printerFile = printer.extend({ resin: resin.default(resin.parse({ name: 'standard resin' })) })
export type PrinterRecord = z.infer<typeof printer>
export type PrinterInput = z.input<typeof printer>
export type ResinRecord = z.infer<typeof resin>
export type PaintRecord = z.infer<typeof paint>
export type PaintInput = z.input<typeof paint>
