import { z } from 'zod'
import { repairDefaults } from '../core/mesh/repair'

const point = z.tuple([z.number(), z.number(), z.number()])
const quaternion = z.tuple([z.number(), z.number(), z.number(), z.number()])
const grade = z.enum(['whisker', 'strut', 'post'])

export const supportEdit = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('add'), point, grade }),
  z.object({ kind: z.literal('remove'), point }),
  z.object({ kind: z.literal('regrade'), point, grade }),
])

export const drainHole = z.object({
  point: point.describe('on the outer skin, mm'),
  direction: point.describe('unit vector into the body'),
  diameter: z.number().min(1).max(40).describe('mm'),
})

/** The operation records of a part, with defaults, as they cross the API, the archive and the command line. */
export const operation = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('repair'),
    weld: z.number().min(0).max(1).default(repairDefaults.weld).describe('mm; corners nearer than this become one'),
    dropCrumbs: z.boolean().default(true), fillHoles: z.boolean().default(true),
  }),
  z.object({ kind: z.literal('scale'), factor: z.number().gt(0).max(10_000) }),
  z.object({
    kind: z.literal('hollow'),
    wall: z.number().min(0.4).max(20).describe('mm'),
    voxel: z.number().min(0.05).max(5).default(0.5).describe('mm'),
    opening: z.number().min(0.2).max(20).default(1).describe('mm; slits of the cavity narrower than twice this are closed'),
    leastPocket: z.number().min(0).default(100).describe('mm³; smaller cavities stay solid'),
  }),
  z.object({ kind: z.literal('drill'), holes: z.array(drainHole).min(1).max(64) }),
  z.object({ kind: z.literal('orient'), quaternion: quaternion.describe('x, y, z, w') }),
  z.object({
    kind: z.literal('support'),
    limit: z.number().min(15).max(75).default(40).describe('degrees from the plate below which skin needs support'),
    spacing: z.number().min(0.8).max(20).default(3.5).describe('mm between tips'),
    clearance: z.number().min(0.1).max(5).default(0.6).describe('mm between stems and body'),
    lift: z.number().min(0).max(40).default(5).describe('mm between raft and body; 0 stands it on the plate'),
    peelPressure: z.number().min(100).max(200_000).default(12_000).describe('Pa'),
    greenStrength: z.number().min(1e5).max(1e8).default(4.5e6).describe('Pa'),
    automatic: z.boolean().default(true),
    edits: z.array(supportEdit).max(5000).default([]),
  }),
])
export type OperationRecord = z.infer<typeof operation>
export type OperationInput = z.input<typeof operation>
export const operationList = z.array(operation).max(200)
