import { z } from 'zod'
import { bad, good } from '../answer'
import { repairDefaults } from '../defaults/mesh'
import { repairReport } from '../schemas/reports'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const repair = defineOperation({
  version: 2,
  stage: 'import',
  schema: z.object({
    kind: z.literal('repair'),
    weld: z.number().min(0).max(1).default(repairDefaults.weld).describe('mm; corners nearer than this become one'),
    dropCrumbs: z.boolean().default(true),
    fillHoles: z.boolean().default(true),
  }),
  report: z.object({ repair: repairReport }),
  label: () => message('operations.repair'),
  apply: async ({ mesh, op }) => {
    const { repair: repaired } = await import('../mesh/repair')
    const r = repaired(mesh, op)
    if (r.mesh.triangles.length === 0) return bad('nothing-left', message('problems.repair.theRepairLeftNothingEvery'))
    return good({ mesh: r.mesh, report: { repair: r.report } })
  },
})
