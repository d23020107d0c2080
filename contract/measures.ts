import { z } from 'zod'

const triple = z.tuple([z.number(), z.number(), z.number()])

/** What the check `measures` reports; see core/mesh/measure. */
export const measures = z.object({
  volume: z.number(),
  area: z.number(),
  centre: triple,
  box: z.object({ min: triple, max: triple }),
  size: triple,
})
