import { BANDS } from './colour'
import { FEW, fewWeights } from './fewBands'
import { inward, outward, type Optics } from './film'
import { evenFilm, filmTable, laidOn, LEVELS } from './filmTable'
import { isEven, shareAt, type Laying, type Place, type Technique } from './technique'
import { MAP, MAPS } from './surfaceMaps'

/** One coat as it is laid; `optics` as thinned, null where no paint is chosen. */
export interface Coating {
  technique: Technique
  optics: Optics | null
  /** µm dry, where the technique lays it fully */
  film: number
  sheen: Sheen
  /** share of the film per vertex, 0 to 255, by `levelsOf`; null is all of it everywhere */
  levels: Uint8Array | null
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

const B = FEW.length
/** Vertices taken together, an even number: their bands stay in the nearest cache. */
const CHUNK = 512

/** microfacet roughness of a dry film by its finish; flakes of metal scatter a little */
const ROUGH: Record<Sheen, number> = { matt: 0.88, satin: 0.5, gloss: 0.16, metal: 0.36 }
/** of primer and bare resin */
const BARE_ROUGH = 0.8

/**
 * How much of a coat's film lies at each vertex, 0 to 255; null where all of it lies everywhere. It depends on how the
 * coat is laid and not on its paint or film, so that those can be dragged without asking the surface again.
 *
 * @param from the coat's own spray light per vertex, where it is sprayed from elsewhere than the undercoat's light
 */
export function levelsOf(c: Laying, skin: Skin, from: Float32Array | null): Uint8Array | null {
  if (from === null && isEven(c)) return null
  const { maps, positions, spacing } = skin
  const out = new Uint8Array(positions.length / 3)
  const place: Place = { spray: 0, recess: 0, ridge: 0, exposure: 1, x: 0, y: 0, z: 0 }
  for (let v = 0, m = 0, o = 0; v < out.length; v++, m += MAPS, o += 3) {
    place.spray = from ? from[v]! : maps[m + MAP.spray]!
    place.recess = maps[m + MAP.recess]!
    place.ridge = maps[m + MAP.ridge]!
    place.exposure = maps[m + MAP.exposure]!
    place.x = positions[o]!
    place.y = positions[o + 1]!
    place.z = positions[o + 2]!
    out[v] = level(shareAt(c, place, spacing))
  }
  return out
}

/**
 * Colours and sheen of the skin under each region's stack of coats.
 *
 * @param maps MAPS floats per vertex
 * @param regions number of the region per vertex
 * @param stacks by region
 * @param bare what regions without a stack are left as
 * @param weights linear sRGB by band, as `lampWeights` gives it
 */
export function paintSkin(
  maps: Float32Array,
  regions: Uint8Array,
  stacks: ReadonlyMap<number, Stack>,
  bare: Ground,
  weights: readonly [Float64Array, Float64Array, Float64Array],
): Painted {
  const n = regions.length
  const colours = new Float32Array(n * 3),
    sheen = new Float32Array(n * 2)
  const w = weights.map(fewWeights) as unknown as [Float64Array, Float64Array, Float64Array]
  for (const [region, vertices] of gather(regions)) {
    const { ground, coats } = stacks.get(region) ?? { ground: bare, coats: [] }
    const passes = passesOf(ground, coats)
    const levels = new Uint8Array(CHUNK),
      state = new Float32Array(CHUNK * B),
      shine = new Float32Array(CHUNK * 2)
    for (let from = 0; from < vertices.length; from += CHUNK) {
      const count = Math.min(CHUNK, vertices.length - from)
      for (let b = 0; b < B; b++) state.fill(inward(ground.reflectance[FEW[b]!]!), b * CHUNK, b * CHUNK + count)
      for (let i = 0; i < count; i++) {
        shine[2 * i] = BARE_ROUGH
        shine[2 * i + 1] = 0
      }
      for (const pass of passes) {
        if (pass.levels || pass.sprayed) {
          let any = 0
          for (let i = 0; i < count; i++) {
            const v = vertices[from + i]!
            any |= levels[i] = pass.levels ? pass.levels[v]! : level(maps[v * MAPS + MAP.spray]!)
          }
          // A dry brush leaves most of the skin alone; only what lies even below it is laid there.
          if (any === 0 && pass.idle) continue
        }
        if (pass.table.length === B * 3) overAll(pass.table, state, count)
        else byLevel(pass.table, levels, state, count)
        for (const s of pass.sheens) shineOver(s, levels, shine, count)
      }
      toColours(vertices, from, count, state, w, colours)
      for (let i = 0; i < count; i++) {
        const v = vertices[from + i]!
        sheen[2 * v] = shine[2 * i]!
        sheen[2 * v + 1] = shine[2 * i + 1]!
      }
    }
  }
  return { colours, sheen }
}

/** One go over the vertices: films whose thickness differs from place to place, with the even ones below them laid in. */
interface Pass {
  table: Float32Array
  levels: Uint8Array | null
  /** its levels are the undercoat's spray light */
  sprayed: boolean
  sheens: Shine[]
  /** nothing even lies below: where its levels are 0 it does nothing */
  idle: boolean
}
interface Shine {
  /** by level how much of what lies below no longer shows; null: all of it, everywhere */
  cover: Float32Array | null
  rough: number
  metal: number
  even: boolean
}
const NOTHING = Float32Array.from({ length: B * 3 }, (_, i) => (i % 3 === 0 ? 1 : 0))

function passesOf(ground: Ground, coats: readonly Coating[]): Pass[] {
  const out: Pass[] = []
  if (ground.sprayed)
    out.push({
      table: filmTable(ground.sprayed.optics, ground.sprayed.film),
      levels: null,
      sprayed: true,
      sheens: [],
      idle: true,
    })
  // Even films wait to be laid into the next one that is not.
  let even: Float32Array = NOTHING,
    sheens: Shine[] = []
  for (const c of coats) {
    const rough = ROUGH[c.sheen],
      metal = c.sheen === 'metal' ? 1 : 0
    if (c.technique === 'varnish') {
      // What shone like metal shines on, only duller.
      sheens.push({ cover: null, rough, metal: -1, even: true })
      continue
    }
    if (!c.optics || c.film <= 0) continue
    sheens.push({ cover: coverOf(c.optics, c.film), rough, metal, even: c.levels === null })
    if (c.levels === null) {
      even = laidOn(evenFilm(c.optics, c.film), even)
      continue
    }
    const idle = sheens.length === 1
    out.push({ table: laidOn(filmTable(c.optics, c.film), even), levels: c.levels, sprayed: false, sheens, idle })
    even = NOTHING
    sheens = []
  }
  if (even !== NOTHING || sheens.length > 0)
    out.push({ table: even, levels: null, sprayed: false, sheens, idle: false })
  return out
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

function byLevel(table: Float32Array, levels: Uint8Array, state: Float32Array, count: number): void {
  for (let b = 0; b < B; b++) {
    const t = b * LEVELS * 3,
      s = b * CHUNK
    // Two at a time share one division, which is what this costs.
    for (let i = 0; i < count; i += 2) {
      const m = t + 3 * levels[i]!,
        n = t + 3 * levels[i + 1]!,
        r = state[s + i]!,
        q = state[s + i + 1]!
      const d = table[m + 2]! * r + 1,
        e = table[n + 2]! * q + 1
      const one = 1 / (d * e)
      state[s + i] = (table[m]! * r + table[m + 1]!) * e * one
      state[s + i + 1] = (table[n]! * q + table[n + 1]!) * d * one
    }
  }
}
function overAll(map: Float32Array, state: Float32Array, count: number): void {
  for (let b = 0; b < B; b++) {
    const p = map[3 * b]!,
      q = map[3 * b + 1]!,
      z = map[3 * b + 2]!
    for (let i = b * CHUNK; i < b * CHUNK + count; i++) {
      const r = state[i]!
      state[i] = (p * r + q) / (z * r + 1)
    }
  }
}
function shineOver(s: Shine, levels: Uint8Array, shine: Float32Array, count: number): void {
  for (let i = 0; i < count; i++) {
    const k = s.cover ? s.cover[s.even ? LEVELS - 1 : levels[i]!]! : 1
    shine[2 * i]! += k * (s.rough - shine[2 * i]!)
    if (s.metal >= 0) shine[2 * i + 1]! += k * (s.metal - shine[2 * i + 1]!)
  }
}

function toColours(
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
