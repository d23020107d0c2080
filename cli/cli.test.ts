import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { readSculpt } from '../core/formats/readSculpt'
import { writeStl } from '../core/formats/stl'
import { measure } from '../core/mesh/measure'
import { keepFaces } from '../core/mesh/mesh'
import { boxBody, sphereBody } from '../core/testBodies'
import { call, file, folder } from './testCall'
import { say } from '../core/words/say'

const sphere = file('sphere.stl', writeStl(sphereBody(10, 4)))

describe('command line', () => {
  it('checks a file: 0 sound, 1 defects, 2 unreadable, each in words', async () => {
    const sound = await call('check', sphere, '--json')
    expect(sound.code).toBe(0)
    expect(JSON.parse(sound.out)).toMatchObject({ sound: true, shells: 1, openEdges: { count: 0 } })
    expect(JSON.parse(sound.out).volumeMl).toBeCloseTo(4.16, 1)
    const holed = file(
      'holed.stl',
      writeStl(
        keepFaces(
          sphereBody(10, 3),
          Uint8Array.from({ length: 512 }, (_, f) => (f === 5 ? 0 : 1)),
        ),
      ),
    )
    expect(await call('check', holed)).toMatchObject({ code: 1, out: expect.stringContaining('has defects') })
    expect(await call('check', file('bad.stl', 'no'))).toMatchObject({
      code: 2,
      err: expect.stringMatching(/^undercut: bad\.stl: .+\.\n$/),
    })
    expect(await call('check', join(folder, 'gone.stl'))).toMatchObject({
      code: 2,
      err: expect.stringContaining('cannot be opened'),
    })
  })
  it('applies operation records and reports what each measured', async () => {
    const ops = file(
      'ops.json',
      JSON.stringify([
        { kind: 'repair' },
        { kind: 'scale', factor: 2 },
        { kind: 'hollow', wall: 2, voxel: 0.8 },
        { kind: 'orient', quaternion: [0, 0, 0, 1] },
        { kind: 'support', spacing: 6 },
      ]),
    )
    const target = join(folder, 'out.stl'),
      report = join(folder, 'r.json')
    expect((await call('apply', ops, sphere, '-o', target, '--report', report)).code).toBe(0)
    const r = JSON.parse(readFileSync(report, 'utf8'))
    expect(r.map((x: { kind: string }) => x.kind)).toEqual(['repair', 'scale', 'hollow', 'orient', 'support'])
    expect(r[2].hollow.cavityVolume / ((4 / 3) * Math.PI * 18 ** 3)).toBeCloseTo(1, 1.5)
    const back = readSculpt('out.stl', new Uint8Array(readFileSync(target)))
    expect(back.ok && back.value[0]!.mesh.triangles.length / 3).toBeGreaterThan(r[4].support.bodyFaces)
    expect(await call('apply', file('bad.json', '[{"kind":"hollow"}]'), sphere, '-o', target)).toMatchObject({
      code: 2,
      err: expect.stringMatching(/wall/),
    })
    expect(await call('apply', file('thin.json', '[{"kind":"hollow","wall":15}]'), sphere, '-o', target)).toMatchObject(
      { code: 1, err: expect.stringContaining('Operation 1 (hollow)') },
    )
    expect((await call('apply', ops, sphere, '-o', join(folder, 'out.doc'))).code).toBe(2)
  })
  it('letters, thickens, bores and bays from the same records, and says which of them cannot be', async () => {
    const socle = file(
      'socle.json',
      JSON.stringify([
        { kind: 'base', width: 60, depth: 60, height: 16 },
        { kind: 'nameplate', text: 'No 7', letter: 5 },
        { kind: 'thicken', dabs: [{ point: [0, 30, 8], radius: 6 }], by: 0.4 },
        { kind: 'bay', centre: [0, 0], width: 20, depth: 20, height: 5 },
        {
          kind: 'channel',
          path: [
            [0, 0, 2],
            [0, 0, 16],
          ],
          diameter: 3,
        },
      ]),
    )
    const report = join(folder, 'socle-report.json')
    expect((await call('apply', socle, sphere, '-o', join(folder, 'socle.3mf'), '--report', report)).code).toBe(0)
    const [, plate, pad, bay, channel] = JSON.parse(readFileSync(report, 'utf8'))
    expect(plate.nameplate.stroke).toBeGreaterThan(0.3)
    expect(pad.thicken.added).toBeGreaterThan(5)
    expect(bay.bay.wall).toBeCloseTo(9.4, 1)
    // From the bay's ceiling at 6.6 mm to the top.
    expect(channel.channel.length).toBeCloseTo(9.4, 1)
    const deep = file('deep.json', '[{"kind":"base"},{"kind":"bay","centre":[0,0],"height":11}]')
    expect(await call('apply', deep, sphere, '-o', join(folder, 'no.stl'))).toMatchObject({
      code: 1,
      err: expect.stringContaining('Operation 2 (bay): The bay would leave'),
    })
  })
  it('tells what stays in a hollow part, and the poses that empty it', async () => {
    const ops = file(
      'hollow.json',
      JSON.stringify([
        { kind: 'hollow', wall: 2, voxel: 0.5 },
        { kind: 'drill', holes: [{ point: [10, 0, 0], direction: [-1, 0, 0], diameter: 3 }] },
      ]),
    )
    const target = join(folder, 'hollow.stl')
    expect((await call('apply', ops, sphere, '-o', target)).code).toBe(0)
    const r = await call('trap', target, '--json')
    expect(r.code).toBe(0)
    expect(JSON.parse(r.out).trapped).toBeGreaterThan(500)
    expect((await call('trap', target, '--pose', '1,0,0')).out).toMatch(/1\. right side down: 0\.\d+ ml left/)
    expect(await call('trap', target, '--pose', 'down')).toMatchObject({
      code: 2,
      err: expect.stringContaining('X,Y,Z'),
    })
  })
  it('supports a body and tells the load, length and clearance of each tip', async () => {
    const printer = file(
      'plate.json',
      JSON.stringify({
        name: 'Small',
        pixelsX: 800,
        pixelsY: 600,
        pitchX: 0.1,
        pitchY: 0.1,
        height: 90,
        layerHeight: 0.05,
      }),
    )
    const [target, report] = [join(folder, 'held.stl'), join(folder, 'held.json')]
    const r = await call('supports', sphere, '--printer', printer, '-o', target, '--report', report)
    expect(r).toMatchObject({ code: 0, out: expect.stringContaining('fits the printer') })
    const { tips, bodyFaces, islands } = JSON.parse(readFileSync(report, 'utf8'))
    expect(islands).toEqual([])
    for (const t of tips) {
      expect(t.utilisation).toBeLessThanOrEqual(1)
      expect(t.force).toBeGreaterThanOrEqual(0)
      expect(t.length).toBeGreaterThan(1)
      expect(t.clearance).toBeGreaterThan(0.5)
    }
    expect(readFileSync(target).readUInt32LE(80)).toBeGreaterThan(bodyFaces)
    const tiny = file(
      'tiny.json',
      JSON.stringify({
        name: 'Tiny',
        pixelsX: 100,
        pixelsY: 100,
        pitchX: 0.1,
        pitchY: 0.1,
        height: 20,
        layerHeight: 0.05,
      }),
    )
    expect((await call('supports', sphere, '--printer', tiny)).code).toBe(1)
    expect(await call('supports', sphere)).toMatchObject({ code: 2, err: expect.stringContaining('--printer') })
  })
  it('nests parts over two printers, writes the plates, and says what fits none', async () => {
    const one = { name: 'Small', pixelsX: 800, pixelsY: 600, pitchX: 0.1, pitchY: 0.1, height: 90, layerHeight: 0.05 }
    const printers = file('two.json', JSON.stringify([one, { ...one, name: 'Wide', pixelsX: 1600 }]))
    const box = file('box.stl', writeStl(boxBody(30, 20, 12)))
    const [target, report] = [join(folder, 'plate.stl'), join(folder, 'nest.json')]
    const r = await call('nest', `${sphere}:4`, `${box}:3`, '--printers', printers, '-o', target, '--report', report)
    expect(r).toMatchObject({ code: 0, out: expect.stringContaining('one by one in the order given') })
    const { nesting, only, soonest } = JSON.parse(readFileSync(report, 'utf8'))
    expect(nesting.plates.flatMap((p: { parts: unknown[] }) => p.parts)).toHaveLength(7)
    expect(only.map((o: { printer: string }) => o.printer)).toEqual(['Small', 'Wide'])
    expect(soonest.finish).toBeLessThanOrEqual(nesting.finish)
    // Together the plates hold what was asked for, standing on z = 0.
    let volume = 0
    for (const k of nesting.plates.keys()) {
      const body = readSculpt('plate.stl', readFileSync(target.replace('.stl', `-${k + 1}.stl`)))
      if (!body.ok) throw new Error(say(body.problem.message))
      const m = measure(body.value[0]!.mesh)
      expect(m.box.min[2]).toBeCloseTo(0, 4)
      volume += m.volume
    }
    expect(volume / (4 * measure(sphereBody(10, 4)).volume + 3 * 30 * 20 * 12)).toBeCloseTo(1, 4)
    const tall = file('tall.stl', writeStl(boxBody(5, 5, 200)))
    expect(await call('nest', tall, box, '--printers', printers)).toMatchObject({
      code: 1,
      out: expect.stringContaining('tall.stl, too tall for every printer'),
    })
    expect(await call('nest', `${box}:0`, '--printers', printers)).toMatchObject({ code: 2 })
    expect(await call('nest', box, '--printers', file('twins.json', JSON.stringify([one, one])))).toMatchObject({
      code: 2,
      err: expect.stringContaining('Name them apart'),
    })
  })
  it('slices to a zip with its manifest', async () => {
    const printer = file(
      'printer.json',
      JSON.stringify({
        name: 'Small',
        pixelsX: 600,
        pixelsY: 400,
        pitchX: 0.1,
        pitchY: 0.1,
        height: 60,
        layerHeight: 0.1,
      }),
    )
    const body = file('box.stl', writeStl(boxBody(20, 10, 5, -10, -5, 0))),
      target = join(folder, 'layers.zip')
    expect(await call('slice', body, '--printer', printer, '-o', target)).toMatchObject({
      code: 0,
      out: expect.stringContaining('50 layers'),
    })
    const files = unzipSync(new Uint8Array(readFileSync(target)))
    expect(Object.keys(files).filter((n) => n.endsWith('.png'))).toHaveLength(50)
    const manifest = JSON.parse(new TextDecoder().decode(files['manifest.json']))
    expect(manifest).toMatchObject({ format: 'undercut-layers', layers: 50, layerHeight: 0.1 })
    expect(manifest.files[20].area).toBeCloseTo(200, 2)
    // Read back it is what was sliced.
    const report = join(folder, 'layers.json')
    expect(await call('layers', target, '--report', report)).toMatchObject({
      code: 0,
      out: expect.stringContaining('50 layers of 0.1 mm'),
    })
    const back = JSON.parse(readFileSync(report, 'utf8'))
    expect(back).toMatchObject({ islands: [], cups: [], pixels: [600, 400], pitch: [0.1, 0.1] })
    back.areas.forEach((a: number, i: number) => {
      expect(a).toBeCloseTo(manifest.files[i].area, 3)
    })
    expect(back.volume).toBeCloseTo(1000, 0)
    expect(await call('layers', body)).toMatchObject({ code: 2, err: expect.stringContaining('not a ZIP') })
    expect(await call('layers', join(folder, 'none.zip'))).toMatchObject({ code: 2 })
    expect(await call('layers', target, '--pitch', '0.1')).toMatchObject({
      code: 2,
      err: expect.stringContaining('X,Y'),
    })
    for (const name of ['stack.3mf', 'stack.svg'])
      expect(await call('slice', body, '--printer', printer, '-o', join(folder, name))).toMatchObject({
        code: 0,
        out: expect.stringContaining('50 layers as outlines'),
      })
    expect((await call('check', join(folder, 'stack.3mf'))).code).toBe(0)
    expect(readFileSync(join(folder, 'stack.svg'), 'utf8').match(/<g id="layer-/g)).toHaveLength(50)
    expect(await call('slice', body, '--printer', printer, '-o', join(folder, 'stack.gif'))).toMatchObject({ code: 2 })
    expect(await call('slice', sphere, '--printer', printer, '-o', target)).toMatchObject({
      code: 1,
      err: expect.stringContaining('below the plate'),
    })
  })
  it('shows the schema of every operation', async () => {
    const { out, code } = await call('--help')
    expect(code).toBe(0)
    for (const kind of ['repair', 'scale', 'hollow', 'drill', 'orient', 'support'])
      expect(out).toContain(`"const": "${kind}"`)
    expect((await call()).code).toBe(2)
    expect((await call('dance')).err).toContain('no command "dance"')
  })
  it('says in a sentence that a result cannot be written, and leaves no half of one', async () => {
    const ops = file('twice.json', JSON.stringify([{ kind: 'scale', factor: 2 }]))
    const printer = file(
      'printer.json',
      JSON.stringify({
        name: 'P',
        pixelsX: 600,
        pixelsY: 600,
        pitchX: 0.05,
        pitchY: 0.05,
        height: 60,
        layerHeight: 0.4,
        resin: { name: 'R' },
      }),
    )
    const nowhere = join(folder, 'no', 'such', 'place')
    for (const args of [
      ['apply', ops, sphere, '-o', join(nowhere, 'x.stl')],
      ['slice', sphere, '--printer', printer, '-o', join(nowhere, 'x.zip')],
      ['apply', ops, sphere, '-o', join(folder, 'ok.stl'), '--report', join(nowhere, 'r.json')],
    ])
      expect(await call(...args)).toMatchObject({
        code: 2,
        err: expect.stringMatching(/^undercut: .+: the file cannot be written \(ENOENT\)\.\n$/),
      })
    // A refused slice (it stands out of the printer) leaves neither the zip nor its beginning.
    const small = file('small.json', readFileSync(printer, 'utf8').replace('"height":60', '"height":5'))
    expect((await call('slice', sphere, '--printer', small, '-o', join(folder, 'refused.zip'))).code).toBe(1)
    expect(readdirSync(folder).filter((n) => /refused|\.part$/.test(n))).toEqual([])
  })
  it('joins files beside the operation list, and says which one is missing', async () => {
    file('post.stl', writeStl(boxBody(2, 2, 20, -1, -1, 8)))
    const ops = (part: string): string =>
      file(`join-${part}.json`, JSON.stringify([{ kind: 'join', mode: 'union', others: [{ part }] }]))
    const out = join(folder, 'joined.glb')
    expect(
      (await call('apply', ops('post.stl'), sphere, '-o', out, '--report', join(folder, 'join.report'))).code,
    ).toBe(0)
    const [report] = JSON.parse(readFileSync(join(folder, 'join.report'), 'utf8')) as [
      { measures: { box: { max: number[] } } },
    ]
    expect(report.measures.box.max[2]).toBeCloseTo(28, 4)
    expect(readSculpt('joined.glb', new Uint8Array(readFileSync(out))).ok).toBe(true)
    expect(await call('apply', ops('gone.stl'), sphere, '-o', out)).toMatchObject({
      code: 2,
      err: expect.stringContaining('gone.stl: the file cannot be opened'),
    })
  })
  it('tells how two parts fit: 0 well, 1 overlapping or apart, 2 unreadable', async () => {
    const lid = file('lid.stl', writeStl(boxBody(10, 10, 2, 0, 0, 10.1))),
      pot = file('pot.stl', writeStl(boxBody(10, 10, 10))),
      deep = file('deep.stl', writeStl(boxBody(10, 10, 2, 0, 0, 9.5)))
    const good = await call('fit', pot, lid, '--json')
    expect(good.code).toBe(0)
    expect(JSON.parse(good.out)).toMatchObject({ touching: true, overlap: 0 })
    expect(JSON.parse(good.out).p50).toBeCloseTo(0.1, 2)
    expect(await call('fit', pot, deep)).toMatchObject({ code: 1, out: expect.stringMatching(/overlap +50\.00 mm³/) })
    expect(await call('fit', pot, file('far.stl', writeStl(boxBody(1, 1, 1, 50, 0, 0))))).toMatchObject({
      code: 1,
      out: expect.stringContaining('do not come within 3 mm'),
    })
    expect((await call('fit', pot)).code).toBe(2)
  })
  it('tells whether an assembly stands', async () => {
    file('mast.stl', writeStl(boxBody(2, 2, 100, 4, 4, 2)))
    file('plate.stl', writeStl(boxBody(10, 10, 2)))
    const assembly = (plate: number, wish: number): string =>
      file(
        'assembly.json',
        JSON.stringify({ parts: [{ file: 'plate.stl', density: plate }, { file: 'mast.stl' }], wish }),
      )
    const light = await call('balance', assembly(1, 15), '--json')
    expect(light.code).toBe(1)
    const { centre, weakest } = JSON.parse(light.out) as { centre: number[]; weakest: { angle: number } }
    const z = (0.2 * 1 + 0.448 * 52) / 0.648
    expect(centre[2]).toBeCloseTo(z, 3)
    expect(weakest.angle).toBeCloseTo((Math.atan(5 / z) * 180) / Math.PI, 3)
    expect((await call('balance', assembly(20, 15))).code).toBe(0)
    expect(await call('balance', file('bad.json', '{"parts":[]}'))).toMatchObject({ code: 2 })
  })
  it('schedules the plans of two pieces on the hours of one person: in time, late, in a ring', async () => {
    const step = (key: string, handsOn: number, waiting = 0, after: string[] = []): object => ({
      key,
      handsOn,
      waiting,
      after,
    })
    const bust = file(
      'bust.json',
      JSON.stringify({ due: '2026-06-02', steps: [step('prime', 1800, 3 * 3600), step('paint', 3600, 0, ['prime'])] }),
    )
    const base = file('base.json', JSON.stringify({ steps: [step('sand', 10_800)] }))
    const hours = (day: string): object => ({ day, from: '18:00', to: '21:00' })
    const week = ['monday', 'tuesday', 'wednesday'].map(hours)
    const calendar = (more: object = {}): string =>
      file(
        'calendar.json',
        JSON.stringify({ start: '2026-06-01T12:00:00', people: [{ name: 'Ute', hours: week, ...more }] }),
      )
    const good = await call('plan', bust, base, '--calendar', calendar(), '--seconds', '0.2', '--json')
    expect(good.code).toBe(0)
    const { placed, late } = JSON.parse(good.out) as {
      placed: { id: string; start: number; end: number }[]
      late: number
    }
    expect(late).toBe(0)
    // The bust is due: primed on the first evening, painted on the second; the base, which takes a whole one, has the third.
    expect(placed.map((p) => [p.id, new Date(p.start).getDate()])).toEqual([
      ['bust: prime', 1],
      ['bust: paint', 2],
      ['base: sand', 3],
    ])
    const late2 = await call('plan', bust, '--calendar', calendar({ off: ['2026-06-02'] }), '--seconds', '0.1')
    expect(late2).toMatchObject({ code: 1, out: expect.stringMatching(/bust: done 2026-06-03 19:00, 0\.8 days late/) })
    const ring = file('ring.json', JSON.stringify({ steps: [step('a', 60, 0, ['b']), step('b', 60, 0, ['a'])] }))
    expect(await call('plan', ring, '--calendar', calendar())).toMatchObject({
      code: 2,
      err: expect.stringContaining('wait for each other in a ring: ring: a, ring: b'),
    })
    const negative = file('negative.json', JSON.stringify({ steps: [step('a', -5)] }))
    expect((await call('plan', negative, '--calendar', calendar())).err).toContain('cannot be negative')
    expect((await call('plan', bust)).code).toBe(2)
  })
})
