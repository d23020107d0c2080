import { bounds, type Mesh } from '../mesh/mesh'
import { treeOf } from '../mesh/tree'
import { extractSurface } from '../volume/extract'
import { sampleField } from '../volume/field'
import { FunctionDistance, MeshDistance } from '../volume/source'
import { silent, type Report } from '../answer'

export interface Infill {
  /** bars from wall to wall in three directions, or a network along a gyroid (Schoen 1970) */
  kind: 'bars' | 'gyroid'
  /** mm from one bar to the next, or of the gyroid's cell */
  spacing: number
  /** mm across a bar; of a gyroid the share of its cell follows from it */
  thickness: number
}

/** How far the fill reaches into the wall, so that it grows together with it, mm. */
const ROOT = 0.4

/**
 * The bars or the network that stiffens a cavity. What they leave free is one connected space: resin and wash reach every
 * part of it.
 *
 * @param cavity closed, seen from its own inside out (its volume positive)
 */
export function infillOf(cavity: Mesh, fill: Infill, voxel: number, report: Report = silent): Mesh {
  const inside = new MeshDistance(treeOf(cavity))
  const pattern = fill.kind === 'bars' ? bars(fill) : gyroid(fill)
  const value = (x: number, y: number, z: number): number => {
    const p = pattern(x, y, z)
    // Far from the pattern the cavity need not be asked.
    return p > 2 * fill.spacing ? p : Math.max(p, inside.sample(x, y, z) - ROOT)
  }
  const box = bounds(cavity)
  return extractSurface(
    sampleField(new FunctionDistance(value, 1), box, Math.min(voxel, fill.thickness / 3), 0, report),
  )
}

/**
 * Turned so that the space diagonal stands upright: every bar then rises at 35°, which prints without supports of its own
 * when the part stands up.
 */
const TURN = [
  [Math.SQRT1_2, -Math.SQRT1_2, 0],
  [1 / Math.sqrt(6), 1 / Math.sqrt(6), -2 / Math.sqrt(6)],
  [1 / Math.sqrt(3), 1 / Math.sqrt(3), 1 / Math.sqrt(3)],
] as const

function bars({ spacing, thickness }: Infill): (x: number, y: number, z: number) => number {
  const off = (v: number): number => v - spacing * Math.round(v / spacing)
  return (x, y, z) => {
    const a = off(TURN[0][0] * x + TURN[1][0] * y + TURN[2][0] * z),
      b = off(TURN[0][1] * x + TURN[1][1] * y + TURN[2][1] * z),
      c = off(TURN[0][2] * x + TURN[1][2] * y + TURN[2][2] * z)
    const aa = a * a,
      bb = b * b,
      cc = c * c
    return Math.sqrt(Math.min(aa + bb, bb + cc, cc + aa)) - thickness / 2
  }
}

function gyroid({ spacing, thickness }: Infill): (x: number, y: number, z: number) => number {
  const k = (2 * Math.PI) / spacing
  const level = gyroidLevel(Math.min(0.45, networkShare(thickness / spacing)))
  // |∇| of the gyroid's function is at most 2k, so the quotient changes no faster than one walks.
  return (x, y, z) => (level - schoen(k * x, k * y, k * z)) / (2 * k)
}
const schoen = (x: number, y: number, z: number): number =>
  Math.sin(x) * Math.cos(y) + Math.sin(y) * Math.cos(z) + Math.sin(z) * Math.cos(x)

/** Share of the cell that a network of struts of that width takes: about 5.3 cell lengths of strut in each cell. */
const networkShare = (width: number): number => 5.3 * (Math.PI / 4) * width * width

/** Level above which the gyroid's function takes that share of its cell, by counting. */
export function gyroidLevel(share: number): number {
  const n = 32
  const values = new Float32Array(n * n * n)
  const step = (2 * Math.PI) / n
  for (let i = 0; i < values.length; i++)
    values[i] = schoen(step * (i % n), step * (Math.floor(i / n) % n), step * Math.floor(i / (n * n)))
  values.sort()
  return values[Math.floor((1 - share) * (values.length - 1))]!
}
