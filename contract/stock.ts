import { z } from 'zod'
import { STARTER_SIZES, STOCK_UNITS } from '../core/defaults/stock'
import { printer, resin, starting } from '../core/schemas/printer'
import { PAINT_KINDS } from '../core/defaults/paint'
import { hex, lab } from './colour'
import { words } from './issues'
import { nameOf } from './name'

export { compensation, printer, resin, slicedResin } from '../core/schemas/printer'
export const PAINT_FINISHES = ['matt', 'satin', 'gloss', 'metal'] as const
export const paint = z.object({
  name: nameOf(80, 'forms.giveItAName'),
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
  starting,
  /** bottles that were measured, the one in use first: lots of one paint differ */
  lots: z
    .array(z.object({ lot: z.string().trim().max(80), lab, opened: z.iso.date().nullable().default(null) }))
    .max(50)
    .default([]),
})
/** What steps use up, by hand, brush or can. */
export const material = z.object({
  name: nameOf(80, 'forms.giveItAName'),
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
  starting,
  lots: z
    .array(
      z.object({
        lot: z.string().trim().max(80).default(''),
        amount: z.number().min(0, words('forms.lessThanNothingIsLeft')).max(1e7),
        opened: z.iso.date().nullable().default(null),
        keeps: z.int().min(1).max(240).default(24).describe('months once open'),
        bestBefore: z.iso.date().nullable().default(null).describe('while it is shut'),
      }),
    )
    .max(100)
    .default([]),
})
export type MaterialRecord = z.infer<typeof material>
/** What a starter stock is made for. */
export const starterWish = z.object({ printer: z.enum(STARTER_SIZES) })
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
