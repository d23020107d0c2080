import { z } from 'zod'
import { drainHole } from './operations'
import { printer, slicedResin } from './stock'

const point = z.tuple([z.number(), z.number(), z.number()])

/** Where a hand has put a part: mm of its origin from the plate's middle, radians. */
export const plateLock = z.object({
  copy: z.int().min(0).max(200),
  printer: z.string().max(60),
  plate: z.int().min(0).max(500),
  x: z.number(),
  y: z.number(),
  angle: z.number(),
})
const hash = z.string().regex(/^[0-9a-f]{64}$/)
const detailLimits = {
  layerHeight: z.number().min(0).max(1),
  pitch: z.number().min(0).max(1),
  film: z.number().min(0).max(2).describe('mm of primer and paint'),
}
const weight = z.object({
  density: z.number().min(-25).max(25).describe('g/cm³; below 0 it is taken off what the others weigh'),
  infill: z.number().min(0).max(1).default(1),
})

/** What bends a standing body: `LoadCase` of core/fit/wallLoad. */
const loadCase = {
  wall: z.number().min(0.4).max(20),
  density: z.number().min(0.5).max(3),
  push: z.number().min(0).max(200).default(3),
  handling: z.number().min(0).max(50).default(5),
  allow: z.number().min(0.1).max(100).default(10),
}

/** Checks that can be asked of a mesh; like operations they are cached for ever under their key. */
export const check = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('health') }),
  z.object({
    kind: z.literal('display'),
    faces: z.int().min(1000).max(400_000).default(120_000),
    bodyFaces: z.int().min(0).optional().describe('faces before this index are the body, the rest its supports'),
  }),
  z.object({
    kind: z.literal('drainSites'),
    diameter: z.number().min(1).max(20),
    down: point,
    others: z.array(hash).max(64).default([]).describe('parts that will cover some of the skin'),
  }),
  z.object({
    kind: z.literal('holeNear'),
    point,
    diameter: z.number().min(1).max(20),
    others: z.array(hash).max(64).default([]),
    snap: z.number().min(0).max(50).default(6).describe('mm within which a covered place is taken instead'),
    within: z.number().min(0).max(100).default(15).describe('mm'),
  }),
  z.object({
    kind: z.literal('ventSite'),
    point,
    quaternion: z.tuple([z.number(), z.number(), z.number(), z.number()]),
    shift: point,
    diameter: z.number().min(1).max(20),
  }),
  z.object({
    kind: z.literal('orientations'),
    limit: z.number().min(15).max(75),
    volume: point,
    focal: z
      .array(z.object({ point, radius: z.number().min(0.01).max(1000) }))
      .max(500)
      .default([]),
    others: z.array(hash).max(64).default([]).describe('parts that will cover some of the skin'),
    keep: z
      .object({ direction: point, within: z.number().min(1).max(120).describe('degrees') })
      .nullable()
      .default(null)
      .describe('what is to look up'),
  }),
  z.object({ kind: z.literal('coveredDabs'), others: z.array(hash).max(64), spacing: z.number().min(0.3).max(50) }),
  z.object({ kind: z.literal('presupported') }),
  z.object({ kind: z.literal('stepsMap'), up: point, layerHeight: z.number().gt(0).max(1) }),
  z.object({ kind: z.literal('thinness'), limit: z.number().min(0.05).max(10) }),
  z.object({ kind: z.literal('thicknessMap') }),
  z.object({
    kind: z.literal('detail'),
    ...detailLimits,
    factors: z.array(z.number().gt(0).max(10_000)).min(1).max(12),
  }),
  z.object({ kind: z.literal('detailMap'), other: hash, factor: z.number().gt(0).max(10_000), ...detailLimits }),
  z.object({ kind: z.literal('stretchMap'), others: z.array(hash).length(2).describe('posed, and before the pose') }),
  z.object({
    kind: z.literal('restingPlaces'),
    others: z.array(hash).min(2).max(40).describe('from the mesh on the table back to the sculpt'),
  }),
  z.object({ kind: z.literal('axis'), point }),
  z.object({ kind: z.literal('skinLine'), places: z.array(point).min(2).max(200), closed: z.boolean() }),
  z.object({
    kind: z.literal('cutPlanes'),
    volume: point,
    focal: z
      .array(z.object({ point, radius: z.number().gt(0).max(500) }))
      .max(200)
      .default([]),
  }),
  z.object({
    kind: z.literal('lightRoute'),
    others: z.array(hash).max(64),
    from: point,
    to: point,
    diameter: z.number().min(0.5).max(40),
    wall: z.number().min(0.2).max(20),
  }),
  z.object({ kind: z.literal('wallLoad'), ...loadCase }),
  z.object({
    kind: z.literal('coreChoices'),
    others: z.array(hash).length(1).describe('the hollowed body'),
    casting: z.number().min(0.5).max(3).describe('g/ml'),
    ...loadCase,
  }),
  z.object({ kind: z.literal('trapped'), down: point }),
  z.object({ kind: z.literal('rinse'), holes: z.array(drainHole).max(64).default([]) }),
  z.object({ kind: z.literal('layers'), step: z.number().min(0.02).max(1) }),
  z.object({
    kind: z.literal('archive'),
    pitch: z
      .tuple([z.number().gt(0).max(1), z.number().gt(0).max(1)])
      .optional()
      .describe('mm a pixel, where the archive does not say'),
    layerHeight: z.number().gt(0).max(1).optional().describe('mm'),
  }),
  z.object({ kind: z.literal('slice'), printer, resin: slicedResin }),
  z.object({
    kind: z.literal('nest'),
    others: z.array(hash).max(199).describe('the other parts that are to be printed'),
    parts: z
      .array(
        z.object({
          id: z.string().max(60),
          copies: z.int().min(1).max(200),
          turn: z.boolean(),
          locks: z.array(plateLock).max(200).default([]),
        }),
      )
      .min(1)
      .max(200)
      .describe('of the mesh and the others, in order'),
    printers: z
      .array(printer.extend({ id: z.string().max(60) }))
      .min(1)
      .max(20),
    resin: slicedResin,
    margin: z.number().min(0).max(50).default(2).describe('mm'),
    aim: z.enum(['hours', 'soonest']).default('hours'),
  }),
  z.object({
    kind: z.literal('plate'),
    others: z.array(hash).max(199),
    parts: z
      .array(z.object({ of: z.int().min(0), x: z.number(), y: z.number(), angle: z.number() }))
      .min(1)
      .max(1000)
      .describe('`of`: 0 is the mesh, from 1 on the others; mm from the plate’s middle, radians'),
  }),
  z.object({
    kind: z.literal('export'),
    format: z.enum(['stl', 'obj', 'ply', '3mf', 'glb']),
    name: z.string().max(80),
  }),
  z.object({
    kind: z.literal('outlines'),
    format: z.enum(['3mf', 'svg']),
    printer,
  }),
  z.object({ kind: z.literal('measures') }),
  z.object({ kind: z.literal('cusps'), up: point, layerHeight: z.number().min(0.005).max(1) }),
  z.object({
    kind: z.literal('access'),
    others: z.array(hash).max(64).describe('parts as they stand to it once joined'),
  }),
  z.object({ kind: z.literal('rest'), others: z.array(hash).max(64) }),
  z.object({ kind: z.literal('inward'), point, normal: point }),
  z.object({ kind: z.literal('floor') }),
  z.object({
    kind: z.literal('scan'),
    stations: z
      .array(z.object({ azimuth: z.number(), elevation: z.number().min(-60).max(90) }))
      .min(1)
      .max(64),
    across: z.int().min(20).max(600).default(220),
    noise: z.number().min(0).max(0.05).default(0.001),
    dropouts: z.number().min(0).max(0.95).default(0.1),
    floor: z.boolean().default(true),
    seed: z
      .int()
      .min(0)
      .max(2 ** 31),
  }),
  z.object({ kind: z.literal('fit'), other: hash, reach: z.number().gt(0).max(20).default(3) }),
  z.object({ kind: z.literal('gapMap'), other: hash, reach: z.number().gt(0).max(20).default(3) }),
  z.object({ kind: z.literal('difference'), other: hash }),
  z.object({
    kind: z.literal('balance'),
    others: z.array(hash).max(64),
    weights: z.array(weight).min(1).max(65),
    wish: z.number().min(1).max(80).default(15),
  }),
  z.object({
    kind: z.literal('keySites'),
    point,
    normal: point,
    wall: z.number().min(0.3).max(20),
    clearance: z.number().min(0).max(2),
    draft: z.number().min(0).max(15),
  }),
  z.object({ kind: z.literal('surfaceMaps'), brush: z.number().gt(0).max(20), direction: point }),
])
export type Check = z.infer<typeof check>

export const derivationStatus = z.enum(['waiting', 'running', 'done', 'failed'])
export const derivation = z.object({
  key: z.string(),
  kind: z.string(),
  status: derivationStatus,
  progress: z.number(),
  meshHash: z.string().nullable(),
  /** name → blob hash of what else was made (a zip, an export, vertex maps) */
  blobs: z.record(z.string(), z.string()),
  report: z.unknown(),
  problem: z.object({ code: z.string(), message: z.string() }).nullable(),
})
export type DerivationRecord = z.infer<typeof derivation>

/** Meshes a check needs beside the one it is asked of, in the order in which it gets them. */
export const othersAsked = (check: Check): string[] => [
  ...('other' in check ? [check.other] : []),
  ...('others' in check ? check.others : []),
]
