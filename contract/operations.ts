import { z } from 'zod'
import { repairDefaults } from '../core/mesh/repair'

const point = z.tuple([z.number(), z.number(), z.number()])
const quaternion = z.tuple([z.number(), z.number(), z.number(), z.number()])
const grade = z.enum(['whisker', 'strut', 'post'])

export const supportEdit = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('add'), point, grade }),
  z.object({ kind: z.literal('remove'), point, radius: z.number().min(0.1).max(200).optional().describe('mm') }),
  z.object({ kind: z.literal('regrade'), point, grade }),
  z.object({ kind: z.literal('move'), point, to: point }),
  z.object({ kind: z.literal('drop'), point }).describe('the loose piece there is not printed'),
])

export const drainHole = z.object({
  point: point.describe('on the outer skin, mm'),
  direction: point.describe('unit vector into the body'),
  diameter: z.number().min(1).max(40).describe('mm'),
})

const direction = point.refine((v) => Math.abs(Math.hypot(...v) - 1) < 1e-3, 'must be a unit vector')
const hash = z.string().regex(/^[0-9a-f]{64}$/)

type Nine = [N, N, N, N, N, N, N, N, N]
type N = z.ZodNumber

/** Stands where no mesh of the store is meant. */
export const NO_MESH = '0'.repeat(64)

export const fixing = z.object({
  shape: z.enum(['key', 'ball', 'pin', 'magnet']),
  role: z.enum(['plug', 'socket']),
  point,
  direction,
  width: z.number().min(0.4).max(60).describe('mm'),
  length: z.number().min(0).max(100).describe('mm'),
  draft: z.number().min(0).max(15).default(3).describe('degrees'),
  clearance: z.number().min(0).max(2).default(0.1).describe('mm per side'),
})
export type FixingRecord = z.infer<typeof fixing>

export const joint = z.object({
  name: z.string().trim().min(1).max(60),
  parent: z
    .int()
    .min(-1)
    .describe('index of the joint it hangs on; −1 for a root; parents stand before their children'),
  position: point.describe('mm, inside the sculpt as it is before posing'),
  turn: quaternion.default([0, 0, 0, 1]).describe('x, y, z, w against its parent'),
})
export type JointRecord = z.infer<typeof joint>

const paint = z.array(z.object({ point, radius: z.number().min(0.1).max(1000) })).max(2000)
const dabs = z
  .array(z.object({ point, radius: z.number().min(0.1).max(200).describe('mm') }))
  .min(1)
  .max(500)

/** The operation records of a part, with defaults, as they cross the API, the archive and the command line. */
export const operation = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('base'),
    outline: z.enum(['round', 'rounded']).default('round'),
    width: z.number().min(5).max(1000).default(80).describe('mm across the front'),
    depth: z.number().min(5).max(1000).default(80).describe('mm from front to back'),
    height: z.number().min(1).max(500).default(12).describe('mm'),
    corner: z.number().min(0).max(200).default(6).describe('mm'),
    side: z.enum(['plain', 'stepped', 'turned']).default('plain'),
    steps: z.int().min(1).max(8).default(2),
    profile: z
      .array(z.tuple([z.number().min(0).max(1.5), z.number().min(0).max(1)]))
      .max(60)
      .default([])
      .describe('turned: share of half the width and share of the height, from the foot up'),
    top: z.enum(['plain', 'cobbles', 'planks', 'rock']).default('plain'),
    relief: z.number().min(0).max(30).default(1.5).describe('mm'),
    seed: z.int().min(0).max(1_000_000).default(1),
  }),
  z.object({
    kind: z.literal('nameplate'),
    text: z.string().trim().min(1).max(200).describe('lines are parted by line breaks'),
    face: z.enum(['sans', 'serif']).default('serif'),
    letter: z.number().min(0.8).max(100).default(4).describe('mm, of a capital'),
    spacing: z.number().min(-0.05).max(0.5).default(0.06).describe('share of the em between letters'),
    style: z.enum(['raised', 'sunk']).default('raised'),
    relief: z.number().min(0.1).max(10).default(0.6).describe('mm'),
    around: z.number().min(-180).max(180).default(0).describe('degrees from the front'),
    up: z
      .number()
      .min(0)
      .max(1000)
      .nullable()
      .default(null)
      .describe('mm above the foot; null for where it is flattest'),
    width: z.number().min(2).max(500).nullable().default(null).describe('mm; null for as wide as the text needs'),
    height: z.number().min(2).max(300).nullable().default(null).describe('mm'),
    recess: z.number().min(0).max(20).default(0.8).describe('mm'),
  }),
  z.object({
    kind: z.literal('trim'),
    planes: z
      .array(z.object({ point, normal: direction }))
      .max(24)
      .default([]),
    box: z.object({ min: point, max: point }).nullable().default(null),
  }),
  z.object({
    kind: z.literal('surface'),
    voxel: z.number().min(0.0005).max(1000).describe('in the units of the scan'),
    softness: z.number().min(0.5).max(8).default(1.5).describe('voxels over which noise is averaged out'),
  }),
  z.object({ kind: z.literal('rebuild'), voxel: z.number().min(0.02).max(50).describe('mm') }),
  z.object({
    kind: z.literal('repair'),
    weld: z.number().min(0).max(1).default(repairDefaults.weld).describe('mm; corners nearer than this become one'),
    dropCrumbs: z.boolean().default(true),
    fillHoles: z.boolean().default(true),
  }),
  z.object({
    kind: z.literal('calibrate'),
    from: point,
    to: point,
    distance: z.number().gt(0).max(100_000).describe('mm between the two in truth'),
  }),
  z.object({
    kind: z.literal('smooth'),
    passes: z.int().min(1).max(200).default(10),
    limit: z.number().min(0).max(50).default(0.5).describe('mm by which a vertex may move at most'),
  }),
  z.object({ kind: z.literal('simplify'), faces: z.int().min(100).max(20_000_000) }),
  z.object({
    kind: z.literal('pose'),
    joints: z.array(joint).max(80),
    rigid: z.int().min(0).nullable().default(null).describe('joint that the whole part follows; null bends its skin'),
    settle: z.boolean().default(true),
    paint: z
      .array(z.object({ joint: z.int().min(0).max(79), point, radius: z.number().gt(0).max(200) }))
      .max(2000)
      .default([])
      .describe('which joint the skin follows where a brush went, on the sculpt before the pose'),
  }),
  z.object({
    kind: z.literal('place'),
    quaternion: quaternion.default([0, 0, 0, 1]).describe('x, y, z, w'),
    shift: point.default([0, 0, 0]).describe('mm'),
    mirror: z.boolean().default(false),
  }),
  z.object({
    kind: z.literal('scale'),
    factor: z.number().gt(0).max(10_000),
    axes: z
      .tuple([z.number().gt(0).max(100), z.number().gt(0).max(100), z.number().gt(0).max(100)])
      .default([1, 1, 1])
      .describe('further factors across, deep and high'),
    about: z.enum(['foot', 'origin']).default('foot'),
  }),
  z.object({
    kind: z.literal('thicken'),
    dabs,
    by: z.number().min(0.02).max(10).default(0.3).describe('mm'),
    voxel: z.number().min(0.02).max(5).default(0.2).describe('mm'),
  }),
  z.object({
    kind: z.literal('join'),
    mode: z.enum(['union', 'subtract', 'blend', 'relieve']),
    others: z
      .array(
        z.object({
          part: z.string().max(400),
          mesh: hash.default(NO_MESH),
          matrix: z
            .tuple(Array.from({ length: 9 }, () => z.number()) as Nine)
            .default([1, 0, 0, 0, 1, 0, 0, 0, 1])
            .describe('by rows: how the other has been turned and has grown since, with this one'),
          shift: point.default([0, 0, 0]).describe('mm, and moved by'),
        }),
      )
      .min(1)
      .max(32)
      .describe('the other parts and the hash of each mesh; on the command line part is a file, beside OPS.json'),
    fillet: z.number().min(0).max(50).default(2).describe('mm'),
    clearance: z.number().min(0).max(5).default(0.1).describe('mm per side'),
    voxel: z.number().min(0.02).max(5).default(0.25).describe('mm'),
  }),
  z.object({
    kind: z.literal('cut'),
    point,
    normal: direction,
    keep: z.enum(['above', 'below']),
    line: z.array(point).max(2000).default([]).describe('round the body; empty for a plane cut'),
    piece: point.optional().describe('mm: only the piece nearest to this place stays, with what touches it'),
  }),
  z.object({ kind: z.literal('fix'), fixings: z.array(fixing).min(1).max(64) }),
  z.object({
    kind: z.literal('channel'),
    path: z.array(point).min(2).max(400),
    diameter: z.number().min(0.5).max(40).default(2.5).describe('mm'),
  }),
  z.object({
    kind: z.literal('bay'),
    centre: z.tuple([z.number(), z.number()]).describe('mm, on the foot'),
    width: z.number().min(3).max(300).default(26).describe('mm inside'),
    depth: z.number().min(3).max(300).default(26).describe('mm inside'),
    height: z.number().min(1).max(200).default(6).describe('mm inside'),
    lid: z.number().min(0.6).max(10).default(1.6).describe('mm, thickness of the lid'),
    ledge: z.number().min(0.5).max(10).default(1.5).describe('mm on which the lid rests'),
  }),
  z.object({ kind: z.literal('focal'), dabs: dabs.describe('where no support may leave a scar') }),
  z.object({
    kind: z.literal('plug'),
    point,
    direction,
    diameter: z.number().min(1).max(40).describe('mm, of the hole'),
    depth: z.number().min(0.2).max(100).describe('mm'),
    clearance: z.number().min(0).max(2).default(0.1).describe('mm per side'),
  }),
  z.object({
    kind: z.literal('guide'),
    point: point.describe('on the face of a joint, where a drill goes in'),
    direction,
    bore: z.number().min(0.3).max(12).describe('mm, of the drill'),
    radius: z.number().min(1).max(60).describe('mm'),
    height: z.number().min(2).max(60).default(8).describe('mm over the face'),
    lap: z.number().min(0).max(20).default(2.5).describe('mm down beside it'),
    clearance: z.number().min(0).max(2).default(0.15).describe('mm per side'),
  }),
  z.object({
    kind: z.literal('hollow'),
    wall: z.number().min(0.4).max(20).describe('mm'),
    voxel: z.number().min(0.05).max(5).default(0.5).describe('mm'),
    opening: z
      .number()
      .min(0.2)
      .max(20)
      .default(1)
      .describe('mm; slits of the cavity narrower than twice this are closed'),
    leastPocket: z.number().min(0).default(100).describe('mm³; smaller cavities stay solid'),
    thicker: z
      .object({ dabs, by: z.number().min(0.1).max(50).describe('mm of wall more under the full brush') })
      .optional(),
    fill: z
      .object({
        kind: z.enum(['bars', 'gyroid']),
        spacing: z.number().min(3).max(100).describe('mm'),
        thickness: z.number().min(0.4).max(20).describe('mm'),
      })
      .refine((f) => f.thickness < f.spacing / 2, 'A bar must be thinner than half the spacing, or nothing stays free.')
      .optional(),
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
    school: z.enum(['broad', 'heavy', 'joints']).optional(),
    none: paint.optional().describe('no supports here'),
    more: paint.optional().describe('supports twice as close here'),
    only: paint.optional().describe('for supports on joint faces: all there may be'),
    focal: paint.optional().describe('tips stay whiskers here as long as they hold'),
  }),
])
export type OperationRecord = z.infer<typeof operation>
export type OperationInput = z.input<typeof operation>
export const operationList = z.array(operation).max(200)
