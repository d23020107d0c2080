import { BANDS, toLab, wavelength, type Triple } from './colour'

/**
 * A smooth reflectance with the given CIELAB colour: a sigmoid of a quadratic in wavelength (Jakob and Hanika
 * 2019), its three coefficients found by damped Gauss–Newton on the Lab residual.
 *
 * @returns 36 values in (0, 1); colours outside what such spectra reach come back as the nearest found
 */
export function reflectanceOf(lab: Triple): Float64Array {
  const t = Float64Array.from({ length: BANDS }, (_, i) => (wavelength(i) - 555) / 175)
  const spectrum = (c: Triple): Float64Array =>
    t.map((x) => {
      const u = c[0] + c[1] * x + c[2] * x * x
      return 0.5 + u / (2 * Math.sqrt(1 + u * u))
    })
  const residual = (c: Triple): [number, number, number] => {
    const l = toLab(spectrum(c))
    return [l[0] - lab[0], l[1] - lab[1], l[2] - lab[2]]
  }
  const size = (r: Triple): number => r[0] * r[0] + r[1] * r[1] + r[2] * r[2]
  const y = Math.min(0.97, Math.max(0.004, ((lab[0] + 16) / 116) ** 3))
  let c: Triple = [(2 * y - 1) / Math.sqrt(Math.max(1e-6, 1 - (2 * y - 1) ** 2)), 0, 0]
  let r = residual(c),
    damping = 1e-3
  for (let step = 0; step < 60 && size(r) > 1e-8; step++) {
    const J = [0, 1, 2].map((k) => {
      const e = 1e-4 * (1 + Math.abs(c[k]!))
      const moved = residual(c.map((v, i) => (i === k ? v + e : v)) as unknown as Triple)
      return moved.map((v, i) => (v - r[i]!) / e)
    })
    // (JᵀJ + damping·diag) d = −Jᵀr
    const A = [0, 1, 2].map((i) =>
      [0, 1, 2].map((j) => J[i]!.reduce((s, v, k) => s + v * J[j]![k]!, 0) * (i === j ? 1 + damping : 1)),
    )
    const g = [0, 1, 2].map((i) => -J[i]!.reduce((s, v, k) => s + v * r[k]!, 0))
    const d = solve3(A, g)
    const next = c.map((v, k) => Math.max(-400, Math.min(400, v + d[k]!))) as unknown as Triple
    const rn = residual(next)
    if (size(rn) < size(r)) {
      c = next
      r = rn
      damping = Math.max(1e-9, damping / 4)
    } else if ((damping *= 6) > 1e9) break
  }
  return spectrum(c)
}

function solve3(A: number[][], b: number[]): [number, number, number] {
  const det = (m: number[][]): number =>
    m[0]![0]! * (m[1]![1]! * m[2]![2]! - m[1]![2]! * m[2]![1]!) -
    m[0]![1]! * (m[1]![0]! * m[2]![2]! - m[1]![2]! * m[2]![0]!) +
    m[0]![2]! * (m[1]![0]! * m[2]![1]! - m[1]![1]! * m[2]![0]!)
  const d = det(A) || 1e-30
  return [0, 1, 2].map((k) => det(A.map((row, i) => row.map((v, j) => (j === k ? b[i]! : v)))) / d) as [
    number,
    number,
    number,
  ]
}
