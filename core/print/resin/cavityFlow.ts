import type { Vector3 } from '../../math/vectors'
import type { SolidGrid } from '../../volume/solidGrid'

/** Resin that cannot leave in one pose. */
export interface Pool {
  /** mm³ */
  volume: number
  /** mm, its middle */
  centre: [number, number, number]
  /** mm, its deepest place in that pose */
  deepest: [number, number, number]
  /** whether it lies in a cavity, or in the open where it can be wiped away */
  inside: boolean
}
export interface Settled {
  /** mm³ that stays in cavities */
  left: number
  /** 1 for each cell of the flow that still holds resin */
  filled: Uint8Array
  /** where it stays, largest first */
  pools: () => Pool[]
}

/** Directions of a cell's 26 neighbours. */
const ALL: readonly Vector3[] = Array.from({ length: 27 }, (_, i): Vector3 => [
  (i % 3) - 1,
  (Math.floor(i / 3) % 3) - 1,
  Math.floor(i / 9) - 1,
]).filter((d) => d.some((v) => v !== 0))
/** Those that share a face or an edge: resin runs along slopes that a grid shows as stairs. */
const NEAR = ALL.filter((d) => Math.abs(d[0]) + Math.abs(d[1]) + Math.abs(d[2]) < 3)
/** Those of them that share a face, as ways. */
export const SIDES: readonly number[] = NEAR.flatMap((d, k) =>
  Math.abs(d[0]) + Math.abs(d[1]) + Math.abs(d[2]) === 1 ? [k] : [],
)
/** A cell from which fewer of the 26 directions meet the body is in the open air. */
const COVERED = 13
/** From which as many meet it, it lies in a cavity. */
const IN_CAVITY = 20
/** A pool that is nowhere deeper than this many cells is the grid's own roughness. */
const LEAST_DEEP = 1.5

/** The hollows of a part as cells, and where what is in them runs to when it is turned. */
export class CavityFlow {
  /** mm³ of cavities that are open to the outside, and of those that are not */
  readonly cavity: number
  readonly shut: number
  /** middles, 3 per cell, mm */
  readonly places: Float32Array
  /** 1 for cells that lie in a cavity, 0 for folds and mouths */
  readonly inside: Uint8Array
  readonly count: number
  /** neighbours of a cell */
  readonly ways = NEAR.length
  /** `NEAR.length` per cell: index of the neighbour, −1 solid, −2 open air */
  private readonly near: Int32Array
  private readonly volume: number

  constructor(private readonly grid: SolidGrid) {
    const { solid, size, origin, voxel } = grid
    const [sx, sy] = size
    const strides = Int32Array.from(NEAR, (d) => d[0] + sx * (d[1] + sy * d[2]))
    const met = blockedDirections(grid)
    const reached = fromOutside(grid)
    const index = new Int32Array(solid.length).fill(-1)
    let count = 0,
      shut = 0
    for (let c = 0; c < solid.length; c++) {
      if (solid[c]) continue
      if (!reached[c]) shut++
      else if (met[c]! >= COVERED) index[c] = count++
    }
    this.count = count
    this.volume = voxel ** 3
    this.shut = shut * this.volume
    this.places = new Float32Array(count * 3)
    this.near = new Int32Array(count * NEAR.length)
    this.inside = new Uint8Array(count)
    let cavity = 0
    for (let c = 0; c < solid.length; c++) {
      const i = index[c]!
      if (i < 0) continue
      this.places[i * 3] = origin[0] + ((c % sx) + 0.5) * voxel
      this.places[i * 3 + 1] = origin[1] + ((Math.floor(c / sx) % sy) + 0.5) * voxel
      this.places[i * 3 + 2] = origin[2] + (Math.floor(c / (sx * sy)) + 0.5) * voxel
      for (let k = 0; k < strides.length; k++) {
        // The grid has a margin of empty cells, so every neighbour is on it.
        const n = c + strides[k]!
        this.near[i * strides.length + k] = solid[n] ? -1 : index[n]! < 0 ? -2 : index[n]!
      }
      if (met[c]! >= IN_CAVITY) {
        this.inside[i] = 1
        cavity++
      }
    }
    this.cavity = cavity * this.volume
  }

  /** mm */
  get voxel(): number {
    return this.grid.voxel
  }
  /** The neighbour of a cell in one of its ways; −1 solid, −2 open air. */
  neighbour(cell: number, way: number): number {
    return this.near[cell * NEAR.length + way]!
  }

  /**
   * Turns the part and lets it drain: priority-flood from the open air upward (Barnes, Lehman and Mulla 2014), in buckets
   * of half a cell's height.
   *
   * @param down unit
   * @param before cells that hold resin when it is turned; null for all of them
   */
  settle(down: Vector3, before: Uint8Array | null): Settled {
    const { places: p, near, count, grid } = this
    const height = new Float32Array(count)
    let lowest = Infinity,
      highest = -Infinity
    for (let i = 0; i < count; i++) {
      const h = -(p[i * 3]! * down[0] + p[i * 3 + 1]! * down[1] + p[i * 3 + 2]! * down[2])
      height[i] = h
      if (h < lowest) lowest = h
      if (h > highest) highest = h
    }
    const tall = grid.voxel / 2
    const buckets = count === 0 ? 1 : Math.floor((highest - lowest) / tall) + 2
    const head = new Int32Array(buckets).fill(-1),
      next = new Int32Array(count).fill(-1)
    const level = new Float32Array(count).fill(Infinity),
      parent = new Int32Array(count).fill(-1),
      poolOf = new Int32Array(count).fill(-1)
    const push = (i: number): void => {
      const b = Math.floor((level[i]! - lowest) / tall)
      next[i] = head[b]!
      head[b] = i
    }
    const n = NEAR.length
    for (let i = 0; i < count; i++)
      for (let k = 0; k < n; k++)
        if (near[i * n + k] === -2) {
          level[i] = height[i]!
          push(i)
          break
        }
    const first: number[] = [],
      members: number[][] = []
    for (let b = 0; b < buckets; b++)
      while (head[b]! >= 0) {
        const c = head[b]!
        head[b] = next[c]!
        if (level[c]! > height[c]! + 1e-6) {
          const above = parent[c]!
          // The first cell under a spill begins a pool; those behind it belong to the same.
          if (above >= 0 && poolOf[above]! >= 0 && level[above] === level[c]) poolOf[c] = poolOf[above]!
          else {
            poolOf[c] = first.length
            first.push(c)
            members.push([])
          }
          members[poolOf[c]!]!.push(c)
        }
        for (let k = 0; k < n; k++) {
          const m = near[c * n + k]!
          if (m < 0 || level[m] !== Infinity) continue
          level[m] = Math.max(height[m]!, level[c]!)
          parent[m] = c
          push(m)
        }
      }
    const deep = members.map((list) => list.some((c) => level[c]! - height[c]! >= LEAST_DEEP * grid.voxel))
    const capacity = members.map((list, i) => (deep[i] ? list.length : 0))
    const amount = before ? this.inflow(before, { height, parent, poolOf, first, level, capacity }) : [...capacity]
    const filled = new Uint8Array(count)
    let left = 0
    const kept: { cells: number[] }[] = []
    for (const [i, list] of members.entries()) {
      const most = Math.min(amount[i]!, capacity[i]!)
      if (most < 1) continue
      const cells = list.sort((a, b) => height[a]! - height[b]!).slice(0, Math.round(most))
      for (const c of cells) {
        filled[c] = 1
        left += this.inside[c]!
      }
      kept.push({ cells })
    }
    return { left: left * this.volume, filled, pools: () => this.described(kept) }
  }

  /** mm²: of those cells, the most that lie in one layer square to that direction. */
  largestLayer(cells: Uint8Array, up: Vector3): number {
    const { places: p, grid } = this
    const counts = new Map<number, number>()
    let most = 0
    for (let i = 0; i < cells.length; i++) {
      if (!cells[i]) continue
      const layer = Math.floor((p[i * 3]! * up[0] + p[i * 3 + 1]! * up[1] + p[i * 3 + 2]! * up[2]) / grid.voxel)
      const n = (counts.get(layer) ?? 0) + 1
      counts.set(layer, n)
      if (n > most) most = n
    }
    return most * grid.voxel ** 2
  }

  /** Cells of resin that each pool gets when those of the last pose run down; what is too much for one runs on. */
  private inflow(
    before: Uint8Array,
    o: {
      height: Float32Array
      parent: Int32Array
      poolOf: Int32Array
      first: readonly number[]
      level: Float32Array
      capacity: readonly number[]
    },
  ): number[] {
    const { near, count } = this
    const n = NEAR.length
    const OUT = -2,
      UNKNOWN = -3
    const target = new Int32Array(count).fill(UNKNOWN)
    const path: number[] = []
    const runsTo = (from: number): number => {
      let c = from
      path.length = 0
      let end = OUT
      for (let guard = 0; c >= 0 && guard < count; guard++) {
        if (target[c] !== UNKNOWN) {
          end = target[c]!
          break
        }
        if (o.poolOf[c]! >= 0 && o.capacity[o.poolOf[c]!]! > 0) {
          end = o.poolOf[c]!
          break
        }
        path.push(c)
        let lowest = -1,
          h = o.height[c]!
        for (let k = 0; k < n; k++) {
          const m = near[c * n + k]!
          if (m >= 0 && o.height[m]! < h - 1e-6) {
            h = o.height[m]!
            lowest = m
          }
        }
        // On a flat the way to the open is the way out.
        c = lowest >= 0 ? lowest : o.parent[c]!
      }
      for (const q of path) target[q] = end
      return end
    }
    const amount = o.capacity.map(() => 0)
    for (let c = 0; c < count; c++) {
      if (!before[c]) continue
      const to = runsTo(c)
      if (to >= 0) amount[to]!++
    }
    const order = amount.map((_, i) => i).sort((a, b) => o.level[o.first[b]!]! - o.level[o.first[a]!]!)
    for (const i of order) {
      const over = amount[i]! - o.capacity[i]!
      if (over <= 0) continue
      amount[i] = o.capacity[i]!
      const spill = o.parent[o.first[i]!]!
      const to = spill < 0 ? OUT : runsTo(spill)
      // A spill that leads back into its own pool leaves over its edge all the same.
      if (to >= 0 && to !== i) amount[to]! += over
    }
    return amount
  }

  private described(kept: readonly { cells: number[] }[]): Pool[] {
    const { places: p } = this
    return kept
      .map(({ cells }): Pool => {
        const centre: [number, number, number] = [0, 0, 0]
        let inside = 0
        for (const c of cells) {
          inside += this.inside[c]!
          for (let k = 0; k < 3; k++) centre[k]! += p[c * 3 + k]! / cells.length
        }
        const d = cells[0]! * 3
        return {
          volume: cells.length * this.volume,
          centre,
          deepest: [p[d]!, p[d + 1]!, p[d + 2]!],
          inside: inside > cells.length / 2,
        }
      })
      .sort((a, b) => b.volume - a.volume)
  }
}

/** How many of the 26 directions from each cell meet the body somewhere: each direction in one sweep against it. */
function blockedDirections({ solid, size }: SolidGrid): Uint8Array {
  const [sx, sy, sz] = size
  const met = new Uint8Array(solid.length)
  const blocked = new Uint8Array(solid.length)
  for (const [dx, dy, dz] of ALL) {
    blocked.fill(0)
    const range = (n: number, d: number): [number, number, number] => (d > 0 ? [n - 1, -1, -1] : [0, n, 1])
    const [z0, z1, zs] = range(sz, dz),
      [y0, y1, ys] = range(sy, dy),
      [x0, x1, xs] = range(sx, dx)
    // The cell that a row ends with, on the side that the direction points to, looks out of the grid.
    const first = x0 + (dx === 0 ? 0 : xs),
      last = x1
    const shift = dx + sx * (dy + sy * dz)
    for (let z = z0; z !== z1; z += zs) {
      if (z + dz < 0 || z + dz >= sz) continue
      for (let y = y0; y !== y1; y += ys) {
        if (y + dy < 0 || y + dy >= sy) continue
        const row = (z * sy + y) * sx
        for (let c = row + first, end = row + last; c !== end; c += xs) {
          const b = solid[c + shift]! | blocked[c + shift]!
          blocked[c] = b
          met[c]! += b
        }
      }
    }
  }
  return met
}

/** Void cells that the border of the grid reaches. */
function fromOutside({ solid, size }: SolidGrid): Uint8Array {
  const [sx, sy, sz] = size
  const reached = new Uint8Array(solid.length)
  const stack = new Int32Array(solid.length)
  let top = 0
  const visit = (c: number): void => {
    if (solid[c] || reached[c]) return
    reached[c] = 1
    stack[top++] = c
  }
  visit(0)
  while (top > 0) {
    const c = stack[--top]!
    const x = c % sx,
      y = Math.floor(c / sx) % sy,
      z = Math.floor(c / (sx * sy))
    if (x > 0) visit(c - 1)
    if (x + 1 < sx) visit(c + 1)
    if (y > 0) visit(c - sx)
    if (y + 1 < sy) visit(c + sx)
    if (z > 0) visit(c - sx * sy)
    if (z + 1 < sz) visit(c + sx * sy)
  }
  return reached
}
