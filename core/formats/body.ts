import type { Mesh } from '../mesh/mesh'

/** One body of a sculpt file: a mesh, or a point cloud, which is a mesh without faces. Millimetres. */
export interface Body {
  name: string
  mesh: Mesh
}
