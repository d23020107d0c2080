import { z } from 'zod'
import { bad, good } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { defineOperation, rounded } from './operation'
import { message } from '../words/message'

export const rebuild = defineOperation({
  version: 1,
  stage: 'import',
  schema: z.object({ kind: z.literal('rebuild'), voxel: z.number().min(0.02).max(50).describe('mm') }),
  report: z.object({}),
  label: ({ voxel }) => message('operations.rebuild', { voxel: rounded(voxel) }),
  apply: async ({ mesh, op, progress }) => {
    const { rebuild: rebuilt } = await import('../volume/rebuild')
    let made: Mesh
    try {
      made = rebuilt(mesh, op.voxel, progress)
    } catch (error) {
      if (error instanceof RangeError) return bad('too-fine', message('problems.rebuild.theVoxelIsTooSmall'))
      throw error
    }
    return made.triangles.length > 0
      ? good({ mesh: made, report: {} })
      : bad('no-inside', message('problems.rebuild.theFacesEncloseNothingThere'))
  },
})
