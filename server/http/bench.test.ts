/* eslint-disable @typescript-eslint/no-explicit-any -- replies are read loosely on purpose: their schemas are the server's */
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { writeStl } from '../../core/formats/stl'
import { identity3 } from '../../core/math/vectors'
import { transformed } from '../../core/mesh/transform'
import { apply3, fromQuaternion } from '../../core/math/vectors'
import { boxBody, sphereBody } from '../../core/testBodies'
import { TestServer, until } from '../testServer'

/** The bench half of a piece over HTTP: a plan from what was measured, ticks, and flaws pass by pass. */
let at: TestServer
const call = (...asked: Parameters<TestServer['ask']>): Promise<any> => at.ask(...asked)
/** The plan once nothing is left to be measured for it. */
const settledPlan = (id: string): Promise<any> =>
  until(async () => {
    const p = await call('GET', `/pieces/${id}/plan?measure=1`)
    return p.pending.length === 0 && p.steps.length > 0 && p
  })
const keys = (plan: any): string[] => plan.steps.map((s: any) => s.key)

describe('the bench', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(async () => {
    await at.stop()
  })

  it('plans two parts by how they meet, shows what another school changes, and keeps what is done when it is taken', async () => {
    const id = await at.pieceOf('Two blocks', writeStl(boxBody(20, 20, 20)))
    await at.drop(id, 'cap.stl', writeStl(transformed(boxBody(20, 20, 10), identity3, [0, 0, 20.25])))
    await until(async () => (await at.piece(id)).partList.length === 2)
    // For a thread that is only looked at nothing is measured but the two parts' size.
    const unmeasured = await call('GET', `/pieces/${id}/plan`)
    expect(unmeasured.pending.length).toBeLessThanOrEqual(2)
    expect(keys(unmeasured)).not.toContain('dryfit')
    const plan = await settledPlan(id)
    const [body, cap] = (await at.piece(id)).partList
    const joint = [body, cap].map((p: any) => p.id).join('+')
    const dry = plan.steps.find((s: any) => s.key === 'dryfit')
    expect(dry.lines).toHaveLength(1)
    expect(dry.lines[0]).toContain('0.25 mm per side')
    // A quarter of a millimetre over 4 cm²: gel bridges it, and leaves just the time to line up.
    const glue = plan.steps.find((s: any) => s.key === `glue:${joint}`)
    expect(glue).toMatchObject({ phase: 'Fit', waiting: 180, window: 20 })
    const fill = plan.steps.find((s: any) => s.key.startsWith(`fill:${joint}`))
    expect(fill.why).toContain('80 mm of it')
    await call(
      'PUT',
      `/pieces/${id}/ticks`,
      {
        stepKey: fill.key,
        doneAt: new Date().toISOString(),
        title: fill.title,
        phase: fill.phase,
      },
      204,
    )
    const apart = { schools: { gluing: 'subAssemblies', sanding: 'dry' } }
    const d = await call('POST', `/pieces/${id}/plan/compare`, apart)
    expect(d.lost).toEqual([fill.title])
    expect(d.then.waiting).toBeLessThan(d.now.waiting)
    const { version } = await at.piece(id)
    await call('PATCH', `/pieces/${id}`, { version, ...apart })
    const then = await settledPlan(id)
    expect(then.steps.find((s: any) => s.key === `glue:${joint}`).phase).toBe('Finish')
    const kept = then.steps.find((s: any) => s.key === fill.key)
    expect(kept).toMatchObject({ dropped: true, title: fill.title })
    expect(kept.doneAt).not.toBeNull()
    // Another material is another plan as well, seen before it is taken.
    const glued = then.steps.find((s: any) => s.key === `glue:${joint}`).uses[0].what.slice('adhesive:'.length)
    const other = await call('POST', `/pieces/${id}/plan/compare`, { without: [glued] })
    expect(other.then.waiting).not.toBe(other.now.waiting)
    await call('POST', `/pieces/${await at.newPiece('Empty')}/plan/compare`, apart, 409)
  })

  it('takes a tick once, whoever says so, and none from the future', async () => {
    const id = await at.pieceOf('Ticked', writeStl(boxBody(10, 10, 10)))
    const tick = (doneAt: string | null): Promise<any> =>
      call('PUT', `/pieces/${id}/ticks`, { stepKey: 'wash', doneAt }, 204)
    const first = new Date(Date.now() - 60_000).toISOString()
    await tick(first)
    await tick(new Date().toISOString())
    const done = async (): Promise<any> => (await settledPlan(id)).steps.find((s: any) => s.key === 'wash').doneAt
    expect(await done()).toBe(first)
    const refused = await at.call('PUT', `/pieces/${id}/ticks`, {
      stepKey: 'cure',
      doneAt: new Date(Date.now() + 86_400_000).toISOString(),
    })
    expect(refused.status).toBe(422)
    expect(refused.body.detail).toContain('yet to come')
    await tick(null)
    expect(await done()).toBeNull()
  })

  it('follows flaws from pass to pass until one finds nothing, and attributes pits to the tips that were there', async () => {
    const id = await at.pieceOf('Flawed', writeStl(sphereBody(12, 4)))
    const quaternion = [0, 0.6, 0, 0.8]
    await at.operate(id, [{ kind: 'orient', quaternion }, { kind: 'support' }])
    const part = await at.derived(id)
    const [stood, held] = part.steps.map((s: any) => s.derivation.report)
    const tip = held.support.tips[0]
    const back = fromQuaternion([0, -0.6, 0, 0.8])
    const point = apply3(
      back,
      tip.point.map((v: number, k: number) => v - stood.offset[k] - held.support.shift[k]),
    )
    // On the ball's own skin, wherever it was stood.
    expect(Math.hypot(...point)).toBeCloseTo(12, 0)
    const mark = (kind: string, place: number[], flaw = randomUUID()): Promise<any> =>
      call('POST', `/pieces/${id}/flaws`, { id: flaw, partId: part.id, kind, size: 0.6, point: place })
    const look = (): Promise<any> => call('GET', `/pieces/${id}/inspection`)
    const end = (pass: number, body: object = {}, wanted = 200): Promise<any> =>
      call('PUT', `/pieces/${id}/inspection/passes/${pass}`, body, wanted)
    const begin = (): Promise<any> => call('POST', `/pieces/${id}/inspection/passes`)

    const expectedPasses = keys(await settledPlan(id)).filter((k) => k.startsWith('inspect')).length
    expect(expectedPasses).toBe(2)
    const pit = await mark('pit', point)
    expect(pit).toMatchObject({ pass: 1, state: 'open', cause: { kind: 'tip', focal: tip.focal } })
    // The same mark sent twice is one.
    await mark('pit', point, pit.id)
    const dust = await mark('dust', [0, 0, 12])
    expect((await look()).flaws).toHaveLength(2)
    expect((await settledPlan(id)).steps.find((s: any) => s.key === 'inspect-1').lines).toHaveLength(2)
    const noted = await call('PUT', `/flaws/${pit.id}`, { version: pit.version, note: 'by the ear' })
    const mended = await call('PUT', `/flaws/${pit.id}`, { version: noted.version, state: 'mended' })
    // What was not sent stays as it is.
    expect(mended).toMatchObject({ note: 'by the ear', kind: 'pit', state: 'mended', closedPass: 1 })
    await call('DELETE', `/flaws/${pit.id}`, undefined, 409)
    // Whoever had it open meanwhile is told what it is now.
    await call('PUT', `/flaws/${pit.id}`, { version: pit.version, size: 2 }, 409)
    await end(1)
    expect(await look()).toMatchObject({ closed: false, passes: [{ pass: 1, found: 2 }] })
    await end(1, {}, 409)

    // Two who begin the second pass at once begin the same.
    await Promise.all([begin(), begin()])
    expect((await look()).passes).toHaveLength(2)
    await mark('run', [0, 12, 0])
    expect(keys(await settledPlan(id)).filter((k) => k.startsWith('inspect'))).toHaveLength(3)
    await call('PUT', `/flaws/${dust.id}`, { version: dust.version, state: 'accepted' }, 422)
    await end(2, { acceptRest: true }, 422)
    await end(2)
    await begin()
    const open = (await look()).flaws.filter((f: any) => f.state === 'open')
    for (const f of open) await call('PUT', `/flaws/${f.id}`, { version: f.version, state: 'mended' })
    await end(3)
    const over = await look()
    expect(over.closed).toBe(true)
    expect(over.passes.map((p: any) => p.found)).toEqual([2, 1, 0])
    expect(keys(await settledPlan(id)).filter((k) => k.startsWith('inspect'))).toHaveLength(3)
    await call(
      'POST',
      `/pieces/${id}/flaws`,
      { id: randomUUID(), partId: randomUUID(), kind: 'pit', size: 1, point: [0, 0, 0] },
      404,
    )
    await call(
      'POST',
      `/pieces/${id}/flaws`,
      { id: randomUUID(), partId: part.id, kind: 'pit', size: 0, point: [0, 0, 0] },
      422,
    )
  })
})
