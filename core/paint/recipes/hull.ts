/** The point of a simplex nearest to the origin, in up to three dimensions, as weights of its corners. */
export interface Nearest {
  /** one weight a corner, 0 to 1, together 1 */
  readonly weights: Float64Array
  squared: number
}
export const nearest = (): Nearest => ({ weights: new Float64Array(4), squared: 0 })

/**
 * @param w corners, 3 numbers each
 * @param count of corners, 1 to 4
 */
export function nearestToOrigin(w: Float64Array, count: number, out: Nearest): void {
  out.weights.fill(0)
  out.squared = Infinity
  if (count === 4 && inside(w, out)) return
  if (count === 4)
    for (let skip = 0; skip < 4; skip++) triangle(w, skip === 0 ? 1 : 0, skip <= 1 ? 2 : 1, skip === 3 ? 2 : 3, out)
  else if (count === 3) triangle(w, 0, 1, 2, out)
  else if (count === 2) segment(w, 0, 1, out)
  else corner(w, 0, out)
}

/** Whether the origin lies in the tetrahedron: its volumes against the four faces have one sign. */
function inside(w: Float64Array, out: Nearest): boolean {
  const a = volume(w, 1, 2, 3),
    b = -volume(w, 0, 2, 3),
    c = volume(w, 0, 1, 3),
    d = -volume(w, 0, 1, 2)
  const all = a + b + c + d
  if (Math.abs(all) < 1e-15) return false
  const x = a / all,
    y = b / all,
    z = c / all,
    t = d / all
  if (x < 0 || y < 0 || z < 0 || t < 0) return false
  out.weights[0] = x
  out.weights[1] = y
  out.weights[2] = z
  out.weights[3] = t
  out.squared = 0
  return true
}
function volume(w: Float64Array, i: number, j: number, k: number): number {
  i *= 3
  j *= 3
  k *= 3
  return (
    w[i]! * (w[j + 1]! * w[k + 2]! - w[j + 2]! * w[k + 1]!) -
    w[i + 1]! * (w[j]! * w[k + 2]! - w[j + 2]! * w[k]!) +
    w[i + 2]! * (w[j]! * w[k + 1]! - w[j + 1]! * w[k]!)
  )
}
const dot = (w: Float64Array, i: number, j: number): number =>
  w[3 * i]! * w[3 * j]! + w[3 * i + 1]! * w[3 * j + 1]! + w[3 * i + 2]! * w[3 * j + 2]!

/** The foot of the perpendicular where it lies in the triangle, else the nearest of its sides: by its Gram matrix. */
function triangle(w: Float64Array, i: number, j: number, k: number, out: Nearest): void {
  const aa = dot(w, i, i),
    bb = dot(w, j, j),
    cc = dot(w, k, k),
    ab = dot(w, i, j),
    ac = dot(w, i, k),
    bc = dot(w, j, k)
  // Cofactors of the bordered Gram matrix: barycentric coordinates of the foot, times the squared double area.
  const x = bb * cc - bc * bc - ab * cc + ab * bc + ac * bc - ac * bb,
    y = aa * cc - ac * ac - ab * cc + ab * ac + ac * bc - bc * aa,
    z = aa * bb - ab * ab - ac * bb + ab * ac + ab * bc - bc * aa
  const all = x + y + z
  if (all > 1e-18 && x >= 0 && y >= 0 && z >= 0) {
    const p = x / all,
      q = y / all,
      r = z / all
    const squared = Math.max(0, p * p * aa + q * q * bb + r * r * cc + 2 * (p * q * ab + p * r * ac + q * r * bc))
    if (squared < out.squared) {
      out.squared = squared
      out.weights.fill(0)
      out.weights[i] = p
      out.weights[j] = q
      out.weights[k] = r
    }
    return
  }
  segment(w, i, j, out)
  segment(w, j, k, out)
  segment(w, i, k, out)
}
function segment(w: Float64Array, i: number, j: number, out: Nearest): void {
  const aa = dot(w, i, i),
    bb = dot(w, j, j),
    ab = dot(w, i, j)
  const length = aa + bb - 2 * ab
  const t = length < 1e-18 ? 0 : Math.min(1, Math.max(0, (aa - ab) / length))
  const squared = Math.max(0, (1 - t) * (1 - t) * aa + t * t * bb + 2 * t * (1 - t) * ab)
  if (squared >= out.squared) return
  out.squared = squared
  out.weights.fill(0)
  out.weights[i] = 1 - t
  out.weights[j] = t
}
function corner(w: Float64Array, i: number, out: Nearest): void {
  out.squared = dot(w, i, i)
  out.weights[i] = 1
}
