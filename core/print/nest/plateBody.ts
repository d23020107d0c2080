import { concatenate, type Mesh } from '../../mesh/mesh'
import { transformed } from '../../mesh/transform'
import type { Placed } from './types'

/** A body where a nesting has put it: turned about z through its own origin, then moved; mm from the plate's middle. */
export function placedBody(mesh: Mesh, { x, y, angle }: Pick<Placed, 'x' | 'y' | 'angle'>): Mesh {
  const c = Math.cos(angle),
    s = Math.sin(angle)
  return transformed(mesh, [c, -s, 0, s, c, 0, 0, 0, 1], [x, y, 0])
}

/** All of a plate as one body. */
export function plateBody(parts: readonly Placed[], meshOf: (id: string) => Mesh): Mesh {
  return concatenate(parts.map((p) => placedBody(meshOf(p.id), p)))
}
