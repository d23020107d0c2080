import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { checkSoup } from './checkSoup'
import { message } from '../words/message'

type Scalar = 'i1' | 'u1' | 'i2' | 'u2' | 'i4' | 'u4' | 'f4' | 'f8'
const SCALARS: Record<string, Scalar> = {
  char: 'i1',
  int8: 'i1',
  uchar: 'u1',
  uint8: 'u1',
  short: 'i2',
  int16: 'i2',
  ushort: 'u2',
  uint16: 'u2',
  int: 'i4',
  int32: 'i4',
  uint: 'u4',
  uint32: 'u4',
  float: 'f4',
  float32: 'f4',
  double: 'f8',
  float64: 'f8',
}
const BYTES: Record<Scalar, number> = { i1: 1, u1: 1, i2: 2, u2: 2, i4: 4, u4: 4, f4: 4, f8: 8 }

interface Property {
  name: string
  type: Scalar
  /** type of the count in front of a list; null for a single value */
  countType: Scalar | null
}
interface Element {
  name: string
  count: number
  properties: Property[]
}
interface Header {
  format: 'ascii' | 'binary_little_endian' | 'binary_big_endian'
  elements: Element[]
  /** offset of the first byte after the header */
  body: number
}

/** Most corners a face may have: a list longer than that is a damaged count, not a polygon. */
const MAX_CORNERS = 10_000

/**
 * Reads PLY (ASCII, and both binaries): a mesh, or a point cloud (no faces), with vertex colours and, for clouds,
 * normals where there are any. Faces of many corners are fanned. Vertices are kept as they stand, in file order.
 * Counts are held against the bytes that are there before anything is allocated.
 */
export function readPly(bytes: Uint8Array): Answer<Mesh> {
  const parsed = readHeader(bytes)
  if (!parsed.ok) return parsed
  const header = parsed.value
  const vertex = header.elements.find((e) => e.name === 'vertex')
  if (!vertex || vertex.count === 0) return bad('ply-no-vertices', message('problems.ply.thePlyHasNoPoints'))
  for (const axis of ['x', 'y', 'z'])
    if (!vertex.properties.some((p) => p.name === axis && p.countType === null))
      return bad('ply-no-vertices', message('problems.ply.thePointsOfThisPly', { axis }))
  const least = header.elements.reduce((sum, e) => sum + e.count * leastBytes(e, header.format), 0)
  if (least > bytes.length - header.body)
    return bad(
      'ply-truncated',
      message('problems.ply.thePlyHeaderAnnouncesBut', {
        elements: header.elements.map((e) =>
          message('problems.ply.countOf', { n: e.count, name: e.name.slice(0, 20) }),
        ),
      }),
    )
  const source = header.format === 'ascii' ? new Words(bytes, header.body) : new Binary(bytes, header)
  const sink = new Sink(vertex)
  for (const element of header.elements) {
    const problem = readElement(source, element, sink)
    if (problem) return problem
  }
  return sink.mesh()
}

function readHeader(bytes: Uint8Array): Answer<Header> {
  if (bytes.length === 0) return bad('file-empty', message('problems.ply.theFileIsEmpty'))
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 65_536))
  if (!/^ply\s/.test(head)) return bad('ply-not-ply', message('problems.ply.theFileDoesNotStart'))
  const end = /(^|\n|\r)end_header[ \t]*(\r\n|\n|\r)/.exec(head)
  if (!end) return bad('ply-truncated', message('problems.ply.thePlyHeaderHasNo'))
  const elements: Element[] = []
  let format: Header['format'] | null = null
  for (const line of head.slice(0, end.index).split(/[\r\n]+/)) {
    const w = line.trim().split(/\s+/)
    if (w[0] === 'format') {
      if (w[1] !== 'ascii' && w[1] !== 'binary_little_endian' && w[1] !== 'binary_big_endian')
        return bad('ply-header', message('problems.ply.thePlySaysItIs', { w: (w[1] ?? '').slice(0, 30) }))
      format = w[1]
    } else if (w[0] === 'element') {
      const count = Number(w[2])
      if (!Number.isInteger(count) || count < 0 || count > 2 ** 31)
        return bad('ply-header', message('problems.ply.thePlyHeaderHasNo2', { w: (w[1] ?? '').slice(0, 20) }))
      elements.push({ name: w[1] ?? '', count, properties: [] })
    } else if (w[0] === 'property') {
      const list = w[1] === 'list'
      const type = SCALARS[(list ? w[3] : w[1]) ?? ''],
        countType = list ? SCALARS[w[2] ?? ''] : null
      const owner = elements.at(-1)
      if (!type || countType === undefined || !owner)
        return bad('ply-header', message('problems.ply.thePlyHeaderHasA', { line: line.trim().slice(0, 40) }))
      owner.properties.push({ name: (list ? w[4] : w[2]) ?? '', type, countType })
    }
  }
  if (!format) return bad('ply-header', message('problems.ply.thePlyHeaderDoesNot'))
  return good({ format, elements, body: end.index + end[0].length })
}

const leastBytes = (e: Element, format: Header['format']): number =>
  format === 'ascii'
    ? Math.max(1, e.properties.length * 2)
    : e.properties.reduce((sum, p) => sum + BYTES[p.countType ?? p.type], 0)

interface Source {
  /** next value, or NaN-free `undefined` when the file ends or holds no number there */
  next(type: Scalar): number | undefined
}

class Binary implements Source {
  private readonly view: DataView
  private readonly little: boolean
  private at: number
  constructor(bytes: Uint8Array, header: Header) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
    this.little = header.format === 'binary_little_endian'
    this.at = header.body
  }
  next(type: Scalar): number | undefined {
    const at = this.at
    this.at += BYTES[type]
    if (this.at > this.view.byteLength) return undefined
    switch (type) {
      case 'f4':
        return this.view.getFloat32(at, this.little)
      case 'u1':
        return this.view.getUint8(at)
      case 'i4':
        return this.view.getInt32(at, this.little)
      case 'u4':
        return this.view.getUint32(at, this.little)
      case 'f8':
        return this.view.getFloat64(at, this.little)
      case 'i1':
        return this.view.getInt8(at)
      case 'u2':
        return this.view.getUint16(at, this.little)
      case 'i2':
        return this.view.getInt16(at, this.little)
    }
  }
}

class Words implements Source {
  private readonly latin = new TextDecoder('latin1')
  constructor(
    private readonly bytes: Uint8Array,
    private at: number,
  ) {}
  next(): number | undefined {
    const b = this.bytes
    while (this.at < b.length && b[this.at]! <= 32) this.at++
    const from = this.at
    while (this.at < b.length && b[this.at]! > 32) this.at++
    if (this.at === from) return undefined
    const word = this.latin.decode(b.subarray(from, this.at))
    const n = Number(word)
    return n === n || /^[-+]?nan/i.test(word) ? n : undefined
  }
}

/** Where the values of the known properties go. */
class Sink {
  readonly positions: Float32Array
  private readonly normals: Float32Array | null
  private readonly colours: Uint8Array | null
  private readonly triangles: number[] = []
  constructor(vertex: Element) {
    const has = (names: string[]): boolean => names.every((n) => vertex.properties.some((p) => p.name === n))
    this.positions = new Float32Array(vertex.count * 3)
    this.normals = has(['nx', 'ny', 'nz']) ? new Float32Array(vertex.count * 3) : null
    this.colours = has(['red', 'green', 'blue']) ? new Uint8Array(vertex.count * 3) : null
  }
  /** array, offset in it and scale of one property of a vertex; null for what is passed over */
  place({ name, type }: Property): { into: Float32Array | Uint8Array; offset: number; scale: number } | null {
    const xyz = ['x', 'y', 'z'].indexOf(name)
    if (xyz >= 0) return { into: this.positions, offset: xyz, scale: 1 }
    const n = ['nx', 'ny', 'nz'].indexOf(name)
    if (n >= 0 && this.normals) return { into: this.normals, offset: n, scale: 1 }
    const c = ['red', 'green', 'blue'].indexOf(name)
    if (c >= 0 && this.colours)
      return {
        into: this.colours,
        offset: c,
        // Colours are bytes; some scanners write fractions, some sixteen bits.
        scale: type === 'f4' || type === 'f8' ? 255 : type === 'u2' ? 255 / 65_535 : 1,
      }
    return null
  }
  fan(corners: readonly number[]): void {
    for (let k = 2; k < corners.length; k++) this.triangles.push(corners[0]!, corners[k - 1]!, corners[k]!)
  }
  mesh(): Answer<Mesh> {
    const { positions, normals, colours } = this
    const problem = checkSoup(positions, (n) => message('problems.checkSoup.pointOrAfter', { n: n * 3 + 1 }))
    if (problem) return problem
    return good({
      positions,
      triangles: new Uint32Array(this.triangles),
      ...(colours ? { colours } : {}),
      ...(normals && this.triangles.length === 0 ? { normals } : {}),
    })
  }
}

function readElement(source: Source, element: Element, sink: Sink): ReturnType<typeof bad> | null {
  const ended = (row: number): ReturnType<typeof bad> =>
    bad(
      'ply-truncated',
      message('problems.ply.thePlyEndsOrIs', {
        row: row + 1,
        element: element.name.slice(0, 20),
        count: element.count,
      }),
    )
  const isVertex = element.name === 'vertex',
    isFace = element.name === 'face'
  const places = element.properties.map((p) => (isVertex && p.countType === null ? sink.place(p) : null))
  const vertices = sink.positions.length / 3
  for (let row = 0; row < element.count; row++)
    for (const [k, p] of element.properties.entries()) {
      if (p.countType === null) {
        const v = source.next(p.type)
        if (v === undefined) return ended(row)
        const place = places[k]
        if (place) place.into[row * 3 + place.offset] = place.scale === 1 ? v : Math.round(v * place.scale)
        continue
      }
      const length = source.next(p.countType)
      if (length === undefined || !(length >= 0) || length > MAX_CORNERS) return ended(row)
      const corners: number[] = []
      for (let i = 0; i < length; i++) {
        const v = source.next(p.type)
        if (v === undefined) return ended(row)
        corners.push(v)
      }
      if (!isFace || (p.name !== 'vertex_indices' && p.name !== 'vertex_index')) continue
      for (const v of corners)
        if (!Number.isInteger(v) || v < 0 || v >= vertices)
          return bad('ply-missing-vertex', message('problems.ply.faceUsesPointButThere', { row: row + 1, v, vertices }))
      sink.fan(corners)
    }
  return null
}

/** Little-endian binary PLY in millimetres, exact to Float32; with colours (sRGB) and normals where there are any. */
export function writePly(mesh: Mesh): Uint8Array {
  const { positions: p, triangles: t, colours, normals } = mesh
  const count = p.length / 3,
    faces = t.length / 3
  const rows = ['ply', 'format binary_little_endian 1.0', 'comment millimetres', `element vertex ${count}`]
  for (const axis of ['x', 'y', 'z']) rows.push(`property float ${axis}`)
  if (normals) for (const axis of ['nx', 'ny', 'nz']) rows.push(`property float ${axis}`)
  if (colours) for (const c of ['red', 'green', 'blue']) rows.push(`property uchar ${c}`)
  if (faces > 0) rows.push(`element face ${faces}`, 'property list uchar int vertex_indices')
  const header = new TextEncoder().encode([...rows, 'end_header', ''].join('\n'))
  const stride = 12 + (normals ? 12 : 0) + (colours ? 3 : 0)
  const bytes = new Uint8Array(header.length + count * stride + faces * 13)
  bytes.set(header)
  const view = new DataView(bytes.buffer)
  let at = header.length
  for (let i = 0; i < p.length; i += 3) {
    for (let k = 0; k < 3; k++, at += 4) view.setFloat32(at, p[i + k]!, true)
    if (normals) for (let k = 0; k < 3; k++, at += 4) view.setFloat32(at, normals[i + k]!, true)
    if (colours) for (let k = 0; k < 3; k++) bytes[at++] = colours[i + k]!
  }
  for (let i = 0; i < t.length; i += 3) {
    bytes[at++] = 3
    for (let k = 0; k < 3; k++, at += 4) view.setInt32(at, t[i + k]!, true)
  }
  return bytes
}
