import { bad, good, part, silent, type Answer, type Report } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { faceNormals } from '../mesh/measure'
import { keepFaces, type Box, type Mesh } from '../mesh/mesh'
import { shells, topology } from '../mesh/topology'
import { treeOf } from '../mesh/tree'
import { extractSurface } from '../volume/extract'
import { sampleWhereSignsMeet } from '../volume/signField'
import { nearestNeighbours } from './neighbours'
import { cloudNormals } from './normals'
import { PointWinding } from './pointWinding'
import { thinned } from './thin'
import { message } from '../words/message'

export interface ReconstructOptions {
  /** mm; detail finer than about two of them is lost */
  voxel: number
  /** in voxels: over this length noise is averaged out */
  softness: number
}
export interface ReconstructReport {
  points: number
  /** after points nearer to each other than half a voxel became one */
  used: number
  /** mm between neighbouring points, median */
  spacing: number
  /** whether the file brought normals, or they were found from neighbourhoods */
  normals: 'given' | 'found'
  /** mm; deviation of the points from the surface, by their median: the noise that was averaged out */
  residual: number
  /** places where there were no points and the surface was invented, largest first */
  invented: { point: [number, number, number]; area: number }[]
}

/** Fewer points than this are not a surface. */
const LEAST_POINTS = 100
const NEIGHBOURS = 12
/** A face this many spacings from any point was invented. */
const INVENTED_FROM = 3

/**
 * Closed surface of a scanned cloud: the level set of its points' winding number. Where the scanner saw nothing the
 * surface closes smoothly, and the report lists such places by area.
 */
export function reconstruct(
  cloud: Mesh,
  options: ReconstructOptions,
  report: Report = silent,
): Answer<{ mesh: Mesh; report: ReconstructReport }> {
  const thin = thinned(cloud, options.voxel / 2)
  const { positions } = thin
  const used = positions.length / 3
  if (used < LEAST_POINTS)
    return bad(
      'too-few-points',
      message('problems.reconstruct.ofPointsAreLeftAt', {
        cloud: cloud.positions.length / 3,
        used,
        least_points: LEAST_POINTS,
      }),
    )
  const near = nearestNeighbours(positions, NEIGHBOURS)
  report(0.1)
  const normals = thin.normals ?? cloudNormals(positions, near, NEIGHBOURS)
  report(0.2)
  const { areas, spacing } = patches(positions, near)
  const source = new PointWinding({ positions, normals, areas }, Math.max(options.softness * options.voxel, spacing))
  source.iso = levelAtPoints(source, positions)
  if (!(source.iso > 0.05 && source.iso < 0.95))
    return bad('cloud-not-a-surface', message('problems.reconstruct.thePointsDoNotEnclose'))
  let mesh: Mesh
  try {
    mesh = extractSurface(
      sampleWhereSignsMeet(source, boxOf(positions, 4 * options.voxel), options.voxel, part(report, 0.2, 0.85)),
      part(report, 0.85, 0.92),
    )
  } catch (error) {
    if (error instanceof RangeError) return bad('too-fine', message('problems.reconstruct.theVoxelIsTooSmall'))
    throw error
  }
  mesh = greatestShells(mesh)
  if (mesh.triangles.length === 0)
    return bad('cloud-not-a-surface', message('problems.reconstruct.noClosedSurfaceFitsThese'))
  return good({
    mesh,
    report: {
      points: cloud.positions.length / 3,
      used,
      spacing,
      normals: thin.normals ? 'given' : 'found',
      residual: residual(mesh, positions),
      invented: inventedPlaces(mesh, source, Math.max(spacing, options.voxel) * INVENTED_FROM),
    },
  })
}

/** What each point stands for, mm²: the disc to its farthest neighbour, shared among those in it. */
function patches(p: Float32Array, near: Uint32Array): { areas: Float32Array; spacing: number } {
  const n = p.length / 3
  const apart = (i: number, q: number): number => {
    const j = near[i * NEIGHBOURS + q]!
    return Math.hypot(p[i * 3]! - p[j * 3]!, p[i * 3 + 1]! - p[j * 3 + 1]!, p[i * 3 + 2]! - p[j * 3 + 2]!)
  }
  const first = Float32Array.from({ length: n }, (_, i) => apart(i, 0)).sort()
  const radii = Float32Array.from({ length: n }, (_, i) => apart(i, NEIGHBOURS - 1))
  // A lone point far out must not stand for the square of its loneliness.
  const most = 4 * radii.slice().sort()[n >> 1]!
  return {
    areas: radii.map((r) => (Math.PI * Math.min(r, most) ** 2) / (NEIGHBOURS + 0.5)),
    spacing: first[n >> 1]!,
  }
}

/** Median winding number at the points themselves: on the skin by what the data says, whatever softening did there. */
function levelAtPoints(source: PointWinding, p: Float32Array): number {
  const n = p.length / 3
  const step = Math.max(1, Math.floor(n / 4000))
  const values: number[] = []
  for (let i = 0; i < n; i += step) values.push(source.winding(p[i * 3]!, p[i * 3 + 1]!, p[i * 3 + 2]!))
  return values.sort((a, b) => a - b)[values.length >> 1]!
}

function boxOf(p: Float32Array, around: number): Box {
  const min: Box['min'] = [Infinity, Infinity, Infinity],
    max: Box['max'] = [-Infinity, -Infinity, -Infinity]
  for (let i = 0; i < p.length; i++) {
    const k = (i % 3) as 0 | 1 | 2
    min[k] = Math.min(min[k], p[i]! - around)
    max[k] = Math.max(max[k], p[i]! + around)
  }
  return { min, max }
}

/** Drops the bubbles that stray points blow: shells with less than a hundredth of the largest one's faces. */
function greatestShells(mesh: Mesh): Mesh {
  const { shellOf, count } = shells(mesh)
  if (count < 2) return mesh
  const faces = new Uint32Array(count)
  for (const s of shellOf) faces[s]!++
  const most = faces.reduce((a, b) => Math.max(a, b), 0)
  return keepFaces(
    mesh,
    Uint8Array.from(shellOf, (s) => (faces[s]! * 100 >= most ? 1 : 0)),
  )
}

/** Standard deviation by the median, which a few stray points do not move. */
function residual(mesh: Mesh, p: Float32Array): number {
  const tree = treeOf(mesh),
    hit = closest()
  const n = p.length / 3
  const step = Math.max(1, Math.floor(n / 20_000))
  const off: number[] = []
  for (let i = 0; i < n; i += step) off.push(closestPoint(tree, p[i * 3]!, p[i * 3 + 1]!, p[i * 3 + 2]!, hit))
  return 1.4826 * off.sort((a, b) => a - b)[off.length >> 1]!
}

/** Connected faces whose middle lies farther than `from` from every point, at least one square of `from` large. */
function inventedPlaces(mesh: Mesh, source: PointWinding, from: number): ReconstructReport['invented'] {
  const { positions: p, triangles: t } = mesh
  const faces = t.length / 3
  const lonely = new Uint8Array(faces)
  const middle = (f: number): [number, number, number] =>
    [0, 1, 2].map((k) => (p[t[f * 3]! * 3 + k]! + p[t[f * 3 + 1]! * 3 + k]! + p[t[f * 3 + 2]! * 3 + k]!) / 3) as [
      number,
      number,
      number,
    ]
  for (let f = 0; f < faces; f++) lonely[f] = source.near(...middle(f), from) ? 0 : 1
  const { areas } = faceNormals(mesh)
  const { twin } = topology(mesh)
  const out: ReconstructReport['invented'] = []
  const seen = new Uint8Array(faces)
  for (let seed = 0; seed < faces; seed++) {
    if (!lonely[seed] || seen[seed]) continue
    const members = [seed]
    seen[seed] = 1
    let area = 0,
      farthest = seed,
      most = 0
    for (let i = 0; i < members.length; i++) {
      const f = members[i]!
      area += areas[f]!
      const d = source.nearest(...middle(f))
      if (d > most) {
        most = d
        farthest = f
      }
      for (let k = 0; k < 3; k++) {
        const n = (twin[f * 3 + k]! / 3) | 0
        if (twin[f * 3 + k]! < 0 || !lonely[n] || seen[n]) continue
        seen[n] = 1
        members.push(n)
      }
    }
    if (area > from * from) out.push({ point: middle(farthest), area })
  }
  return out.sort((a, b) => b.area - a.area).slice(0, 200)
}
