import { BANDS, toXyz, type Triple } from './colour'
import { filmOver, mix, thinned, type Optics } from './film'
import { MAP, MAPS } from './surfaceMaps'

export type Technique = 'base' | 'wash' | 'dry brush' | 'glaze' | 'layer' | 'varnish'
export type Undercoat = 'grey' | 'white' | 'black' | 'zenithal'

export interface StackCoat {
  technique: Technique
  paints: { optics: Optics; share: number }[]
  /** µm dry, where the technique lays it fully */
  film: number
  /** volume share of paint in what is applied */
  pigment: number
  tool: 'brush' | 'airbrush'
}

/** Samples per axis of a region's table over (spray, recess, ridge). */
const N = 9
/** µm of primer that the spray from above lays where it hits squarely. */
const ZENITHAL_FILM = 14
const flat = (r: number): Float64Array => new Float64Array(BANDS).fill(r)
/** Reflectance of the primed skin; black sprayed white from above counts as half lit where one number must do. */
const GROUND: Record<Undercoat, Float64Array> = {
  grey: flat(0.32),
  white: flat(0.86),
  black: flat(0.04),
  zenithal: flat(0.25),
}
export const groundOf = (undercoat: Undercoat): Float64Array => GROUND[undercoat]

/**
 * Film of one coat at a place, µm, from the surface maps (methods.md 12): a wash pools by recess, a dry brush
 * touches ridges, an airbrushed layer follows the spray, the rest lies evenly. The share left elsewhere is
 * judgement, not measurement.
 */
export function filmAt(c: StackCoat, spray: number, recess: number, ridge: number): number {
  switch (c.technique) {
    case 'wash':
      return c.film * (0.05 + 0.95 * recess)
    case 'dry brush':
      return c.film * ridge * (1 - 0.8 * recess)
    case 'layer':
      return c.tool === 'airbrush' ? c.film * spray : c.film * Math.max(0, 0.2 + 0.8 * ridge - 0.6 * recess)
    case 'glaze':
      return c.tool === 'airbrush' ? c.film * spray : c.film
    case 'varnish':
      return 0
    case 'base':
      return c.film
  }
}

/** Colour of a whole stack at one place, linear sRGB: every film over what lies below, by the one law. */
export function stackColour(
  undercoat: Undercoat,
  white: Optics,
  coats: readonly StackCoat[],
  spray: number,
  recess: number,
  ridge: number,
): Triple {
  let ground = undercoat === 'zenithal' ? filmOver(white, ZENITHAL_FILM * spray, GROUND.black) : GROUND[undercoat]
  for (const c of coats) {
    if (c.paints.length === 0) continue
    const film = filmAt(c, spray, recess, ridge)
    if (film <= 0) continue
    ground = filmOver(
      thinned(
        c.paints.length === 1
          ? c.paints[0]!.optics
          : mix(
              c.paints.map((p) => p.optics),
              c.paints.map((p) => p.share),
            ),
        c.pigment,
      ),
      film,
      ground,
    )
  }
  const [x, y, z] = toXyz(ground)
  const clip = (v: number): number => (v < 0 ? 0 : v > 1 ? 1 : v)
  return [
    clip(3.2404542 * x - 1.5371385 * y - 0.4985314 * z),
    clip(-0.969266 * x + 1.8760108 * y + 0.041556 * z),
    clip(0.0556434 * x - 0.2040259 * y + 1.0572252 * z),
  ]
}

/**
 * The stack's colour over all map values as a table of N³ linear colours. Colour varies smoothly with film, so a
 * few hundred evaluations of the optics serve any number of vertices, which is what makes the preview live.
 */
export function stackTable(undercoat: Undercoat, white: Optics, coats: readonly StackCoat[]): Float32Array {
  const table = new Float32Array(N * N * N * 3)
  const uses = (t: Technique[]): boolean => coats.some((c) => t.includes(c.technique))
  // Maps that no coat asks for are not sampled.
  const spray =
    undercoat === 'zenithal' ||
    coats.some((c) => c.tool === 'airbrush' && (c.technique === 'layer' || c.technique === 'glaze'))
  const recess = uses(['wash', 'dry brush', 'layer']),
    ridge = uses(['dry brush', 'layer'])
  for (let i = 0; i < N; i++)
    for (let j = 0; j < N; j++)
      for (let k = 0; k < N; k++) {
        const o = ((i * N + j) * N + k) * 3
        const same = (!spray && i > 0) || (!recess && j > 0) || (!ridge && k > 0)
        if (same)
          table.copyWithin(
            o,
            (((spray ? i : 0) * N + (recess ? j : 0)) * N + (ridge ? k : 0)) * 3,
            (((spray ? i : 0) * N + (recess ? j : 0)) * N + (ridge ? k : 0)) * 3 + 3,
          )
        else table.set(stackColour(undercoat, white, coats, i / (N - 1), j / (N - 1), k / (N - 1)), o)
      }
  return table
}

/**
 * Colours every vertex from its maps by its region's table, trilinear.
 *
 * @param maps MAPS floats per vertex
 * @param labels region number per vertex
 * @param tables by region number; regions without one stay at `bare`
 * @param out 3 linear floats per vertex
 */
export function colourVertices(
  maps: Float32Array,
  labels: Uint8Array,
  tables: ReadonlyMap<number, Float32Array>,
  out: Float32Array,
  bare: Triple = [0.35, 0.33, 0.3],
): void {
  const list: (Float32Array | undefined)[] = Array.from({ length: 256 }, (_, i) => tables.get(i))
  for (let v = 0; v < labels.length; v++) {
    const table = list[labels[v]!]
    const o = v * 3
    if (!table) {
      out[o] = bare[0]
      out[o + 1] = bare[1]
      out[o + 2] = bare[2]
      continue
    }
    const m = v * MAPS
    const x = Math.min(1, maps[m + MAP.spray]!) * (N - 1),
      y = Math.min(1, maps[m + MAP.recess]!) * (N - 1),
      z = Math.min(1, maps[m + MAP.ridge]!) * (N - 1)
    const i = Math.min(N - 2, x | 0),
      j = Math.min(N - 2, y | 0),
      k = Math.min(N - 2, z | 0)
    const u = x - i,
      w = y - j,
      t = z - k
    for (let c = 0; c < 3; c++) {
      const at = (a: number, b: number, d: number): number => table[(((i + a) * N + j + b) * N + k + d) * 3 + c]!
      out[o + c] =
        (1 - u) *
          ((1 - w) * ((1 - t) * at(0, 0, 0) + t * at(0, 0, 1)) + w * ((1 - t) * at(0, 1, 0) + t * at(0, 1, 1))) +
        u * ((1 - w) * ((1 - t) * at(1, 0, 0) + t * at(1, 0, 1)) + w * ((1 - t) * at(1, 1, 0) + t * at(1, 1, 1)))
    }
  }
}
