import type { AccessReport } from '../../fit/access'
import type { Schools } from '../../defaults/plan'
import { fixed, type Fixed } from '../../words/format'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** A pair of parts that meet, with what was measured of them. */
export interface JointFacts {
  /** ids of both parts */
  key: string
  a: string
  b: string
  /** mm of seam that shows */
  seam: number
  /** what is lost of each part's skin to the brush and the airbrush once the two are joined, mm²; null: not measured yet */
  access: [AccessReport, AccessReport] | null
}
export interface GluingAdvice {
  when: 'before' | 'apart'
  why: Said
  /** mm² that must be masked where glue goes on after paint */
  mask: boolean
}

/** mm of seam below which nobody sees it */
const SEEN = 8
/** mm² out of the brush's reach that nobody misses, and share of the part */
const MISSED = 150
const MISSED_SHARE = 0.02

/**
 * Whether two parts are joined before paint or painted apart: a seam that shows wants to be filled, sanded and painted over;
 * skin that no brush reaches any more wants to be painted first (craft.md 10).
 */
export function gluingFor(j: JointFacts, school: Schools['gluing']): GluingAdvice {
  if (school === 'assembleFirst')
    return { when: 'before', why: message('steps.gluing.houseRuleEverythingIsAssembled'), mask: false }
  if (school === 'subAssemblies')
    return { when: 'apart', why: message('steps.gluing.houseRulePaintedInSub'), mask: true }
  const seam = message('steps.gluing.mmOfSeamAreVisible', { seam: fixed(j.seam, 0) })
  if (!j.access)
    return {
      when: j.seam > SEEN ? 'before' : 'apart',
      why: message('steps.gluing.whatABrushReachesIs', { seam }),
      mask: j.seam <= SEEN,
    }
  const lost = j.access[0].brushLost + j.access[1].brushLost,
    of = j.access[0].brush + j.access[1].brush
  const much = lost > MISSED && lost > MISSED_SHARE * of
  const sprayed = j.access[0].airbrushLost + j.access[1].airbrushLost
  const cm2 = (v: number): Fixed => fixed(v / 100, 1)
  if (j.seam > SEEN && !much)
    return {
      when: 'before',
      why: message('steps.gluing.andOnceJoinedTheBrush', {
        seam,
        cm2: cm2(lost),
        sprayed: sprayed > MISSED,
        cm22: cm2(sprayed),
      }),
      mask: false,
    }
  if (much && j.seam <= SEEN)
    return {
      when: 'apart',
      why: message('steps.gluing.onceJoinedNoBrushReaches', { cm2: cm2(lost) }),
      mask: true,
    }
  if (much)
    return {
      when: 'apart',
      why: message('steps.gluing.onceJoinedNoBrushReaches2', { cm2: cm2(lost), seam }),
      mask: true,
    }
  return {
    when: 'before',
    why: message('steps.gluing.hardlyAnySeamIsVisible'),
    mask: false,
  }
}

/** Pairs in an order that keeps access: from the core outward, each after the one that it hangs on (breadth first). */
export function fitOrder<J extends { a: string; b: string }>(joints: readonly J[], core: string): J[] {
  const left = [...joints],
    out: J[] = []
  const reached = new Set([core])
  while (left.length > 0) {
    // A ring, or a part that hangs on nothing reached, starts again where it is.
    const i = Math.max(
      0,
      left.findIndex((j) => reached.has(j.a) || reached.has(j.b)),
    )
    const [j] = left.splice(i, 1)
    reached.add(j!.a).add(j!.b)
    out.push(j!)
  }
  return out
}
