import { beforeEach, describe, expect, it } from 'vitest'
import type { PlateRecord } from '../../contract/runs'
import { machine, plate, PLATE, run, RUN } from '../stages/plateTesting'
import { PRINTER_ID } from '../stages/stageTesting'
import { useCleaning } from './cleaning'
import { Bench, fakePage, PIECE, settled } from './fakeServer'
import { usePiece } from './piece'
import { useRuns } from './runs'

const OTHER = '99999999-9999-4999-8999-999999999999'
let bench: Bench
beforeEach(() => {
  bench = new Bench()
  fakePage(
    (url, init) => bench.answer(url, init),
    (send) => {
      bench.event = send
    },
  )
})
/** The piece is open, with these plates in one run and these machines. */
async function opened(plates: PlateRecord[], machines = [machine()]): Promise<ReturnType<typeof useRuns>> {
  bench.replies.set(`GET /pieces/${PIECE}/runs`, [run(plates)])
  bench.replies.set('GET /devices', machines)
  await usePiece().open(PIECE)
  const runs = useRuns()
  await settled()
  return runs
}
const asks = (call: string): number => bench.calls.filter((c) => c === call).length
const bodies = (call: string): unknown[] => bench.sent.filter((s) => s.call === call).map((s) => s.body)

describe('the plate that is looked at', () => {
  it('is the one that prints, until another is chosen, and again when that is gone', async () => {
    const runs = await opened([plate(), plate({ id: OTHER, number: 2, state: 'printing' })])
    expect(runs.plate!.id).toBe(OTHER)
    runs.chosen = PLATE
    expect(runs.plate!.id).toBe(PLATE)
    expect(runs.runOf(runs.plate!).id).toBe(RUN)
    bench.replies.set(`GET /pieces/${PIECE}/runs`, [run([plate({ id: OTHER, number: 2, state: 'printing' })])])
    bench.event!({ type: 'run', id: PIECE })
    await settled()
    expect(runs.plate!.id).toBe(OTHER)
  })
  it('is none before a run is begun', async () => {
    bench.replies.set(`GET /pieces/${PIECE}/runs`, [])
    bench.replies.set('GET /devices', [])
    await usePiece().open(PIECE)
    const runs = useRuns()
    await settled()
    expect([runs.plate, runs.scale, runs.station]).toEqual([null, null, null])
  })
})

describe('machines', () => {
  it('fit a plate where they are the printer that it was sliced for', async () => {
    const runs = await opened([plate()], [machine(), machine({ serial: 'p2', printerId: OTHER })])
    expect(runs.fitting(runs.plate!).map((d) => d.serial)).toEqual(['p1'])
    expect(runs.plate!.printerId).toBe(PRINTER_ID)
    expect(runs.deviceOf(plate({ device: 'p2' }))!.serial).toBe('p2')
    expect(runs.deviceOf(plate({ device: 'gone' }))).toBeNull()
  })
  it('that do not answer weigh and wash nothing', async () => {
    const card = { kind: 'scale' as const, serial: 's', name: 'Scale', standIn: false, division: 0.1 }
    const runs = await opened([plate()], [machine({ serial: 's', card, reachable: false } as never)])
    expect(runs.scale).toBeNull()
    bench.replies.set('GET /devices', [machine({ serial: 's', card, reachable: true } as never)])
    bench.event!({ type: 'devices' })
    await settled()
    expect(runs.scale!.serial).toBe('s')
    expect(runs.printers).toEqual([])
  })
  it('are shown as their answer to a command says, the others as they were', async () => {
    const runs = await opened([plate()], [machine(), machine({ serial: 'p2' })])
    const said = machine({ serial: 'p2', reachable: false })
    bench.replies.set('POST /devices/p2/commands', said)
    await runs.command('p2', { do: 'pause' })
    expect(runs.devices.map((d) => [d.serial, d.reachable])).toEqual([
      ['p1', true],
      ['p2', false],
    ])
    expect(bodies('POST /devices/p2/commands')).toEqual([{ do: 'pause' }])
  })
})

describe('news of a print', () => {
  it('that comes in a burst is asked for twice, not twenty times: once at once, once for all that came meanwhile', async () => {
    await opened([plate()])
    const before = asks(`GET /pieces/${PIECE}/runs`)
    bench.slow = 5
    for (let i = 0; i < 20; i++) bench.event!({ type: 'run', id: PIECE })
    await settled(60)
    expect(asks(`GET /pieces/${PIECE}/runs`)).toBe(before + 2)
  })
  it('of another piece asks nothing', async () => {
    await opened([plate()])
    const before = asks(`GET /pieces/${PIECE}/runs`)
    bench.event!({ type: 'run', id: OTHER })
    await settled()
    expect(asks(`GET /pieces/${PIECE}/runs`)).toBe(before)
  })
})

describe('what is done with a plate', () => {
  it('is sent, and its state is read again', async () => {
    const runs = await opened([plate({ state: 'planned' })])
    bench.replies.set(`POST /plates/${PLATE}/send`, plate({ state: 'sending', device: 'p1' }))
    bench.replies.set(`GET /pieces/${PIECE}/runs`, [run([plate({ state: 'sending', device: 'p1' })])])
    await runs.send(runs.plate!, 'p1')
    expect(bodies(`POST /plates/${PLATE}/send`)).toEqual([{ device: 'p1' }])
    expect(runs.plate!.state).toBe('sending')
  })
  it('is read again also where it was refused, and the refusal is passed on', async () => {
    const runs = await opened([plate({ state: 'printing' })])
    bench.replies.set(`GET /pieces/${PIECE}/runs`, [run([plate({ state: 'ended' })])])
    // Nothing that a plate looks like: not to be taken for one.
    bench.replies.set(`POST /plates/${PLATE}/commands`, {})
    await expect(runs.order(runs.plate!, 'pause')).rejects.toThrow()
    expect(runs.plate!.state).toBe('ended')
  })
  it('judged twice in a row is sent the second time with the version that the first gave', async () => {
    const runs = await opened([plate({ version: 4 })])
    bench.replies.set(`PUT /plates/${PLATE}/judgement`, plate({ version: 5 }))
    bench.replies.set(`GET /pieces/${PIECE}/runs`, [run([plate({ version: 5 })])])
    const first = runs.plate!
    await Promise.all([runs.judge(first, { weighed: 20 }), runs.judge(first, { weighed: 21 })])
    expect(bodies(`PUT /plates/${PLATE}/judgement`)).toEqual([
      { weighed: 20, version: 4 },
      { weighed: 21, version: 5 },
    ])
  })
})

describe('cleaning', () => {
  const step = (key: string, doneAt: string | null): object => ({
    key,
    title: key,
    why: '',
    minutes: 3,
    tools: [],
    cautions: [],
    doneAt,
  })
  const list = (...steps: object[]): object => ({ steps, first: 4, second: 0.5 })
  it('is of plates that came off the printer, and carries nothing more once washed', async () => {
    bench.replies.set(`GET /plates/${OTHER}/cleaning`, list())
    const runs = await opened([plate({ id: PLATE, state: 'printing' }), plate({ id: OTHER, number: 2 })])
    const cleaning = useCleaning()
    await settled()
    expect(runs.plate!.id).toBe(PLATE)
    expect(cleaning.done.map((p) => p.id)).toEqual([OTHER])
    expect(cleaning.plate!.id).toBe(OTHER)
    // The baths of the workshop are not known yet.
    expect(cleaning.known.baths).toMatchObject({ state: 'measuring' })
  })
  it('says why where it could not be worked out, instead of waiting for ever', async () => {
    bench.replies.set(`GET /plates/${PLATE}/cleaning`, { steps: [step('wash', null)], first: 'much', second: 0 })
    await opened([plate()])
    const cleaning = useCleaning()
    await settled()
    expect(cleaning.list).toBeNull()
    expect(cleaning.known.baths.state).not.toBe('measuring')
  })
})
