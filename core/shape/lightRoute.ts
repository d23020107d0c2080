import { bad, good, silent, type Answer, type Report } from '../answer'
import { closest, closestPoint } from '../mesh/closest'
import { bounds, boxDiagonal, concatenate, type Mesh } from '../mesh/mesh'
import { MinHeap } from '../math/heap'
import { rayAll } from '../mesh/ray'
import type { Vector3 } from '../math/vectors'
import { treeOf, type Tree } from '../mesh/tree'
import { closedGaps, depthInside, solidGrid, type SolidGrid } from '../volume/solidGrid'
import { bottleneck } from './bottleneck'
import { sphereDirections } from '../math/directions'
import { mouthOpen } from './mouths'
import { fixed } from '../words/format'
import { message } from '../words/message'

export interface RouteWish {
  /** mm, where the wire goes in: on the skin, mostly under the base */
  from: Vector3
  /** mm, where the light sits: on the skin of the lit part, or in it */
  to: Vector3
  /** mm */
  diameter: number
  /** mm of body that must stay round the channel */
  wall: number
}
export interface LightRoute {
  path: [number, number, number][]
  /** mm */
  length: number
  /** mm of body left round it, the least, its two ends apart; null where it is all ends, and nothing could be measured */
  wall: number | null
  /** where that is */
  thinnest: [number, number, number]
  /** degrees of its sharpest bend */
  bend: number
  /** share of the section at each end that comes out into the open, 0 to 1: where the wire goes in, where the light sits */
  open: [number, number]
}

/** Parts that stand no farther apart than this are one to a wire, mm. */
const GAP = 0.5
const LOOKS = sphereDirections(120)
/** Places along the channel at which the wall is measured. */
const MEASURED = 120

/**
 * A way for a wire or a light guide from the base to a lit part, through whatever parts lie between, with a wall all
 * round: the shortest way through cells of the joined parts that lie deep enough (A* on the exact depth), drawn taut, its
 * bends rounded, and then measured by rays in all directions.
 */
export function lightRoute(meshes: readonly Mesh[], wish: RouteWish, report: Report = silent): Answer<LightRoute> {
  const whole = boxDiagonal(bounds(concatenate(meshes)))
  const voxel = Math.max(0.3, Math.min(wish.diameter / 3, whole / 180), whole / 400)
  const grid = closedGaps(solidGrid(meshes, voxel))
  report(0.3)
  const depth = depthInside(grid)
  report(0.4)
  const need = wish.diameter / 2 + wish.wall
  // At its ends the channel has to come out: there only what lies in the body at all counts.
  const asked = (p: readonly number[]): number =>
    Math.min(need, Math.max(0.6 * voxel, Math.min(apart(p, wish.from), apart(p, wish.to)) - 2 * voxel))
  const enough = (c: number, p: readonly number[]): boolean => depth[c]! >= asked(p)
  const found = search(grid, depth, wish, need, asked, (f) => report(0.4 + 0.4 * f))
  if (!found.ok) return found
  const clear = (a: Vector3, b: Vector3): boolean => {
    const n = Math.ceil(apart(a, b) / (voxel / 2))
    for (let i = 0; i <= n; i++) {
      const p = [0, 1, 2].map((k) => a[k]! + ((b[k]! - a[k]!) * i) / n)
      const c = cellOf(grid, p)
      if (Math.min(apart(p, wish.from), apart(p, wish.to)) > 2 * voxel && (c < 0 || !enough(c, p))) return false
    }
    return true
  }
  const path = rounded(taut([wish.from, ...found.value, wish.to], clear), wish.diameter, clear)
  const mouth = (end: Vector3, before: Vector3): number => mouthOpen(meshes, end, before, wish.diameter)
  return good({
    path,
    ...measured(meshes, path, wish, need),
    bend: sharpest(path),
    open: [mouth(path[0]!, path[1]!), mouth(path.at(-1)!, path.at(-2)!)],
  })
}

const apart = (a: readonly number[], b: readonly number[]): number =>
  Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!)

function cellOf({ size, origin, voxel }: SolidGrid, p: readonly number[]): number {
  const c = [0, 1, 2].map((k) => Math.floor((p[k]! - origin[k]!) / voxel))
  return c.some((v, k) => v < 0 || v >= size[k]!) ? -1 : (c[2]! * size[1] + c[1]!) * size[0] + c[0]!
}
const placeOf = ({ size, origin, voxel }: SolidGrid, c: number): [number, number, number] => [
  origin[0] + ((c % size[0]) + 0.5) * voxel,
  origin[1] + ((Math.floor(c / size[0]) % size[1]) + 0.5) * voxel,
  origin[2] + (Math.floor(c / (size[0] * size[1])) + 0.5) * voxel,
]

function search(
  grid: SolidGrid,
  depth: Float32Array,
  wish: RouteWish,
  need: number,
  asked: (p: readonly number[]) => number,
  report: Report,
): Answer<Vector3[]> {
  const start = nearestSolid(grid, wish.from),
    goal = nearestSolid(grid, wish.to)
  if (start < 0 || goal < 0) return bad('route-outside', message('problems.lightRoute.oneEndOfTheLight'))
  const cost = new Float32Array(depth.length).fill(Infinity),
    before = new Int32Array(depth.length).fill(-1),
    done = new Uint8Array(depth.length)
  const end = placeOf(grid, goal)
  const heap = new MinHeap()
  cost[start] = 0
  heap.push(start, 0)
  let met = 0
  while (heap.size > 0) {
    const c = heap.pop()
    if (done[c]) continue
    done[c] = 1
    if (c === goal) break
    if ((++met & 4095) === 0) report(Math.min(1, met / depth.length))
    around(grid, c, (n, steps) => {
      if (done[n]) return
      const p = placeOf(grid, n)
      if (n !== goal && depth[n]! < asked(p)) return
      // A little rather through the middle than along the least wall.
      const way = grid.voxel * Math.sqrt(steps) * (1 + 0.6 * Math.max(0, 2 - depth[n]! / need))
      if (cost[c]! + way >= cost[n]!) return
      cost[n] = cost[c]! + way
      before[n] = c
      heap.push(n, cost[n]! + apart(p, end))
    })
  }
  if (!done[goal]) return noRoute(grid, depth, wish, need, asked, start, goal)
  const path: Vector3[] = []
  for (let c = goal; c >= 0; c = before[c]!) path.unshift(placeOf(grid, c))
  return good(path)
}

/** The 26 cells about one, each with how many axes it lies off. */
function around({ size: [sx, sy, sz] }: SolidGrid, c: number, visit: (n: number, steps: number) => void): void {
  const x = c % sx,
    y = Math.floor(c / sx) % sy,
    z = Math.floor(c / (sx * sy))
  for (let dz = -1; dz <= 1; dz++)
    for (let dy = -1; dy <= 1; dy++)
      for (let dx = -1; dx <= 1; dx++) {
        if (x + dx < 0 || y + dy < 0 || z + dz < 0 || x + dx >= sx || y + dy >= sy || z + dz >= sz) continue
        const steps = dx * dx + dy * dy + dz * dz
        if (steps > 0) visit(c + dx + sx * (dy + sy * dz), steps)
      }
}

/** Why there is no way: what would pass the tightest place of the widest way, and where that is. */
function noRoute(
  grid: SolidGrid,
  depth: Float32Array,
  wish: RouteWish,
  need: number,
  asked: (p: readonly number[]) => number,
  start: number,
  goal: number,
): ReturnType<typeof bad> {
  const known = new Float32Array(depth.length).fill(-1)
  const room = (c: number): number => {
    if (known[c]! < 0) known[c] = depth[c]! > 0 ? Math.min(1, depth[c]! / asked(placeOf(grid, c))) : 0
    return known[c]!
  }
  const tight = bottleneck(depth.length, start, goal, room, (c, visit) => {
    around(grid, c, (n) => {
      visit(n)
    })
  })
  const wanted = message('problems.lightRoute.noWay', { diameter: wish.diameter, wall: wish.wall })
  if (!tight) return bad('no-route', message('problems.lightRoute.thePartsBetweenTheTwo', { wanted, gap: GAP }))
  const [x, y, z] = placeOf(grid, tight.cell)
  const fits = tight.room * need
  const other =
    fits - wish.wall > MAX_THIN
      ? message('problems.lightRoute.thinnerPasses', { diameter: fixed(2 * (fits - wish.wall), 1) })
      : fits - wish.diameter / 2 > 0.2
        ? message('problems.lightRoute.thinnerWall', { wall: fixed(fits - wish.diameter / 2, 1) })
        : message('problems.lightRoute.onlyBody', { body: fixed(2 * fits, 1) })
  return bad(
    'no-route',
    message('problems.lightRoute.theTightestPlaceOnThe', {
      wanted,
      z: fixed(z, 0),
      n: fixed(Math.abs(x), 0),
      x: x < 0,
      n2: fixed(Math.abs(y), 0),
      y: y < 0,
      other,
    }),
  )
}
/** mm: half the thinnest channel worth boring. */
const MAX_THIN = 0.25

/** The solid cell nearest to a place, no farther than a few cells. */
function nearestSolid(grid: SolidGrid, p: Vector3): number {
  let best = -1,
    least = 4 * grid.voxel
  for (let dz = -3; dz <= 3; dz++)
    for (let dy = -3; dy <= 3; dy++)
      for (let dx = -3; dx <= 3; dx++) {
        const q = [p[0] + dx * grid.voxel, p[1] + dy * grid.voxel, p[2] + dz * grid.voxel]
        const c = cellOf(grid, q)
        if (c < 0 || !grid.solid[c]) continue
        const d = apart(placeOf(grid, c), p)
        if (d < least) {
          least = d
          best = c
        }
      }
  return best
}

/** Leaves out every point that can be passed in a straight line. */
function taut(path: readonly Vector3[], clear: (a: Vector3, b: Vector3) => boolean): Vector3[] {
  const out = [path[0]!]
  let i = 0
  while (i < path.length - 1) {
    let j = path.length - 1
    while (j > i + 1 && !clear(path[i]!, path[j]!)) j--
    out.push(path[j]!)
    i = j
  }
  return out
}

/** Corners cut to the curve that a wire takes, where the way stays clear. */
function rounded(
  path: readonly Vector3[],
  diameter: number,
  clear: (a: Vector3, b: Vector3) => boolean,
): [number, number, number][] {
  let now = [...path]
  for (let pass = 0; pass < 3; pass++) {
    const next: Vector3[] = [now[0]!]
    for (let i = 1; i + 1 < now.length; i++) {
      const [a, p, b] = [now[i - 1]!, now[i]!, now[i + 1]!]
      const back = Math.min(3 * diameter, apart(a, p) / 3),
        on = Math.min(3 * diameter, apart(b, p) / 3)
      const toward = (q: Vector3, d: number): Vector3 => {
        const l = apart(q, p) || 1
        return [0, 1, 2].map((k) => p[k]! + ((q[k]! - p[k]!) * d) / l) as never
      }
      const one = toward(a, back),
        two = toward(b, on)
      if (clear(one, two)) next.push(one, two)
      else next.push(p)
    }
    next.push(now.at(-1)!)
    now = next
  }
  return now.map((p) => [...p])
}

function sharpest(path: readonly Vector3[]): number {
  let most = 0
  for (let i = 1; i + 1 < path.length; i++) {
    const a = [0, 1, 2].map((k) => path[i]![k]! - path[i - 1]![k]!),
      b = [0, 1, 2].map((k) => path[i + 1]![k]! - path[i]![k]!)
    const l = Math.hypot(...a) * Math.hypot(...b)
    if (l > 1e-12) most = Math.max(most, Math.acos(Math.min(1, a.reduce((s, v, k) => s + v * b[k]!, 0) / l)))
  }
  return (most * 180) / Math.PI
}

function measured(
  meshes: readonly Mesh[],
  path: readonly Vector3[],
  { diameter, from, to }: RouteWish,
  need: number,
): Pick<LightRoute, 'length' | 'wall' | 'thinnest'> {
  const trees = meshes.map((m) => treeOf(m))
  const lengths = path.slice(1).map((p, i) => apart(p, path[i]!))
  const length = lengths.reduce((a, b) => a + b, 0)
  let wall = Infinity
  let thinnest: [number, number, number] = [...path[0]!]
  for (let s = 0; s <= MEASURED; s++) {
    let want = (length * s) / MEASURED,
      i = 0
    while (i < lengths.length - 1 && want > lengths[i]!) want -= lengths[i++]!
    const t = lengths[i]! > 0 ? want / lengths[i]! : 0
    const p = [0, 1, 2].map((k) => path[i]![k]! + t * (path[i + 1]![k]! - path[i]![k]!)) as [number, number, number]
    // Near its ends the skin is near because the channel ends there.
    if (Math.min(apart(p, from), apart(p, to)) < need * 1.5) continue
    for (const d of LOOKS) {
      const left = outward(trees, p, d) - diameter / 2
      if (left < wall) {
        wall = left
        thinnest = p
      }
    }
  }
  return { length, wall: wall === Infinity ? null : Math.max(0, wall), thinnest }
}

/**
 * mm from a place in the parts to where the open air begins along a ray. Where it leaves one part close beside another it
 * passes a joint, not the skin. NaN in a joint's own gap.
 */
function outward(trees: readonly Tree[], p: Vector3, d: Vector3): number {
  const hits = trees.flatMap((t, part) => rayAll(t, ...p, ...d).map((h) => ({ ...h, part }))).sort((a, b) => a.t - b.t)
  // How often the ray leaves more than it enters is how many parts it begins in.
  let wind = hits.reduce((w, h) => w + (h.leaving ? 1 : -1), 0)
  if (wind <= 0) return NaN
  for (const h of hits) {
    wind += h.leaving ? -1 : 1
    if (wind > 0 || !h.leaving) continue
    const q = [0, 1, 2].map((k) => p[k]! + h.t * d[k]!) as [number, number, number]
    if (!trees.some((t, part) => part !== h.part && closestPoint(t, ...q, beside, GAP) !== Infinity)) return h.t
  }
  return Infinity
}
const beside = closest()
