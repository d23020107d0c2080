import { bad, good, type Answer } from '../../answer'
import { weights } from '../../mesh/transferColours'
import type { Mesh } from '../../mesh/mesh'
import { faceNormals } from '../../mesh/measure'
import { topology } from '../../mesh/topology'
import type { Vector3 } from '../../math/vectors'
import { cutAlong, discCuts } from './cutOpen'
import { flatten, offOf } from './flatten'
import { upOn } from './stencil'
import { message } from '../../words/message'

/** A mark in its own plane: closed outlines, 2 numbers per corner, mm, y up, its middle at the origin; even-odd. */
export type Outlines = readonly ArrayLike<number>[]

export interface Emblem {
  /** the outlines on the skin, 3 per point */
  lines: { points: Float32Array; closed: true }[]
  /** 1 per vertex of the whole mesh that lies within */
  inside: Uint8Array
  /** share by which the skin under it is stretched or pressed on paper, at worst */
  stretch: number
}

/** More than this and a flat mask no longer lies down. */
const BULGES = 0.25
/** mm between points of an outline on the skin */
const FINE = 0.4

export const circleOutline = (radius: number): Float64Array =>
  Float64Array.from({ length: 2 * 96 }, (_, i) =>
    i % 2 === 0 ? radius * Math.cos((Math.PI * i) / 96) : radius * Math.sin((Math.PI * (i - 1)) / 96),
  )
/** Brings outlines to a width, their middle to the origin. */
export function sized(outlines: Outlines, width: number): Float64Array[] {
  let x0 = Infinity,
    x1 = -Infinity,
    y0 = Infinity,
    y1 = -Infinity
  for (const o of outlines)
    for (let i = 0; i < o.length; i += 2) {
      x0 = Math.min(x0, o[i]!)
      x1 = Math.max(x1, o[i]!)
      y0 = Math.min(y0, o[i + 1]!)
      y1 = Math.max(y1, o[i + 1]!)
    }
  const k = width / Math.max(1e-9, x1 - x0)
  return outlines.map((o) =>
    Float64Array.from({ length: o.length }, (_, i) => k * (o[i]! - (i % 2 === 0 ? (x0 + x1) / 2 : (y0 + y1) / 2))),
  )
}

/**
 * Lays a mark onto the skin where it is pressed: the skin about the place is flattened with least distortion, the mark
 * is set down on it upright, and carried back. On what can be unrolled it keeps its size exactly.
 *
 * @param face the face that was pressed
 * @param turn degrees, counter-clockwise as one looks at it
 */
export function placeEmblem(mesh: Mesh, point: Vector3, face: number, mark: Outlines, turn: number): Answer<Emblem> {
  let reach = 0
  for (const o of mark) for (let i = 0; i < o.length; i += 2) reach = Math.max(reach, Math.hypot(o[i]!, o[i + 1]!))
  const patch = around(mesh, point, face, 1.15 * reach + 2)
  const disc = cutAlong(patch.mesh, discCuts(patch.mesh))
  const flat = flatten(disc.mesh)
  const { triangles: t, positions: p } = disc.mesh
  const pressed = patch.faces.indexOf(face)
  const [a, b, c] = [0, 1, 2].map((k) => t[3 * pressed + k]!) as [number, number, number]
  const w = new Float64Array(3)
  weights(p, 3 * a, 3 * b, 3 * c, ...point, w)
  const at = (k: 0 | 1): number =>
    w[0]! * flat.at[2 * a + k]! + w[1]! * flat.at[2 * b + k]! + w[2]! * flat.at[2 * c + k]!
  const middle = [at(0), at(1)] as const
  const up = upOn(disc.mesh, flat)
  const cos = Math.cos((turn * Math.PI) / 180),
    sin = Math.sin((turn * Math.PI) / 180)
  // The mark's own up goes along the sheet's, turned.
  const uy = [up[0] * cos - up[1] * sin, up[0] * sin + up[1] * cos] as const,
    ux = [uy[1], -uy[0]] as const
  const laid = mark.map((o) => {
    const fine = refinedOutline(o)
    return Float64Array.from({ length: fine.length }, (_, i) => {
      const k = i % 2,
        x = fine[i - k]!,
        y = fine[i - k + 1]!
      return middle[k]! + x * ux[k]! + y * uy[k]!
    })
  })
  const lines: Emblem['lines'] = []
  const under = new Set<number>()
  for (const o of laid) {
    const points = new Float32Array((o.length / 2) * 3)
    let last = pressed
    for (let i = 0; i < o.length; i += 2) {
      const found = faceAt(t, flat.at, o[i]!, o[i + 1]!, last)
      if (found === null) return bad('emblem-edge', message('problems.emblem.theMarkExtendsPastThe'))
      last = found.face
      under.add(last)
      for (let k = 0; k < 3; k++)
        points[(i / 2) * 3 + k] = [0, 1, 2].reduce((s, j) => s + found.w[j]! * p[3 * t[3 * last + j]! + k]!, 0)
    }
    lines.push({ points, closed: true })
  }
  const inside = new Uint8Array(mesh.positions.length / 3)
  for (let v = 0; v < disc.from.length; v++)
    if (within(laid, flat.at[2 * v]!, flat.at[2 * v + 1]!)) inside[patch.vertices[disc.from[v]!]!] = 1
  const stretch = Math.max(0, ...[...under].map((f) => offOf(flat, f)))
  if (stretch > BULGES || flat.flipped > 0)
    return bad(
      'emblem-bulges',
      message('problems.emblem.theSurfaceBulgesTooMuch', { stretch: Math.round(100 * stretch) }),
    )
  return good({ lines, inside, stretch })
}

/** Faces that hang together with the pressed one, face the same side and lie within reach. */
function around(
  mesh: Mesh,
  point: Vector3,
  face: number,
  reach: number,
): { mesh: Mesh; faces: number[]; vertices: number[] } {
  const { positions: p, triangles: t } = mesh
  const { twin } = topology(mesh)
  const { normals } = faceNormals(mesh)
  const near = (f: number): boolean =>
    [0, 1, 2].some((k) => {
      const v = 3 * t[3 * f + k]!
      return Math.hypot(p[v]! - point[0], p[v + 1]! - point[1], p[v + 2]! - point[2]) < reach
    })
  const facing = (f: number): boolean =>
    normals[3 * f]! * normals[3 * face]! +
      normals[3 * f + 1]! * normals[3 * face + 1]! +
      normals[3 * f + 2]! * normals[3 * face + 2]! >
    -0.2
  const seen = new Set([face]),
    queue = [face]
  while (queue.length > 0) {
    const f = queue.pop()!
    for (let k = 0; k < 3; k++) {
      const g = twin[3 * f + k]!
      const other = g < 0 ? -1 : Math.floor(g / 3)
      if (other < 0 || seen.has(other) || !near(other) || !facing(other)) continue
      seen.add(other)
      queue.push(other)
    }
  }
  const faces = [...seen]
  const numberOf = new Map<number, number>(),
    vertices: number[] = []
  const triangles = new Uint32Array(3 * faces.length)
  faces.forEach((f, i) => {
    for (let k = 0; k < 3; k++) {
      const v = t[3 * f + k]!
      if (!numberOf.has(v)) {
        numberOf.set(v, vertices.length)
        vertices.push(v)
      }
      triangles[3 * i + k] = numberOf.get(v)!
    }
  })
  const positions = new Float32Array(3 * vertices.length)
  vertices.forEach((v, i) => positions.set(p.subarray(3 * v, 3 * v + 3), 3 * i))
  return { mesh: { positions, triangles }, faces, vertices }
}

/** The face of the sheet in which a place lies, and its weights there; looked for first where the last one was. */
function faceAt(
  t: Uint32Array,
  at: Float64Array,
  x: number,
  y: number,
  first: number,
): { face: number; w: [number, number, number] } | null {
  const inside = (f: number): [number, number, number] | null => {
    const [a, b, c] = [2 * t[3 * f]!, 2 * t[3 * f + 1]!, 2 * t[3 * f + 2]!]
    const ux = at[b]! - at[a]!,
      uy = at[b + 1]! - at[a + 1]!,
      vx = at[c]! - at[a]!,
      vy = at[c + 1]! - at[a + 1]!
    const det = ux * vy - uy * vx
    if (det === 0) return null
    const dx = x - at[a]!,
      dy = y - at[a + 1]!
    const s = (dx * vy - dy * vx) / det,
      r = (ux * dy - uy * dx) / det
    return s >= -1e-9 && r >= -1e-9 && s + r <= 1 + 1e-9 ? [1 - s - r, s, r] : null
  }
  const w = inside(first)
  if (w) return { face: first, w }
  for (let f = 0; f < t.length / 3; f++) {
    const found = inside(f)
    if (found) return { face: f, w: found }
  }
  return null
}

/** The outline with points no farther apart than the skin asks. */
function refinedOutline(o: ArrayLike<number>): number[] {
  const out: number[] = []
  for (let i = 0; i < o.length; i += 2) {
    const j = (i + 2) % o.length
    const steps = Math.max(1, Math.ceil(Math.hypot(o[j]! - o[i]!, o[j + 1]! - o[i + 1]!) / FINE))
    for (let s = 0; s < steps; s++)
      out.push(o[i]! + (s / steps) * (o[j]! - o[i]!), o[i + 1]! + (s / steps) * (o[j + 1]! - o[i + 1]!))
  }
  return out
}

/** Even-odd rule. */
function within(outlines: Outlines, x: number, y: number): boolean {
  let odd = false
  for (const o of outlines)
    for (let i = 0; i < o.length; i += 2) {
      const j = (i + 2) % o.length
      if (o[i + 1]! > y === o[j + 1]! > y) continue
      if (x < o[i]! + ((y - o[i + 1]!) / (o[j + 1]! - o[i + 1]!)) * (o[j]! - o[i]!)) odd = !odd
    }
  return odd
}
