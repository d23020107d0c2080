import { BANDS, TO_LINEAR, wavelength, weightsOf, WHITE, type Triple } from './colour'

/** K; candle to clear sky. */
export const LAMP_RANGE = [1800, 10_000] as const

/** Spectrum of a black body on the 36 bands, to any scale (Planck 1901; second radiation constant of CODATA 2018). */
export function blackBody(kelvin: number): Float64Array {
  return Float64Array.from({ length: BANDS }, (_, b) => {
    const l = wavelength(b) * 1e-9
    return (1e-7 / l) ** 5 / (Math.exp(0.01438776877 / (l * kelvin)) - 1)
  })
}

/** Cone responses after Lam 1985 (the Bradford transform), by rows. */
const BRADFORD = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
] as const
/** cd/m² that the eye is adapted to: a grey card at 500 lx, as in a lit cabinet */
const ADAPTING = 32
/** How far the eye takes the lamp's white for white (CIE 159:2004, degree of adaptation in an average surround). */
export const ADAPTED = 1 - Math.exp(-(ADAPTING + 42) / 92) / 3.6

const cones = (xyz: Triple): [number, number, number] =>
  BRADFORD.map((r) => r[0] * xyz[0] + r[1] * xyz[1] + r[2] * xyz[2]) as [number, number, number]

/** Inverse of a 3×3 by cofactors. */
function inverse(m: readonly (readonly number[])[]): number[][] {
  const [[a, b, c], [d, e, f], [g, h, i]] = m as [number[], number[], number[]]
  const A = e! * i! - f! * h!,
    B = f! * g! - d! * i!,
    C = d! * h! - e! * g!
  const det = a! * A + b! * B + c! * C
  return [
    [A / det, (c! * h! - b! * i!) / det, (b! * f! - c! * e!) / det],
    [B / det, (a! * i! - c! * g!) / det, (c! * d! - a! * f!) / det],
    [C / det, (b! * g! - a! * h!) / det, (a! * e! - b! * d!) / det],
  ]
}
const BACK = inverse(BRADFORD)

const spectrumOf = (kelvin: number | null): Float64Array | undefined =>
  kelvin === null ? undefined : blackBody(kelvin)
function whiteOf(kelvin: number | null): Triple {
  const { WX, WZ } = weightsOf(spectrumOf(kelvin))
  const sum = (w: Float64Array): number => w.reduce((a, b) => a + b)
  return [sum(WX), 1, sum(WZ)]
}

/**
 * Linear sRGB of a reflectance seen by a lamp, as three rows of 36 weights. Each band is weighed by the lamp's own
 * spectrum, so that paints which match by day may part by lamplight; then the eye adapts as far as it does.
 *
 * @param kelvin of a black body; null is daylight (D65), to which the eye is wholly adapted
 * @param eye the lamp that the eye has adapted to, where that is another one: a candle in a case lit by day looks amber
 */
export function lampWeights(kelvin: number | null, eye = kelvin): [Float64Array, Float64Array, Float64Array] {
  const { WX, WY, WZ } = weightsOf(spectrumOf(kelvin))
  const here = cones(whiteOf(eye)),
    day = cones(WHITE)
  const gain = day.map((v, i) => (eye === null ? 1 : (ADAPTED * v) / here[i]! + 1 - ADAPTED))
  const out: [Float64Array, Float64Array, Float64Array] = [
    new Float64Array(BANDS),
    new Float64Array(BANDS),
    new Float64Array(BANDS),
  ]
  for (let b = 0; b < BANDS; b++) {
    const lms = cones([WX[b]!, WY[b]!, WZ[b]!]).map((v, i) => v * gain[i]!)
    const xyz = BACK.map((r) => r[0]! * lms[0]! + r[1]! * lms[1]! + r[2]! * lms[2]!)
    TO_LINEAR.forEach((r, c) => {
      out[c]![b] = r[0] * xyz[0]! + r[1] * xyz[1]! + r[2] * xyz[2]!
    })
  }
  return out
}
