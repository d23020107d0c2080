import { bad, good, type Answer } from '../answer'
import type { Mesh } from '../mesh/mesh'

/**
 * The store's own form of a mesh: little-endian, `UCM1`, vertex count, face count, 0, then Float32 positions
 * and Uint32 triangles. Sixteen header bytes keep both arrays aligned, so reading is two views, no copy.
 */
const MAGIC = 0x314d4355

export function meshToBytes(mesh: Mesh): Uint8Array {
  const { positions, triangles } = mesh
  const bytes = new Uint8Array(16 + positions.byteLength + triangles.byteLength)
  new Uint32Array(bytes.buffer, 0, 4).set([MAGIC, positions.length / 3, triangles.length / 3, 0])
  new Float32Array(bytes.buffer, 16, positions.length).set(positions)
  new Uint32Array(bytes.buffer, 16 + positions.byteLength, triangles.length).set(triangles)
  return bytes
}

/** Views the bytes as a mesh (copies only when they are not 4-byte aligned). */
export function meshFromBytes(input: Uint8Array): Answer<Mesh> {
  const bytes = input.byteOffset % 4 === 0 ? input : input.slice()
  if (bytes.length < 16) return bad('mesh-bytes', 'Not a stored mesh: too short.')
  const [magic, vertices, faces] = new Uint32Array(bytes.buffer, bytes.byteOffset, 4)
  if (magic !== MAGIC || 16 + vertices! * 12 + faces! * 12 !== bytes.length) return bad('mesh-bytes', 'Not a stored mesh: header and length disagree.')
  return good({
    positions: new Float32Array(bytes.buffer, bytes.byteOffset + 16, vertices! * 3),
    triangles: new Uint32Array(bytes.buffer, bytes.byteOffset + 16 + vertices! * 12, faces! * 3),
  })
}
