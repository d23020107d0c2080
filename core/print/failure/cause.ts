import type { Cup, Island } from '../../raster/layerGraph'
import type { Vector3 } from '../../math/vectors'
import { gradeWords, type GradeName } from '../support/supportRoute'
import { fixed } from '../../words/format'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

/** What one sees wrong: gone; come off its supports; split open; rough; a line all round; bent; come off the plate. */
export type MarkKind = 'missing' | 'loose' | 'torn' | 'ragged' | 'line' | 'warped' | 'notStuck'

/** What was computed of the print before it was printed. */
export interface PrintFacts {
  layerHeight: number
  /** in the plate's frame: mm from its middle */
  islands: readonly Island[]
  cups: readonly Cup[]
  /** N per layer */
  peel: readonly number[]
  bottomLayers: number
  exposure: number
  bottomExposure: number
  /** in the part's own frame, as it stands supported */
  tips: readonly { point: Vector3; utilisation: number; grade: GradeName }[]
  /** where the part stands on the plate */
  x: number
  y: number
  angle: number
  /** layers at which the machine stood still, and why */
  stops: readonly { layer: number; why: string }[]
  /** how many parts of the plate failed, and of how many */
  failed: number
  parts: number
}
export type CauseKind = 'island' | 'tip' | 'cup' | 'peel' | 'exposure' | 'bottom' | 'stop' | 'warp'
export type Change =
  | { kind: 'support'; point: Vector3 }
  | { kind: 'regrade'; point: Vector3; grade: GradeName }
  | { kind: 'vent'; point: Vector3 }
  | { kind: 'exposure' | 'bottomExposure'; from: number; to: number }
  | { kind: 'tilt' | 'none' }
export interface Cause {
  kind: CauseKind
  /** share of all that was weighed; judgement, not chance */
  weight: number
  sentence: Said
  change: Change
  /** what to do, in words */
  words: Said
}

/** mm within which a fact counts as being at the mark; half its weight is gone there */
const NEAR = 6
/** A peel that rises by this within a millimetre shakes what hangs. */
const JUMP = 1.6
/** What speaks for the exposure when nothing else does. */
const LEFT_OVER = 0.15

/**
 * Why a part failed where it did, most likely first: each thing that was computed is weighed by how well it explains that
 * kind of fault, how strong it is, and how near. The weights are judgement; what they weigh is computed.
 */
export function probableCauses(mark: { kind: MarkKind; point: Vector3 }, f: PrintFacts): Cause[] {
  const [mx, my] = turned(mark.point, f.angle)
  const x = mx + f.x,
    y = my + f.y,
    z = mark.point[2]
  const own = (px: number, py: number, pz: number): Vector3 => {
    const [qx, qy] = turned([px - f.x, py - f.y, 0], -f.angle)
    return [qx, qy, pz]
  }
  const out: Cause[] = []
  const add = (weight: number, cause: Omit<Cause, 'weight'>): void => {
    if (weight > 0.02) out.push({ weight, ...cause })
  }
  const gone = mark.kind === 'missing',
    hangs = gone || mark.kind === 'loose'

  for (const i of nearest(f.islands, (i) => Math.hypot(i.x - x, i.y - y, i.layer * f.layerHeight - z)))
    add((gone ? 1.6 : mark.kind === 'ragged' ? 0.8 : 0) * i.near, {
      kind: 'island',
      sentence: message('prints.cause.mmStartInTheAir', {
        area: fixed(i.it.area, 1),
        i: i.it.layer + 1,
        gap: fixed(i.gap, 1),
      }),
      change: { kind: 'support', point: own(i.it.x, i.it.y, i.it.layer * f.layerHeight) },
      words: message('prints.cause.addASupportUnderThe'),
    })
  // The worst tip counts, not the nearest: what it lets go of tears off at some way from it.
  const tips = f.tips
    .map((t) => ({ t, gap: distance(t.point, mark.point) }))
    .map(({ t, gap }) => ({ t, gap, weight: t.utilisation ** 2 / (1 + (gap / (2 * NEAR)) ** 2) }))
    .sort((a, b) => b.weight - a.weight)
  const tip = tips[0]
  if (tip)
    add(hangs ? 1.2 * Math.min(1.5, tip.weight) : 0, {
      kind: 'tip',
      sentence: message('prints.cause.aTipMmFromHere', {
        grade: gradeWords[tip.t.grade],
        gap: fixed(tip.gap, 1),
        utilisation: Math.round(100 * tip.t.utilisation),
      }),
      change: { kind: 'regrade', point: tip.t.point, grade: tip.t.grade === 'whisker' ? 'strut' : 'post' },
      words:
        tip.t.grade === 'post'
          ? message('prints.cause.addAnotherStrongSupportBeside')
          : message('prints.cause.makeItsSize', {
              gradeWords: gradeWords[tip.t.grade === 'whisker' ? 'strut' : 'post'],
            }),
    })
  for (const c of f.cups) {
    const low = c.firstLayer * f.layerHeight - 1,
      high = c.lastLayer * f.layerHeight + 1
    const above = z < low ? low - z : z > high ? z - high : 0
    // Its place is that of its widest layer; in others it lies elsewhere, so being aside counts for less.
    const aside = Math.max(0, Math.hypot(c.x - x, c.y - y) - Math.sqrt(c.area / Math.PI)) / 3
    add(
      (mark.kind === 'torn' ? 2 : hangs ? 0.9 : 0.2) * Math.min(1, c.force / 15) * closeness(Math.hypot(aside, above)),
      {
        kind: 'cup',
        sentence: message('prints.cause.aSuctionCupOfCm', {
          c: fixed(c.area / 100, 2),
          c2: c.firstLayer + 1,
          c3: c.lastLayer + 1,
          force: fixed(c.force, 0),
        }),
        change: { kind: 'vent', point: own(c.startX, c.startY, c.firstLayer * f.layerHeight) },
        words: message('prints.cause.ventItWhereItCloses'),
      },
    )
  }
  const jump = worstJump(f, z)
  if (jump)
    add((hangs ? 0.5 : mark.kind === 'line' ? 0.9 : 0.1) * Math.min(1.5, jump.ratio - 1) * closeness(jump.gap), {
      kind: 'peel',
      sentence: message('prints.cause.peelRisesTimesWithinA', {
        ratio: fixed(jump.ratio, 1),
        z: fixed(jump.z, 1),
        force: fixed(jump.force, 1),
      }),
      change: { kind: 'tilt' },
      words: message('prints.cause.tiltItSoThatIts'),
    })
  const bottom = f.bottomLayers * f.layerHeight
  add(mark.kind === 'notStuck' ? 1.5 : hangs && z < bottom + 1 ? 0.5 : 0, {
    kind: 'bottom',
    sentence: message('prints.cause.itCameLooseWithinMm', {
      bottom: fixed(bottom + 1, 1),
      bottomLayers: f.bottomLayers,
    }),
    change: { kind: 'bottomExposure', from: f.bottomExposure, to: round(f.bottomExposure * 1.2) },
    words: message('prints.cause.exposeTheFirstLayersS', {
      n: round(f.bottomExposure * 1.2),
      bottomExposure: f.bottomExposure,
    }),
  })
  const stop = f.stops.map((s) => ({ s, gap: Math.abs(s.layer * f.layerHeight - z) })).sort((a, b) => a.gap - b.gap)[0]
  if (stop)
    add((mark.kind === 'line' ? 2 : 0.3) * closeness(stop.gap), {
      kind: 'stop',
      sentence: message('prints.cause.thePrinterStoppedAtLayer', {
        stop: stop.s.layer + 1,
        why: stop.s.why,
        gap: fixed(stop.gap, 1),
      }),
      change: { kind: 'none' },
      words: message('prints.cause.nothingInThePartNeeds'),
    })
  add(mark.kind === 'warped' ? 1 : 0, {
    kind: 'warp',
    sentence: message('prints.cause.thinAndWideWallsWarp'),
    change: { kind: 'none' },
    words: message('prints.cause.letItDryCureIt'),
  })
  // Weak light is the likelier, the more of a plate fails, and the less else there is to blame.
  const share = f.parts > 1 ? f.failed / f.parts : 0.5
  add(mark.kind === 'ragged' ? 0.8 : hangs ? LEFT_OVER + 0.35 * share : 0.05, {
    kind: 'exposure',
    sentence:
      f.parts > 1 && f.failed > 1
        ? message('prints.cause.ofPartsOnThePlate', { failed: f.failed, parts: f.parts, exposure: f.exposure })
        : message('prints.cause.sALayerMayBe', { exposure: f.exposure }),
    change: { kind: 'exposure', from: f.exposure, to: round(f.exposure * 1.1) },
    words: message('prints.cause.exposeSInsteadOfS', { n: round(f.exposure * 1.1), exposure: f.exposure }),
  })
  const sum = out.reduce((s, c) => s + c.weight, 0)
  return out.map((c) => ({ ...c, weight: c.weight / sum })).sort((a, b) => b.weight - a.weight)
}

const round = (v: number): number => Math.round(v * 100) / 100
const closeness = (gap: number): number => 1 / (1 + (gap / NEAR) ** 2)
const distance = (a: Vector3, b: Vector3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2])
function turned([x, y]: readonly [number, number, number], a: number): [number, number] {
  return [Math.cos(a) * x - Math.sin(a) * y, Math.sin(a) * x + Math.cos(a) * y]
}
/** The one that is nearest, with how near it is, as a list of one or none. */
function nearest<T>(list: readonly T[], gapOf: (t: T) => number): { it: T; gap: number; near: number }[] {
  const best = list.map((it) => ({ it, gap: gapOf(it) })).sort((a, b) => a.gap - b.gap)[0]
  return best ? [{ ...best, near: closeness(best.gap) }] : []
}

/** The steepest rise of peel over a millimetre within reach of a height. */
function worstJump(f: PrintFacts, z: number): { z: number; ratio: number; force: number; gap: number } | null {
  const step = Math.max(1, Math.round(1 / f.layerHeight)),
    at = Math.round(z / f.layerHeight),
    reach = Math.round((3 * NEAR) / f.layerHeight)
  let best: { z: number; ratio: number; force: number; gap: number } | null = null
  for (let i = Math.max(step, at - reach); i < Math.min(f.peel.length, at + reach); i++) {
    const before = f.peel[i - step]!,
      force = f.peel[i]!
    if (force < 1 || before <= 0) continue
    const ratio = force / before
    if (ratio < JUMP || (best && ratio <= best.ratio)) continue
    const height = i * f.layerHeight
    best = { z: height, ratio, force, gap: Math.abs(height - z) }
  }
  return best
}
