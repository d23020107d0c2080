import { part, silent, type Report } from '../../answer'
import { clipAt } from '../../mesh/clip'
import { faceNormals } from '../../mesh/measure'
import { keepFaces, type Mesh } from '../../mesh/mesh'
import { simplify } from '../../mesh/simplify'
import { edgeEnd, edgeStart, shells, topology } from '../../mesh/topology'
import { regionMargin } from '../surface/borders'
import { cutAlong, discCuts, farthest, markPath, openVertices, pathsTo, type Paths } from './cutOpen'
import { flatten, offOf, type Flat } from './flatten'
import { crosses } from './crosses'

export interface StencilWish {
  /** share by which a twentieth of the sheet may be stretched or pressed before a dart is cut */
  stretch: number
  /** most darts a piece may get */
  darts: number
}
export const STENCIL: StencilWish = { stretch: 0.05, darts: 16 }

export interface StencilPiece {
  /** outline in the sheet's plane, mm, 2 per point, counter-clockwise */
  outline: Float64Array
  /** per point: the edge that leaves it is the region's own (1), or was opened to lie flat (0) */
  own: Uint8Array
  /** unit, in the sheet's plane: which way is up on the piece */
  up: [number, number]
  darts: number
  /** mm²: on the sculpt and on the sheet */
  area: { skin: number; sheet: number }
  /** mm of the region's own edge: on the sculpt and on the sheet */
  edge: { skin: number; sheet: number }
  /** share by which the worst twentieth of the sheet is stretched or pressed */
  stretch: number
  /** the sheet lies over itself, so that it cannot be cut in one piece */
  overlaps: boolean
}
export interface Stencils {
  pieces: StencilPiece[]
  /** mm² of crumbs too small to be cut, and how many */
  crumbs: { count: number; area: number }
}

/** mm²: less than this nobody cuts from paper */
const CRUMB = 12
/** Faces that a patch is laid flat with; and mm by which it may be off, which no tape follows. */
const FACES = 3500,
  OFF = 0.25

/**
 * The patches of a region laid flat, to be cut from tape or paper at true size: each connected patch opened to a disc,
 * flattened with least distortion, and given darts where that stretches it too much.
 *
 * @param labels region number per vertex
 */
export async function stencils(
  mesh: Mesh,
  labels: Uint8Array,
  region: number,
  wish: StencilWish = STENCIL,
  report: Report = silent,
): Promise<Stencils> {
  const skin = labels.every((l) => l === region) ? mesh : clipAt(mesh, regionMargin(mesh, labels, region), 0)
  const { shellOf, count } = shells(skin)
  const pieces: StencilPiece[] = []
  const crumbs = { count: 0, area: 0 }
  for (let s = 0; s < count; s++) {
    report(s / count)
    const patch = keepFaces(
      skin,
      Uint8Array.from(shellOf, (o) => (o === s ? 1 : 0)),
    )
    const area = faceNormals(patch).areas.reduce((a, b) => a + b, 0)
    if (area < CRUMB) {
      crumbs.count++
      crumbs.area += area
      continue
    }
    const lean = await simplify(patch, FACES, OFF, true)
    // What the sheet is compared with is the skin itself.
    pieces.push(laidFlat(lean, area, wish, part(report, s / count, (s + 1) / count)))
  }
  pieces.sort((a, b) => b.area.skin - a.area.skin)
  return { pieces, crumbs }
}

interface FlatPatch {
  /** before it was opened */
  cut: Uint8Array
  mesh: Mesh
  from: Uint32Array
  flat: Flat
  stretch: number
  overlaps: boolean
  outline: Float64Array
  own: Uint8Array
  edge: StencilPiece['edge']
}

/** @param skin mm² of the patch before it was made lean */
function laidFlat(patch: Mesh, skin: number, wish: StencilWish, report: Report): StencilPiece {
  const { twin } = topology(patch)
  let best = opened(patch, discCuts(patch), twin)
  let darts = 0
  while (darts < wish.darts && !fits(best, wish)) {
    report(darts / wish.darts)
    const paths = pathsTo(patch, openOf(patch, twin, best.cut))
    const tries = dartEnds(paths, best).map((end) => {
      const cut = best.cut.slice()
      markPath(patch, twin, paths, end, cut)
      return opened(patch, cut, twin)
    })
    const next = tries.sort((a, b) => a.flat.energy - b.flat.energy)[0]
    // A dart that helps nothing is not cut.
    if (!next || (next.flat.energy > 0.98 * best.flat.energy && !best.overlaps)) break
    best = next
    darts++
  }
  return pieceOf(best, skin, darts)
}
const fits = ({ stretch, overlaps, flat, edge }: FlatPatch, wish: StencilWish): boolean =>
  stretch <= wish.stretch &&
  !overlaps &&
  flat.flipped === 0 &&
  (edge.skin === 0 || Math.abs(edge.sheet / edge.skin - 1) < EDGE_TRUE)
/** The region's own edge on the sheet is as long as on the sculpt, but for this share. */
const EDGE_TRUE = 0.015

function opened(patch: Mesh, cut: Uint8Array, twin: Int32Array): FlatPatch {
  const { mesh, from } = cutAlong(patch, cut, twin)
  const flat = flatten(mesh)
  const { areas } = faceNormals(mesh)
  const list = [...areas.keys()].map((f) => ({ area: areas[f]!, off: offOf(flat, f) })).sort((a, b) => b.off - a.off)
  const whole = areas.reduce((a, b) => a + b, 0)
  let sum = 0,
    stretch = 0
  for (const { area, off } of list) {
    sum += area
    if (sum > 0.05 * whole) {
      stretch = off
      break
    }
  }
  const loop = rimLoop(mesh)
  const n = patch.positions.length / 3,
    t = mesh.triangles
  const rim = new Set<number>()
  for (let h = 0; h < twin.length; h++)
    if (twin[h]! < 0) rim.add(edgeStart(patch.triangles, h) * n + edgeEnd(patch.triangles, h))
  const own = Uint8Array.from(loop, (h) => (rim.has(from[edgeStart(t, h)]! * n + from[edgeEnd(t, h)]!) ? 1 : 0))
  const outline = outlineOf(loop, mesh, flat)
  const edge = edgeOf(loop, own, mesh, flat)
  return { cut, mesh, from, flat, stretch, outline, own, edge, overlaps: crosses(outline) }
}

function edgeOf(
  loop: readonly number[],
  own: Uint8Array,
  { positions: p, triangles: t }: Mesh,
  { at }: Flat,
): StencilPiece['edge'] {
  const edge = { skin: 0, sheet: 0 }
  loop.forEach((h, i) => {
    if (own[i] !== 1) return
    const a = edgeStart(t, h),
      b = edgeEnd(t, h)
    edge.skin += Math.hypot(p[3 * a]! - p[3 * b]!, p[3 * a + 1]! - p[3 * b + 1]!, p[3 * a + 2]! - p[3 * b + 2]!)
    edge.sheet += Math.hypot(at[2 * a]! - at[2 * b]!, at[2 * a + 1]! - at[2 * b + 1]!)
  })
  return edge
}

/** Vertices that lie on the rim or on a cut. */
function openOf(patch: Mesh, twin: Int32Array, cut: Uint8Array): Set<number> {
  const out = openVertices(patch, twin)
  for (let h = 0; h < cut.length; h++) if (cut[h] === 1) out.add(edgeStart(patch.triangles, h))
  return out
}

/** Where a dart may end: the deepest place, and where the sheet is pulled most within. */
function dartEnds({ far }: Paths, laid: FlatPatch): number[] {
  const deepest = farthest(far)
  if (!(far[deepest]! > 0)) return []
  const off = new Float64Array(far.length),
    weight = new Float64Array(far.length)
  const { areas } = faceNormals(laid.mesh)
  const { triangles: t } = laid.mesh
  for (let i = 0; i < t.length; i++) {
    const f = Math.floor(i / 3),
      v = laid.from[t[i]!]!
    off[v]! += areas[f]! * offOf(laid.flat, f)
    weight[v]! += areas[f]!
  }
  let worst = -1
  for (let v = 0; v < off.length; v++) {
    // What lies next to the rim would be a nick, not a dart.
    if (far[v]! < 0.3 * far[deepest]!) continue
    if (worst < 0 || off[v]! / weight[v]! > off[worst]! / weight[worst]!) worst = v
  }
  return worst < 0 || worst === deepest ? [deepest] : [deepest, worst]
}

/** Half-edges of the one loop round a disc, in order. */
function rimLoop(mesh: Mesh): number[] {
  const t = mesh.triangles
  const { twin } = topology(mesh)
  const leaving = new Map<number, number>()
  for (let h = 0; h < t.length; h++) if (twin[h]! < 0) leaving.set(edgeStart(t, h), h)
  const first = leaving.values().next().value
  if (first === undefined) return []
  const loop = [first]
  for (let h = leaving.get(edgeEnd(t, first)); h !== undefined && h !== first; h = leaving.get(edgeEnd(t, h))) {
    loop.push(h)
    if (loop.length > t.length) break
  }
  return loop
}
const outlineOf = (loop: readonly number[], mesh: Mesh, flat: Flat): Float64Array =>
  Float64Array.from(
    loop.flatMap((h) => {
      const v = edgeStart(mesh.triangles, h)
      return [flat.at[2 * v]!, flat.at[2 * v + 1]!]
    }),
  )

function pieceOf(
  { mesh, flat, stretch, overlaps, outline, own, edge }: FlatPatch,
  skin: number,
  darts: number,
): StencilPiece {
  let sheet = 0
  for (let i = 0; i < outline.length; i += 2) {
    const j = (i + 2) % outline.length
    sheet += (outline[i]! * outline[j + 1]! - outline[j]! * outline[i + 1]!) / 2
  }
  return { outline, own, up: upOn(mesh, flat), darts, area: { skin, sheet }, edge, stretch, overlaps }
}

/** The way in which the height on the piece grows over the sheet, by least squares; straight up where it does not. */
export function upOn(mesh: Mesh, flat: Flat): [number, number] {
  const n = flat.at.length / 2
  let mx = 0,
    my = 0,
    mz = 0
  for (let v = 0; v < n; v++) {
    mx += flat.at[2 * v]! / n
    my += flat.at[2 * v + 1]! / n
    mz += mesh.positions[3 * v + 2]! / n
  }
  let xx = 0,
    xy = 0,
    yy = 0,
    xz = 0,
    yz = 0
  for (let v = 0; v < n; v++) {
    const x = flat.at[2 * v]! - mx,
      y = flat.at[2 * v + 1]! - my,
      z = mesh.positions[3 * v + 2]! - mz
    xx += x * x
    xy += x * y
    yy += y * y
    xz += x * z
    yz += y * z
  }
  const det = xx * yy - xy * xy
  const gx = det > 1e-9 ? (yy * xz - xy * yz) / det : 0,
    gy = det > 1e-9 ? (xx * yz - xy * xz) / det : 1
  const l = Math.hypot(gx, gy)
  return l < 0.05 ? [0, 1] : [gx / l, gy / l]
}
