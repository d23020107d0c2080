import { BANDS, type Triple } from './colour'
import { inward, outward, type Optics } from './film'
import { isEven, shareAt, type Laying, type Place } from './technique'
import { MAP, MAPS } from './surfaceMaps'

/** One coat as it is laid; `optics` as thinned, null where no paint is chosen. */
export interface Coating extends Laying {
  optics: Optics | null
  /** µm dry, where the technique lays it fully */
  film: number
  sheen: Sheen
  /** its own spray light per vertex, where it is sprayed from elsewhere than the undercoat's light */
  from: Float32Array | null
}
export type Sheen = 'matt' | 'satin' | 'gloss' | 'metal'

/** What the paint lies on: the reflectance below, and per vertex the white sprayed over it, if any. */
export interface Ground {
  reflectance: Float64Array
  sprayed: { optics: Optics; film: number } | null
}

/** What one region is painted with. */
export interface Stack {
  ground: Ground
  coats: readonly Coating[]
}

export interface Skin {
  /** MAPS floats per vertex */
  maps: Float32Array
  /** mm, 3 per vertex */
  positions: Float32Array
  /** mm between vertices */
  spacing: number
}

export interface Painted {
  /** linear sRGB, 3 per vertex, not clipped above */
  colours: Float32Array
  /** roughness and metalness, 2 per vertex, 0 to 1 */
  sheen: Float32Array
}

/** Half the bands: spectra of paints are smooth, and 20 nm do for them. */
const B = BANDS / 2
/** Steps of film; between two of them no eye tells a difference. */
const LEVELS = 256
/** Vertices taken together: their bands stay in the nearest cache. */
const CHUNK = 512

/** microfacet roughness of a dry film by its finish; flakes of metal scatter a little */
const ROUGH: Record<Sheen, number> = { matt: 0.88, satin: 0.5, gloss: 0.16, metal: 0.36 }
/** of primer and bare resin */
const BARE_ROUGH = 0.8

/**
 * Weights of 36 bands gathered onto every other one, the bands between being interpolated linearly (ASTM E308 does so
 * with weights for 20 nm).
 */
export function onHalf(weights: Float64Array): Float64Array {
  const out = new Float64Array(B)
  for (let b = 0; b < BANDS; b++)
    if (b % 2 === 0) out[b / 2]! += weights[b]!
    else if (b === BANDS - 1) out[B - 1]! += weights[b]!
    else {
      out[(b - 1) / 2]! += weights[b]! / 2
      out[(b + 1) / 2]! += weights[b]! / 2
    }
  return out
}

/**
 * A film over any ground, as Kubelka and Munk's solution has it, is a fractional linear map of the ground's internal
 * reflectance: R′ = (αR + β) / (γR + 1), with α, β, γ of K, S and thickness alone. So each coat is three numbers by band
 * and film, and a stack is these maps one after another: no exponential is taken at any vertex.
 *
 * @returns LEVELS × 3 floats per band, film 0 to `film` µm
 */
export function filmTable(o: Optics, film: number): Float32Array {
  const out = new Float32Array(B * LEVELS * 3)
  for (let b = 0; b < B; b++) {
    const K = o.K[2 * b]!,
      S = o.S[2 * b]!
    const clear = S * film < 1e-9
    const a = clear ? 1 : 1 + K / S,
      q = Math.sqrt(a * a - 1)
    for (let l = 0; l < LEVELS; l++) {
      const X = (film * l) / (LEVELS - 1),
        i = (b * LEVELS + l) * 3
      if (clear) {
        out[i] = Math.exp(-2 * K * X)
        continue
      }
      // Numerator and denominator times 1 − e^(−2qSX), which keeps a film of none and one of no end finite.
      const e = Math.exp(-2 * q * S * X)
      // Where nothing is absorbed q is 0, and what is left is the limit.
      const thin = q * S * X < 1e-7
      const s = thin ? S * X : (1 - e) / (q * (1 + e))
      // a − q coth and a + q coth, times s = tanh(qSX)/q
      const den = a * s + 1
      out[i] = (1 - a * s) / den
      out[i + 1] = s / den
      out[i + 2] = -s / den
    }
  }
  return out
}

/**
 * Colours and sheen of the skin under each region's stack of coats.
 *
 * @param regions number of the region per vertex
 * @param stacks by region
 * @param bare what regions without a stack are left as
 * @param weights linear sRGB by band, as `lampWeights` gives it
 */
export function paintSkin(
  skin: Skin,
  regions: Uint8Array,
  stacks: ReadonlyMap<number, Stack>,
  bare: Ground,
  weights: readonly [Float64Array, Float64Array, Float64Array],
): Painted {
  const n = regions.length
  const colours = new Float32Array(n * 3),
    sheen = new Float32Array(n * 2)
  const w = weights.map(onHalf) as unknown as [Float64Array, Float64Array, Float64Array]
  const byRegion = gather(regions)
  for (const [region, vertices] of byRegion) {
    const { ground, coats: stack } = stacks.get(region) ?? { ground: bare, coats: [] }
    const start = Float64Array.from({ length: B }, (_, b) => inward(ground.reflectance[2 * b]!))
    const under = ground.sprayed && filmTable(ground.sprayed.optics, ground.sprayed.film)
    const coats = stack.map((c) => ({
      ...c,
      table: c.optics && c.film > 0 ? filmTable(c.optics, c.film) : null,
      cover: c.optics ? coverOf(c.optics, c.film) : new Float32Array(LEVELS),
      even: c.from === null && isEven(c),
    }))
    const levels = new Uint8Array(CHUNK),
      state = new Float32Array(CHUNK * B),
      rough = new Float32Array(CHUNK),
      metal = new Float32Array(CHUNK)
    for (let from = 0; from < vertices.length; from += CHUNK) {
      const count = Math.min(CHUNK, vertices.length - from)
      for (let b = 0; b < B; b++) state.fill(start[b]!, b * CHUNK, b * CHUNK + count)
      rough.fill(BARE_ROUGH)
      metal.fill(0)
      if (under) {
        for (let i = 0; i < count; i++) levels[i] = level(skin.maps[vertices[from + i]! * MAPS + MAP.spray]!)
        apply(under, levels, state, count)
      }
      for (const c of coats) {
        if (c.technique === 'varnish') {
          // It lies on all of the region, and its sheen is what is seen.
          rough.fill(ROUGH[c.sheen], 0, count)
          continue
        }
        if (!c.table) continue
        if (c.even) levels.fill(LEVELS - 1, 0, count)
        else for (let i = 0; i < count; i++) levels[i] = level(shareOf(c, skin, vertices[from + i]!))
        apply(c.table, levels, state, count)
        const shine = c.sheen === 'metal' ? 1 : 0,
          r = ROUGH[c.sheen]
        for (let i = 0; i < count; i++) {
          const k = c.cover[levels[i]!]!
          rough[i]! += k * (r - rough[i]!)
          metal[i]! += k * (shine - metal[i]!)
        }
      }
      finish(vertices, from, count, state, w, colours)
      for (let i = 0; i < count; i++) {
        const v = vertices[from + i]!
        sheen[2 * v] = rough[i]!
        sheen[2 * v + 1] = metal[i]!
      }
    }
  }
  return { colours, sheen }
}

const level = (share: number): number => (share <= 0 ? 0 : share >= 1 ? LEVELS - 1 : (share * (LEVELS - 1) + 0.5) | 0)

function gather(regions: Uint8Array): Map<number, Uint32Array> {
  const count = new Uint32Array(256)
  for (const r of regions) count[r]!++
  const out = new Map<number, Uint32Array>()
  for (let r = 0; r < 256; r++) if (count[r]! > 0) out.set(r, new Uint32Array(count[r]!))
  count.fill(0)
  for (let v = 0; v < regions.length; v++) {
    const r = regions[v]!
    out.get(r)![count[r]!++] = v
  }
  return out
}

const place: Place = { spray: 0, recess: 0, ridge: 0, exposure: 1, x: 0, y: 0, z: 0 }
function shareOf(c: Coating, skin: Skin, v: number): number {
  const { maps, positions } = skin
  const m = v * MAPS
  place.spray = c.from ? c.from[v]! : maps[m + MAP.spray]!
  place.recess = maps[m + MAP.recess]!
  place.ridge = maps[m + MAP.ridge]!
  place.exposure = maps[m + MAP.exposure]!
  place.x = positions[3 * v]!
  place.y = positions[3 * v + 1]!
  place.z = positions[3 * v + 2]!
  return shareAt(c, place, skin.spacing)
}

function apply(table: Float32Array, levels: Uint8Array, state: Float32Array, count: number): void {
  for (let b = 0; b < B; b++) {
    const t = b * LEVELS * 3,
      s = b * CHUNK
    for (let i = 0; i < count; i++) {
      const at = t + 3 * levels[i]!,
        r = state[s + i]!
      state[s + i] = (table[at]! * r + table[at + 1]!) / (table[at + 2]! * r + 1)
    }
  }
}

function finish(
  vertices: Uint32Array,
  from: number,
  count: number,
  state: Float32Array,
  w: readonly [Float64Array, Float64Array, Float64Array],
  colours: Float32Array,
): void {
  for (let i = 0; i < count; i++) {
    let r = 0,
      g = 0,
      b = 0
    for (let k = 0; k < B; k++) {
      const seen = outward(state[k * CHUNK + i]!)
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

/** How much of what lies below a film no longer shows, by level: its mean extinction over the bands, there and back. */
function coverOf(o: Optics, film: number): Float32Array {
  let mean = 0
  for (let b = 0; b < BANDS; b++) mean += (o.K[b]! + o.S[b]!) / BANDS
  return Float32Array.from({ length: LEVELS }, (_, l) => 1 - Math.exp((-2 * mean * film * l) / (LEVELS - 1)))
}

export const asTriple = (a: ArrayLike<number>, v: number): Triple => [a[3 * v]!, a[3 * v + 1]!, a[3 * v + 2]!]
