import { reportOf } from '../contract/derivations'
import type { PieceDetail } from '../contract/pieces'
import { printer, resin, slicedResin } from '../contract/stock'
import type { DeviceRecord, PlateRecord, RunRecord } from '../contract/runs'
import { call, check, checked, derived, operate, settled } from './talk'
import { PRINTERS, RESINS } from './workshop'

const COPIES = 4
/** Beak up and over a little, so that the breast and not the wings meet the supports. */
const LEAN = (30 * Math.PI) / 180
const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

/**
 * Four terns printed on the simulated printer: a first run, with supports set few and heavy to spare the feathers, and the longest of
 * those that carry an island removed again because it looked needless. What comes of it is for the simulated printer to say; it is
 * looked over and judged as it came out.
 */
export async function printTerns(bird: string, printerId: string, resinId: string): Promise<void> {
  const now = await call<PieceDetail>('GET', `/pieces/${bird}`)
  if (!now.partList[0]!.steps.some((s) => s.op.kind === 'support'))
    await operate(bird, [
      { kind: 'orient', quaternion: [Math.sin(LEAN / 2), 0, 0, Math.cos(LEAN / 2)] },
      { kind: 'support', school: 'heavy', spacing: 6 },
    ])
  const supported = (await settled(bird, (p) => derived(p.partList[0]!))).partList[0]!
  const step = supported.steps.find((s) => s.op.kind === 'support')!
  if (step.op.kind === 'support' && step.op.edits.length === 0) {
    const { support } = reportOf(step.derivation, 'support')!
    const [longest] = support.tips.filter((t) => t.island).sort((a, b) => b.length - a.length)
    const point = longest?.point.map((v, k) => v - support.shift[k]!) as [number, number, number] | undefined
    if (point)
      await call('PUT', `/parts/${supported.id}/operations`, {
        version: supported.version,
        operations: supported.steps.map(({ op }) =>
          op.kind === 'support' ? { ...op, edits: [{ kind: 'remove', point, radius: 2.5 }] } : op,
        ),
      })
  }
  const piece = await settled(bird, (p) => derived(p.partList[0]!)),
    part = piece.partList[0]!
  if (piece.plating.copies[part.id] !== COPIES)
    await call('PATCH', `/pieces/${bird}`, {
      version: piece.version,
      plating: { ...piece.plating, copies: { [part.id]: COPIES } },
    })
  if ((await call<RunRecord[]>('GET', `/pieces/${bird}/runs`)).length === 0) await begin(bird, printerId, resinId)
  await print(bird)
}

async function begin(bird: string, printerId: string, resinId: string): Promise<void> {
  const part = (await call<PieceDetail>('GET', `/pieces/${bird}`)).partList[0]!
  const on = printer.parse(PRINTERS[1]),
    used = slicedResin.parse(resin.parse(RESINS[0]))
  const { nesting } = await check(part.meshHash, {
    kind: 'nest',
    others: [],
    parts: [{ id: part.id, copies: COPIES, turn: true }],
    printers: [{ ...on, id: printerId }],
    resin: used,
  })
  const plates = []
  for (const p of nesting.plates) {
    const { meshHash } = await checked(part.meshHash, {
      kind: 'plate',
      others: [],
      parts: p.parts.map(({ x, y, angle }) => ({ of: 0, x, y, angle })),
    })
    const { key } = await checked(meshHash!, { kind: 'slice', printer: on, resin: used })
    plates.push({
      printerId,
      sliceKey: key,
      parts: p.parts.map(({ copy, x, y, angle }) => ({
        partId: part.id,
        name: part.name,
        copy,
        mesh: part.meshHash,
        x,
        y,
        angle,
      })),
    })
  }
  await call('POST', `/pieces/${bird}/runs`, { resinId, lot: 'SG-2211', plates })
}

/** Has every plate printed on the machine that is its printer, and keeps what is seen on it; without one it stays planned. */
async function print(bird: string): Promise<void> {
  const plates = async (): Promise<PlateRecord[]> =>
    (await call<RunRecord[]>('GET', `/pieces/${bird}/runs`)).flatMap((r) => r.plates)
  for (const { id } of await plates()) {
    const plate = async (): Promise<PlateRecord> => (await plates()).find((p) => p.id === id)!
    const first = await plate()
    if (first.state === 'planned') {
      const devices = await call<DeviceRecord[]>('GET', '/devices')
      const machine = devices.find((d) => d.reachable && d.printerId === first.printerId)
      if (!machine) return
      await call('POST', `/plates/${id}/send`, { device: machine.serial })
    }
    for (let i = 0; i < 900; i++) {
      const { state, problem } = await plate()
      if (state === 'ended') break
      if (state === 'judged' || (state === 'planned' && problem)) return
      await pause(1000)
    }
    const seen = await call<{ marks: unknown[]; outcomes: unknown[]; grams: number }>('POST', `/plates/${id}/look`)
    const { version, device } = await plate()
    await call('PUT', `/plates/${id}/judgement`, {
      version,
      marks: seen.marks,
      outcomes: seen.outcomes,
      weighed: Math.round(seen.grams * 20) / 20,
    })
    if (device) await call('POST', `/devices/${device}/commands`, { do: 'clear' })
  }
}
