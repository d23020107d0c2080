import { writeStl } from '../core/formats/stl'
import type { Mesh, Box } from '../core/mesh/mesh'
import type { OperationInput } from '../contract/operations'
import type { PartRecord, PieceDetail, Coat } from '../contract/pieces'
import type { Shape } from '../core/volume/primitives'
import { damaged } from './damage'
import { build } from './sculpts/build'
import { lanternKeeper } from './sculpts/lanternKeeper'
import { pilotBust } from './sculpts/pilotBust'
import { tern } from './sculpts/tern'
import { PAINTS, PRINTERS, RESINS } from './workshop'

/** Fills an empty workshop through the same API that the browser uses, so that the demo is what a user could have made. */
const api = process.env.UNDERCUT_API ?? 'http://127.0.0.1:4870'

async function call<T>(method: string, path: string, body?: unknown, raw?: Uint8Array): Promise<T> {
  const r = await fetch(`${api}/api${path}`, {
    method, headers: { 'content-type': raw ? 'application/octet-stream' : 'application/json' }, body: raw ? Buffer.from(raw) : body === undefined ? undefined : JSON.stringify(body),
  })
  if (!r.ok) throw new Error(`${method} ${path}: ${r.status} ${await r.text()}`)
  return (r.status === 204 ? undefined : await r.json()) as T
}
const pause = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

async function settled(piece: string, ready: (p: PieceDetail) => boolean): Promise<PieceDetail> {
  for (let i = 0; i < 1200; i++) {
    const p = await call<PieceDetail>('GET', `/pieces/${piece}`)
    if (ready(p)) return p
    await pause(500)
  }
  throw new Error('The demo did not settle.')
}
const derived = (p: PartRecord): boolean => p.steps.every((s) => s.derivation?.status === 'done')

async function operate(piece: string, more: OperationInput[]): Promise<PieceDetail> {
  const before = (await call<PieceDetail>('GET', `/pieces/${piece}`)).partList[0]!
  await call('PUT', `/parts/${before.id}/operations`, { version: before.version, operations: [...before.steps.map((s) => s.op), ...more] })
  return settled(piece, (p) => derived(p.partList[0]!))
}

async function check<T>(mesh: string, body: unknown): Promise<T> {
  for (;;) {
    const d = await call<{ status: string; report: T; problem: { message: string } | null }>('POST', '/checks', { mesh, check: body })
    if (d.status === 'done') return d.report
    if (d.status === 'failed') throw new Error(d.problem?.message)
    await pause(400)
  }
}

async function main(): Promise<void> {
  const there = await call<unknown[]>('GET', '/pieces')
  const stock = await call<{ id: string; kind: string; data: { name: string } }[]>('GET', '/stock')
  if (there.length > 0 || stock.length > 0) return
  const made = async (kind: string, list: readonly object[]): Promise<Map<string, string>> => {
    const ids = new Map<string, string>()
    for (const data of list) ids.set((data as { name: string }).name, (await call<{ id: string }>('POST', `/stock/${kind}`, data)).id)
    return ids
  }
  const printers = await made('printer', PRINTERS), resins = await made('resin', RESINS), paints = await made('paint', PAINTS)
  const shop = await call<{ version: number }>('GET', '/workshop')
  await call('PUT', '/workshop', { ...shop, name: 'Kielwerk, Brennhaven', temperature: 18, humidity: 56 })
  const soon = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10)
  const base = { resinId: resins.get('Slate grey, tough'), client: 'Brennhaven Harbour Museum' }
  const piece = async (fields: object): Promise<string> => (await call<{ id: string }>('POST', '/pieces', { ...base, ...fields })).id
  // Oldest last in the list, so the bust, which has come furthest, is made last and stands first.
  const spare = await piece({ name: 'Tern, file from the archive', brief: 'The museum’s old file of the tern. It came damaged: mend it before anything else.', finish: 'shelf', printerId: printers.get('Plover (fine)') })
  const bird = await piece({ name: 'Tern on a mooring post', brief: 'Twelve small birds for the shop, 60 mm, to be painted in a batch.', finish: 'shelf', printerId: printers.get('Plover (fine)'), deadline: soon(60) })
  const keeper = await piece({ name: 'The lantern keeper', brief: 'Display statue for the stairwell: the keeper on his last round. Lantern in clear resin later. Ask about the coat: oilskin ochre or dark blue?', finish: 'exhibition', printerId: printers.get('Gannet (large)'), deadline: soon(75) })
  const bust = await piece({ name: 'Harbour pilot, bust', brief: 'For the entrance hall, behind glass, seen from the front and a little below. Knit cap dark blue, coat black-blue, beard grey. He looked out, not down.', finish: 'display', printerId: printers.get('Gannet (large)'), deadline: soon(45) })

  const sculpt = async (to: string, name: string, mesh: Mesh): Promise<PieceDetail> => {
    await call('POST', `/pieces/${to}/files?name=${encodeURIComponent(name)}`, undefined, writeStl(mesh))
    return settled(to, (p) => p.partList.length > 0)
  }
  const shape = (s: Shape, min: Box['min'], max: Box['max'], voxel: number): Promise<Mesh> => build(s, { min, max }, voxel)
  await sculpt(bust, 'harbour-pilot.stl', await shape(pilotBust(), [-42, -34, -1], [42, 34, 150], 0.6))
  const small = await shape(tern(), [-16, -27, -1], [16, 38, 60], 0.3)
  await sculpt(bird, 'tern.stl', small)
  await sculpt(spare, 'tern-archive-copy.stl', damaged(small))
  await sculpt(keeper, 'lantern-keeper.stl', await shape(lanternKeeper(), [-38, -38, -1], [40, 38, 168], 0.55))

  const hollowed = await operate(bust, [{ kind: 'scale', factor: 1.2 }, { kind: 'hollow', wall: 2.2, voxel: 0.6 }])
  const { sites } = await check<{ sites: { point: [number, number, number]; direction: [number, number, number]; diameter: number }[] }>(hollowed.partList[0]!.meshHash, { kind: 'drainSites', diameter: 4, down: [0, 0, -1] })
  // Tipped back, so that the face looks up and away from every support.
  const back = (-38 * Math.PI) / 180
  const done = await operate(bust, [
    { kind: 'drill', holes: sites.map(({ point, direction, diameter }) => ({ point, direction, diameter })) },
    { kind: 'orient', quaternion: [Math.sin(back / 2), 0, 0, Math.cos(back / 2)] }, { kind: 'support' },
  ])
  await call('POST', '/checks', { mesh: done.partList[0]!.meshHash, check: { kind: 'slice', printer: PRINTERS[0], resin: RESINS[0] } })
  await operate(keeper, [{ kind: 'scale', factor: 1.25 }])
  const id = (name: string): string => paints.get(name)!
  const coat = (n: number, regionId: number, technique: Coat['technique'], paint: string, film: number, tool: Coat['tool'] = 'brush', pigment = 1): Coat =>
    ({ id: `demo-${n}`, regionId, technique, paintId: id(paint), mix: [], film, pigment, tool })
  await call('PUT', `/pieces/${bust}/scheme`, {
    version: 0, meshHash: null, labels: null,
    regions: [{ id: 0, name: 'Coat', target: '#2b3548' }, { id: 1, name: 'Skin', target: '#c08a6c' }, { id: 2, name: 'Beard and hair', target: '#b9b3a4' }, { id: 3, name: 'Cap', target: '#31405e' }, { id: 4, name: 'Socle', target: '#5a4030' }],
    coats: [
      coat(1, 0, 'base', 'Wool navy', 40, 'airbrush'), coat(2, 0, 'dry brush', 'Storm slate', 8), coat(3, 1, 'base', 'Weathered skin', 40), coat(4, 1, 'glaze', 'Cheek', 10, 'brush', 0.25),
      coat(5, 1, 'wash', 'Brown wash', 16), coat(6, 2, 'base', 'Tide grey', 40), coat(7, 2, 'dry brush', 'Ivory beard', 12), coat(8, 3, 'base', 'Harbour blue', 40), coat(9, 3, 'wash', 'Black wash', 18),
      coat(10, 4, 'base', 'Tarred oak', 40), coat(11, 4, 'dry brush', 'Plank brown', 8),
    ],
  })
  await call('POST', `/pieces/${bust}/log`, { text: 'Museum approved the sculpt. The cap must not shade the eyes: light comes from above in the case.' })
}

main().catch((error: unknown) => { console.error('The demo workshop could not be filled:', error); process.exitCode = 1 })
