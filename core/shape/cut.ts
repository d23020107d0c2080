import { solved } from '../math/solve'
import { bad, good, type Answer } from '../answer'
import { bounds, boxDiagonal, type Mesh } from '../mesh/mesh'
import { dot, frame, type Vector3 } from '../math/vectors'
import { mainPiece, type LeftOut } from './mainPiece'
import { sectionOutline } from './section'
import { common, subtract, trimmedByPlane } from './solid'
import { message } from '../words/message'

export interface CutOptions {
  /** mm, on the cut */
  point: Vector3
  /** unit */
  normal: Vector3
  /** which side of the cut stays: that to which the normal points, or the other */
  keep: 'above' | 'below'
  /** points of a line drawn on the skin, in order round it; empty for a plane cut */
  line: readonly Vector3[]
  /** mm: of the half only the piece nearest to this place stays, with what touches it; all of it when not given */
  piece?: Vector3
}
export interface CutReport {
  /** mm², of the section */
  area: number
  /** mm, round the section: the seam */
  seam: number
  /** pieces into which the section falls */
  pieces: number
  /** what was left out because it hangs on nothing */
  left?: LeftOut
}

/**
 * One half of a body cut by a plane, or by a smooth sheet through a line drawn on its skin. The section is closed, and
 * both halves of the same cut fit each other exactly.
 */
export async function cut(mesh: Mesh, o: CutOptions): Promise<Answer<{ mesh: Mesh; report: CutReport }>> {
  const half = o.line.length >= 3 ? await cutBySheet(mesh, o) : await cutByPlane(mesh, o)
  if (!half.ok) return half
  const left = half.value.triangles.length
  if (left === 0) return bad('cut-misses', message('problems.cut.theCutDoesNotPass'))
  const { area, length, pieces } = sectionOutline(mesh, o.point, o.normal)
  if (pieces === 0) return bad('cut-misses', message('problems.cut.theCutDoesNotPass2'))
  const report = { area, seam: length, pieces }
  if (!o.piece) return good({ mesh: half.value, report })
  const main = mainPiece(half.value, o.piece)
  return good({ mesh: main.mesh, report: { ...report, left: main.left } })
}

const cutByPlane = (mesh: Mesh, { point, normal, keep }: CutOptions): Promise<Answer<Mesh>> =>
  trimmedByPlane(mesh, point, keep === 'above' ? normal : [-normal[0], -normal[1], -normal[2]])

async function cutBySheet(mesh: Mesh, o: CutOptions): Promise<Answer<Mesh>> {
  const block = blockAbove(mesh, o)
  return o.keep === 'above' ? common([mesh, block]) : subtract(mesh, [block])
}

/** Grid cells across the sheet. */
const CELLS = 96

/**
 * Everything above the sheet, as a solid: the sheet is the thin-plate spline through the line's heights over the plane,
 * least bent of all that pass there, and runs out flat beyond.
 */
function blockAbove(mesh: Mesh, { point, normal, line }: CutOptions): Mesh {
  const [u, v] = frame(normal)
  const flat = (p: Vector3): [number, number, number] => {
    const d: Vector3 = [p[0] - point[0], p[1] - point[1], p[2] - point[2]]
    return [dot(d, u), dot(d, v), dot(d, normal)]
  }
  const knots = (line.length > STROKE ? resampled(line, STROKE) : line).map(flat)
  const height = thinPlate(knots)
  const size = boxDiagonal(bounds(mesh)) * 1.1
  const reach = Math.max(size, ...knots.map((k) => Math.hypot(k[0], k[1]) * 1.5))
  const most = Math.max(...knots.map((k) => k[2])),
    least = Math.min(...knots.map((k) => k[2]))
  const n = CELLS + 1
  const positions = new Float32Array(2 * n * n * 3)
  const put = (i: number, x: number, y: number, z: number): void => {
    for (let k = 0; k < 3; k++) positions[i * 3 + k] = point[k]! + x * u[k]! + y * v[k]! + z * normal[k]!
  }
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++) {
      const x = ((2 * i) / CELLS - 1) * reach,
        y = ((2 * j) / CELLS - 1) * reach
      put(j * n + i, x, y, Math.min(most + 1, Math.max(least - 1, height(x, y))))
      put(n * n + j * n + i, x, y, most + 2 * size)
    }
  const triangles: number[] = []
  const quad = (a: number, b: number, c: number, d: number): void => {
    triangles.push(a, b, c, a, c, d)
  }
  const top = n * n
  for (let j = 0; j < CELLS; j++)
    for (let i = 0; i < CELLS; i++) {
      const a = j * n + i
      quad(a, a + n, a + n + 1, a + 1)
      quad(top + a, top + a + 1, top + a + n + 1, top + a + n)
    }
  for (let i = 0; i < CELLS; i++) {
    const s = i,
      e = CELLS * n + i,
      w = i * n,
      r = i * n + CELLS
    quad(s, s + 1, top + s + 1, top + s)
    quad(e + 1, e, top + e, top + e + 1)
    quad(w + n, w, top + w, top + w + n)
    quad(r, r + n, top + r + n, top + r)
  }
  return { positions, triangles: new Uint32Array(triangles) }
}

/** A line of more points than this was drawn in one stroke; points set one by one are meant as they are. */
const STROKE = 40

/** A stroke as points at even distances, after one pass that takes the hand's tremble out of it. */
function resampled(line: readonly Vector3[], count: number): Vector3[] {
  const n = line.length
  const calm = line.map((p, i): Vector3 => {
    const a = line[(i + n - 1) % n]!,
      b = line[(i + 1) % n]!
    return [0, 1, 2].map((k) => p[k]! / 2 + (a[k]! + b[k]!) / 4) as never
  })
  const lengths = calm.map((p, i) => Math.hypot(...[0, 1, 2].map((k) => calm[(i + 1) % n]![k]! - p[k]!)))
  const total = lengths.reduce((a, b) => a + b, 0)
  const out: Vector3[] = []
  let at = 0,
    from = 0
  for (let s = 0; s < count; s++) {
    const want = (total * s) / count
    while (at < n - 1 && from + lengths[at]! < want) from += lengths[at++]!
    const t = lengths[at]! > 0 ? (want - from) / lengths[at]! : 0
    const a = calm[at]!,
      b = calm[(at + 1) % n]!
    out.push([0, 1, 2].map((k) => a[k]! + t * (b[k]! - a[k]!)) as never)
  }
  return out
}

/** Interpolating thin-plate spline (Duchon 1977) of heights over a plane. */
function thinPlate(knots: readonly (readonly [number, number, number])[]): (x: number, y: number) => number {
  const n = knots.length
  const kernel = (r2: number): number => (r2 > 0 ? r2 * Math.log(r2) : 0)
  const m = n + 3
  const a = Array.from({ length: m }, () => new Float64Array(m + 1))
  for (let i = 0; i < n; i++) {
    const [x, y, z] = knots[i]!
    for (let j = 0; j < n; j++) a[i]![j] = kernel((x - knots[j]![0]) ** 2 + (y - knots[j]![1]) ** 2)
    // A trace of smoothing: two knots nearly at one place must not tear the sheet.
    a[i]![i]! += 1e-6
    a[i]!.set([1, x, y], n)
    a[i]![m] = z
    a[n]![i] = 1
    a[n + 1]![i] = x
    a[n + 2]![i] = y
  }
  const w = solved(a).x
  return (x, y) => {
    let z = w[n]! + w[n + 1]! * x + w[n + 2]! * y
    for (let j = 0; j < n; j++) z += w[j]! * kernel((x - knots[j]![0]) ** 2 + (y - knots[j]![1]) ** 2)
    return z
  }
}
