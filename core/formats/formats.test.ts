import { inflateSync } from 'node:zlib'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Rasteriser } from '../raster/raster'
import { boxBody, sphereBody } from '../testBodies'
import { meshFromBytes, meshToBytes } from './meshBytes'
import { writeObj } from './obj'
import { encodeLayer } from './pngLayer'
import { readSculpt } from './readSculpt'
import { writeStl } from './stl'
import { say } from '../words/say'

const text = (s: string): Uint8Array => new TextEncoder().encode(s)
const refused = (name: string, bytes: Uint8Array): string => {
  const r = readSculpt(name, bytes)
  if (r.ok) throw new Error('was taken')
  expect(say(r.problem.message).startsWith(name)).toBe(true)
  return r.problem.code
}
const sphere = sphereBody(12.3456, 3, [1, 2, 3])

describe('reading', () => {
  it('reads back what it wrote, exact to Float32, by STL, OBJ and its own form', () => {
    const stl = readSculpt('a.stl', writeStl(sphere)),
      obj = readSculpt('a.OBJ', writeObj(sphere))
    if (!stl.ok || !obj.ok) throw new Error('refused')
    expect(obj.value[0]!.mesh.positions.length).toBe(sphere.positions.length)
    for (const m of [stl.value[0]!.mesh, obj.value[0]!.mesh]) {
      expect(m.triangles.length).toBe(sphere.triangles.length)
      for (let i = 0; i < m.triangles.length; i++)
        for (let k = 0; k < 3; k++)
          expect(m.positions[m.triangles[i]! * 3 + k]).toBe(sphere.positions[sphere.triangles[i]! * 3 + k])
    }
    const own = meshFromBytes(meshToBytes(sphere))
    expect(own.ok && own.value).toEqual(sphere)
  })
  it('reads ASCII STL whatever its spacing, and a binary one whose header says solid', () => {
    const ascii = text(
      'solid x\n facet normal 0 0 1\n\touter loop\n vertex 0 0 0\n VERTEX 1e1 0 0\nvertex 0 10. 0\nendloop endfacet\nendsolid x\n',
    )
    const r = readSculpt('a.stl', ascii)
    expect(r.ok && [...r.value[0]!.mesh.positions]).toEqual([0, 0, 0, 10, 0, 0, 0, 10, 0])
    const binary = writeStl(boxBody(1, 1, 1))
    binary.set(text('solid liar'))
    expect(readSculpt('b.stl', binary).ok).toBe(true)
  })
  it('takes OBJ bodies apart, and counts negative indices back', () => {
    const r = readSculpt(
      'a.obj',
      text(
        'o one\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\ng two\nv 5 0 0\nv 6 0 0\nv 6 1 0\nv 5 1 0\nf -4/1/1 -3//2 -2 -1\n',
      ),
    )
    expect(r.ok && r.value.map((b) => [b.name, b.mesh.triangles.length / 3])).toEqual([
      ['one', 1],
      ['two', 2],
    ])
  })
})

describe('bad input is answered in a sentence that names the file', () => {
  const good = writeStl(sphere)
  const header = (count: number): Uint8Array => {
    const b = good.slice(0, 84 + 500)
    new DataView(b.buffer).setUint32(80, count, true)
    return b
  }
  const nan = good.slice()
  new DataView(nan.buffer).setFloat32(84 + 12, NaN, true)
  const far = good.slice()
  new DataView(far.buffer).setFloat32(84 + 12, 1e9, true)
  it.each([
    ['empty.stl', new Uint8Array(0), 'file-empty'],
    ['cut.stl', good.slice(0, 1000), 'stl-truncated'],
    ['short.stl', good.slice(0, 40), 'stl-truncated'],
    ['four-billion.stl', header(4_000_000_000), 'stl-truncated'],
    ['none.stl', header(0), 'stl-no-faces'],
    ['letter.stl', text('Dear museum, here is the tern.'), 'stl-not-stl'],
    [
      'comma.stl',
      text('solid x\nfacet\nouter loop\nvertex 0,5 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid'),
      'stl-decimal-comma',
    ],
    ['words.stl', text('solid x\nvertex a b c\nendsolid'), 'stl-bad-number'],
    ['cut-ascii.stl', text('solid x\nfacet\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\n'), 'stl-truncated'],
    ['nan.stl', nan, 'coordinate-not-a-number'],
    ['far.stl', far, 'coordinate-too-far'],
    ['missing.obj', text('v 0 0 0\nv 1 0 0\nf 1 2 7\n'), 'obj-missing-vertex'],
    ['before.obj', text('v 0 0 0\nv 1 0 0\nv 0 1 0\nf -1 -2 -9\n'), 'obj-missing-vertex'],
    ['zero.obj', text('v 0 0 0\nf 0 0 0\n'), 'obj-missing-vertex'],
    ['points.obj', text('v 0 0 0\nv 1 0 0\n'), 'obj-no-faces'],
    ['comma.obj', text('v 0,1 0 0\n'), 'obj-bad-number'],
    ['two.obj', text('v 0 0 0\nv 1 1 1\nf 1 2\n'), 'obj-short-face'],
    ['nothing.obj', text('hello'), 'obj-no-faces'],
    ['model.zip', text('PK'), 'archive-damaged'],
    ['picture.png', text('x'), 'format-unknown'],
  ])('%s', (name, bytes, code) => {
    expect(refused(name, bytes)).toBe(code)
  })
  it('never throws on random bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), fc.constantFrom('x.stl', 'x.obj'), (bytes, name) => {
        readSculpt(name, bytes)
      }),
    )
  })
})

describe('PNG layers', () => {
  /** Undoes the filterless rows of an 8-bit grey PNG with zlib alone, as any reader would. */
  function decode(png: Uint8Array): { width: number; height: number; pixels: Uint8Array } {
    const view = new DataView(png.buffer, png.byteOffset)
    const width = view.getUint32(16),
      height = view.getUint32(20),
      length = view.getUint32(33)
    const raw = inflateSync(png.subarray(41, 41 + length))
    expect(raw.length).toBe((width + 1) * height)
    const pixels = new Uint8Array(width * height)
    for (let y = 0; y < height; y++) {
      expect(raw[y * (width + 1)]).toBe(0)
      pixels.set(raw.subarray(y * (width + 1) + 1, (y + 1) * (width + 1)), y * width)
    }
    return { width, height, pixels }
  }
  it('decode to exactly the runs they were written from', () => {
    const rect = fc.tuple(
      fc.double({ min: -5, max: 310, noNaN: true }),
      fc.double({ min: -5, max: 75, noNaN: true }),
      fc.double({ min: 0.1, max: 300, noNaN: true }),
      fc.double({ min: 0.1, max: 60, noNaN: true }),
    )
    fc.assert(
      fc.property(fc.array(rect, { maxLength: 6 }), (rects) => {
        const segments = Float64Array.from(
          rects.flatMap(([x, y, w, h]) => [
            x,
            y,
            x + w,
            y,
            x + w,
            y,
            x + w,
            y + h,
            x + w,
            y + h,
            x,
            y + h,
            x,
            y + h,
            x,
            y,
          ]),
        )
        const runs = new Rasteriser(300, 70, 1, 1, 0, 0).draw(segments, segments.length / 4)
        const { pixels } = decode(encodeLayer(runs))
        const expected = new Uint8Array(300 * 70)
        for (let y = 0; y < 70; y++)
          for (let i = runs.rowStart[y]!; i < runs.rowStart[y + 1]!; i++)
            expected.fill(runs.value[i]!, y * 300 + runs.x[i]!, y * 300 + runs.x[i]! + runs.length[i]!)
        expect(Buffer.compare(Buffer.from(pixels), Buffer.from(expected))).toBe(0)
      }),
      { numRuns: 60 },
    )
  })
})
