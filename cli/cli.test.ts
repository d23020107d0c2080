import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { readSculpt } from '../core/formats/readSculpt'
import { writeStl } from '../core/formats/stl'
import { keepFaces } from '../core/mesh/mesh'
import { boxBody, sphereBody } from '../core/testBodies'
import { run } from './main'

const folder = mkdtempSync(join(tmpdir(), 'undercut-cli-'))
const file = (name: string, content: string | Uint8Array): string => { const p = join(folder, name); writeFileSync(p, content); return p }
const call = async (...args: string[]): Promise<{ code: number; out: string; err: string }> => {
  let out = '', err = ''
  const code = await run(args, (s) => { out += s }, (s) => { err += s })
  return { code, out, err }
}
const sphere = file('sphere.stl', writeStl(sphereBody(10, 4)))

describe('command line', () => {
  it('checks a file: 0 sound, 1 defects, 2 unreadable, each in words', async () => {
    const sound = await call('check', sphere, '--json')
    expect(sound.code).toBe(0)
    expect(JSON.parse(sound.out)).toMatchObject({ sound: true, shells: 1, openEdges: { count: 0 } })
    expect(JSON.parse(sound.out).volumeMl).toBeCloseTo(4.16, 1)
    const holed = file('holed.stl', writeStl(keepFaces(sphereBody(10, 3), Uint8Array.from({ length: 512 }, (_, f) => (f === 5 ? 0 : 1)))))
    expect(await call('check', holed)).toMatchObject({ code: 1, out: expect.stringContaining('has defects') })
    expect(await call('check', file('bad.stl', 'no'))).toMatchObject({ code: 2, err: expect.stringMatching(/^undercut: bad\.stl: .+\.\n$/) })
    expect(await call('check', join(folder, 'gone.stl'))).toMatchObject({ code: 2, err: expect.stringContaining('cannot be opened') })
  })
  it('applies operation records and reports what each measured', async () => {
    const ops = file('ops.json', JSON.stringify([{ kind: 'repair' }, { kind: 'scale', factor: 2 }, { kind: 'hollow', wall: 2, voxel: 0.8 }, { kind: 'orient', quaternion: [0, 0, 0, 1] }, { kind: 'support', spacing: 6 }]))
    const target = join(folder, 'out.stl'), report = join(folder, 'r.json')
    expect((await call('apply', ops, sphere, '-o', target, '--report', report)).code).toBe(0)
    const r = JSON.parse(readFileSync(report, 'utf8'))
    expect(r.map((x: { kind: string }) => x.kind)).toEqual(['repair', 'scale', 'hollow', 'orient', 'support'])
    expect(r[2].hollow.cavityVolume / ((4 / 3) * Math.PI * 18 ** 3)).toBeCloseTo(1, 1.5)
    const back = readSculpt('out.stl', new Uint8Array(readFileSync(target)))
    expect(back.ok && back.value[0]!.mesh.triangles.length / 3).toBeGreaterThan(r[4].support.bodyFaces)
    expect(await call('apply', file('bad.json', '[{"kind":"hollow"}]'), sphere, '-o', target)).toMatchObject({ code: 2, err: expect.stringMatching(/wall/) })
    expect(await call('apply', file('thin.json', '[{"kind":"hollow","wall":15}]'), sphere, '-o', target)).toMatchObject({ code: 1, err: expect.stringContaining('Operation 1 (hollow)') })
    expect((await call('apply', ops, sphere, '-o', join(folder, 'out.doc'))).code).toBe(2)
  })
  it('slices to a zip with its manifest', async () => {
    const printer = file('printer.json', JSON.stringify({ name: 'Small', pixelsX: 600, pixelsY: 400, pitchX: 0.1, pitchY: 0.1, height: 60, layerHeight: 0.1 }))
    const body = file('box.stl', writeStl(boxBody(20, 10, 5, -10, -5, 0))), target = join(folder, 'layers.zip')
    expect(await call('slice', body, '--printer', printer, '-o', target)).toMatchObject({ code: 0, out: expect.stringContaining('50 layers') })
    const files = unzipSync(new Uint8Array(readFileSync(target)))
    expect(Object.keys(files).filter((n) => n.endsWith('.png'))).toHaveLength(50)
    const manifest = JSON.parse(new TextDecoder().decode(files['manifest.json']))
    expect(manifest).toMatchObject({ format: 'undercut-layers', layers: 50, layerHeight: 0.1 })
    expect(manifest.files[20].area).toBeCloseTo(200, 2)
    expect(await call('slice', sphere, '--printer', printer, '-o', target)).toMatchObject({ code: 1, err: expect.stringContaining('below the plate') })
  })
  it('shows the schema of every operation', async () => {
    const { out, code } = await call('--help')
    expect(code).toBe(0)
    for (const kind of ['repair', 'scale', 'hollow', 'drill', 'orient', 'support']) expect(out).toContain(`"const": "${kind}"`)
    expect((await call()).code).toBe(2)
    expect((await call('dance')).err).toContain('no command "dance"')
  })
})
