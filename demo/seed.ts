import { dayAt } from '../core/math/wallClock'
import { reportOf } from '../contract/derivations'
import { writePly } from '../core/formats/ply'
import { writeStl } from '../core/formats/stl'
import { meshFromBytes } from '../core/formats/meshBytes'
import type { Box, Mesh } from '../core/mesh/mesh'
import { maskedBorders } from '../core/paint/stencil/edgeMasks'
import { regionAreas } from '../core/paint/surface/regions'
import { regionDabs } from '../core/paint/surface/regionDabs'
import { orientedDabs } from '../core/shape/orient'
import type { SculptRecord } from '../contract/sculpts'
import type { OperationInput } from '../contract/operations'
import type { PartRecord, PieceDetail } from '../contract/pieces'
import { coat as coatSchema, type Coat } from '../contract/scheme'
import type { Shape } from '../core/volume/primitives'
import { damaged } from './damage'
import { scan, type ScannerOptions } from '../core/scan/scanner'
import { openWhatStays, ventCups } from './holes'
import { printTerns } from './prints'
import { build } from './sculpts/build'
import { lanternKeeper } from './sculpts/lanternKeeper'
import { bustLabels } from './bustLabels'
import { pilotBust } from './sculpts/pilotBust'
import { tern } from './sculpts/tern'
import { api, call, check, checked, derived, operate, settled } from './talk'
import { MATERIALS, PRINTERS, RESINS } from './workshop'
import { demoMixes } from './mixes'
import { PAINTS } from './paints'
import { say } from '../core/words/say'

/** Fills an empty workshop through the same API that the browser uses, so that the demo is what a user could have made. */
/** The bust goes on a shelf at eye level: 172 mm. */
const BUST_SCALE = 1.2
/** Tipped back, so that the face looks up and away from every support; down is then toward the back of the foot. */
const BACK = (25 * Math.PI) / 180
/** The keeper looks round to the water: joints in the middle of his body, the neck turned. */
const KEEPER_JOINTS: Extract<OperationInput, { kind: 'pose' }>['joints'] = [
  { name: 'pelvis', parent: -1, position: [1.8, 2.3, 97.7] },
  { name: 'chest', parent: 0, position: [1.3, 3.2, 128.7] },
  {
    name: 'neck',
    parent: 1,
    position: [1.3, -2.4, 143.8],
    turn: [0.07, 0.02, 0.2, Math.sqrt(1 - 0.07 ** 2 - 0.02 ** 2 - 0.2 ** 2)],
  },
  { name: 'crown', parent: 2, position: [-1.2, -1.8, 154.5] },
]
const CAST_SCAN: ScannerOptions = {
  stations: Array.from({ length: 10 }, (_, i) => ({ azimuth: 36 * i, elevation: i % 2 === 0 ? 12 : 48 })),
  across: 260,
  noise: 0.0008,
  dropouts: 0.12,
  floor: true,
  seed: 1887,
}

async function main(): Promise<void> {
  const shop = await call<{ version: number; demo: string | null }>('GET', '/workshop')
  const there = await call<{ id: string; name: string }[]>('GET', '/pieces')
  const stock = await call<{ id: string; kind: string; data: { name: string } }[]>('GET', '/stock')
  // A workshop that is in use, or whose demo was finished, is left alone; one that was interrupted is filled on. An empty one
  // is filled when it is asked for.
  const isWanted = process.env.UNDERCUT_DEMO === '1' && there.length === 0 && stock.length === 0
  if (shop.demo === 'done' || (shop.demo === null && !isWanted)) return
  if (shop.demo === null)
    await call('PUT', '/workshop', {
      ...shop,
      name: 'Kielwerk, Brennhaven',
      temperature: 18,
      humidity: 56,
      labour: 26,
      spraysIn: 'open',
      demo: 'filling',
    })
  const made = async (kind: string, list: readonly object[]): Promise<Map<string, string>> => {
    const ids = new Map<string, string>()
    for (const data of list) {
      const { name } = data as { name: string }
      ids.set(
        name,
        (
          stock.find((s) => s.kind === kind && s.data.name === name) ??
          (await call<{ id: string }>('POST', `/stock/${kind}`, data))
        ).id,
      )
    }
    return ids
  }
  const printers = await made('printer', PRINTERS),
    resins = await made('resin', RESINS),
    paints = await made('paint', PAINTS)
  await made('material', MATERIALS)
  const soon = (days: number): string => dayAt(undefined, Date.now() + days * 86_400_000)
  const base = {
    resinId: resins.get('Slate grey, tough'),
    client: 'Brennhaven Harbour Museum',
    purpose: 'commission',
  }
  const piece = async (fields: { name: string } & Record<string, unknown>): Promise<string> =>
    (
      there.find((p) => p.name === fields.name) ??
      (await call<{ id: string }>('POST', '/pieces', { ...base, ...fields }))
    ).id
  // The list shows the newest first: the bust, which has come furthest, is made last.
  const spare = await piece({
    name: 'Tern, file from the archive',
    brief: 'The museum’s old file of the tern. It came damaged: mend it before anything else.',
    finish: 'shelf',
    printerId: printers.get('Plover (fine)'),
  })
  const cast = await piece({
    name: 'Tern, scanned from the cast',
    purpose: 'keep',
    brief:
      'The plaster cast in the museum’s cellar, scanned on the spot. Beak to tail is 63 mm on the cast: calibrate by that.',
    finish: 'display',
    printerId: printers.get('Plover (fine)'),
  })
  const bird = await piece({
    name: 'Tern on a mooring post',
    purpose: 'sell',
    brief: 'Twelve small birds for the shop, 60 mm, to be painted in a batch.',
    finish: 'shelf',
    printerId: printers.get('Plover (fine)'),
    deadline: soon(60),
  })
  const keeper = await piece({
    name: 'The lantern keeper',
    brief:
      'Display statue for the stairwell: the keeper on his last round. Lantern in clear resin later. Ask about the coat: oilskin ochre or dark blue?',
    finish: 'exhibition',
    printerId: printers.get('Gannet (large)'),
    deadline: soon(75),
  })
  const bust = await piece({
    name: 'Harbour pilot, bust',
    brief:
      'For the entrance hall, behind glass, seen from the front and a little below. Knit cap dark blue, coat black-blue, beard grey. He looked out, not down.',
    finish: 'display',
    printerId: printers.get('Gannet (large)'),
    deadline: soon(45),
    subjectStature: 660,
  })

  const sculpt = async (to: string, name: string, make: () => Promise<Mesh>): Promise<void> => {
    const now = await call<PieceDetail>('GET', `/pieces/${to}`)
    if (now.partList.length > 0) return
    if (now.intakes.length === 0)
      await call(
        'POST',
        `/pieces/${to}/files?name=${encodeURIComponent(name)}`,
        undefined,
        name.endsWith('.ply') ? writePly(await make()) : writeStl(await make()),
      )
    await settled(to, (p) => p.partList.length > 0)
  }
  const shape = (s: Shape, min: Box['min'], max: Box['max'], voxel: number): Promise<Mesh> =>
    build(s, { min, max }, voxel)
  const ternMesh = (): Promise<Mesh> => shape(tern(), [-16, -27, -1], [16, 38, 60], 0.3)
  await sculpt(bust, 'harbour-pilot.stl', () => shape(pilotBust(), [-42, -34, -1], [42, 34, 150], 0.6))
  await sculpt(bird, 'tern.stl', ternMesh)
  await sculpt(spare, 'tern-archive-copy.stl', async () => damaged(await ternMesh()))
  await sculpt(cast, 'scan-of-the-cast.ply', async () => scan(await ternMesh(), CAST_SCAN).cloud)
  await sculpt(keeper, 'lantern-keeper.stl', () => shape(lanternKeeper(), [-38, -38, -1], [40, 38, 168], 0.55))

  await describeLibrary()

  const begun = async (id: string, kind: string): Promise<boolean> =>
    (await call<PieceDetail>('GET', `/pieces/${id}`)).partList[0]!.steps.some((s) => s.op.kind === kind)
  if (!(await begun(bust, 'hollow')))
    await operate(bust, [
      { kind: 'scale', factor: BUST_SCALE },
      { kind: 'hollow', wall: 2.2, voxel: 0.6 },
    ])
  // By its own step: when the seed goes on after a stop, later steps stand behind it already.
  const hollowed = (await settled(bust, (p) => derived(p.partList[0]!))).partList[0]!.steps.find(
    (s) => s.op.kind === 'hollow',
  )!.derivation!.meshHash!
  if (!(await begun(bust, 'drill'))) {
    const { sites } = await check(hollowed, {
      kind: 'drainSites',
      diameter: 4,
      down: [0, Math.sin(BACK), -Math.cos(BACK)],
    })
    await operate(bust, [
      { kind: 'drill', holes: sites.map(({ point, direction, diameter }) => ({ point, direction, diameter })) },
      { kind: 'orient', quaternion: [-Math.sin(BACK / 2), 0, 0, Math.cos(BACK / 2)] },
      { kind: 'support' },
    ])
  }
  await openWhatStays(bust, hollowed, [0, Math.sin(BACK), -Math.cos(BACK)])
  await ventCups(bust, hollowed)
  const done = await settled(bust, (p) => derived(p.partList[0]!))
  await call('POST', '/checks', {
    mesh: done.partList[0]!.meshHash,
    check: { kind: 'slice', printer: PRINTERS[0], resin: RESINS[0] },
  })
  if (!(await begun(keeper, 'scale')))
    await operate(keeper, [
      { kind: 'pose', joints: KEEPER_JOINTS },
      { kind: 'scale', factor: 1.25, about: 'origin' },
    ])
  const standing = await settled(keeper, (p) => derived(p.partList[0]!))
  if (standing.partList.length === 1)
    await call('POST', `/pieces/${keeper}/arrange`, {
      create: [
        {
          name: 'Plinth',
          from: null,
          operations: [
            {
              kind: 'base',
              outline: 'rounded',
              side: 'stepped',
              width: 108,
              depth: 108,
              height: 16,
              steps: 2,
              corner: 6,
            },
            { kind: 'nameplate', text: 'THE LAST ROUND', letter: 3.4, relief: 0.5 },
            { kind: 'place', shift: [1.5, 0, -16] },
          ],
        },
      ],
    })

  const { version, facing, partList } = await call<PieceDetail>('GET', `/pieces/${keeper}`)
  if (!facing)
    await call('PATCH', `/pieces/${keeper}`, {
      version,
      facing: { partId: partList[0]!.id, direction: [0.05, -0.99, 0.1], joint: 'neck' },
    })

  const before = await call<{ version: number }>('GET', `/pieces/${bust}/scheme`)
  if (before.version === 0) await paintBust(bust, paints, done.partList[0]!)
  if ((await call<unknown[]>('GET', '/mixes')).length === 0)
    for (const m of demoMixes(paints, bust)) await call('POST', '/mixes', m)
  if ((await call<unknown[]>('GET', `/pieces/${bust}/log`)).length === 0)
    await call('POST', `/pieces/${bust}/log`, {
      text: 'Museum approved the sculpt. The cap must not shade the eyes: light comes from above in the case.',
    })
  await printTerns(bird, printers.get('Plover (fine)')!, resins.get('Slate grey, tough')!)
  await call('PUT', '/workshop', { ...(await call<object>('GET', '/workshop')), demo: 'done' })
}

/** What the workshop knows of its sculpts, by the file they came as. */
const LIBRARY: Record<string, { name: string; tags: string[]; origin: string; licence: string; maySell: string }> = {
  'harbour-pilot.stl': {
    name: 'Harbour pilot',
    tags: ['bust', 'harbour', 'own sculpt'],
    origin: 'Sculpted here, from the museum’s photographs',
    licence: 'Made for the museum; castings for its shop are agreed.',
    maySell: 'yes',
  },
  'lantern-keeper.stl': {
    name: 'Lantern keeper',
    tags: ['figure', 'harbour', 'own sculpt'],
    origin: 'Sculpted here',
    licence: 'Ours.',
    maySell: 'yes',
  },
  'tern.stl': {
    name: 'Tern',
    tags: ['bird', 'harbour', 'own sculpt'],
    origin: 'Sculpted here',
    licence: 'Ours.',
    maySell: 'yes',
  },
  'tern-archive-copy.stl': {
    name: 'Tern, archive copy',
    tags: ['bird', 'harbour', 'damaged'],
    origin: 'The museum’s archive, on an old disc',
    licence: '',
    maySell: 'ask',
  },
  'scan-of-the-cast.ply': {
    name: 'Tern, plaster cast',
    tags: ['bird', 'scan'],
    origin: 'Scanned in the museum’s cellar',
    licence: 'For the museum’s own use.',
    maySell: 'no',
  },
}
async function describeLibrary(): Promise<void> {
  for (const s of await call<SculptRecord[]>('GET', '/sculpts')) {
    const known = LIBRARY[s.fileName]
    if (known && s.origin === '') await call('PATCH', `/sculpts/${s.id}`, { ...known, version: s.version })
  }
}

async function paintBust(bust: string, paints: ReadonlyMap<string, string>, part: PartRecord): Promise<void> {
  const scaled = part.steps.find((s) => s.op.kind === 'scale')!.derivation!.meshHash!
  const shown = await checked(scaled, { kind: 'display', faces: 120_000 })
  const copy = meshFromBytes(new Uint8Array(await (await fetch(`${api}/api/blobs/${shown.meshHash}`)).arrayBuffer()))
  if (!copy.ok) throw new Error(say(copy.problem.message))
  const labels = bustLabels(copy.value, BUST_SCALE),
    areas = regionAreas(copy.value, labels)
  // Eyes rest on the skin of the face: noted on it, so that the way up and the supports keep off it.
  const now = (await call<PieceDetail>('GET', `/pieces/${bust}`)).partList[0]!
  const ops = now.steps.map((s) => s.op).filter((o) => o.kind !== 'focal')
  const at = ops.findIndex((o) => o.kind === 'hollow')
  const dabs = regionDabs(copy.value, labels, new Set([1]), 2.5)
  const stood = now.steps.find((s) => s.op.kind === 'orient')!
  const { offset } = reportOf(stood.derivation, 'orient')!
  const kept = stood.op.kind === 'orient' ? orientedDabs(dabs, stood.op.quaternion, offset) : []
  await call('PUT', `/parts/${now.id}/operations`, {
    version: now.version,
    operations: [
      ...ops.slice(0, at),
      { kind: 'focal', dabs },
      ...ops.slice(at).map((o) => (o.kind === 'support' ? { ...o, focal: kept } : o)),
    ],
  })
  const { hash } = await call<{ hash: string }>('POST', '/blobs', undefined, labels)
  const made = now.steps.map((s) => s.derivation!.meshHash!)
  const chain = [...made.slice(0, made.indexOf(scaled) + 1).reverse(), now.sculptMesh]
  const coat = (
    n: number,
    regionId: number,
    technique: Coat['technique'],
    paint: string,
    film: number,
    more: Partial<Coat> = {},
  ): Coat => coatSchema.parse({ id: `demo-${n}`, regionId, technique, paintId: paints.get(paint)!, film, ...more })
  const sprayed = { tool: 'airbrush' as const }
  await call('PUT', `/pieces/${bust}/scheme`, {
    version: 0,
    maps: [
      {
        partId: part.id,
        meshHash: shown.meshHash,
        labels: hash,
        chain,
        areas,
        borders: maskedBorders(copy.value, labels),
      },
    ],
    regions: [
      { id: 0, name: 'Coat', target: '#2b3548' },
      { id: 1, name: 'Skin', target: '#c08a6c' },
      { id: 2, name: 'Beard and hair', target: '#b9b3a4' },
      { id: 3, name: 'Cap', target: '#31405e' },
      { id: 4, name: 'Socle', target: '#5a4030' },
    ],
    coats: [
      coat(1, 0, 'base', 'Wool navy', 40, sprayed),
      coat(2, 0, 'dry brush', 'Storm slate', 14),
      // Shade from below, as the sea throws it back.
      coat(14, 0, 'airbrush', 'Tarred oak', 4, { ...sprayed, pigment: 0.5, from: { turn: 0, lift: -65, spread: 20 } }),
      coat(3, 1, 'base', 'Weathered skin', 56, sprayed),
      coat(4, 1, 'layer', 'Fair skin', 18),
      coat(5, 1, 'glaze', 'Cheek', 8, { pigment: 0.25 }),
      coat(6, 1, 'wash', 'Brown wash', 30),
      coat(7, 2, 'base', 'Tide grey', 40, sprayed),
      coat(8, 2, 'wash', 'Black wash', 26),
      coat(9, 2, 'dry brush', 'Ivory beard', 22),
      coat(10, 3, 'base', 'Harbour blue', 56, sprayed),
      coat(11, 3, 'wash', 'Black wash', 26),
      coat(12, 4, 'base', 'Tarred oak', 40, sprayed),
      coat(13, 4, 'dry brush', 'Plank brown', 12),
      coat(15, 4, 'chips', 'Rope', 24, { coverage: 0.5, grain: 1.6 }),
      coat(16, 4, 'varnish', 'Gloss varnish', 10),
    ],
  })
}

main().catch((error: unknown) => {
  console.error('The demo workshop could not be filled:', error)
  process.exitCode = 1
})
