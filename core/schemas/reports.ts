import { z } from 'zod'
import type { Mishap } from '../print/hanging/hanging'
import type { Pool } from '../print/resin/cavityFlow'
import type { RepairReport } from '../mesh/repair'
import type { Cup, Island } from '../raster/layerGraph'
import type { DrilledHole } from '../shape/drill'
import type { DrainSite } from '../shape/drillSkin'
import { drainHole, point } from './geometry'
import type { Said } from '../words/say'
import { isMessage } from '../words/message'

/** What several reports have in common. */

export const repairReport = z.object({
  welded: z.number(),
  degenerate: z.number(),
  duplicate: z.number(),
  nonManifoldFaces: z.number(),
  turned: z.number(),
  crumbs: z.number(),
  holesFilled: z.number(),
  patchFaces: z.number(),
}) satisfies z.ZodType<RepairReport>

export const drilledHole = z.object({
  ...drainHole.shape,
  diameter: z.number(),
  depth: z.number(),
  clear: z.number(),
  edge: z.number(),
}) satisfies z.ZodType<DrilledHole>

/** A sentence of a report, which is said to who asks in his own words. */
export const said = z.custom<Said>((v) => typeof v === 'string' || isMessage(v), 'a sentence or a message')

export const drainSite = drilledHole.extend({
  hidden: z.number(),
  covered: z.boolean(),
  cavity: z.number(),
  reason: said,
  score: z.object({ hidden: z.number(), place: z.number(), thin: z.number(), edge: z.number() }),
}) satisfies z.ZodType<DrainSite>

export const island = z.object({
  layer: z.number(),
  x: z.number(),
  y: z.number(),
  area: z.number(),
}) satisfies z.ZodType<Island>

export const cup = z.object({
  firstLayer: z.number(),
  lastLayer: z.number(),
  worstLayer: z.number(),
  x: z.number(),
  y: z.number(),
  startX: z.number(),
  startY: z.number(),
  area: z.number(),
  force: z.number(),
}) satisfies z.ZodType<Cup>

const where = { layer: z.number(), x: z.number(), y: z.number(), z: z.number() }
export const mishap = z.discriminatedUnion('kind', [
  z.object({ ...where, kind: z.literal('island'), area: z.number() }),
  z.object({ ...where, kind: z.literal('tip'), force: z.number(), capacity: z.number(), fell: z.boolean() }),
  z.object({ ...where, kind: z.literal('cup'), area: z.number(), force: z.number(), wall: z.number() }),
]) satisfies z.ZodType<Mishap>

export const pool = z.object({
  volume: z.number(),
  centre: point,
  deepest: point,
  inside: z.boolean(),
}) satisfies z.ZodType<Pool>

/** One value per vertex in a file beside it. */
export const vertexMap = z.object({ vertices: z.number() })

export const problem = z.object({ code: z.string(), message: said })
