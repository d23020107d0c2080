import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { good } from '../answer'
import { tooThin } from '../findings/tooThin'
import { keepFaces, type Mesh } from '../mesh/mesh'
import { defineOperation } from '../operations/operation'
import { OPERATIONS } from '../operations/registry'
import { kindTable } from '../schemas/kindTable'
import { boxBody, sphereBody } from '../testBodies'
import { defineCheck, type CheckHost } from './check'
import { CHECKS } from './registry'
import { thinness } from './thinness'
import { message } from '../words/message'
import { say } from '../words/say'

/** The worked example of docs/development.md: one definition, and its line in the list. */
const handles = defineCheck({
  version: 1,
  schema: z.object({ kind: z.literal('handles'), least: z.int().min(0).default(0) }),
  report: z.object({ handles: z.number() }),
  run: ({ meshes: [mesh], params }) => {
    const edges = mesh.triangles.length / 2
    const genus = 1 - (mesh.positions.length / 3 - edges + mesh.triangles.length / 3) / 2
    return Promise.resolve(good({ report: { handles: Math.max(params.least, genus) } }))
  },
})
const lifted = defineOperation({
  version: 1,
  stage: 'scale',
  repeated: true,
  schema: z.object({ kind: z.literal('lifted'), by: z.number().default(1) }),
  report: z.object({ lifted: z.number() }),
  label: ({ by }) => message('operations.thicken', { by }),
  apply: ({ mesh, op }) => {
    const positions = mesh.positions.map((v, i) => (i % 3 === 2 ? v + op.by : v))
    return Promise.resolve(good({ mesh: { ...mesh, positions }, report: { lifted: op.by } }))
  },
})
const host = { progress: () => undefined } as unknown as CheckHost

describe('a kind that is added', () => {
  it('as a check is asked, computed and read by its own definition, with no other change', async () => {
    const table = kindTable([...CHECKS, handles])
    const params = table.schema.parse({ kind: 'handles' })
    expect(params).toEqual({ kind: 'handles', least: 0 })
    expect(table.of('handles')).toBe(handles)
    for (const body of [boxBody(1, 1, 1), sphereBody(5, 2)]) {
      const r = await handles.run({ meshes: [body as Mesh], params: params as never, host })
      expect(r.ok && handles.report.parse(r.value.report)).toEqual({ handles: 0 })
    }
    expect(table.schema.safeParse({ kind: 'handles', least: -1 }).success).toBe(false)
  })
  it('as an operation has its place, its label and its result', async () => {
    const table = kindTable([...OPERATIONS, lifted])
    const op = table.schema.parse({ kind: 'lifted' })
    expect(table.of('lifted')).toMatchObject({ version: 1, repeated: true, clouds: false, aid: false })
    expect(say(lifted.label(op as never))).toBe('thickened by 1 mm')
    const r = await lifted.apply({ mesh: boxBody(1, 1, 1), op: op as never, others: [], progress: () => undefined })
    expect(r.ok && Math.min(...r.value.mesh.positions.filter((_, i) => i % 3 === 2))).toBe(1)
  })
  it('under a name that is taken is refused at once', () => {
    expect(() => kindTable([...CHECKS, CHECKS[0]] as never)).toThrow(`two definitions of ${CHECKS[0].kind}`)
  })
})

describe('a report', () => {
  it('says that nothing was measured by null, not by a number that JSON does not know', async () => {
    // An open sheet: no ray into it ever leaves it again.
    const sheet = keepFaces(
      boxBody(10, 10, 10),
      Uint8Array.from({ length: 12 }, (_, f) => (f < 2 ? 1 : 0)),
    )
    const r = await thinness.run({ meshes: [sheet], params: { kind: 'thinness', limit: 1 }, host })
    const report = r.ok ? thinness.report.parse(JSON.parse(JSON.stringify(r.value.report))) : null
    expect(report?.thinnest).toBeNull()
    expect(tooThin(report!)).toEqual([])
  })
})
