import { z } from 'zod'
import { bad, good } from '../answer'
import { isCloud } from '../mesh/mesh'
import type { ReconstructReport } from '../scan/reconstruct'
import { point } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const surface = defineOperation({
  version: 1,
  stage: 'import',
  clouds: true,
  makes: true,
  schema: z.object({
    kind: z.literal('surface'),
    voxel: z.number().min(0.0005).max(1000).describe('in the units of the scan'),
    softness: z.number().min(0.5).max(8).default(1.5).describe('voxels over which noise is averaged out'),
  }),
  report: z.object({
    surface: z.object({
      points: z.number(),
      used: z.number(),
      spacing: z.number(),
      normals: z.enum(['given', 'found']),
      residual: z.number(),
      invented: z.array(z.object({ point, area: z.number() })),
    }) satisfies z.ZodType<ReconstructReport>,
  }),
  label: ({ voxel }) => message('operations.surface', { voxel: Number(voxel.toPrecision(3)) }),
  apply: async ({ mesh, op, progress }) => {
    if (!isCloud(mesh)) return bad('not-a-cloud', message('problems.surface.thisPartHasFacesAlready'))
    const { reconstruct } = await import('../scan/reconstruct')
    const r = reconstruct(mesh, op, progress)
    return r.ok ? good({ mesh: r.value.mesh, report: { surface: r.value.report } }) : r
  },
})
