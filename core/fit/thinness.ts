import { silent, type Report } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { faceNormals } from '../mesh/measure'
import { rayFirst } from '../mesh/ray'
import { treeOf } from '../mesh/tree'
import { frame } from '../shape/cylinder'

export interface Thinness {
  /** mm; median of an inward cone at the thinnest spot */
  thinnest: number
  place: [number, number, number]
  /** mm² of skin whose body is thinner than the limit */
  thinArea: number
  samples: number
  /** thin spots, thinnest first, at most 40 */
  places: { point: [number, number, number]; thickness: number }[]
}

const CONE = (30 * Math.PI) / 180

/**
 * Local thickness by the median length of rays in an inward cone (Shapira, Shamir and Cohen-Or 2008), from
 * area-weighted samples of the skin.
 *
 * @param limit mm; thinner than this is reported
 */
export function thinness(mesh: Mesh, limit: number, report: Report = silent, samples = 6000): Thinness {
  const tree = treeOf(mesh)
  const { positions: p, triangles: t } = mesh
  const { normals, areas } = faceNormals(mesh)
  const total = areas.reduce((a, b) => a + b, 0)
  const places: Thinness['places'] = []
  let carried = 0, n = 0, thin = 0, thinnest = Infinity
  let place: [number, number, number] = [0, 0, 0]
  for (let f = 0; f < areas.length; f++) {
    carried += (areas[f]! / total) * samples
    if (carried < 1) continue
    carried %= 1
    if ((n++ & 127) === 0) report(f / areas.length)
    const c = [0, 1, 2].map((k) => (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3) as [number, number, number]
    const d = [-normals[f * 3]!, -normals[f * 3 + 1]!, -normals[f * 3 + 2]!] as const
    const [u, v] = frame(d)
    const lengths: number[] = []
    for (let k = 0; k < 9; k++) {
      const a = k === 0 ? 0 : CONE * (k < 5 ? 0.5 : 1), r = (k * Math.PI) / 2 + (k < 5 ? 0 : Math.PI / 4)
      const s = Math.sin(a), w = Math.cos(a)
      const dir = [0, 1, 2].map((i) => d[i]! * w + (u[i]! * Math.cos(r) + v[i]! * Math.sin(r)) * s)
      const hit = rayFirst(tree, c[0] + d[0] * 1e-4, c[1] + d[1] * 1e-4, c[2] + d[2] * 1e-4, dir[0]!, dir[1]!, dir[2]!, 1e-4)
      // Rays that meet the skin from outside have slipped through a crack; they say nothing of the body.
      // Slanted rays count by their depth along the axis, so that a plate has its true thickness.
      if (hit?.leaving) lengths.push(hit.t * w)
    }
    if (lengths.length < 4) continue
    lengths.sort((a, b) => a - b)
    const thickness = lengths[lengths.length >> 1]!
    if (thickness < thinnest) { thinnest = thickness; place = c }
    if (thickness < limit) { thin++; places.push({ point: c, thickness }) }
  }
  places.sort((a, b) => a.thickness - b.thickness)
  return { thinnest, place, thinArea: (thin / Math.max(1, n)) * total, samples: n, places: places.slice(0, 40) }
}
