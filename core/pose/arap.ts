import type { Mesh } from '../mesh/mesh'
import { laplacian } from './laplacian'
import { Factor } from '../math/sparseFactor'
import type { Sparse } from '../math/sparse'

/** More would slacken a skin that has nothing inside to hold it up; what it slackens, `filledOut` gives back. */
const ROUNDS = 4

/**
 * Lets the skin near the joints settle as rigidly as it can (Sorkine and Alexa 2007), from where skinning put it: each
 * vertex' edges turn together, and the places follow them, in turns. What is held stays where it was put.
 *
 * @param rest the mesh before the pose
 * @param posed positions after skinning, 3 per vertex
 * @param held 1 where a vertex follows one bone alone
 */
export function settled(rest: Mesh, posed: Float32Array, held: Uint8Array): Float32Array {
  const p = rest.positions
  const n = p.length / 3
  const { starts, near, weights } = laplacian(rest)
  const x = new Float64Array(posed)
  const turns = new Float64Array(n * 4)
  for (let v = 0; v < n; v++) turns[v * 4 + 3] = 1
  const free = [...held.keys()].filter((v) => held[v] === 0)
  if (free.length === 0) return posed
  // Only turns that a free vertex' place depends on are asked for: its own and its neighbours'.
  const moves = new Uint8Array(n)
  for (const v of free) {
    moves[v] = 1
    for (let k = starts[v]!; k < starts[v + 1]!; k++) moves[near[k]!] = 1
  }
  const factor = new Factor(system(free, held, starts, near, weights))
  const right = new Float64Array(free.length),
    answer = new Float64Array(free.length)
  for (let round = 0; round < ROUNDS; round++) {
    for (let v = 0; v < n; v++) if (moves[v]) bestTurn(v, p, x, starts, near, weights, turns)
    for (let axis = 0; axis < 3; axis++) {
      free.forEach((v, i) => {
        let sum = 0
        for (let k = starts[v]!; k < starts[v + 1]!; k++) {
          const w = near[k]!
          const half = weights[k]! / 2
          sum += half * (turned(turns, v, p, v, w, axis) + turned(turns, w, p, v, w, axis))
          if (held[w]) sum += weights[k]! * x[w * 3 + axis]!
        }
        right[i] = sum
        answer[i] = x[v * 3 + axis]!
      })
      factor.solve(right, answer)
      free.forEach((v, i) => {
        x[v * 3 + axis] = answer[i]!
      })
    }
  }
  return new Float32Array(x)
}

function system(
  free: readonly number[],
  held: Uint8Array,
  starts: Uint32Array,
  near: Uint32Array,
  weights: Float64Array,
): Sparse {
  const index = new Int32Array(held.length).fill(-1)
  free.forEach((v, i) => {
    index[v] = i
  })
  const rows = new Uint32Array(free.length + 1),
    columns: number[] = [],
    values: number[] = [],
    diagonal = new Float64Array(free.length)
  free.forEach((v, i) => {
    for (let k = starts[v]!; k < starts[v + 1]!; k++) {
      diagonal[i]! += weights[k]!
      if (index[near[k]!]! < 0) continue
      columns.push(index[near[k]!]!)
      values.push(-weights[k]!)
    }
    rows[i + 1] = columns.length
  })
  return { diagonal, starts: rows, columns: new Uint32Array(columns), values: new Float64Array(values) }
}

const edge = new Float64Array(3)
const covariance = new Float64Array(9),
  columns = new Float64Array(9)
/** One coordinate of edge v − w of the rest mesh, turned as vertex `by` is. */
function turned(turns: Float64Array, by: number, p: Float32Array, v: number, w: number, axis: number): number {
  for (let k = 0; k < 3; k++) edge[k] = p[v * 3 + k]! - p[w * 3 + k]!
  const x = turns[by * 4]!,
    y = turns[by * 4 + 1]!,
    z = turns[by * 4 + 2]!,
    s = turns[by * 4 + 3]!
  const cx = y * edge[2]! - z * edge[1]! + s * edge[0]!,
    cy = z * edge[0]! - x * edge[2]! + s * edge[1]!,
    cz = x * edge[1]! - y * edge[0]! + s * edge[2]!
  return edge[axis]! + 2 * (axis === 0 ? y * cz - z * cy : axis === 1 ? z * cx - x * cz : x * cy - y * cx)
}

/**
 * Turn that best takes a vertex' edges to where they are, by Müller et al. 2016: rotate by the axis that lessens the
 * error until it is small. Starts from the last turn, so one or two steps do.
 */
function bestTurn(
  v: number,
  p: Float32Array,
  x: Float64Array,
  starts: Uint32Array,
  near: Uint32Array,
  weights: Float64Array,
  turns: Float64Array,
): void {
  const a = covariance.fill(0)
  for (let k = starts[v]!; k < starts[v + 1]!; k++) {
    const w = near[k]!
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < 3; j++)
        a[j * 3 + i]! += weights[k]! * (x[v * 3 + i]! - x[w * 3 + i]!) * (p[v * 3 + j]! - p[w * 3 + j]!)
  }
  let qx = turns[v * 4]!,
    qy = turns[v * 4 + 1]!,
    qz = turns[v * 4 + 2]!,
    qw = turns[v * 4 + 3]!
  for (let step = 0; step < 12; step++) {
    // Columns of the present turn.
    const r = columns
    r[0] = 1 - 2 * (qy * qy + qz * qz)
    r[1] = 2 * (qx * qy + qz * qw)
    r[2] = 2 * (qx * qz - qy * qw)
    r[3] = 2 * (qx * qy - qz * qw)
    r[4] = 1 - 2 * (qx * qx + qz * qz)
    r[5] = 2 * (qy * qz + qx * qw)
    r[6] = 2 * (qx * qz + qy * qw)
    r[7] = 2 * (qy * qz - qx * qw)
    r[8] = 1 - 2 * (qx * qx + qy * qy)
    let ox = 0,
      oy = 0,
      oz = 0,
      dot = 0
    for (let c = 0; c < 9; c += 3) {
      ox += r[c + 1]! * a[c + 2]! - r[c + 2]! * a[c + 1]!
      oy += r[c + 2]! * a[c]! - r[c]! * a[c + 2]!
      oz += r[c]! * a[c + 1]! - r[c + 1]! * a[c]!
      dot += r[c]! * a[c]! + r[c + 1]! * a[c + 1]! + r[c + 2]! * a[c + 2]!
    }
    const k = 1 / (Math.abs(dot) + 1e-12)
    const angle = Math.sqrt(ox * ox + oy * oy + oz * oz) * k
    if (angle < 1e-7) break
    const s = (Math.sin(angle / 2) / angle) * k,
      c = Math.cos(angle / 2)
    const ax = ox * s,
      ay = oy * s,
      az = oz * s
    const nx = c * qx + ax * qw + ay * qz - az * qy,
      ny = c * qy + ay * qw + az * qx - ax * qz,
      nz = c * qz + az * qw + ax * qy - ay * qx,
      nw = c * qw - ax * qx - ay * qy - az * qz
    const l = 1 / Math.sqrt(nx * nx + ny * ny + nz * nz + nw * nw)
    qx = nx * l
    qy = ny * l
    qz = nz * l
    qw = nw * l
  }
  const at = v * 4
  turns[at] = qx
  turns[at + 1] = qy
  turns[at + 2] = qz
  turns[at + 3] = qw
}
