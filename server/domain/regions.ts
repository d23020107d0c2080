import { meshFromBytes } from '../../core/formats/meshBytes'
import type { Mesh } from '../../core/mesh/mesh'
import { readBytes } from '../data/blobs'
import { readScheme } from './schemes'
import { message } from '../../core/words/message'
import { say } from '../../core/words/say'

export interface RegionsOn {
  /** name of the region in which a point of the skin lies */
  at(point: readonly number[]): string
  /** name of the region that has most of the skin between two distances, mm, from a point; null where there is none */
  round(point: readonly number[], from: number, to: number): string | null
}

/** Painted copies of the last few parts that were asked for, by their label maps. */
const MAX_KEPT = 6
const cache = new Map<string, Promise<{ mesh: Mesh; labels: Uint8Array } | null>>()

/** The scheme's regions on a part, in the frame in which it stands in the piece; null where nothing was painted on it. */
export async function regionsOn(pieceId: string, partId: string): Promise<RegionsOn | null> {
  const scheme = await readScheme(pieceId)
  const map = scheme.maps.find((m) => m.partId === partId)
  if (!map) return null
  const key = `${map.meshHash} ${map.labels}`
  let load = cache.get(key)
  if (!load) {
    load = painted(map.meshHash, map.labels)
    load.catch(() => cache.delete(key))
    cache.set(key, load)
    if (cache.size > MAX_KEPT) cache.delete(cache.keys().next().value!)
  }
  const copy = await load
  if (!copy) return null
  const { mesh, labels } = copy
  const name = (label: number): string =>
    scheme.regions.find((r) => r.id === label)?.name ?? say(message('names.region'))
  const squared = (point: readonly number[], i: number): number =>
    [0, 1, 2].reduce((s, k) => s + (mesh.positions[3 * i + k]! - point[k]!) ** 2, 0)
  return {
    at(point) {
      let best = 0,
        least = Infinity
      for (let i = 0; i < labels.length; i++) {
        const d = squared(point, i)
        if (d < least) {
          least = d
          best = i
        }
      }
      return name(labels[best]!)
    },
    round(point, from, to) {
      const count = new Map<number, number>()
      for (let i = 0; i < labels.length; i++) {
        const d = squared(point, i)
        if (d >= from * from && d <= to * to) count.set(labels[i]!, (count.get(labels[i]!) ?? 0) + 1)
      }
      const most = [...count].sort((a, b) => b[1] - a[1])[0]
      return most ? name(most[0]) : null
    },
  }
}

async function painted(meshHash: string, labelHash: string): Promise<{ mesh: Mesh; labels: Uint8Array } | null> {
  const [mesh, labels] = [meshFromBytes(await readBytes(meshHash)), await readBytes(labelHash)]
  return mesh.ok && labels.length === mesh.value.positions.length / 3 ? { mesh: mesh.value, labels } : null
}
