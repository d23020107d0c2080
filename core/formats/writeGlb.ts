import type { Mesh } from '../mesh/mesh'
import { CHUNK_BIN, CHUNK_JSON, GLB_MAGIC } from './glbChunks'
import type { Matrix4 } from './matrix4'

/** From millimetres, z up, front −y to glTF's metres, y up, front +z: on the node, so that the numbers stay as they are. */
const GLTF_FROM_OURS: Matrix4 = [0.001, 0, 0, 0, 0, 0, -0.001, 0, 0, 0.001, 0, 0, 0, 0, 0, 1]

const linearFromByte = (b: number): number => (b <= 10 ? b / 255 / 12.92 : ((b / 255 + 0.055) / 1.055) ** 2.4)

/** GLB with one mesh, its coordinates as they are and the turn to metres and y up on its node. Colours are linear. */
export function writeGlb(mesh: Mesh, name = 'undercut'): Uint8Array {
  const { positions, triangles, colours } = mesh
  const count = positions.length / 3
  const linear = colours ? Float32Array.from(colours, linearFromByte) : null
  const parts: Uint8Array[] = [positions, triangles, ...(linear ? [linear] : [])].map(
    (a) => new Uint8Array(a.buffer, a.byteOffset, a.byteLength),
  )
  const least = [Infinity, Infinity, Infinity],
    most = [-Infinity, -Infinity, -Infinity]
  for (let i = 0; i < positions.length; i++) {
    least[i % 3] = Math.min(least[i % 3]!, positions[i]!)
    most[i % 3] = Math.max(most[i % 3]!, positions[i]!)
  }
  let offset = 0
  const bufferViews = parts.map((p, i) => {
    const view = { buffer: 0, byteOffset: offset, byteLength: p.length, target: i === 1 ? 34_963 : 34_962 }
    offset += p.length
    return view
  })
  const json = {
    asset: { version: '2.0', generator: 'Undercut' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ name, mesh: 0, matrix: GLTF_FROM_OURS }],
    meshes: [
      { name, primitives: [{ attributes: { POSITION: 0, ...(linear ? { COLOR_0: 2 } : {}) }, indices: 1, mode: 4 }] },
    ],
    accessors: [
      { bufferView: 0, componentType: 5126, count, type: 'VEC3', min: least, max: most },
      { bufferView: 1, componentType: 5125, count: triangles.length, type: 'SCALAR' },
      ...(linear ? [{ bufferView: 2, componentType: 5126, count, type: 'VEC3' }] : []),
    ],
    bufferViews,
    buffers: [{ byteLength: offset }],
  }
  const text = new TextEncoder().encode(JSON.stringify(json))
  const padded = (text.length + 3) & ~3
  const bytes = new Uint8Array(12 + 8 + padded + 8 + offset)
  const view = new DataView(bytes.buffer)
  view.setUint32(0, GLB_MAGIC, true)
  view.setUint32(4, 2, true)
  view.setUint32(8, bytes.length, true)
  view.setUint32(12, padded, true)
  view.setUint32(16, CHUNK_JSON, true)
  bytes.fill(0x20, 20, 20 + padded)
  bytes.set(text, 20)
  let at = 20 + padded
  view.setUint32(at, offset, true)
  view.setUint32(at + 4, CHUNK_BIN, true)
  at += 8
  for (const p of parts) {
    bytes.set(p, at)
    at += p.length
  }
  return bytes
}
