import type { Mesh } from '../mesh/mesh'
import { writeObj } from './obj'
import { writePly } from './ply'
import { writeStl } from './stl'
import { write3mf } from './write3mf'
import { writeGlb } from './writeGlb'

const WRITERS = {
  stl: (m: Mesh) => writeStl(m),
  obj: (m: Mesh) => writeObj(m),
  ply: writePly,
  '3mf': write3mf,
  glb: writeGlb,
} satisfies Record<string, (mesh: Mesh, name: string) => Uint8Array>
export type MeshFormat = keyof typeof WRITERS

/** Bytes of a mesh in a file format. @param name of the body, where the format has names */
export const writeMesh = (mesh: Mesh, format: MeshFormat, name: string): Uint8Array => WRITERS[format](mesh, name)
