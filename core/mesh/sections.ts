import type { Mesh } from './mesh'

/**
 * Cross-sections of a mesh by horizontal planes, as unordered directed segments with the solid on their left.
 *
 * Vertices on a plane count as above it (symbolic shift), and each mesh edge's crossing is computed from its
 * lower-numbered vertex whichever face asks; so a closed mesh gives exactly closed outlines, bit for bit.
 */
export class Sections {
  /** face indices by lowest z */
  private readonly order: Uint32Array
  private readonly low: Float32Array
  private readonly high: Float32Array
  private active: Uint32Array
  private activeCount = 0
  private next = 0
  private lastPlane = -Infinity
  /** 4 per segment: x0 y0 x1 y1 in mm; valid up to `count` after a call of `at` */
  segments = new Float64Array(4096)
  count = 0

  constructor(private readonly mesh: Mesh) {
    const { positions: p, triangles: t } = mesh
    const n = t.length / 3
    this.low = new Float32Array(n)
    this.high = new Float32Array(n)
    for (let f = 0; f < n; f++) {
      const a = p[t[f * 3]! * 3 + 2]!,
        b = p[t[f * 3 + 1]! * 3 + 2]!,
        c = p[t[f * 3 + 2]! * 3 + 2]!
      this.low[f] = Math.min(a, b, c)
      this.high[f] = Math.max(a, b, c)
    }
    this.order = new Uint32Array(n)
    for (let f = 0; f < n; f++) this.order[f] = f
    const low = this.low
    this.order.sort((a, b) => low[a]! - low[b]!)
    this.active = new Uint32Array(1024)
  }

  /** Fills `segments` with the section at height z (mm). Planes must come in rising order; a lower one restarts. */
  at(z: number): number {
    if (z < this.lastPlane) {
      this.next = 0
      this.activeCount = 0
    }
    this.lastPlane = z
    const { order, low, high } = this
    while (this.next < order.length && low[order[this.next]!]! < z) {
      if (this.activeCount === this.active.length) {
        const more = new Uint32Array(this.active.length * 2)
        more.set(this.active)
        this.active = more
      }
      this.active[this.activeCount++] = order[this.next++]!
    }
    let kept = 0
    this.count = 0
    for (let i = 0; i < this.activeCount; i++) {
      const f = this.active[i]!
      if (high[f]! < z) continue
      this.active[kept++] = f
      this.cut(f, z)
    }
    this.activeCount = kept
    return this.count
  }

  private cut(f: number, z: number): void {
    const { positions: p, triangles: t } = this.mesh
    const a = t[f * 3]!,
      b = t[f * 3 + 1]!,
      c = t[f * 3 + 2]!
    const ua = p[a * 3 + 2]! >= z,
      ub = p[b * 3 + 2]! >= z,
      uc = p[c * 3 + 2]! >= z
    if (ua === ub && ub === uc) return
    if ((this.count + 1) * 4 > this.segments.length) {
      const more = new Float64Array(this.segments.length * 2)
      more.set(this.segments)
      this.segments = more
    }
    const o = this.count * 4
    // The lone corner decides; the section runs so that the solid, below the outward normal, is on the left.
    if (ua !== ub && ua !== uc) this.pair(o, z, a, b, c, ua)
    else if (ub !== ua && ub !== uc) this.pair(o, z, b, c, a, ub)
    else this.pair(o, z, c, a, b, uc)
    this.count++
  }

  private pair(o: number, z: number, lone: number, next: number, previous: number, loneAbove: boolean): void {
    if (loneAbove) {
      this.crossing(o, z, lone, next)
      this.crossing(o + 2, z, lone, previous)
    } else {
      this.crossing(o, z, lone, previous)
      this.crossing(o + 2, z, lone, next)
    }
  }

  private crossing(o: number, z: number, i: number, j: number): void {
    const p = this.mesh.positions
    const a = (i < j ? i : j) * 3,
      b = (i < j ? j : i) * 3
    const s = (z - p[a + 2]!) / (p[b + 2]! - p[a + 2]!)
    this.segments[o] = p[a]! + s * (p[b]! - p[a]!)
    this.segments[o + 1] = p[a + 1]! + s * (p[b + 1]! - p[a + 1]!)
  }
}

/** Signed area in mm² enclosed by the directed segments (shoelace; order does not matter). */
export function sectionArea(segments: Float64Array, count: number): number {
  let sum = 0
  for (let i = 0; i < count * 4; i += 4) sum += segments[i]! * segments[i + 3]! - segments[i + 2]! * segments[i + 1]!
  return sum / 2
}

export function sectionPerimeter(segments: Float64Array, count: number): number {
  let sum = 0
  for (let i = 0; i < count * 4; i += 4)
    sum += Math.hypot(segments[i + 2]! - segments[i]!, segments[i + 3]! - segments[i + 1]!)
  return sum
}
