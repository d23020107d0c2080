/* eslint-disable @typescript-eslint/no-explicit-any -- replies are read loosely on purpose: their schemas are the server's */
import { randomUUID } from 'node:crypto'
import ICAL from 'ical.js'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { writeStl } from '../../core/formats/stl'
import { boxBody } from '../../core/testBodies'
import { TestServer, until } from '../testServer'

/** The workshop's calendar, clocks, air and stock over HTTP. */
let at: TestServer
const call = (...asked: Parameters<TestServer['ask']>): Promise<any> => at.ask(...asked)
const calendar = (): Promise<any> => call('GET', '/calendar')
const steps = async (id: string): Promise<any[]> => (await call('GET', `/pieces/${id}/plan`)).steps
const step = async (id: string, key: string): Promise<any> => (await steps(id)).find((s) => s.key === key)
const wish = (id: string, key: string, body: object, wanted = 200): Promise<any> =>
  call('PUT', `/pieces/${id}/steps/${encodeURIComponent(key)}/wish`, body, wanted)
const ago = (minutes: number): string => new Date(Date.now() - 60_000 * minutes).toISOString()
const box = async (name: string): Promise<string> => {
  const id = await at.pieceOf(name, writeStl(boxBody(20, 20, 20)))
  await until(async () => (await call('GET', `/pieces/${id}/plan`)).pending.length === 0)
  return id
}
const workshop = async (change: object, wanted = 200): Promise<any> => {
  const now = await call('GET', '/workshop')
  return call('PUT', '/workshop', { ...now, ...change }, wanted)
}

describe('the calendar', () => {
  beforeAll(async () => {
    at = await TestServer.start()
  })
  afterAll(async () => {
    await at.stop()
  })

  it('schedules all pieces over the same hours, follows what people want, and refuses a ring in words', async () => {
    const [one, two] = [await box('One'), await box('Two')]
    const { tasks, pieces, people } = await calendar()
    expect(pieces.map((p: any) => p.name)).toEqual(['One', 'Two'])
    expect(new Set(tasks.map((t: any) => t.piece)).size).toBe(2)
    expect(people).toHaveLength(1)
    const all = [...(await steps(one)), ...(await steps(two))]
    // One person: nothing of the one piece while the other is worked at.
    const busy = all.map((s) => [s.start, s.end]).sort((a, b) => a[0] - b[0])
    for (let i = 1; i < busy.length; i++) expect(busy[i]![0]).toBeGreaterThanOrEqual(busy[i - 1]![1])

    const was = await step(one, 'wash')
    const later = new Date(was.start + 3 * 86_400_000).toISOString()
    await wish(one, 'wash', { handsOn: 600, notBefore: later })
    const then = await step(one, 'wash')
    expect(then.start).toBeGreaterThanOrEqual(new Date(later).getTime())
    expect(then.handsOn).toBe(600)
    expect((await step(one, 'cure')).start).toBeGreaterThanOrEqual(then.free)
    await wish(one, 'wash', {})
    expect((await step(one, 'wash')).handsOn).toBe(was.handsOn)

    // Two after One, as somebody wants it; the other way round as well would be a ring.
    await wish(two, 'wash', { after: [{ piece: one, step: 'cure' }] })
    expect((await step(two, 'wash')).start).toBeGreaterThanOrEqual((await step(one, 'cure')).free)
    const ring = await wish(one, 'wash', { after: [{ piece: two, step: 'cure' }] }, 409)
    expect(ring.detail).toContain('wait for each other')
    expect((await step(one, 'wash')).start).not.toBeNull()
    expect((await wish(one, 'wash', { handsOn: -5 }, 422)).detail).toContain('negative')
    expect((await wish(one, 'wash', { waiting: 1e9 }, 422)).detail).toContain('month')
    expect((await wish(one, 'wash', { by: 'Nobody' }, 422)).detail).toContain('does not work here')

    // On hold, it is nobody's business; resumed, it is.
    const { version } = await at.piece(two)
    await call('PATCH', `/pieces/${two}`, { version, resting: true })
    expect((await calendar()).tasks.every((t: any) => t.piece === one)).toBe(true)
    await call('PATCH', `/pieces/${two}`, { version: version + 1, resting: false })
    expect((await calendar()).tasks.some((t: any) => t.piece === two)).toBe(true)
  })

  it('never keeps a plan of a piece as it was before a change that came while others were planned', async () => {
    // The last of several: it is read with the others, and planned after them.
    const id = (await Promise.all(['Left', 'Right', 'Last'].map(box)))[2]!
    let { version } = await at.piece(id)
    for (const undercoat of ['white', 'black', 'grey', 'white', 'black']) {
      // Nothing that was planned holds any more.
      await workshop({})
      const all = calendar()
      await new Promise((r) => setTimeout(r, 8))
      await call('PATCH', `/pieces/${id}`, { version: version++, schools: { undercoat } })
      await all
      expect((await step(id, 'prime-1')).title).toContain(`Prime ${undercoat}`)
    }
  })

  it('reads bench hours on the workshop’s own clock, gives work to people, and refuses what is none', async () => {
    const id = await box('Elsewhere')
    const hours = [0, 1, 2, 3, 4, 5, 6].map((weekday) => ({ weekday, from: 600, to: 1200 }))
    const people = [
      { name: 'Ada', hours, off: [] },
      { name: 'Bo', hours, off: [] },
    ]
    await workshop({ timeZone: 'Pacific/Auckland', people })
    const clock = new Intl.DateTimeFormat('en-GB', { timeZone: 'Pacific/Auckland', hour: 'numeric', hourCycle: 'h23' })
    for (const s of await steps(id)) {
      expect(Number(clock.format(s.start))).toBeGreaterThanOrEqual(10)
      expect(Number(clock.format(s.start))).toBeLessThan(20)
    }
    await wish(id, 'wash', { by: 'Bo' })
    expect((await calendar()).tasks.find((t: any) => t.piece === id && t.key === 'wash').by).toBe('Bo')
    expect((await workshop({ timeZone: 'Nowhere/Town' }, 422)).detail).toContain('time zone')
    expect((await workshop({ people: [people[0], people[0]] }, 422)).detail).toContain('same name')
    await wish(id, 'wash', {})
    await workshop({ timeZone: null, people: [] })
  })

  it('uses the server’s clock: due at the end of the day where the workshop is, and nothing done in what is to come', async () => {
    const id = await box('Dated')
    await workshop({ timeZone: 'Pacific/Auckland' })
    const { version } = await at.piece(id)
    await call('PATCH', `/pieces/${id}`, { version, deadline: '2031-03-14' })
    const tick = (wanted: number): Promise<any> =>
      call('PUT', `/pieces/${id}/ticks`, { stepKey: 'wash', begunAt: '2031-03-14T10:55:00Z', title: 'Wash' }, wanted)
    await tick(422)
    // Auckland is thirteen hours ahead then: its 14th ends a second before eleven in the morning.
    for (const [clock, over] of [
      ['2031-03-14T10:56:00Z', false],
      ['2031-03-14T11:01:00Z', true],
    ] as const) {
      await at.restartAt(clock)
      const { now, pieces } = await calendar()
      expect(Math.abs(now - Date.parse(clock))).toBeLessThan(60_000)
      const { due } = pieces.find((p: any) => p.id === id)
      expect(new Date(due).toISOString()).toBe('2031-03-14T10:59:59.000Z')
      expect(due < now).toBe(over)
      // Nothing is planned into what is past.
      for (const s of await steps(id)) expect(s.start).toBeGreaterThanOrEqual(Date.parse(clock))
    }
    await tick(204)
    await at.restartAt(null)
    await workshop({ timeZone: null })
    await call('DELETE', `/pieces/${id}`, undefined, 204)
  })

  it('knows how long steps took: from begun to done, corrected by hand, never done before begun', async () => {
    const id = await box('Timed')
    const tick = (body: object, wanted = 204): Promise<any> =>
      call('PUT', `/pieces/${id}/ticks`, { stepKey: 'wash', ...body }, wanted)
    await tick({ begunAt: ago(30), planned: 900, title: 'Wash' })
    expect((await tick({ doneAt: ago(40) }, 422)).detail).toContain('before it was started')
    expect((await step(id, 'wash')).doneAt).toBeNull()
    // Two tick it in the same moment: once it is done, and both hear that it is.
    const done = ago(10)
    await Promise.all([tick({ doneAt: done, waits: 3600 }), tick({ doneAt: ago(5), waits: 3600 })])
    const s = await step(id, 'wash')
    // The moments are made from the clock, one after the other.
    expect(Math.min(...[20, 25].map((m) => Math.abs(s.took - 60 * m)))).toBeLessThan(10)
    expect(new Date(s.timerUntil).getTime() - new Date(s.doneAt).getTime()).toBe(3_600_000)
    await tick({ took: 700 })
    expect((await calendar()).record).toContainEqual({ kind: 'wash', planned: 900, took: 700 })
    await tick({ took: -1 }, 422)
    // What dries since then dries since then.
    expect((await step(id, 'cure')).start).toBeGreaterThanOrEqual(new Date(s.doneAt).getTime() + s.waiting * 1000)
  })

  it('keeps clocks through a kill, says once that they ran out, and lets go of a mix when its step is done', async () => {
    const id = await box('Clocked')
    const set = (body: object, wanted = 204): Promise<any> =>
      call('POST', '/timers', { pieceId: id, stepKey: 'cure', kind: 'wait', title: 'Cure', ...body }, wanted)
    const own = async (): Promise<any[]> => (await call('GET', '/timers')).timers.filter((t: any) => t.pieceId === id)
    await Promise.all([set({ seconds: 500 }), set({ seconds: 500 })])
    expect(await own()).toHaveLength(1)
    await set({ seconds: 1 })
    await at.killApi()
    await at.startApi()
    const [t] = await own()
    expect(t).toMatchObject({ kind: 'wait', title: 'Cure', piece: 'Clocked' })
    await call('PUT', `/timers/${t.id}/heard`, undefined, 204)
    expect(await own()).toEqual([])
    await set({ seconds: -3 }, 422)
    const tick = (body: object): Promise<any> =>
      call('PUT', `/pieces/${id}/ticks`, { stepKey: 'fill', title: 'Putty', ...body }, 204)
    await tick({ begunAt: ago(1), sets: 240 })
    expect((await own()).map((x) => x.kind)).toEqual(['pot'])
    await tick({ doneAt: new Date().toISOString(), waits: 7200 })
    expect((await own()).map((x) => x.kind)).toEqual(['wait'])
    await tick({ doneAt: null })
    expect(await own()).toEqual([])
  })

  it('plans what is to be printed until it is, or until somebody works on it: it was printed elsewhere, then', async () => {
    const { id: printerId } = await call('POST', '/stock/printer', {
      name: 'Heron',
      pixelsX: 2000,
      pixelsY: 1500,
      pitchX: 0.05,
      pitchY: 0.05,
      height: 150,
      layerHeight: 0.05,
    })
    const id = await box('To print')
    const { version } = await at.piece(id)
    await call('PATCH', `/pieces/${id}`, { version, printerId })
    const [print] = await steps(id)
    // Four hundred layers of 9.0 s, five of them longer.
    expect(print).toMatchObject({ key: 'print', needs: 'Heron', holds: true, waiting: 400 * 9 + 5 * 23.6 })
    expect((await step(id, 'wash')).start).toBeGreaterThanOrEqual(print.free)
    const tick = (stepKey: string, body: object): Promise<any> =>
      call('PUT', `/pieces/${id}/ticks`, { stepKey, ...body }, 204)
    await tick('print', { begunAt: ago(60) })
    expect((await step(id, 'print')).begunAt).not.toBeNull()
    await tick('print', { begunAt: null })
    await tick('wash', { doneAt: ago(1) })
    expect(await step(id, 'print')).toBeUndefined()
  })
  it('does alike steps of several pieces in one go, and takes them apart again', async () => {
    const ids = [await box('Left'), await box('Right')]
    const body = { id: randomUUID(), key: 'wash', steps: ids.map((piece) => ({ piece, step: 'wash' })) }
    await call('POST', '/batches', body, 204)
    await call('POST', '/batches', body, 409)
    const [a, b] = [await step(ids[0]!, 'wash'), await step(ids[1]!, 'wash')]
    expect([a.start, a.end]).toEqual([b.start, b.end])
    // Together they take less than one after the other, by one setting up.
    expect((a.end - a.start) / 1000).toBe(a.handsOn + b.handsOn - 360)
    const ring = {
      id: randomUUID(),
      key: 'x',
      steps: [
        { piece: ids[0], step: 'cure' },
        { piece: ids[0], step: 'prime-1' },
      ],
    }
    expect((await call('POST', '/batches', ring, 409)).detail).toContain('cannot be done together')
    await call('DELETE', `/batches/${body.id}`, undefined, 204)
    expect((await step(ids[0]!, 'wash')).start).not.toBe((await step(ids[1]!, 'wash')).start)
  })

  it('feeds calendar programs, and keeps the order of a better schedule', async () => {
    const id = await box('Fed')
    const { version } = await at.piece(id)
    await call('PATCH', `/pieces/${id}`, { version, deadline: '2031-03-01' })
    const text = new TextDecoder().decode(await at.bytes('/calendar.ics'))
    const events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((e) => new ICAL.Event(e))
    const stint = events.find((e) => e.summary.includes('Fed') && e.description?.includes('Wash'))!
    expect(stint.startDate.toJSDate().getTime()).toBeLessThanOrEqual((await step(id, 'wash')).start)
    expect(events.find((e) => e.summary === 'Fed is due')!.startDate.toString()).toContain('2031-03-01')
    const { tasks } = await calendar()
    const order = tasks.map((t: any) => t.id).reverse()
    await call('PUT', '/calendar/order', { order }, 204)
    expect((await calendar()).order).toEqual(order)
    // Whatever the order says, nothing comes before what it waits for.
    expect((await step(id, 'cure')).start).toBeGreaterThanOrEqual((await step(id, 'wash')).free)
  })

  it('reads the air at the bench: waits follow it, damp hours are shut to spraying, and one is told of a silent sensor', async () => {
    const id = await box('Damp')
    const { address, child } = await at.device({ kind: 'sensor', serial: 's1', name: 'Vane' })
    await call('POST', '/devices', { address })
    await call('POST', '/devices/s1/commands', { do: 'air', air: { temperature: 8, humidity: 70 } })
    const cold = await until(async () => {
      const c = await calendar()
      return c.room.measured && c.room.temperature < 9 && c
    }, 40)
    expect(cold.forecast.length).toBeGreaterThan(48)
    // A room of eight degrees is under ten for long: the next hours are shut.
    const [first] = cold.closed.spray
    expect(first[0]).toBeLessThanOrEqual(cold.now)
    const prime = await step(id, 'prime-1')
    if (prime.start !== null)
      for (const [from, to] of cold.closed.spray) expect(prime.end <= from || prime.start >= to).toBe(true)
    const dry = (await step(id, 'wash')).waiting
    expect(dry).toBeGreaterThan(2400 * 1.4)
    expect((await call('GET', `/pieces/${id}/plan`)).sprayRefused).toContain('under 10 °C')
    await at.kill(child)
    await until(async () => (await calendar()).forecast.length === 0, 40)
  })

  it('books what steps use, gives it back, says what has to be bought, and takes lists in whole or not at all', async () => {
    const id = await box('Used')
    const primer = (await step(id, 'prime-1')).uses.find((u: any) => u.what === 'primer:grey')
    expect(primer.amount).toBeGreaterThan(0.1)
    const csv = (text: string): Promise<any> => at.call('POST', '/materials.csv', new TextEncoder().encode(text))
    const wrong = await csv('name,unit,amount\nSoot,ml,3 lb\n,ml,4\nGrey,miles,1')
    expect(wrong.status).toBe(422)
    for (const said of ['Line 2', 'Give the density', 'Line 3', 'Give it a name', 'Line 4', 'The unit is one of'])
      expect(wrong.body.detail).toContain(said)
    expect((await call('GET', '/stock')).filter((i: any) => i.kind === 'material')).toEqual([])
    const good = await csv(
      [
        'name,serves as,unit,amount,lot,opened,"keeps, months",best before,reorder at,price each',
        'Gull primer,"primer, grey",ml,0.2 l,A7,,,,50,0.04',
        'Gull primer,"primer, grey",ml,4 fl oz,A8,,,,50,0.04',
        'Wax paper,,sheets,3,,,,,5,',
      ].join('\n'),
    )
    expect(good.body).toEqual({ added: 2, changed: 0 })
    const item = async (name: string): Promise<any> =>
      (await call('GET', '/stock')).find((i: any) => i.data.name === name)
    const before = await item('Gull primer')
    expect(before.data.lots.map((l: any) => Math.round(l.amount))).toEqual([200, 118])
    const tick = (doneAt: string | null): Promise<any> =>
      call('PUT', `/pieces/${id}/ticks`, { stepKey: 'prime-1', doneAt }, 204)
    await tick(ago(1))
    await tick(ago(1))
    const used = await item('Gull primer')
    expect(used.data.lots[0].amount).toBeCloseTo(200 - primer.amount, 6)
    expect(used.data.lots[0].opened).not.toBeNull()
    await tick(null)
    expect((await item('Gull primer')).data.lots[0].amount).toBeCloseTo(200, 6)

    const list = await call('GET', '/shopping')
    expect(list.find((r: any) => r.name === 'Wax paper')).toMatchObject({ buy: 2, why: 'reorder' })
    const varnish = list.find((r: any) => r.what === 'varnish:matt')
    expect(varnish).toMatchObject({ why: 'none', have: 0, unit: 'ml' })
    expect(varnish.pieces).toContain('Used')
    expect(list.find((r: any) => r.what === 'primer:grey')).toBeUndefined()
    // What is written on the product is said where it is used.
    await call('PUT', `/stock/material/${before.id}`, {
      version: (await item('Gull primer')).version,
      data: { ...(await item('Gull primer')).data, safety: 'Not near the stove.' },
    })
    expect((await step(id, 'prime-1')).cautions).toContain('Gull primer: Not near the stove.')
    // Taken out of stock while it is planned: the plan stands, and it is on the list.
    await call('DELETE', `/stock/material/${before.id}`, undefined, 204)
    expect((await call('GET', '/shopping')).find((r: any) => r.what === 'primer:grey').why).toBe('none')
    await tick(ago(1))
    await tick(null)
    const out = new TextDecoder().decode(await at.bytes('/materials.csv'))
    expect((await csv(out)).body).toEqual({ added: 0, changed: 1 })
    expect((await csv('colour,size\nred,4')).body.detail).toContain('name the columns')
  })

  it('writes an entry once, however often it is sent, and no picture that is none', async () => {
    const id = await box('Logged')
    const entry = { id: randomUUID(), at: ago(45), stepKey: null, text: 'From an hour without the net.' }
    for (let k = 0; k < 3; k++) await call('POST', `/pieces/${id}/log`, entry)
    const log = await call('GET', `/pieces/${id}/log`)
    expect(log).toHaveLength(1)
    expect(log[0].at).toBe(entry.at)
    const { hash } = await call('POST', '/blobs', new TextEncoder().encode('no picture'))
    expect((await call('POST', `/pieces/${id}/log`, { text: 'x', photo: hash }, 422)).detail).toContain('no picture')
    await call('POST', `/pieces/${id}/log`, { text: 'x', photo: 'f'.repeat(64) }, 409)
    expect(await call('GET', `/pieces/${id}/log`)).toHaveLength(1)
  })
})
