import { z } from 'zod'
import { good } from '../answer'
import { dabs } from '../schemas/geometry'
import { defineOperation } from './operation'
import { message } from '../words/message'

export const focal = defineOperation({
  version: 1,
  stage: 'orient',
  schema: z.object({ kind: z.literal('focal'), dabs: dabs.describe('where no support may leave a scar') }),
  report: z.object({}),
  label: () => message('operations.focal'),
  apply: ({ mesh }) => Promise.resolve(good({ mesh, report: {} })),
})
