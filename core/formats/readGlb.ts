import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import type { Body } from './body'
import { checkSoup } from './checkSoup'
import { CHUNK_BIN, CHUNK_JSON, GLB_MAGIC } from './glbChunks'
import { identity4, placed, product4, type Matrix4 } from './matrix4'
import { message } from '../words/message'
import type { Said } from '../words/say'

/** glTF 2.0: metres, y up, front +z. Ours: millimetres, z up, front −y. */
const OURS_FROM_GLTF: Matrix4 = [1000, 0, 0, 0, 0, 0, 1000, 0, 0, -1000, 0, 0, 0, 0, 0, 1]

const DEEPEST = 64
const MAX_NODES = 100_000
/** faces of one file, all uses of shared meshes counted */
const MAX_FACES = 20_000_000
/** extensions that change nothing about where the faces are, or that are understood */
const HARMLESS = /^(KHR_materials_|KHR_texture_|KHR_lights_|EXT_texture_|KHR_mesh_quantization$)/

/** The parts of glTF that carry shape. Everything may be missing or of the wrong type: files are hostile. */
interface Gltf {
  asset?: { version?: unknown }
  scene?: number
  scenes?: { nodes?: number[] }[]
  nodes?: {
    name?: unknown
    mesh?: number
    children?: number[]
    matrix?: number[]
    translation?: number[]
    rotation?: number[]
    scale?: number[]
  }[]
  meshes?: { name?: unknown; primitives?: Primitive[] }[]
  accessors?: Accessor[]
  bufferViews?: { buffer?: number; byteOffset?: number; byteLength?: number; byteStride?: number }[]
  buffers?: { uri?: unknown; byteLength?: number }[]
  extensionsRequired?: unknown[]
}
interface Primitive {
  attributes?: Record<string, number>
  indices?: number
  mode?: number
}
interface Accessor {
  bufferView?: number
  byteOffset?: number
  componentType?: number
  normalized?: boolean
  count?: number
  type?: string
  sparse?: unknown
}

class Refused extends Error {
  constructor(
    readonly code: string,
    readonly said: Said,
  ) {
    super(code)
  }
}

/**
 * Reads GLB, or glTF with its buffers embedded as data URIs: every mesh that the scene's nodes use becomes a body, with
 * the node's transform applied and its vertex colours kept. Nothing outside the file is ever opened.
 */
export function readGlb(bytes: Uint8Array): Answer<Body[]> {
  try {
    const { json, binary } = opened(bytes)
    const bodies = new Reader(json, binary).bodies()
    return bodies.length > 0 ? good(bodies) : bad('glb-no-faces', message('problems.readGlb.thereAreNoTrianglesIn'))
  } catch (error) {
    if (error instanceof Refused) return bad(error.code, error.said)
    throw error
  }
}

function opened(bytes: Uint8Array): { json: Gltf; binary: Uint8Array | null } {
  if (bytes.length === 0) throw new Refused('file-empty', message('problems.readGlb.theFileIsEmpty'))
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let text = bytes,
    binary: Uint8Array | null = null
  if (bytes.length >= 12 && view.getUint32(0, true) === GLB_MAGIC) {
    if (view.getUint32(4, true) !== 2)
      throw new Refused(
        'glb-version',
        message('problems.readGlb.thisGlbIsOfVersion', { view: view.getUint32(4, true) }),
      )
    if (view.getUint32(8, true) > bytes.length)
      throw new Refused('glb-truncated', message('problems.readGlb.theGlbIsShorterThan'))
    let json: Uint8Array | null = null
    for (let at = 12; at + 8 <= bytes.length;) {
      const length = view.getUint32(at, true),
        type = view.getUint32(at + 4, true)
      if (at + 8 + length > bytes.length) throw new Refused('glb-truncated', message('problems.readGlb.aChunkOfTheGlb'))
      const chunk = bytes.subarray(at + 8, at + 8 + length)
      if (type === CHUNK_JSON) json ??= chunk
      else if (type === CHUNK_BIN) binary ??= chunk
      at += 8 + length + ((4 - (length & 3)) & 3)
    }
    if (!json) throw new Refused('glb-damaged', message('problems.readGlb.theGlbHasNoDescription'))
    text = json
  }
  let json: unknown
  try {
    json = JSON.parse(new TextDecoder().decode(text))
  } catch {
    throw new Refused('glb-damaged', message('problems.readGlb.theDescriptionInThisGltf'))
  }
  if (typeof json !== 'object' || json === null || !('asset' in json))
    throw new Refused('glb-damaged', message('problems.readGlb.thisFileHasNoGltf'))
  return { json: json as Gltf, binary }
}

const listed = <T>(list: T[] | undefined, index: unknown, what: string): T => {
  const item = Array.isArray(list) && Number.isInteger(index) ? list[index as number] : undefined
  if (typeof item !== 'object' || item === null)
    throw new Refused(
      'glb-missing',
      message('problems.readGlb.theGltfNamesAThat', { what, n: String(index).slice(0, 12) }),
    )
  return item
}

const COMPONENT: Record<number, { bytes: number; most: number; read: (v: DataView, at: number) => number }> = {
  5120: { bytes: 1, most: 127, read: (v, at) => v.getInt8(at) },
  5121: { bytes: 1, most: 255, read: (v, at) => v.getUint8(at) },
  5122: { bytes: 2, most: 32_767, read: (v, at) => v.getInt16(at, true) },
  5123: { bytes: 2, most: 65_535, read: (v, at) => v.getUint16(at, true) },
  5125: { bytes: 4, most: 4_294_967_295, read: (v, at) => v.getUint32(at, true) },
  5126: { bytes: 4, most: 1, read: (v, at) => v.getFloat32(at, true) },
}
const WIDTH: Record<string, number> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4 }

class Reader {
  private readonly buffers = new Map<number, Uint8Array>()
  private faces = 0
  constructor(
    private readonly gltf: Gltf,
    private readonly binary: Uint8Array | null,
  ) {
    for (const name of Array.isArray(gltf.extensionsRequired) ? gltf.extensionsRequired : [])
      if (typeof name !== 'string' || !HARMLESS.test(name))
        throw new Refused(
          'glb-compressed',
          message('problems.readGlb.thisGltfCannotBeRead', { n: String(name).slice(0, 40) }),
        )
  }

  bodies(): Body[] {
    const { gltf } = this
    const out: Body[] = []
    const scene = gltf.scenes?.length ? listed(gltf.scenes, gltf.scene ?? 0, 'scene') : null
    const roots = scene ? (scene.nodes ?? []) : (gltf.nodes ?? []).map((_, i) => i)
    const onPath = new Set<number>()
    let visits = 0
    const walk = (index: number, parent: Matrix4, depth: number): void => {
      if (onPath.has(index) || depth > DEEPEST)
        throw new Refused('glb-cycle', message('problems.readGlb.theNodesOfThisGltf'))
      if (++visits > MAX_NODES) throw new Refused('glb-too-many', message('problems.readGlb.thereAreMoreThan100'))
      const node = listed(gltf.nodes, index, 'node')
      const world = product4(parent, localMatrix(node))
      if (node.mesh !== undefined) {
        const mesh = listed(gltf.meshes, node.mesh, 'mesh')
        for (const p of Array.isArray(mesh.primitives) ? mesh.primitives : []) {
          const body = this.primitive(p)
          if (!body) continue
          const name = [node.name, mesh.name].find((n) => typeof n === 'string' && n !== '') as string | undefined
          out.push({ name: name ?? `body ${out.length + 1}`, mesh: placed(body, world) })
        }
      }
      onPath.add(index)
      for (const child of Array.isArray(node.children) ? node.children : []) walk(child, world, depth + 1)
      onPath.delete(index)
    }
    for (const root of roots) walk(root, OURS_FROM_GLTF, 0)
    for (const b of out) {
      const problem = checkSoup(b.mesh.positions, () => message('problems.checkSoup.vertexOf', { name: b.name }))
      if (problem) throw new Refused(problem.problem.code, problem.problem.message)
    }
    return out
  }

  /** Triangles, strips or fans as a mesh in the node's own frame; lines and points are passed over. */
  private primitive(p: Primitive): Mesh | null {
    const mode = p.mode ?? 4
    if (mode !== 4 && mode !== 5 && mode !== 6) return null
    const positions = this.floats(p.attributes?.POSITION, 3, 'positions')
    const count = positions.length / 3
    const order =
      p.indices === undefined ? Uint32Array.from({ length: count }, (_, i) => i) : this.indices(p.indices, count)
    this.faces += Math.max(0, mode === 4 ? order.length / 3 : order.length - 2)
    if (this.faces > MAX_FACES) throw new Refused('too-many-faces', message('problems.readGlb.thereAreMoreThan20'))
    const triangles = mode === 4 ? order.subarray(0, order.length - (order.length % 3)).slice() : unrolled(order, mode)
    const c = p.attributes?.COLOR_0
    const colours = c === undefined ? null : this.colours(c, count)
    return { positions, triangles, ...(colours ? { colours } : {}) }
  }

  private floats(index: unknown, width: number, what: string): Float32Array {
    const { a, view, stride, component, count } = this.accessor(index, what)
    if (WIDTH[a.type ?? ''] !== width)
      throw new Refused('glb-damaged', message('problems.readGlb.theInThisGltfAre', { what }))
    const scale = a.normalized && component.most > 1 ? 1 / component.most : 1
    const out = new Float32Array(count * width)
    for (let i = 0; i < count; i++)
      for (let k = 0; k < width; k++) {
        const v = component.read(view, i * stride + k * component.bytes) * scale
        out[i * width + k] = v < -1 && scale !== 1 ? -1 : v
      }
    return out
  }

  private indices(index: number, vertices: number): Uint32Array {
    const { view, stride, component, count } = this.accessor(index, 'indices')
    const out = new Uint32Array(count)
    for (let i = 0; i < count; i++) {
      const v = component.read(view, i * stride)
      if (!(v >= 0 && v < vertices) || !Number.isInteger(v))
        throw new Refused('glb-missing-vertex', message('problems.readGlb.aFaceOfThisGltf', { v, vertices }))
      out[i] = v
    }
    return out
  }

  /** Linear, in three or four channels, to sRGB bytes. */
  private colours(index: number, count: number): Uint8Array | null {
    const accessor = listed(this.gltf.accessors, index, 'colour')
    const width = WIDTH[accessor.type ?? ''] ?? 0
    if (width < 3) return null
    const linear = this.floats(index, width, 'colours')
    if (linear.length < count * width) return null
    const out = new Uint8Array(count * 3)
    for (let v = 0; v < count; v++) for (let k = 0; k < 3; k++) out[v * 3 + k] = byteFromLinear(linear[v * width + k]!)
    return out
  }

  private accessor(
    index: unknown,
    what: string,
  ): { a: Accessor; view: DataView; stride: number; component: (typeof COMPONENT)[number]; count: number } {
    const a = listed(this.gltf.accessors, index, what)
    const component = COMPONENT[a.componentType ?? 0]
    const width = WIDTH[a.type ?? ''],
      count = a.count
    if (!component || !width || !Number.isInteger(count) || count! < 0)
      throw new Refused('glb-damaged', message('problems.readGlb.theInThisGltfAre2', { what }))
    if (a.sparse !== undefined || a.bufferView === undefined)
      throw new Refused('glb-sparse', message('problems.readGlb.theAreStoredSparselyWhich', { what }))
    const bv = listed(this.gltf.bufferViews, a.bufferView, 'buffer view')
    const whole = this.buffer(bv.buffer)
    const from = (bv.byteOffset ?? 0) + (a.byteOffset ?? 0)
    const packed = component.bytes * width
    const stride = bv.byteStride ?? packed
    const end = count === 0 ? from : from + (count! - 1) * stride + packed
    const limit = (bv.byteOffset ?? 0) + (bv.byteLength ?? 0)
    if (!(from >= 0) || !(stride >= packed) || !(end <= limit) || !(limit <= whole.length))
      throw new Refused('glb-truncated', message('problems.readGlb.thisGltfAnnouncesButThe', { count: count!, what }))
    return {
      a,
      view: new DataView(whole.buffer, whole.byteOffset + from, end - from),
      stride,
      component,
      count: count!,
    }
  }

  private buffer(index: unknown): Uint8Array {
    const known = this.buffers.get(index as number)
    if (known) return known
    const b = listed(this.gltf.buffers, index, 'buffer')
    let bytes: Uint8Array
    if (b.uri === undefined) {
      if (index !== 0 || !this.binary)
        throw new Refused('glb-missing-buffer', message('problems.readGlb.theBufferWithTheShape'))
      bytes = this.binary
    } else {
      const data = typeof b.uri === 'string' ? /^data:[^,]*;base64,/.exec(b.uri) : null
      if (!data)
        throw new Refused(
          'glb-external',
          message('problems.readGlb.theShapeIsInAnother', { n: String(b.uri).slice(0, 40) }),
        )
      try {
        bytes = Uint8Array.from(atob((b.uri as string).slice(data[0].length)), (c) => c.charCodeAt(0))
      } catch {
        throw new Refused('glb-damaged', message('problems.readGlb.anEmbeddedBufferOfThis'))
      }
    }
    this.buffers.set(index as number, bytes)
    return bytes
  }
}

function localMatrix(node: NonNullable<Gltf['nodes']>[number]): Matrix4 {
  const numbers = (v: unknown, n: number): number[] | null => {
    if (v === undefined) return null
    if (!Array.isArray(v) || v.length !== n || v.some((x) => typeof x !== 'number' || !Number.isFinite(x)))
      throw new Refused('glb-damaged', message('problems.readGlb.aNodeOfThisGltf'))
    return v as number[]
  }
  const whole = numbers(node.matrix, 16)
  if (whole) return whole
  const t = numbers(node.translation, 3),
    r = numbers(node.rotation, 4),
    s = numbers(node.scale, 3)
  if (!t && !r && !s) return identity4
  const [x, y, z, w] = r ?? [0, 0, 0, 1],
    [sx, sy, sz] = s ?? [1, 1, 1],
    [tx, ty, tz] = t ?? [0, 0, 0]
  return [
    (1 - 2 * (y! * y! + z! * z!)) * sx!,
    2 * (x! * y! + z! * w!) * sx!,
    2 * (x! * z! - y! * w!) * sx!,
    0,
    2 * (x! * y! - z! * w!) * sy!,
    (1 - 2 * (x! * x! + z! * z!)) * sy!,
    2 * (y! * z! + x! * w!) * sy!,
    0,
    2 * (x! * z! + y! * w!) * sz!,
    2 * (y! * z! - x! * w!) * sz!,
    (1 - 2 * (x! * x! + y! * y!)) * sz!,
    0,
    tx!,
    ty!,
    tz!,
    1,
  ]
}

/** Triangles of a strip (5) or a fan (6). */
function unrolled(order: Uint32Array, mode: 5 | 6): Uint32Array {
  const faces = Math.max(0, order.length - 2)
  const out = new Uint32Array(faces * 3)
  for (let f = 0; f < faces; f++) {
    const [a, b] = mode === 6 ? [0, f + 1] : f & 1 ? [f + 1, f] : [f, f + 1]
    out.set([order[a]!, order[b]!, order[f + 2]!], f * 3)
  }
  return out
}

const byteFromLinear = (v: number): number =>
  Math.round(255 * Math.min(1, Math.max(0, v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055)))
