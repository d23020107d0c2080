import { apply3, identity3, type Matrix3, type Vector3 } from '../math/vectors'

/** p ↦ matrix · p + shift: how everything on a body moves when it is sized, placed or mirrored. */
export interface BodyMove {
  matrix: Matrix3
  shift: Vector3
}

type Point = [number, number, number]
type Dabs = { point: Point; radius: number }[]
/** The fields by which records name places and directions; a record may have any of them. */
export interface Placed {
  kind: string
  point?: Point
  normal?: Point
  direction?: Point
  piece?: Point
  line?: Point[]
  path?: Point[]
  centre?: [number, number]
  dabs?: Dabs
  thicker?: { dabs: Dabs; by: number }
  fixings?: { point: Point; direction: Point }[]
  holes?: { point: Point; direction: Point }[]
  edits?: { point: Point; to?: Point }[]
  none?: Dabs
  more?: Dabs
  only?: Dabs
  focal?: Dabs
  others?: { matrix?: Matrix3; shift?: Point }[]
}

/** Cube root of how many times larger the move makes a body. */
export const growthOf = ({ matrix: m }: BodyMove): number =>
  Math.cbrt(
    Math.abs(
      m[0] * (m[4] * m[8] - m[5] * m[7]) - m[1] * (m[3] * m[8] - m[5] * m[6]) + m[2] * (m[3] * m[7] - m[4] * m[6]),
    ),
  )

/**
 * The same operation on the body where and as large as it is now: every place and direction goes along, what is measured
 * at the bench (a wall, a wire, a hole, a clearance) stays. Another body that the operation works with, kept as it was, is
 * brought along too.
 */
export function movedAlong<O extends Placed>(op: O, move: BodyMove): O {
  const { matrix, shift } = move
  const grown = growthOf(move)
  const at = (p: Point): Point => apply3(matrix, p).map((v, k) => v + shift[k]!) as Point
  const along = (d: Point): Point => {
    const t = apply3(matrix, d)
    const l = Math.hypot(...t) || 1
    return t.map((v) => v / l) as Point
  }
  // Supports are edited on the body as it stands in the printer, which is set down by itself.
  if (op.kind === 'support') {
    const large = (p: Point): Point => p.map((v) => v * grown) as Point
    const out: Placed = { ...op }
    if (op.edits)
      out.edits = op.edits.map((e) => ({ ...e, point: large(e.point), ...(e.to ? { to: large(e.to) } : {}) }))
    for (const paint of ['none', 'more', 'only', 'focal'] as const)
      if (op[paint]) out[paint] = op[paint].map((d) => ({ point: large(d.point), radius: d.radius * grown }))
    return out as O
  }
  if (op.kind === 'orient') return op
  const out: Placed = { ...op }
  if (op.point) out.point = at(op.point)
  if (op.piece) out.piece = at(op.piece)
  if (op.direction) out.direction = along(op.direction)
  if (op.normal) out.normal = along(op.normal)
  if (op.line) out.line = op.line.map(at)
  if (op.path) out.path = op.path.map(at)
  if (op.centre) out.centre = at([op.centre[0], op.centre[1], 0]).slice(0, 2) as [number, number]
  const dabsAt = (dabs: Dabs): Dabs => dabs.map((d) => ({ point: at(d.point), radius: d.radius * grown }))
  if (op.dabs) out.dabs = dabsAt(op.dabs)
  if (op.thicker) out.thicker = { ...op.thicker, dabs: dabsAt(op.thicker.dabs) }
  if (op.fixings) out.fixings = op.fixings.map((f) => ({ ...f, point: at(f.point), direction: along(f.direction) }))
  if (op.holes) out.holes = op.holes.map((h) => ({ ...h, point: at(h.point), direction: along(h.direction) }))
  if (op.others)
    out.others = op.others.map((o) => ({
      ...o,
      matrix: product(matrix, o.matrix ?? identity3),
      shift: at(o.shift ?? [0, 0, 0]),
    }))
  return out as O
}

const product = (a: Matrix3, b: Matrix3): Matrix3 =>
  Array.from({ length: 9 }, (_, i) => {
    const r = Math.floor(i / 3) * 3,
      c = i % 3
    return a[r]! * b[c]! + a[r + 1]! * b[c + 3]! + a[r + 2]! * b[c + 6]!
  }) as unknown as Matrix3
