import { meshFromBytes } from '../../core/formats/meshBytes'
import type { Mesh } from '../../core/mesh/mesh'
import { fetchBytes } from '../api'
import { say } from '../../core/words/say'
import { manner } from '../manner'

const MAX_MESHES = 6
const cache = new Map<string, Promise<Mesh>>()

/** The mesh of that hash; the last few stay in memory, since stages look at the same ones. */
export function loadMesh(hash: string): Promise<Mesh> {
  const there = cache.get(hash)
  if (there) {
    cache.delete(hash)
    cache.set(hash, there)
    return there
  }
  const load = fetchBytes(hash).then((bytes) => {
    const r = meshFromBytes(bytes)
    if (!r.ok) throw new Error(say(r.problem.message, manner))
    return r.value
  })
  load.catch(() => cache.delete(hash))
  cache.set(hash, load)
  if (cache.size > MAX_MESHES) cache.delete(cache.keys().next().value!)
  return load
}
