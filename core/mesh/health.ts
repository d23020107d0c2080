import type { Mesh } from './mesh'
import { faceCross, lengthOf } from './face'
import { crumbShells, insideOutShells, shellFacts, withoutCrumbs } from './shellFacts'
import { boundaryLoops, BOUNDARY, DISORIENTED, edgeEnd, NONMANIFOLD, topology } from './topology'
import { measure, type Measures } from './measure'
import { treeOf } from './tree'
import { selfIntersections } from './selfIntersect'

/** A kind of defect with where it is: midpoints in mm, at most `PLACES`, worst first where that is known. */
export interface Defect {
  count: number
  places: [number, number, number][]
}

export interface Health {
  faces: number
  vertices: number
  shells: number
  /** signed volume per shell in mm³, at most 64, largest first */
  shellVolumes: number[]
  openEdges: Defect
  /** rims of holes: one place each, their lengths in mm beside it */
  holes: Defect & { lengths: number[] }
  nonManifold: Defect
  disoriented: Defect
  /** shells that face inward though nothing encloses them */
  insideOut: Defect
  degenerate: Defect
  duplicate: Defect
  selfIntersecting: Defect & { complete: boolean }
  crumbs: Defect
  volume: number
  area: number
  /** mm, without crumbs */
  size: [number, number, number]
  /** of the mesh without its crumbs */
  measures: Measures
  units: 'plausible' | 'looks like metres' | 'looks like inches' | 'looks too large'
  /** closed, oriented, no crossing faces: may be sold as a solid */
  sound: boolean
}

const PLACES = 200
/** Measures everything that is wrong with a mesh. Changes nothing. O(n log n). */
export function health(mesh: Mesh): Health {
  const { positions: p, triangles: t } = mesh
  const topo = topology(mesh)
  const at = (v: number): [number, number, number] => [p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!]
  const edgePlaces = (mark: number, count: number): Defect => {
    const places: [number, number, number][] = []
    for (let h = 0; h < t.length && places.length < PLACES; h++) {
      if (topo.twin[h] !== mark) continue
      const a = at(t[h]!),
        b = at(edgeEnd(t, h))
      places.push([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2])
    }
    return { count, places }
  }
  const faceMiddle = (f: number): [number, number, number] => {
    const a = at(t[f * 3]!),
      b = at(t[f * 3 + 1]!),
      c = at(t[f * 3 + 2]!)
    return [(a[0] + b[0] + c[0]) / 3, (a[1] + b[1] + c[1]) / 3, (a[2] + b[2] + c[2]) / 3]
  }

  const loops = boundaryLoops(mesh, topo.twin)
    .map((loop) => ({ loop, length: loopLength(p, loop) }))
    .sort((a, b) => b.length - a.length)
  const faults = faultyFaces(mesh)
  const parts = shellFacts(mesh)
  const firstFaces = (marked: Uint8Array): number[] => [...parts.firstFace.filter((_, s) => marked[s] === 1)]
  const crossing = selfIntersections(treeOf(mesh))
  const m = measure(mesh)
  const body = withoutCrumbs(mesh, parts)
  const measures = body === mesh ? m : measure(body)
  const list = (faces: number[]): Defect => ({ count: faces.length, places: faces.slice(0, PLACES).map(faceMiddle) })

  const result: Health = {
    faces: t.length / 3,
    vertices: p.length / 3,
    shells: parts.count,
    shellVolumes: [...parts.volumes].sort((a, b) => Math.abs(b) - Math.abs(a)).slice(0, 64),
    openEdges: edgePlaces(BOUNDARY, topo.openEdges),
    holes: {
      count: loops.length,
      places: loops.slice(0, PLACES).map((l) => at(l.loop[0]!)),
      lengths: loops.slice(0, PLACES).map((l) => l.length),
    },
    nonManifold: edgePlaces(NONMANIFOLD, topo.nonManifoldEdges),
    disoriented: edgePlaces(DISORIENTED, topo.disorientedEdges),
    insideOut: list(firstFaces(insideOutShells(parts))),
    degenerate: list(faults.degenerate),
    duplicate: list(faults.duplicate),
    selfIntersecting: {
      count: crossing.pairs.length,
      complete: crossing.complete,
      places: crossing.pairs.slice(0, PLACES).map(([f]) => faceMiddle(f)),
    },
    crumbs: list(firstFaces(crumbShells(parts))),
    volume: m.volume,
    area: m.area,
    size: measures.size,
    measures,
    units: guessUnits(Math.max(...measures.size)),
    sound: false,
  }
  result.sound =
    result.openEdges.count +
      result.nonManifold.count +
      result.disoriented.count +
      result.insideOut.count +
      result.degenerate.count +
      result.duplicate.count +
      result.selfIntersecting.count ===
      0 && result.faces > 0
  return result
}

/** What is known of a mesh once it has been scaled by a factor: its size, and whether its unit is plausible then. */
export function healthAtScale<H extends Pick<Health, 'size' | 'units'>>(h: H, factor: number): H {
  const size = h.size.map((s) => s * factor) as Health['size']
  return { ...h, size, units: guessUnits(Math.max(...size)) }
}

function loopLength(p: Float32Array, loop: number[]): number {
  let sum = 0
  for (let i = 0; i < loop.length; i++) {
    const a = loop[i]! * 3,
      b = loop[(i + 1) % loop.length]! * 3
    sum += Math.hypot(p[a]! - p[b]!, p[a + 1]! - p[b + 1]!, p[a + 2]! - p[b + 2]!)
  }
  return sum
}

/** Faces with two equal corners or no area, and later copies of the same three corners. */
export function faultyFaces(mesh: Mesh): { degenerate: number[]; duplicate: number[] } {
  const { positions: p, triangles: t } = mesh
  const degenerate: number[] = [],
    duplicate: number[] = []
  const vertices = p.length / 3
  // Bucket faces by their lowest corner, so that copies meet without hashing.
  const head = new Int32Array(vertices).fill(-1)
  const chain = new Int32Array(t.length / 3).fill(-1)
  for (let f = 0; f < t.length / 3; f++) {
    const a = t[f * 3]!,
      b = t[f * 3 + 1]!,
      c = t[f * 3 + 2]!
    if (a === b || b === c || a === c || noArea(p, a * 3, b * 3, c * 3)) {
      degenerate.push(f)
      continue
    }
    const low = Math.min(a, b, c),
      high = Math.max(a, b, c),
      sum = a + b + c
    let copy = false
    for (let g = head[low]!; g >= 0 && !copy; g = chain[g]!) {
      const x = t[g * 3]!,
        y = t[g * 3 + 1]!,
        z = t[g * 3 + 2]!
      copy = Math.max(x, y, z) === high && x + y + z === sum
    }
    if (copy) duplicate.push(f)
    else {
      chain[f] = head[low]!
      head[low] = f
    }
  }
  return { degenerate, duplicate }
}

const cross = new Float64Array(3)
function noArea(p: Float32Array, a: number, b: number, c: number): boolean {
  faceCross(p, a, b, c, cross)
  return lengthOf(cross) === 0
}

function guessUnits(longest: number): Health['units'] {
  if (longest <= 0 || longest >= 4000) return longest >= 4000 ? 'looks too large' : 'plausible'
  if (longest < 2.5) return 'looks like metres'
  return longest < 15 ? 'looks like inches' : 'plausible'
}
