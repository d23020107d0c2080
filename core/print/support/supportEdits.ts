import { closest, closestPoint } from '../../mesh/closest'
import { keepFaces, type Mesh } from '../../mesh/mesh'
import { shellFacts } from '../../mesh/shellFacts'
import type { Vector3 } from '../../math/vectors'
import { treeOf } from '../../mesh/tree'
import type { BrushSpot } from '../../shape/brushSpots'
import type { Contact, Skin } from './supportNeed'
import { gap, onFocal, type Planned } from './supportPlan'
import type { GradeName } from './supportRoute'

/** A change made by hand. Places are on the body as it stands before lifting, mm; they survive regeneration. */
export type SupportEdit =
  | { kind: 'add'; point: Vector3; grade: GradeName }
  | { kind: 'remove'; point: Vector3; radius?: number }
  | { kind: 'regrade'; point: Vector3; grade: GradeName }
  | { kind: 'move'; point: Vector3; to: Vector3 }
  /** a loose piece that begins in the air, and is not wanted: it is not printed */
  | { kind: 'drop'; point: Vector3 }

/** Tips within this distance of an edit's place are meant by it, mm. */
export const MEANT = 1.6

/** Does to the plan what was done by hand; returns how many of the changes found nothing to change. */
export function edited(
  planned: Planned[],
  edits: readonly SupportEdit[],
  skin: Skin,
  up: (p: Vector3) => Vector3,
  focal: readonly BrushSpot[],
): number {
  let lost = 0
  const add = (at: Vector3, grade: GradeName): boolean => {
    const contact = skin.nearest(at[0], at[1], at[2])
    if (gap(contact.point, at) > 3) return false
    planned.push({
      contact: { ...contact, island: false },
      grade,
      byHand: true,
      focal: onFocal(focal, contact.point),
      route: null,
    })
    return true
  }
  for (const edit of edits) {
    const at = up(edit.point)
    if (edit.kind === 'drop') continue
    if (edit.kind === 'add') {
      if (!add(at, edit.grade)) lost++
      continue
    }
    const reach = edit.kind === 'remove' ? (edit.radius ?? MEANT) : MEANT
    const meant = planned.filter((t) => gap(t.contact.point, at) <= reach)
    if (meant.length === 0) lost++
    else if (edit.kind === 'regrade')
      for (const t of meant) {
        t.grade = edit.grade
        t.byHand = true
      }
    else {
      // What is moved is the nearest alone, and keeps its grade.
      const gone =
        edit.kind === 'remove'
          ? meant
          : [meant.reduce((a, b) => (gap(b.contact.point, at) < gap(a.contact.point, at) ? b : a))]
      for (const t of gone) planned.splice(planned.indexOf(t), 1)
      if (edit.kind === 'move' && !add(up(edit.to), gone[0]!.grade)) {
        lost++
        planned.push(...gone)
      }
    }
  }
  return lost
}

/**
 * The body without the loose pieces that lie at those places: shells that nothing joins to the largest one, with their own
 * cavities.
 *
 * @returns `lost`: places where nothing is, or what is there is the body itself
 */
export function withoutPieces(mesh: Mesh, places: readonly Vector3[]): { mesh: Mesh; lost: number } {
  if (places.length === 0) return { mesh, lost: 0 }
  const facts = shellFacts(mesh),
    hit = closest()
  const { boxes, volumes, shellOf } = facts
  const largest = volumes.indexOf(volumes.reduce((a, b) => Math.max(a, b), -Infinity))
  const gone = new Set<number>()
  let lost = 0
  for (const p of places) {
    const near = closestPoint(treeOf(mesh), p[0], p[1], p[2], hit) <= MEANT
    const shell = shellOf[hit.face]!
    if (!near || shell === largest || volumes[shell]! <= 0) {
      lost++
      continue
    }
    gone.add(shell)
    for (let s = 0; s < facts.count; s++) {
      const within = [0, 1, 2].every(
        (k) => boxes[s * 6 + k]! >= boxes[shell * 6 + k]! && boxes[s * 6 + 3 + k]! <= boxes[shell * 6 + 3 + k]!,
      )
      if (volumes[s]! < 0 && within) gone.add(s)
    }
  }
  return gone.size === 0
    ? { mesh, lost }
    : {
        mesh: keepFaces(
          mesh,
          Uint8Array.from(shellOf, (s) => (gone.has(s) ? 0 : 1)),
        ),
        lost,
      }
}

/**
 * Takes generated tips out of the plan that crowd one set by hand, islands' own excepted. They are told from the others only
 * now, after the edits: an edit finds the tip that it was made on, wherever else tips were set since.
 *
 * @returns their contacts, which may be taken after all where the load asks for it
 */
export function keepOffHands(planned: Planned[], spacing: number): Contact[] {
  const hands = planned.filter((t) => t.byHand)
  const crowds = (t: Planned): boolean =>
    !t.byHand && !t.contact.island && hands.some((h) => gap(h.contact.point, t.contact.point) < spacing)
  const out = planned.filter(crowds)
  for (const t of out) planned.splice(planned.indexOf(t), 1)
  return out.map((t) => t.contact)
}
