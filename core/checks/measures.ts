import { z } from 'zod'
import { good } from '../answer'
import { measure } from '../mesh/measure'
import { withoutCrumbs } from '../mesh/shellFacts'
import { measures as measuresSchema } from '../schemas/geometry'
import { defineCheck } from './check'

export const measures = defineCheck({
  version: 2,
  schema: z.object({ kind: z.literal('measures') }),
  report: measuresSchema,
  run: async ({ meshes: [mesh] }) => good({ report: measure(withoutCrumbs(mesh)) }),
})
