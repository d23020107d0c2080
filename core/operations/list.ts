import { apply3, type Vector3 } from '../math/vectors'
import { movedAlong, type BodyMove, type Placed } from './moved'
import { rankOf, REPEATED, type OperationKind } from './registry'

/** Any operation record that is known by its kind. */
type Op = { kind: OperationKind }
type Scale = { kind: 'scale'; factor: number; axes: readonly number[]; about: 'foot' | 'origin' }
type Place = { kind: 'place'; quaternion: readonly number[]; shift: [number, number, number]; mirror: boolean }

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
const scaleOf = (list: readonly Op[]): Scale | undefined => list.find((o) => o.kind === 'scale') as Scale | undefined

/** The list with an operation put in its place in working order, behind others of its rank. */
function inserted<O extends Op>(list: readonly O[], op: O): O[] {
  const at = list.findIndex((o) => rankOf(o.kind) > rankOf(op.kind))
  return at < 0 ? [...list, op] : [...list.slice(0, at), op, ...list.slice(at)]
}

/**
 * The list with one operation more. It replaces an earlier one of its kind, unless its kind may be there several times;
 * then it comes after those. A new scale takes along whatever was set on the body at its old size.
 *
 * @param foot middle of the foot of the body as it is scaled now, mm; null where it has not been measured
 */
export function withOperation<O extends Op>(list: readonly O[], op: O, foot: Vector3 | null): O[] {
  const move = op.kind === 'scale' ? rescaling(list, op as unknown as Scale, foot) : null
  const rest = list
    .filter((o) => o.kind !== op.kind || REPEATED.includes(op.kind))
    .map((o) => (move && rankOf(o.kind) > rankOf('scale') ? (movedAlong(o as Placed, move) as unknown as O) : o))
  return inserted(rest, op)
}

/** How the points of the body move when its scale is replaced; null where that cannot be known yet. */
function rescaling(list: readonly Op[], op: Scale, foot: Vector3 | null): BodyMove | null {
  const old = scaleOf(list)
  const was = old ? old.axes.map((a) => a * old.factor) : [1, 1, 1]
  const [x, y, z] = op.axes.map((a, k) => (a * op.factor) / was[k]!) as [number, number, number]
  const matrix: BodyMove['matrix'] = [x, 0, 0, 0, y, 0, 0, 0, z]
  if (op.about === 'origin') return { matrix, shift: [0, 0, 0] }
  // The middle of the foot stays where it is.
  return foot && { matrix, shift: [foot[0] * (1 - x), foot[1] * (1 - y), foot[2] * (1 - z)] }
}

/**
 * The list of a part that is moved as a whole, as it is seen: its place changes, and all that was set on it goes along.
 *
 * @param move turn or reflection, and shift in mm as seen
 * @param start the record of a part that was never placed
 * @param place quaternion and mirroring of the record after the move
 * @param foot middle of the foot of the scaled body, mm; null where it has not been measured
 */
export function movedList<O extends Op>(
  list: readonly O[],
  move: BodyMove,
  start: Extract<O, { kind: 'place' }>,
  place: (was: Extract<O, { kind: 'place' }>) => object,
  foot: Vector3 | null,
): O[] {
  const scale = scaleOf(list)
  const was = (list.find((o) => o.kind === 'place') ?? start) as Extract<O, { kind: 'place' }>
  let { shift } = was as unknown as Place,
    k = 1
  if (scale) {
    k = scale.factor
    // Scaled about its foot, which is another one when the part leans: the same scale about the origin does not depend on it.
    if (scale.about === 'foot' && foot) shift = shift.map((v, i) => v + ((1 - k) / k) * foot[i]!) as Place['shift']
  }
  const next = {
    ...was,
    ...place(was),
    shift: apply3(move.matrix, shift).map((v, i) => v + move.shift[i]! / k),
  } as unknown as O
  const rest = list
    .filter((o) => o.kind !== 'place')
    .map((o) => (o.kind === 'scale' ? { ...o, about: 'origin' } : o))
    .map((o) => (rankOf(o.kind) > rankOf('scale') ? (movedAlong(o as Placed, move) as unknown as O) : o))
  return inserted(rest, next)
}

/**
 * A change of a list, made to another list than the one it was made from: what a second quick edit means when the first
 * has been stored meanwhile.
 *
 * Operations that the change took out are taken out, those that it added are added. An operation that is there once at
 * most and that both have changed gets the fields that this change set, and keeps the others as they are now.
 *
 * @param before the list from which the change was made
 * @param wanted what it made of it
 * @param now the list as it is
 */
export function rebased<O extends Op>(before: readonly O[], wanted: readonly O[], now: readonly O[]): O[] {
  if (same(before, now)) return [...wanted]
  const missing = (a: readonly O[], b: readonly O[]): O[] => {
    const left = b.map((o) => JSON.stringify(o))
    return a.filter((o) => {
      const i = left.indexOf(JSON.stringify(o))
      if (i >= 0) left.splice(i, 1)
      return i < 0
    })
  }
  const removed = missing(before, wanted),
    added = missing(wanted, before)
  let list = missing(now, removed)
  for (const op of added) {
    if (REPEATED.includes(op.kind)) {
      list = inserted(list, op)
      continue
    }
    const was = before.find((o) => o.kind === op.kind),
      there = now.find((o) => o.kind === op.kind)
    list = inserted(
      list.filter((o) => o.kind !== op.kind),
      was && there ? mergedFields(was, op, there) : op,
    )
  }
  // One that was taken out here and changed there is out.
  return list.filter(
    (o) => REPEATED.includes(o.kind) || !removed.some((r) => r.kind === o.kind) || added.some((a) => a.kind === o.kind),
  )
}

function mergedFields<O extends Op>(was: O, wanted: O, there: O): O {
  const set = Object.entries(wanted).filter(([k, v]) => !same(v, was[k as keyof O]))
  const unset = Object.keys(was).filter((k) => !(k in wanted))
  const merged = { ...there, ...Object.fromEntries(set) }
  return Object.fromEntries(Object.entries(merged).filter(([k]) => !unset.includes(k))) as O
}
