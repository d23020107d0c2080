import type { Painted, Rgb } from './coating'
import { FEW } from '../optics/fewBands'
import { inward, SURFACE_RETURN } from '../optics/film'
import { CHUNK, divide, addFilm, state, UNDIVIDED, type State } from '../optics/layers'
import { level } from './levels'
import { samePass, shineOver, type Pass } from './passes'
import { MAP, MAPS } from '../surface/surfaceMaps'
import { Through } from '../optics/through'

const B = FEW.length
/** of primer and bare resin */
const BARE_ROUGH = 0.8

/** What lies under one coat and what lies over it, so that it can be dragged alone. */
interface Kept {
  /** number of the coat's pass */
  of: number
  /** internal reflectance under it, chunk by chunk, B × CHUNK each */
  below: Float32Array
  /** all that lies over it as one map, three numbers as films have them */
  p: Float32Array
  q: Float32Array
  z: Float32Array
  /** roughness and metalness under it; and what lies over it makes of 0 and of 1 */
  shine: Float32Array
  dull: Float32Array
  bright: Float32Array
}

/** The vertices of one region under its stack. */
export class RegionPainter {
  private last: readonly Pass[] = []
  private ground: Float64Array | null = null
  private kept: Kept | null = null
  private readonly levels = new Uint8Array(CHUNK)
  private readonly at = state()
  private readonly shine = new Float32Array(CHUNK * 2)

  constructor(
    private readonly maps: Float32Array,
    private readonly vertices: Uint32Array,
  ) {}

  letGo(): void {
    this.kept = null
  }

  /**
   * @param ground reflectance that the passes lie on, 36 bands
   * @param weights linear sRGB of the few bands
   * @param behind the same of a lamp behind
   * @param out is written at the region's vertices
   * @returns whether it now keeps what lies under and over a coat
   */
  paint(ground: Float64Array, passes: readonly Pass[], weights: Rgb, behind: Rgb | null, out: Painted): boolean {
    const dragged = behind ? null : this.dragged(ground, passes)
    if (dragged === null) this.kept = null
    const lamp = behind && new Through(passes, ground, behind)
    const fresh = dragged !== null && this.kept?.of !== dragged
    if (fresh) this.kept = this.room(dragged)
    const { vertices, shine, at } = this
    const above = fresh ? [state(), state()] : []
    for (let from = 0; from < vertices.length; from += CHUNK) {
      const count = Math.min(CHUNK, vertices.length - from)
      if (dragged === null) {
        this.begin(ground)
        lamp?.begin()
        this.over(passes, 0, passes.length, from, count, [at], lamp)
        this.bareShine()
        this.shineOver(passes, 0, passes.length, from, count)
      } else {
        if (fresh) this.keep(passes, ground, from, count, above)
        this.between(passes[dragged]!, from, count)
      }
      toColours(vertices, from, count, at.num, at.den, weights, out.colours)
      lamp?.toColours(vertices, from, count, at, out.glow!)
      for (let i = 0; i < count; i++) {
        const v = vertices[from + i]!
        out.sheen[2 * v] = shine[2 * i]!
        out.sheen[2 * v + 1] = shine[2 * i + 1]!
      }
    }
    this.last = passes
    this.ground = ground
    return fresh
  }

  /** The one pass that is not as it was; null where none or several are, or what lies below is another ground. */
  private dragged(ground: Float64Array, passes: readonly Pass[]): number | null {
    const { last } = this
    if (passes.length !== last.length || this.ground === null || ground.some((r, b) => r !== this.ground![b]))
      return null
    const other = [...passes.keys()].filter((i) => !samePass(passes[i]!, last[i]!))
    // Another lamp changes no film: what is kept still holds.
    return other.length === 1 ? other[0]! : other.length === 0 ? (this.kept?.of ?? null) : null
  }

  private room(of: number): Kept {
    const size = Math.ceil(this.vertices.length / CHUNK) * CHUNK * B
    const each = (): Float32Array => new Float32Array(size)
    const shine = (): Float32Array => new Float32Array((2 * size) / B)
    return { of, below: each(), p: each(), q: each(), z: each(), shine: shine(), dull: shine(), bright: shine() }
  }

  private begin(ground: Float64Array): void {
    const { num, den } = this.at
    for (let b = 0; b < B; b++) num.fill(inward(ground[FEW[b]!]!), b * CHUNK, (b + 1) * CHUNK)
    den.fill(1)
  }

  /** @returns whether the pass lays anything on these vertices */
  private take(pass: Pass, from: number, count: number): boolean {
    if (!pass.levels && !pass.sprayed) return true
    const { levels, vertices, maps } = this
    let any = 0
    for (let i = 0; i < count; i++) {
      const v = vertices[from + i]!
      any |= levels[i] = pass.levels ? pass.levels[v]! : level(maps[v * MAPS + MAP.spray]!)
    }
    // A dry brush leaves most of the skin alone; only what lies even below it is laid there.
    return any > 0 || !pass.idle
  }

  /**
   * Lays passes on states, of which the last one's denominator may be divided out of all.
   */
  private over(
    passes: readonly Pass[],
    first: number,
    end: number,
    from: number,
    count: number,
    on: readonly State[],
    lamp: Through | null = null,
  ): void {
    const whole = on.at(-1)!
    const others = [...on.slice(0, -1).flatMap((s) => [s.num, s.den]), whole.num, ...(lamp ? [lamp.share] : [])]
    for (let k = first, since = 0; k < end; k++) {
      if (!this.take(passes[k]!, from, count)) continue
      for (const s of on) addFilm(passes[k]!.table, this.levels, s, count)
      lamp?.addFilm(passes[k]!.table, this.levels, count)
      if (++since === UNDIVIDED) {
        divide(whole.den, ...others)
        since = 0
      }
    }
  }

  private keep(
    passes: readonly Pass[],
    ground: Float64Array,
    from: number,
    count: number,
    [one, none]: readonly State[],
  ): void {
    const { at, kept, shine } = this
    const { of, below, p, q, z } = kept!
    this.begin(ground)
    this.over(passes, 0, of, from, count, [at])
    divide(at.den, at.num)
    below.set(at.num, from * B)
    // The columns of a map are what it makes of (1, 0) and (0, 1).
    one!.num.fill(1)
    one!.den.fill(0)
    none!.num.fill(0)
    none!.den.fill(1)
    this.over(passes, of + 1, passes.length, from, count, [one!, none!])
    divide(none!.den, one!.num, one!.den, none!.num)
    p.set(one!.num, from * B)
    q.set(none!.num, from * B)
    z.set(one!.den, from * B)
    this.bareShine()
    this.shineOver(passes, 0, of, from, count)
    kept!.shine.set(shine, 2 * from)
    for (const [start, to] of [
      [0, kept!.dull],
      [1, kept!.bright],
    ] as const) {
      shine.fill(start)
      this.shineOver(passes, of + 1, passes.length, from, count)
      to.set(shine, 2 * from)
    }
  }

  /** The dragged pass on what lies under it, and what lies over it on both. */
  private between(pass: Pass, from: number, count: number): void {
    const { below, p, q, z } = this.kept!
    const { num, den } = this.at
    const start = from * B
    num.set(below.subarray(start, start + CHUNK * B))
    den.fill(1)
    this.shine.set(this.kept!.shine.subarray(2 * from, 2 * (from + CHUNK)))
    if (this.take(pass, from, count)) {
      addFilm(pass.table, this.levels, this.at, count)
      for (const s of pass.sheens) shineOver(s, this.levels, this.shine, count)
    }
    const { dull, bright } = this.kept!
    for (let i = 0, k = 2 * from; i < 2 * count; i++, k++)
      this.shine[i] = dull[k]! + (bright[k]! - dull[k]!) * this.shine[i]!
    for (let b = 0; b < B; b++)
      for (let i = b * CHUNK, k = start + i; i < b * CHUNK + count; i++, k++) {
        const n = num[i]!,
          d = den[i]!
        num[i] = p[k]! * n + q[k]! * d
        den[i] = z[k]! * n + d
      }
  }

  private bareShine(): void {
    const { shine } = this
    for (let i = 0; i < shine.length; i += 2) {
      shine[i] = BARE_ROUGH
      shine[i + 1] = 0
    }
  }
  private shineOver(passes: readonly Pass[], first: number, end: number, from: number, count: number): void {
    for (let k = first; k < end; k++) {
      const { sheens } = passes[k]!
      if (sheens.length > 0 && this.take(passes[k]!, from, count))
        for (const s of sheens) shineOver(s, this.levels, this.shine, count)
    }
  }
}

/** What leaves the surface (Saunderson 1942) in linear sRGB. */
function toColours(
  vertices: Uint32Array,
  from: number,
  count: number,
  num: Float32Array,
  den: Float32Array,
  w: Rgb,
  colours: Float32Array,
): void {
  for (let i = 0; i < count; i++) {
    let r = 0,
      g = 0,
      b = 0
    for (let k = 0, at = i; k < B; k++, at += CHUNK) {
      const n = num[at]!
      const seen = ((1 - SURFACE_RETURN) * n) / (den[at]! - SURFACE_RETURN * n)
      r += w[0][k]! * seen
      g += w[1][k]! * seen
      b += w[2][k]! * seen
    }
    const o = vertices[from + i]! * 3
    colours[o] = r > 0 ? r : 0
    colours[o + 1] = g > 0 ? g : 0
    colours[o + 2] = b > 0 ? b : 0
  }
}
