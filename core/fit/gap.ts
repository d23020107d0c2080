import { bad, good, silent, type Answer, type Report } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import { bounds, boxDiagonal, keepFaces, type Mesh } from '../mesh/mesh'
import { rayBlocked } from '../mesh/ray'
import { refine } from '../mesh/refine'
import { isClosed, topology } from '../mesh/topology'
import { treeOf, type Tree } from '../mesh/tree'
import { isInside } from '../mesh/winding'
import { sphereDirections } from '../math/directions'
import { overlapOf } from './overlap'
import { message } from '../words/message'

export interface FitOptions {
  /** mm: skins farther apart than this do not face each other */
  reach: number
  /** mm: width of the band along a visible seam that filler has to fill */
  band: number
}
export const fitDefaults: FitOptions = { reach: 3, band: 2 }

export interface FitReport {
  /** whether the two come within reach of each other at all */
  touching: boolean
  /** mm² of facing skin of the first */
  area: number
  /** its middle, and the way it looks in the mean, out of the first */
  centre: [number, number, number]
  outward: [number, number, number]
  /** mm; 5th, 50th and 95th percentile by area, negative where they overlap */
  p5: number
  p50: number
  p95: number
  /** mm³ that both claim */
  overlap: number
  /** mm of the joint's edge that can be seen from outside */
  seam: number
  /** mm³ of filler to level that seam */
  filler: number
  /** the seam by how far it gapes: mm of it and mm³ of filler, of what gapes more than the class before and up to `upTo` mm */
  seamGaps: SeamClass[]
  /** where the gap is widest and where the overlap is deepest */
  widest: { point: [number, number, number]; gap: number } | null
  deepest: { point: [number, number, number]; gap: number } | null
}

export interface SeamClass {
  /** mm; null of all that gapes more than every limit */
  upTo: number | null
  length: number
  volume: number
}
/** mm: where one way of filling gives way to the next (craft.md 10). */
export const SEAM_LIMITS = [0.1, 0.3, 0.5, 1, 2] as const

/** Skins face each other when their normals differ by more than 120°. */
const OPPOSED = -0.5
/** Directions from which a seam may be seen. */
const LOOKS = sphereDirections(64)
/** Largest number of faces that are measured, each by its middle. */
const MAX_FACES = 250_000

/**
 * How two placed parts fit: the signed gap from each face of the one to the facing skin of the other (positive apart,
 * negative inside), its spread, the seam that shows and what it takes to fill it (methods.md 8).
 */
export async function fitOf(
  a: Mesh,
  b: Mesh,
  options: FitOptions = fitDefaults,
  report: Report = silent,
): Promise<Answer<FitReport>> {
  if (!isClosed(a) || !isClosed(b)) return bad('not-solid', message('problems.gap.oneOfTheTwoIs'))
  const near = facesNear(a, b, options.reach)
  const patch = refine(near, Math.max(0.4, boxDiagonal(bounds(near)) / 160), MAX_FACES)
  const tree = treeOf(b)
  const { normals, areas } = faceNormals(patch)
  const faces = patch.triangles.length / 3
  const gaps = new Float32Array(faces).fill(NaN)
  const middle = middles(patch)
  const meter = new GapMeter(b, tree)
  for (let f = 0; f < faces; f++) {
    if ((f & 1023) === 0) report((0.6 * f) / faces)
    gaps[f] = meter.at(middle, f * 3, normals, f * 3, options.reach)
  }
  const claimed = await overlapOf(a, b, near, facesNear(b, a, options.reach))
  if (!claimed.ok) return claimed
  const overlap = claimed.value
  report(0.8)
  const facing = [...gaps.keys()].filter((f) => gaps[f]! === gaps[f]!)
  if (facing.length === 0)
    return good({
      touching: false,
      area: 0,
      centre: [0, 0, 0],
      outward: [0, 0, 1],
      p5: 0,
      p50: 0,
      p95: 0,
      overlap,
      seam: 0,
      filler: 0,
      seamGaps: [],
      widest: null,
      deepest: null,
    })
  facing.sort((f, g) => gaps[f]! - gaps[g]!)
  const area = facing.reduce((sum, f) => sum + areas[f]!, 0)
  const percentile = (q: number): number => {
    let sum = 0
    for (const f of facing) if ((sum += areas[f]!) >= q * area) return gaps[f]!
    return gaps[facing.at(-1)!]!
  }
  const place = (f: number): { point: [number, number, number]; gap: number } => ({
    point: [middle[f * 3]!, middle[f * 3 + 1]!, middle[f * 3 + 2]!],
    gap: gaps[f]!,
  })
  const { seam, filler, seamGaps } = seamOf(patch, gaps, areas, middle, treeOf(a), tree, options.band)
  return good({
    touching: true,
    area,
    ...faceOf(facing, areas, middle, normals),
    p5: percentile(0.05),
    p50: percentile(0.5),
    p95: percentile(0.95),
    overlap,
    seam,
    filler,
    seamGaps,
    widest: place(facing.at(-1)!),
    deepest: gaps[facing[0]!]! < 0 ? place(facing[0]!) : null,
  })
}

function faceOf(
  faces: readonly number[],
  areas: Float32Array,
  middle: Float32Array,
  normals: Float32Array,
): Pick<FitReport, 'centre' | 'outward'> {
  const centre: [number, number, number] = [0, 0, 0],
    outward: [number, number, number] = [0, 0, 0]
  let sum = 0
  for (const f of faces) {
    sum += areas[f]!
    for (let k = 0; k < 3; k++) {
      centre[k]! += areas[f]! * middle[f * 3 + k]!
      outward[k]! += areas[f]! * normals[f * 3 + k]!
    }
  }
  const l = Math.hypot(...outward)
  return {
    centre: centre.map((v) => v / sum) as [number, number, number],
    // Round a peg the sides look all ways: then up is as good as any.
    outward: l > 1e-3 * sum ? (outward.map((v) => v / l) as [number, number, number]) : [0, 0, 1],
  }
}

/** Signed gaps at the vertices of `a` toward `b`, NaN where nothing faces them within reach: the map on the sculpt. */
export function gapMap(a: Mesh, normals: Float32Array, b: Mesh, reach: number, report: Report = silent): Float32Array {
  const out = new Float32Array(a.positions.length / 3).fill(NaN)
  const box = bounds(b)
  const meter = new GapMeter(b, treeOf(b))
  const p = a.positions
  for (let v = 0; v < out.length; v++) {
    if ((v & 1023) === 0) report(v / out.length)
    if ([0, 1, 2].some((k) => p[v * 3 + k]! < box.min[k]! - reach || p[v * 3 + k]! > box.max[k]! + reach)) continue
    out[v] = meter.at(p, v * 3, normals, v * 3, reach)
  }
  return out
}

class GapMeter {
  private readonly hit = closest()
  private readonly normals: Float32Array
  constructor(
    mesh: Mesh,
    private readonly tree: Tree,
  ) {
    this.normals = faceNormals(mesh).normals
  }
  /** NaN when no opposed skin lies within reach */
  at(p: Float32Array, i: number, n: Float32Array, j: number, reach: number): number {
    const { hit, normals } = this
    const x = p[i]!,
      y = p[i + 1]!,
      z = p[i + 2]!
    const d = closestPoint(this.tree, x, y, z, hit, reach)
    if (d === Infinity) return NaN
    const f = hit.face * 3
    if (n[j]! * normals[f]! + n[j + 1]! * normals[f + 1]! + n[j + 2]! * normals[f + 2]! > OPPOSED) return NaN
    if (d < 1e-6) return 0
    const side = (x - hit.x) * normals[f]! + (y - hit.y) * normals[f + 1]! + (z - hit.z) * normals[f + 2]!
    // Beyond an edge of the other skin its face's side says little; the winding number decides.
    const outside = Math.abs(side) > 0.5 * d ? side > 0 : !isInside(this.tree, x, y, z)
    return outside ? d : -d
  }
}

function facesNear(a: Mesh, b: Mesh, reach: number): Mesh {
  const box = bounds(b)
  const { positions: p, triangles: t } = a
  const keep = new Uint8Array(t.length / 3)
  for (let f = 0; f < keep.length; f++) {
    let near = true
    for (let k = 0; k < 3 && near; k++) {
      const x = p[t[f * 3]! * 3 + k]!,
        y = p[t[f * 3 + 1]! * 3 + k]!,
        z = p[t[f * 3 + 2]! * 3 + k]!
      near = Math.max(x, y, z) >= box.min[k]! - reach && Math.min(x, y, z) <= box.max[k]! + reach
    }
    keep[f] = near ? 1 : 0
  }
  return keepFaces(a, keep)
}

function middles({ positions: p, triangles: t }: Mesh): Float32Array {
  const out = new Float32Array(t.length)
  for (let f = 0; f < t.length; f += 3)
    for (let k = 0; k < 3; k++) out[f + k] = (p[t[f]! * 3 + k]! + p[t[f + 1]! * 3 + k]! + p[t[f + 2]! * 3 + k]!) / 3
  return out
}

/**
 * Length of the facing skin's rim from which some direction is free, and the gap's volume along it: each facing face in the
 * band counts to the stretch of rim that it is nearest to, which gapes as they do in the mean.
 */
function seamOf(
  { positions: p, triangles: t }: Mesh,
  gaps: Float32Array,
  areas: Float32Array,
  middle: Float32Array,
  own: Tree,
  other: Tree,
  band: number,
): Pick<FitReport, 'seam' | 'filler' | 'seamGaps'> {
  const { twin } = topology({ positions: p, triangles: t })
  const rim: number[] = [],
    lengths: number[] = [],
    atRim: number[] = []
  for (let h = 0; h < twin.length; h++) {
    const f = (h / 3) | 0
    const n = twin[h]!
    if (gaps[f]! !== gaps[f]! || n < 0 || gaps[(n / 3) | 0]! === gaps[(n / 3) | 0]!) continue
    const a = t[h]! * 3,
      b = t[h % 3 === 2 ? h - 2 : h + 1]! * 3
    const g = (n / 3) | 0
    // Looked at from the first face beyond the joint, a hair off its skin.
    const x = middle[g * 3]!,
      y = middle[g * 3 + 1]!,
      z = middle[g * 3 + 2]!
    const seen = LOOKS.some(
      ([dx, dy, dz]) => !rayBlocked(own, x, y, z, dx, dy, dz, 0.02) && !rayBlocked(other, x, y, z, dx, dy, dz, 0.02),
    )
    if (!seen) continue
    atRim.push(Math.max(0, gaps[f]!))
    lengths.push(Math.hypot(p[a]! - p[b]!, p[a + 1]! - p[b + 1]!, p[a + 2]! - p[b + 2]!))
    rim.push((p[a]! + p[b]!) / 2, (p[a + 1]! + p[b + 1]!) / 2, (p[a + 2]! + p[b + 2]!) / 2)
  }
  const seam = lengths.reduce((sum, l) => sum + l, 0)
  if (rim.length === 0) return { seam, filler: 0, seamGaps: [] }
  // The rim as faces without extent: its tree tells which facing faces lie within the band, and which stretch is theirs.
  const points = new Float32Array(rim)
  const tree = treeOf({ positions: points, triangles: Uint32Array.from(points, (_, i) => (i / 3) | 0) })
  const hit = closest()
  const volumes = new Float64Array(lengths.length),
    faced = new Float64Array(lengths.length)
  for (let f = 0; f < gaps.length; f++) {
    if (!(gaps[f]! === gaps[f]!)) continue
    if (closestPoint(tree, middle[f * 3]!, middle[f * 3 + 1]!, middle[f * 3 + 2]!, hit, band) === Infinity) continue
    faced[hit.face]! += areas[f]!
    if (gaps[f]! > 0) volumes[hit.face]! += gaps[f]! * areas[f]!
  }
  return { seam, filler: volumes.reduce((sum, v) => sum + v, 0), seamGaps: byGap(lengths, volumes, faced, atRim) }
}

function byGap(
  lengths: readonly number[],
  volumes: Float64Array,
  faced: Float64Array,
  atRim: readonly number[],
): SeamClass[] {
  const classes: SeamClass[] = [...SEAM_LIMITS, null].map((upTo) => ({ upTo, length: 0, volume: 0 }))
  lengths.forEach((length, i) => {
    // A stretch that no face of the band is nearest to gapes as its own face does.
    const gap = faced[i]! > 0 ? volumes[i]! / faced[i]! : atRim[i]!
    const c = classes.find((k) => k.upTo === null || gap <= k.upTo)!
    c.length += length
    c.volume += volumes[i]!
  })
  return classes.filter((c) => c.length > 0)
}
