import type { Vector3 } from '../../math/vectors'
import { brushAt, type BrushSpot } from '../../shape/brushSpots'
import { tipCapacity, tipLoads, type LoadLayer, type TipLoad } from './supportLoad'
import type { Contact } from './supportNeed'
import { GRADE_NAMES, gradeDefaults, type GradeName, type Route } from './supportRoute'
import type { Mesh } from '../../mesh/mesh'

/** A support that is planned: where it holds, how heavy it is, and the way of its stem once that is laid. */
export interface Planned {
  contact: Contact
  grade: GradeName
  byHand: boolean
  focal: boolean
  route: Route | null
}
export interface LoadWish {
  peelPressure: number
  greenStrength: number
  spacing: number
}

export const gap = (a: Vector3, b: Vector3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])
export const onFocal = (focal: readonly BrushSpot[], p: Vector3): boolean =>
  focal.length > 0 && brushAt(focal, p[0], p[1], p[2]) > 0.5

export const loadsOf = (mesh: Mesh, planned: readonly Planned[], wish: LoadWish, layers?: LoadLayer[]): TipLoad[] =>
  tipLoads(
    mesh,
    planned.map((t) => ({ point: t.contact.point, diameter: gradeDefaults[t.grade].tip })),
    wish.peelPressure,
    wish.greenStrength,
    1,
    layers,
  )

/**
 * Heavier tips where the load asks for them, then more of them, until the load is carried or nothing is left to add.
 * What was set by hand stays as it is.
 *
 * @param planned is changed and added to
 * @param spare contacts that may still be taken; those taken are removed
 */
export function addTipsForLoad(
  mesh: Mesh,
  planned: Planned[],
  spare: Contact[],
  wish: LoadWish,
  accept: (t: Planned) => void,
): TipLoad[] {
  let loads = loadsOf(mesh, planned, wish)
  for (let round = 0; round < 4; round++) {
    let changed = false
    for (const [i, t] of [...planned].entries()) {
      if (t.byHand || loads[i]!.utilisation <= 1) continue
      const enough =
        GRADE_NAMES.find((g) => tipCapacity(gradeDefaults[g].tip, wish.greenStrength) >= loads[i]!.force) ?? 'post'
      if (GRADE_NAMES.indexOf(enough) > GRADE_NAMES.indexOf(t.grade)) {
        t.grade = enough
        accept(t)
        changed = true
        continue
      }
      const helper = spare.findIndex((c) => gap(c.point, t.contact.point) < wish.spacing * 1.5)
      if (helper < 0) continue
      const contact = spare.splice(helper, 1)[0]!
      const more: Planned = { contact, grade: t.grade, byHand: false, focal: t.focal, route: null }
      accept(more)
      if (!more.route) continue
      planned.push(more)
      changed = true
    }
    if (!changed) break
    loads = loadsOf(mesh, planned, wish)
  }
  return loads
}

/** Tips that work less than this may go, when a neighbour stays. */
const IDLE = 0.4
/** What a neighbour may be left with. */
const BUSY = 0.85

/**
 * Generated broadly, then thinned out: tips that hardly work go, where no island begins on them and a neighbour within one
 * and a half spacings stays that can bear their share. What turns out to be overloaded then gets its neighbours back.
 *
 * @returns how many were taken out
 */
export function thinOut(mesh: Mesh, planned: Planned[], wish: LoadWish): number {
  const loads = loadsOf(mesh, planned, wish)
  const order = planned.map((_, i) => i).sort((a, b) => loads[a]!.utilisation - loads[b]!.utilisation)
  const stays = new Uint8Array(planned.length),
    goes = new Uint8Array(planned.length)
  const bears = loads.map((l) => l.force)
  const capacity = planned.map((t) => tipCapacity(gradeDefaults[t.grade].tip, wish.greenStrength))
  for (const i of order) {
    const t = planned[i]!
    if (stays[i] || t.byHand || t.contact.island || !t.route || loads[i]!.utilisation > IDLE) continue
    let heir = -1,
      least = 1.5 * wish.spacing
    for (const [j, o] of planned.entries()) {
      // The heir must hold before the layer comes that the other held.
      if (j === i || goes[j] || !o.route || o.contact.point[2] > t.contact.point[2] + 0.5 * wish.spacing) continue
      const d = gap(o.contact.point, t.contact.point)
      if (d < least && bears[j]! + bears[i]! < BUSY * capacity[j]!) {
        least = d
        heir = j
      }
    }
    if (heir < 0) continue
    goes[i] = 1
    stays[heir] = 1
    bears[heir]! += bears[i]!
  }
  const out = planned.filter((_, i) => goes[i])
  let kept = planned.filter((_, i) => !goes[i])
  const after = loadsOf(mesh, kept, wish)
  const over = kept.filter((_, i) => after[i]!.utilisation > 1)
  const back = out.filter((t) => over.some((o) => gap(o.contact.point, t.contact.point) < 2 * wish.spacing))
  kept = [...kept, ...back]
  planned.splice(0, planned.length, ...kept)
  return out.length - back.length
}
