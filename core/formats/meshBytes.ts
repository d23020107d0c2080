import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { message } from '../words/message'

/**
 * The store's own form of a mesh: little-endian, `UCM1`, vertex count, face count, flags, then Float32 positions and
 * Uint32 triangles, then what the flags name: Float32 normals (2), RGB bytes filled up to four (1). Sixteen header
 * bytes keep the arrays aligned, so reading is views, no copy.
 */
const MAGIC = 0x314d4355
const HEADER = 16
const COLOURS = 1,
  NORMALS = 2

const length = (vertices: number, faces: number, flags: number): number =>
  HEADER +
  vertices * 12 +
  faces * 12 +
  (flags & NORMALS ? vertices * 12 : 0) +
  (flags & COLOURS ? (vertices * 3 + 3) & ~3 : 0)

export function meshToBytes({ positions, triangles, colours, normals }: Mesh): Uint8Array {
  const vertices = positions.length / 3,
    faces = triangles.length / 3
  const flags = (colours ? COLOURS : 0) | (normals ? NORMALS : 0)
  const bytes = new Uint8Array(length(vertices, faces, flags))
  new Uint32Array(bytes.buffer, 0, 4).set([MAGIC, vertices, faces, flags])
  let at = HEADER
  for (const a of [positions, triangles, normals, colours]) {
    if (!a) continue
    bytes.set(new Uint8Array(a.buffer, a.byteOffset, a.byteLength), at)
    at += a.byteLength
  }
  return bytes
}

/** Views the bytes as a mesh (copies only when they are not 4-byte aligned). */
export function meshFromBytes(input: Uint8Array): Answer<Mesh> {
  const bytes = input.byteOffset % 4 === 0 ? input : input.slice()
  if (bytes.length < HEADER) return bad('mesh-bytes', message('problems.meshBytes.notAStoredMeshToo'))
  const [magic, vertices, faces, flags] = new Uint32Array(bytes.buffer, bytes.byteOffset, 4) as unknown as number[]
  if (magic !== MAGIC || length(vertices!, faces!, flags!) !== bytes.length)
    return bad('mesh-bytes', message('problems.meshBytes.notAStoredMeshHeader'))
  let at = bytes.byteOffset + HEADER
  const next = <T>(make: (at: number) => T & { byteLength: number }): T => {
    const view = make(at)
    at += view.byteLength
    return view
  }
  const positions = next((o) => new Float32Array(bytes.buffer, o, vertices! * 3)),
    triangles = next((o) => new Uint32Array(bytes.buffer, o, faces! * 3))
  const normals = flags! & NORMALS ? next((o) => new Float32Array(bytes.buffer, o, vertices! * 3)) : null
  const colours = flags! & COLOURS ? next((o) => new Uint8Array(bytes.buffer, o, vertices! * 3)) : null
  return good({ positions, triangles, ...(colours ? { colours } : {}), ...(normals ? { normals } : {}) })
}
