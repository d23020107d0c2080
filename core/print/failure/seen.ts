import type { Vector3 } from '../../math/vectors'
import type { Hung } from '../hanging/hanging'
import type { MarkKind } from './cause'

export interface OnPlate {
  partId: string
  copy: number
  x: number
  y: number
  angle: number
  /** mm, of the part with its supports, about its own origin: least and greatest x and y */
  box: readonly [number, number, number, number]
  /** mm³ of it, with supports */
  volume: number
}
export interface SeenMark {
  partId: string
  copy: number
  kind: MarkKind
  point: Vector3
  /** heights between which something is missing, mm from the plate; null where nothing is */
  reach: [number, number] | null
}
export interface SeenPart {
  partId: string
  copy: number
  result: 'good' | 'usable' | 'failed'
}

/** mm³ that may be missing of a part that is still of use */
const LITTLE = 20
/** Marks of tips that let go without harm: one finds some of them, never all. */
const MAX_LOOSE = 12

/** What went wrong on a plate, as marks on the parts that stand there: for a device that can tell what it sees. */
export function marksOf(
  seen: Pick<Hung, 'mishaps' | 'losses'>,
  parts: readonly OnPlate[],
  layerHeight: number,
): { marks: SeenMark[]; outcomes: SeenPart[] } {
  const marks: SeenMark[] = []
  const missing = new Map<OnPlate, number>(),
    torn = new Set<OnPlate>()
  const put = (
    kind: MarkKind,
    at: { x: number; y: number; z: number },
    reach: SeenMark['reach'] = null,
  ): OnPlate | null => {
    const part = partAt(parts, at.x, at.y)
    if (!part) return null
    const [x, y] = ownPlace(part, at.x, at.y)
    marks.push({ partId: part.partId, copy: part.copy, kind, point: [x, y, at.z], reach })
    return part
  }
  const told = new Set<number>()
  for (const l of seen.losses) {
    const m = seen.mishaps[l.mishap]
    if (!m || l.volume < 0.5) continue
    told.add(l.mishap)
    // What had been printed of it before it fell is gone as well.
    const part = put('missing', m, [Math.min(m.z, l.firstLayer * layerHeight), (l.lastLayer + 1) * layerHeight])
    if (part) missing.set(part, (missing.get(part) ?? 0) + l.volume)
  }
  let loose = 0
  seen.mishaps.forEach((m, i) => {
    if (told.has(i)) return
    if (m.kind === 'cup') {
      const part = put('torn', m)
      if (part) torn.add(part)
    } else if (m.kind === 'tip' && !m.fell && loose++ < MAX_LOOSE) put('loose', m)
  })
  const outcomes = parts.map((p) => {
    const lost = missing.get(p) ?? 0
    const failed = lost > Math.max(LITTLE, 0.005 * p.volume) || torn.has(p)
    const marked = marks.some((m) => m.partId === p.partId && m.copy === p.copy)
    const result: SeenPart['result'] = failed ? 'failed' : marked ? 'usable' : 'good'
    return { partId: p.partId, copy: p.copy, result }
  })
  return { marks, outcomes }
}

/** A place on the plate in a part's own frame. */
function ownPlace(p: OnPlate, x: number, y: number): [number, number] {
  const c = Math.cos(-p.angle),
    s = Math.sin(-p.angle)
  return [c * (x - p.x) - s * (y - p.y), s * (x - p.x) + c * (y - p.y)]
}

/** The part whose box a place lies in, or nearest to; where boxes overlap, that whose middle is nearest for its size. */
function partAt(parts: readonly OnPlate[], x: number, y: number): OnPlate | null {
  let best: OnPlate | null = null,
    least = Infinity
  for (const p of parts) {
    const [px, py] = ownPlace(p, x, y)
    const [x0, x1, y0, y1] = p.box
    const u = Math.abs(px - (x0 + x1) / 2) / Math.max(1e-6, (x1 - x0) / 2),
      v = Math.abs(py - (y0 + y1) / 2) / Math.max(1e-6, (y1 - y0) / 2)
    const far = Math.max(u, v)
    if (far < least) {
      least = far
      best = p
    }
  }
  return best
}
