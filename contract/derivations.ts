import { z } from 'zod'
import { printer, resin } from './stock'

const point = z.tuple([z.number(), z.number(), z.number()])

/** Checks that can be asked of a mesh; like operations they are cached for ever under their key. */
export const check = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('health') }),
  z.object({ kind: z.literal('display'), faces: z.int().min(1000).max(400_000).default(120_000), bodyFaces: z.int().min(0).optional().describe('faces before this index are the body, the rest its supports') }),
  z.object({ kind: z.literal('drainSites'), diameter: z.number().min(1).max(20), down: point }),
  z.object({ kind: z.literal('orientations'), limit: z.number().min(15).max(75), volume: point }),
  z.object({ kind: z.literal('thinness'), limit: z.number().min(0.05).max(10) }),
  z.object({ kind: z.literal('layers'), step: z.number().min(0.02).max(1) }),
  z.object({ kind: z.literal('slice'), printer, resin }),
  z.object({ kind: z.literal('export'), format: z.enum(['stl', 'obj', '3mf']), name: z.string().max(80) }),
  z.object({ kind: z.literal('surfaceMaps'), brush: z.number().gt(0).max(20), direction: point }),
])
export type Check = z.infer<typeof check>

export const derivationStatus = z.enum(['waiting', 'running', 'done', 'failed'])
export const derivation = z.object({
  key: z.string(), kind: z.string(), status: derivationStatus, progress: z.number(),
  meshHash: z.string().nullable(),
  /** name → blob hash of what else was made (a zip, an export, vertex maps) */
  blobs: z.record(z.string(), z.string()),
  report: z.unknown(),
  problem: z.object({ code: z.string(), message: z.string() }).nullable(),
})
export type DerivationRecord = z.infer<typeof derivation>
