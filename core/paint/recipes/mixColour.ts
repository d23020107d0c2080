import {
  BANDS,
  deltaE00,
  toLab,
  toXyz,
  xyzToLab,
  xyzToSrgb,
  toHex,
  WHITE,
  weightsOf,
  type Triple,
} from '../optics/colour'
import { outward, SURFACE_RETURN, type Optics } from '../optics/film'

/** K and S of a mix side by side: one addition walks both. */
export const WIDTH = 2 * BANDS
export const flat = (o: Optics): Float64Array => {
  const ks = new Float64Array(WIDTH)
  ks.set(o.K)
  ks.set(o.S, BANDS)
  return ks
}
const R = new Float64Array(BANDS)
/** CIELAB at full hiding of a mix, whatever its total: only K/S counts. */
export function labOf(ks: Float64Array): [number, number, number] {
  return toLab(reflectance(ks))
}
/** '#rrggbb' of a mix at full hiding */
export const hexOf = (ks: Float64Array): string => toHex(xyzToSrgb(toXyz(reflectance(ks))))

function reflectance(ks: Float64Array): Float64Array {
  for (let b = 0; b < BANDS; b++) {
    const q = ks[b]! / ks[BANDS + b]!
    R[b] = outward(1 + q - Math.sqrt(q * (q + 2)))
  }
  return R
}

/** Bands of the straight lines: pairs of the 36, which is enough to say where exact calculating is worth it. */
const BROAD = BANDS / 2
/** K and S of a paint on the broad bands */
export const broad = (ks: Float64Array): Float64Array =>
  Float64Array.from({ length: BANDS }, (_, b) => (ks[2 * b]! + ks[2 * b + 1]!) / 2)
const pairs = (w: Float64Array): Float64Array =>
  Float64Array.from({ length: BROAD }, (_, b) => w[2 * b]! + w[2 * b + 1]!)
const weights = weightsOf()
const X = pairs(weights.WX),
  Y = pairs(weights.WY),
  Z = pairs(weights.WZ)
/** derivative of CIELAB's cube root */
const slopeOf = (t: number): number => (t > 216 / 24389 ? 1 / (3 * Math.cbrt(t) ** 2) : 24389 / 27 / 116)

/**
 * The colour of mixes near one mix, as straight lines: what each paint pulls the colour by, in a space in which the
 * plain distance to the target is about its CIEDE2000.
 *
 * With q = K/S of the mix, changing shares changes q by Σ pᵢ(Kᵢ − q Sᵢ)/S, and the colour by that through dR/dq. In
 * weights mᵢ ∝ pᵢSᵢ the colour is therefore Σ mᵢ Wᵢ: mixing is a convex hull of points, and the best mix is its point
 * nearest to the target.
 */
export class Nearby {
  private readonly metric: Float64Array
  private readonly gx = new Float64Array(BROAD)
  private readonly gy = new Float64Array(BROAD)
  private readonly gz = new Float64Array(BROAD)
  private readonly ratio = new Float64Array(BROAD)
  /** colour of the mix about which is linearised, relative to the target; and how Lab follows XYZ there */
  private readonly at = new Float64Array(6)
  private total = 1

  constructor(readonly target: Triple) {
    this.metric = whitening(target)
  }

  /** What the straight lines take for the distance of a colour to the target. */
  distance(lab: Triple): number {
    const [x, y, z] = this.residual(lab)
    return Math.hypot(x, y, z)
  }
  private residual(lab: Triple): [number, number, number] {
    const A = this.metric,
      l = lab[0] - this.target[0],
      a = lab[1] - this.target[1],
      c = lab[2] - this.target[2]
    return [A[0]! * l + A[1]! * a + A[2]! * c, A[3]! * a + A[4]! * c, A[5]! * c]
  }
  /** Moves corners by what the broad bands are off: `lab` is the exact colour of the mix about which was linearised. */
  correct(lab: Triple, corners: Float64Array, count: number): void {
    const exact = this.residual(lab)
    for (let i = 0; i < count; i++) for (let k = 0; k < 3; k++) corners[3 * i + k]! += exact[k]! - this.at[k]!
  }

  /** Sets the mix about which is linearised, by its K and S on the broad bands; returns its distance to the target. */
  about(mix: Float64Array): number {
    let x = 0,
      y = 0,
      z = 0,
      total = 0
    for (let b = 0; b < BROAD; b++) {
      const S = mix[BROAD + b]!,
        q = mix[b]! / S
      const root = Math.sqrt(q * (q + 2))
      const inner = 1 + q - root
      const d = 1 - SURFACE_RETURN * inner
      const outer = ((1 - SURFACE_RETURN) * inner) / d
      // dR∞/dq = −R∞/√(q² + 2q); the surface's return by its quotient rule.
      const slope = (-inner / (root > 1e-9 ? root : 1e-9)) * ((1 - SURFACE_RETURN) / (d * d * S))
      x += X[b]! * outer
      y += Y[b]! * outer
      z += Z[b]! * outer
      this.ratio[b] = q
      this.gx[b] = X[b]! * slope
      this.gy[b] = Y[b]! * slope
      this.gz[b] = Z[b]! * slope
      total += Y[b]! * S
    }
    const lab = xyzToLab([x, y, z])
    this.at.set(this.residual(lab))
    this.at[3] = slopeOf(x / WHITE[0]) / WHITE[0]
    this.at[4] = slopeOf(y)
    this.at[5] = slopeOf(z / WHITE[2]) / WHITE[2]
    this.total = total
    return Math.hypot(this.at[0]!, this.at[1]!, this.at[2]!)
  }

  /**
   * Corner of a paint, relative to the target: 3 numbers into `corners` at `o`.
   *
   * @param paint K and S on the broad bands
   * @returns its scattering over the mix's
   */
  corner(paint: Float64Array, corners: Float64Array, o: number): number {
    const { gx, gy, gz, ratio, at, metric: A } = this
    let vx = 0,
      vy = 0,
      vz = 0,
      s = 0
    for (let b = 0; b < BROAD; b++) {
      const S = paint[BROAD + b]!
      const pull = paint[b]! - ratio[b]! * S
      vx += gx[b]! * pull
      vy += gy[b]! * pull
      vz += gz[b]! * pull
      s += Y[b]! * S
    }
    s /= this.total
    const dl = (116 * at[4]! * vy) / s,
      da = (500 * (at[3]! * vx - at[4]! * vy)) / s,
      db = (200 * (at[4]! * vy - at[5]! * vz)) / s
    corners[o] = at[0]! + A[0]! * dl + A[1]! * da + A[2]! * db
    corners[o + 1] = at[1]! + A[3]! * da + A[4]! * db
    corners[o + 2] = at[2]! + A[5]! * db
    return s
  }
}

/** Upper triangle A with |A·δ| ≈ ΔE00(target, target + δ): the Cholesky root of its metric, by differences. */
function whitening(t: Triple): Float64Array {
  const h = 0.5
  const e = (l: number, a: number, b: number): number =>
    (deltaE00(t, [t[0] + h * l, t[1] + h * a, t[2] + h * b]) / h) ** 2
  const G = [e(1, 0, 0), e(0, 1, 0), e(0, 0, 1)]
  const ab = (e(0, 1, 1) - e(0, 1, -1)) / 4,
    la = (e(1, 1, 0) - e(1, -1, 0)) / 4,
    lb = (e(1, 0, 1) - e(1, 0, -1)) / 4
  const a00 = Math.sqrt(G[0]!)
  const a01 = la / a00,
    a02 = lb / a00
  const a11 = Math.sqrt(Math.max(1e-6, G[1]! - a01 * a01))
  const a12 = (ab - a01 * a02) / a11
  return Float64Array.of(a00, a01, a02, a11, a12, Math.sqrt(Math.max(1e-6, G[2]! - a02 * a02 - a12 * a12)))
}
