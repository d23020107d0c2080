import { strToU8, zipSync } from 'fflate'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bounds, boxSize, type Mesh } from '../mesh/mesh'
import { measure } from '../mesh/measure'
import { boxBody, sphereBody } from '../testBodies'
import { writeGlb } from './writeGlb'
import { meshFromBytes, meshToBytes } from './meshBytes'
import { writeObj } from './obj'
import { writePly } from './ply'
import { readSculpt } from './readSculpt'
import { writeStl } from './stl'
import { write3mf } from './write3mf'
import { say } from '../words/say'
import type { Said } from '../words/say'

const read = (name: string, bytes: Uint8Array): Mesh => {
  const r = readSculpt(name, bytes)
  if (!r.ok) throw new Error(say(r.problem.message))
  expect(r.value).toHaveLength(1)
  return r.value[0]!.mesh
}
/** Coordinates (and colours) of every corner of every face, in order: what a format must give back to the bit. */
const corners = (m: Mesh): number[] =>
  [...m.triangles].flatMap((v) => [
    ...m.positions.subarray(v * 3, v * 3 + 3),
    ...(m.colours?.subarray(v * 3, v * 3 + 3) ?? []),
  ])

/** Faces of any shape over distinct vertices with awkward coordinates, with colours or without. */
const anyMesh = fc
  .uniqueArray(fc.tuple(...[0, 1, 2].map(() => fc.float({ min: -9e4, max: 9e4, noNaN: true }))), {
    minLength: 3,
    maxLength: 30,
    selector: (p) => p.map((v) => v || 0).join(),
  })
  .chain((points) => {
    const n = points.length
    return fc.record({
      positions: fc.constant(Float32Array.from(points.flat(), (v) => v || 0)),
      triangles: fc
        .array(fc.shuffledSubarray([...points.keys()], { minLength: 3, maxLength: 3 }), { minLength: 1, maxLength: 40 })
        .map((f) => Uint32Array.from(f.flat())),
      colours: fc.option(fc.uint8Array({ minLength: n * 3, maxLength: n * 3 }), { nil: undefined }),
    })
  })
  .map(({ colours, ...m }): Mesh => (colours ? { ...m, colours } : m))

describe('every format gives back what was written', () => {
  it('to the bit of Float32, and colours where it carries them', () => {
    fc.assert(
      fc.property(anyMesh, (mesh) => {
        const { colours, ...bare } = mesh
        void colours
        for (const [name, bytes] of [
          ['a.stl', writeStl(bare)],
          ['a.obj', writeObj(bare)],
        ] as const)
          expect(corners(read(name, bytes))).toEqual(corners(bare))
        for (const [name, bytes] of [
          ['a.ply', writePly(mesh)],
          ['a.glb', writeGlb(mesh)],
          ['a.3mf', write3mf(mesh)],
        ] as const)
          expect(corners(read(name, bytes)), name).toEqual(corners(mesh))
        const own = meshFromBytes(meshToBytes(mesh))
        expect(own.ok && own.value).toEqual(mesh)
      }),
      { numRuns: 60 },
    )
  })
  it('keeps a cloud with normals and colours as it was scanned', () => {
    const { positions } = sphereBody(10, 3)
    const cloud: Mesh = {
      positions,
      triangles: new Uint32Array(0),
      normals: positions.map((v) => v / 10),
      colours: Uint8Array.from(positions, (_, i) => i % 251),
    }
    expect(read('scan.ply', writePly(cloud))).toEqual(cloud)
  })
})

const ply = (...rows: string[]): Uint8Array => strToU8(`ply\n${rows.join('\n')}\n`)
const SQUARE = ['0 0 0 255 0 0', '4 0 0 0 255 0', '4 4 0 0 0 255', '0 4 0 9 9 9']
const XYZ = ['property float x', 'property double y', 'property float32 z']
const RGB = ['property uchar red', 'property uint8 green', 'property uchar blue']

describe('files as others write them', () => {
  it('PLY: text, big-endian, polygons, elements and properties nobody asked for', () => {
    const text = read(
      'a.ply',
      ply(
        'format ascii 1.0',
        'comment made by hand',
        'element vertex 4',
        ...XYZ,
        ...RGB,
        'element face 1',
        'property list uchar int vertex_index',
        'element edge 1',
        'property int vertex1',
        'property int vertex2',
        'end_header',
        ...SQUARE,
        '4 0 1 2 3',
        '0 1',
      ),
    )
    expect(measure(text).area).toBeCloseTo(16, 6)
    expect([...text.colours!.subarray(3, 6)]).toEqual([0, 255, 0])

    const head = strToU8(
      'ply\r\nformat binary_big_endian 1.0\r\nelement vertex 3\r\nproperty short x\r\nproperty uchar quality\r\nproperty float y\r\nproperty float z\r\nelement face 1\r\nproperty list uint uint vertex_indices\r\nend_header\r\n',
    )
    const body = new DataView(new ArrayBuffer(3 * 11 + 16))
    ;[
      [0, 0],
      [300, 0],
      [0, 200],
    ].forEach(([x, y], i) => {
      body.setInt16(i * 11, x!)
      body.setFloat32(i * 11 + 3, y!)
    })
    ;[3, 0, 1, 2].forEach((v, i) => body.setUint32(33 + i * 4, v))
    const big = new Uint8Array(head.length + body.byteLength)
    big.set(head)
    big.set(new Uint8Array(body.buffer), head.length)
    expect(measure(read('b.ply', big)).area).toBeCloseTo(30_000, 3)
  })
  it('OFF with colours and comments', () => {
    const m = read('a.off', strToU8(`COFF # a square\n4 1 0\n${SQUARE.join('\n')}\n# the face\n4 0 1 2 3\n`))
    expect(measure(m).area).toBeCloseTo(16, 6)
    expect([...m.colours!.subarray(6, 9)]).toEqual([0, 0, 255])
  })
  it('3MF: inches, components of components, build transforms, another model file, colours', () => {
    const tetrahedron =
      '<vertices><vertex x="0" y="0" z="0"/><vertex x="1" y="0" z="0"/><vertex x="0" y="1" z="0"/><vertex x="0" y="0" z="1"/></vertices><triangles><triangle v1="0" v2="2" v3="1" pid="7" p1="0"/><triangle v1="0" v2="1" v3="3"/><triangle v1="0" v2="3" v3="2"/><triangle v1="1" v2="2" v3="3"/></triangles>'
    const model = (unit: string, inside: string): Uint8Array =>
      strToU8(
        `<?xml version="1.0"?><model unit="${unit}" xmlns="core" xmlns:m="material" xmlns:p="production">${inside}</model>`,
      )
    const bytes = zipSync({
      '_rels/.rels': strToU8(
        '<Relationships><Relationship Target="/3D/main.model" Type="http://x/3dmodel"/></Relationships>',
      ),
      '3D/main.model': model(
        'inch',
        `<resources><m:colorgroup id="7"><m:color color="#ff8000ff"/></m:colorgroup>
        <object id="1"><mesh>${tetrahedron}</mesh></object>
        <object id="2"><components><component objectid="1" transform="2 0 0 0 2 0 0 0 2 0 0 0"/><component objectid="1" transform="1 0 0 0 1 0 0 0 1 10 0 0"/></components></object>
        <object id="3" name="unused"><mesh>${tetrahedron}</mesh></object></resources>
        <build><item objectid="2" transform="0 1 0 -1 0 0 0 0 1 0 0 5"/><item objectid="9" p:path="/3D/other.model"/></build>`,
      ),
      '3D/other.model': model(
        'inch',
        `<resources><object id="9" name="far"><mesh>${tetrahedron}</mesh></object></resources><build/>`,
      ),
    })
    const r = readSculpt('a.3mf', bytes)
    if (!r.ok) throw new Error(say(r.problem.message))
    expect(r.value.map((b) => b.name)).toEqual(['body 1', 'far'])
    const [both, far] = r.value.map((b) => b.mesh)
    expect(measure(both!).volume / 25.4 ** 3).toBeCloseTo((8 + 1) / 6, 6)
    // A quarter turn takes +x to +y: the second component stands 10 inches along y, everything 5 up.
    expect(bounds(both!).max[1]).toBeCloseTo(11 * 25.4, 3)
    expect(bounds(both!).min[2]).toBeCloseTo(5 * 25.4, 3)
    expect(measure(far!).volume / 25.4 ** 3).toBeCloseTo(1 / 6, 6)
    expect([...both!.colours!.subarray(0, 3)]).toEqual([255, 128, 0])
  })
  it('glTF: node transforms through parents, split vertices made one, strips, colours in bytes', () => {
    const positions = new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0])
    const json = {
      asset: { version: '2.0' },
      scenes: [{ nodes: [0] }],
      nodes: [
        { children: [1], translation: [0, 2, 0] },
        { mesh: 0, name: 'plate', scale: [0.1, 0.1, 0.1] },
      ],
      meshes: [
        {
          primitives: [
            { attributes: { POSITION: 0, COLOR_0: 2 }, indices: 1, mode: 4 },
            { attributes: {}, mode: 1 },
          ],
        },
      ],
      accessors: [
        { bufferView: 0, componentType: 5126, count: 6, type: 'VEC3' },
        { bufferView: 1, componentType: 5121, count: 6, type: 'SCALAR' },
        { bufferView: 2, componentType: 5121, normalized: true, count: 6, type: 'VEC4' },
      ],
      bufferViews: [
        { buffer: 0, byteLength: 72 },
        { buffer: 0, byteOffset: 72, byteLength: 6 },
        { buffer: 0, byteOffset: 80, byteLength: 24 },
      ],
      buffers: [{ byteLength: 104, uri: '' }],
    }
    const buffer = new Uint8Array(104)
    buffer.set(new Uint8Array(positions.buffer))
    buffer.set([0, 1, 2, 3, 4, 5], 72)
    buffer.fill(255, 80)
    json.buffers[0]!.uri = `data:application/octet-stream;base64,${Buffer.from(buffer).toString('base64')}`
    const m = read('a.gltf', strToU8(JSON.stringify(json)))
    expect(m.positions.length / 3).toBe(4)
    expect(boxSize(bounds(m)).map((v) => Math.round(v))).toEqual([100, 0, 100])
    expect(bounds(m).min[2]).toBeCloseTo(2000, 3)
    expect(m.colours!.every((c) => c === 255)).toBe(true)
  })
  it('takes from an archive what it can read, and says of the rest why not', () => {
    const passedOver: Said[] = []
    const r = readSculpt(
      'set.zip',
      zipSync({
        'parts/arm.stl': writeStl(boxBody(1, 2, 3)),
        'parts/head.ply': writePly(sphereBody(4, 2)),
        'bad.off': strToU8('OFF\n9 9 9\n'),
        'read me.txt': strToU8('hello'),
        '__MACOSX/parts/._arm.stl': strToU8('?'),
        '../../etc/escape.stl': writeStl(boxBody(1, 1, 1)),
      }),
      passedOver,
    )
    expect(r.ok && r.value.map((b) => b.name).sort()).toEqual(['arm', 'escape', 'head'])
    expect(passedOver.map((x) => say(x))).toEqual([expect.stringContaining('bad.off: The OFF announces')])
  })
})

describe('hostile and damaged files are answered in words', () => {
  const model = (inside: string): Uint8Array =>
    zipSync({ '3D/3dmodel.model': strToU8(`<model unit="millimeter">${inside}</model>`) })
  const many = Array.from(
    { length: 31 },
    (_, i) => `<object id="${i + 1}"><components>${`<component objectid="${i + 2}"/>`.repeat(4)}</components></object>`,
  ).join('')
  const gltf = (more: object): Uint8Array =>
    strToU8(
      JSON.stringify({
        asset: { version: '2.0' },
        scenes: [{ nodes: [0] }],
        nodes: [{ mesh: 0 }],
        meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
        accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' }],
        bufferViews: [{ buffer: 0, byteLength: 36 }],
        buffers: [{ byteLength: 36, uri: `data:;base64,${Buffer.from(new Uint8Array(36)).toString('base64')}` }],
        ...more,
      }),
    )
  const cutGlb = writeGlb(boxBody(1, 1, 1)).slice(0, 300)
  const accessor = { componentType: 5126, count: 3, type: 'VEC3' }
  const plyHeader = (format: string, count: string): string[] => [
    `format ${format} 1.0`,
    `element vertex ${count}`,
    ...XYZ,
  ]
  it.each([
    [
      'cycle.3mf',
      model(
        '<resources><object id="1"><components><component objectid="1"/></components></object></resources><build><item objectid="1"/></build>',
      ),
      '3mf-cycle',
    ],
    [
      'billions.3mf',
      model(`<resources>${many}<object id="32"/></resources><build><item objectid="1"/></build>`),
      '3mf-too-many',
    ],
    ['absent.3mf', model('<resources/><build><item objectid="5"/></build>'), '3mf-missing'],
    ['outside.3mf', model('<resources/><build><item objectid="1" p:path="/../../etc/passwd"/></build>'), '3mf-missing'],
    [
      'entities.3mf',
      zipSync({ '3D/a.model': strToU8('<!DOCTYPE m [<!ENTITY a "aaaa">]><model>&a;</model>') }),
      '3mf-doctype',
    ],
    ['torn.3mf', model('<resources><object id="1"><mesh>'), '3mf-damaged'],
    [
      'index.3mf',
      model(
        '<resources><object id="1"><mesh><vertices><vertex x="0" y="0" z="0"/></vertices><triangles><triangle v1="0" v2="1" v3="4000000000"/></triangles></mesh></object></resources>',
      ),
      '3mf-missing-vertex',
    ],
    ['number.3mf', model('<resources><object id="1"><mesh><vertices><vertex x="one" y="0" z="0"/>'), '3mf-bad-number'],
    ['none.3mf', zipSync({ 'a.txt': strToU8('x') }), '3mf-no-model'],
    ['not.3mf', strToU8('PK, but no'), 'archive-damaged'],
    ['bomb.zip', zipSync({ 'a.stl': new Uint8Array(50_000_000) }), 'archive-bomb'],
    ['empty.zip', zipSync({ 'a.txt': strToU8('x') }), 'archive-no-sculpt'],
    ['cut.glb', cutGlb, 'glb-truncated'],
    ['elsewhere.gltf', gltf({ buffers: [{ byteLength: 36, uri: '../../../etc/passwd' }] }), 'glb-external'],
    ['remote.gltf', gltf({ buffers: [{ byteLength: 36, uri: 'http://example.invalid/a.bin' }] }), 'glb-external'],
    ['missing.gltf', gltf({ buffers: [{ byteLength: 36 }] }), 'glb-missing-buffer'],
    ['huge.gltf', gltf({ accessors: [{ ...accessor, bufferView: 0, count: 4e9 }] }), 'glb-truncated'],
    ['negative.gltf', gltf({ accessors: [{ ...accessor, bufferView: 0, byteOffset: -12 }] }), 'glb-truncated'],
    ['nowhere.gltf', gltf({ accessors: [{ ...accessor, bufferView: 77 }] }), 'glb-missing'],
    ['ring.gltf', gltf({ nodes: [{ children: [0] }] }), 'glb-cycle'],
    ['packed.gltf', gltf({ extensionsRequired: ['KHR_draco_mesh_compression'] }), 'glb-compressed'],
    ['words.gltf', gltf({ nodes: [{ mesh: 0, translation: ['a', 0, 0] }] }), 'glb-damaged'],
    ['json.gltf', strToU8('{"asset":'), 'glb-damaged'],
    ['lines.gltf', gltf({ meshes: [{ primitives: [{ attributes: { POSITION: 0 }, mode: 1 }] }] }), 'glb-no-faces'],
    ['count.ply', ply(...plyHeader('binary_little_endian', '2000000000'), 'end_header'), 'ply-truncated'],
    ['minus.ply', ply(...plyHeader('ascii', '-3'), 'end_header'), 'ply-header'],
    ['headless.ply', ply('format ascii 1.0', 'element vertex 3'), 'ply-truncated'],
    ['flat.ply', ply('format ascii 1.0', 'element vertex 1', 'property float x', 'end_header', '1'), 'ply-no-vertices'],
    ['short.ply', ply(...plyHeader('ascii', '2'), 'end_header', '0 0 0 1 1'), 'ply-truncated'],
    ['word.ply', ply(...plyHeader('ascii', '1'), 'end_header', '0 zero 0'), 'ply-truncated'],
    [
      'face.ply',
      ply(
        ...plyHeader('ascii', '1'),
        'element face 1',
        'property list uchar int vertex_indices',
        'end_header',
        '0 0 0',
        '3 0 1 2',
      ),
      'ply-missing-vertex',
    ],
    ['far.ply', ply(...plyHeader('ascii', '1'), 'end_header', '0 0 1e30'), 'coordinate-too-far'],
    ['other.ply', strToU8('hello'), 'ply-not-ply'],
    ['huge.off', strToU8('OFF\n400000000 400000000 0\n0 0 0\n'), 'off-truncated'],
    ['index.off', strToU8('OFF\n3 1 0\n0 0 0\n1 0 0\n0 1 0\n3 0 1 3\n'), 'off-missing-vertex'],
    ['letter.off', strToU8('Off we go'), 'off-not-off'],
  ] as [string, Uint8Array, string][])('%s', (name, bytes, code) => {
    const r = readSculpt(name, bytes)
    expect(r.ok ? 'taken' : r.problem.code).toBe(code)
    expect(!r.ok && say(r.problem.message).startsWith(`${name}: `)).toBe(true)
  })
  it('whatever byte is changed in a good file, it is taken or refused, never more', () => {
    const files = {
      'a.ply': writePly(sphereBody(3, 1)),
      'a.glb': writeGlb(sphereBody(3, 1)),
      'a.3mf': write3mf(sphereBody(3, 1)),
      'a.off': strToU8(`OFF\n4 1 0\n${SQUARE.join('\n')}\n4 0 1 2 3\n`),
    }
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(files) as (keyof typeof files)[])),
        fc.double({ min: 0, max: 0.999, noNaN: true }),
        fc.integer({ min: 0, max: 255 }),
        fc.boolean(),
        (name, where, value, cut) => {
          const bytes = files[name].slice()
          const at = Math.floor(bytes.length * where)
          bytes[at] = value
          const r = readSculpt(name, cut ? bytes.subarray(0, at) : bytes)
          if (r.ok)
            for (const b of r.value)
              for (const v of b.mesh.triangles) expect(v * 3).toBeLessThan(b.mesh.positions.length)
          else expect(say(r.problem.message).length).toBeGreaterThan(20)
        },
      ),
      { numRuns: 600 },
    )
  })
})
