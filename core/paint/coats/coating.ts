import type { Optics } from '../optics/film'
import type { Technique } from '../../defaults/paint'

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
  /** light of a lamp behind, as the bare skin lets it out: linear sRGB by band; none without a lamp */
  behind?: Rgb | null
}
/** Linear sRGB by band, in three rows. */
export type Rgb = readonly [Float64Array, Float64Array, Float64Array]

export interface Painted {
  /** linear sRGB, 3 per vertex, not clipped above */
  colours: Float32Array
  /** roughness and metalness, 2 per vertex, 0 to 1 */
  sheen: Float32Array
  /** light that comes through from behind, linear sRGB, 3 per vertex; null where no lamp stands behind any region */
  glow: Float32Array | null
}
