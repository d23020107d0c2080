import { BENCH } from '../../defaults/bench'
import { apply3, fromQuaternion, type Vector3 } from '../../math/vectors'
import type { Caution } from '../materials/cautions'
import { message } from '../../words/message'
import type { Said } from '../../words/say'

export type FlawKind = 'pit' | 'step' | 'seam' | 'scratch' | 'dust' | 'run' | 'missing'
export type Cause =
  | { kind: 'tip'; tip: number; focal: boolean }
  | { kind: 'layers' }
  | { kind: 'joint' }
  | { kind: 'sanding' }
  | { kind: 'spray' }

export interface Remedy {
  title: Said
  /** s of work, and of waiting at 20 °C before it can be sanded */
  handsOn: number
  wait: number
  cautions: Caution[]
}

/** mm: up to this a pit is bridged by brushed resin, up to this by putty in one layer. */
const HAIR = 0.4,
  PUTTY = 2

/** What helps a flaw of a kind and a size, mm; it joins the next pass. */
export function remedyFor(kind: FlawKind, size: number): Remedy {
  switch (kind) {
    case 'pit':
      return size <= HAIR
        ? remedy(message('steps.flaws.brushResinInLightGrit'), 50, 30, ['resin', 'uv', 'dust'])
        : size <= PUTTY
          ? remedy(message('steps.flaws.solventPuttyThenGrit400'), 70, 2 * 3600, ['fumes', 'dust'])
          : remedy(message('steps.flaws.uvPuttyInLayersOf'), 150, 60, ['resin', 'uv', 'dust'])
    case 'step':
      return remedy(message('steps.flaws.aCoatOfFillerPrimer'), 60 + 4 * size, 2 * 3600, ['spray', 'dust'])
    case 'seam':
      return remedy(message('steps.flaws.waterThinnedFillerBrushedAlong'), 60 + 3 * size, 3600, ['dust'])
    case 'scratch':
      return remedy(message('steps.flaws.sandWithTheGritBefore'), 40 + 2 * size, 0, ['dust'])
    case 'dust':
      return remedy(message('steps.flaws.removeItWithGrit800'), 40, 0, ['dust'])
    case 'run':
      return remedy(message('steps.flaws.letItHardenLevelWith'), 90, 2 * 3600, ['dust'])
    case 'missing':
      return remedy(
        message('steps.flaws.modelItAgainInEpoxy'),
        BENCH.remodel.setUp + BENCH.remodel.mm * size,
        8 * 3600,
        ['putty'],
      )
  }
}
const remedy = (title: Said, handsOn: number, wait: number, cautions: Caution[]): Remedy => ({
  title,
  handsOn: Math.round(handsOn),
  wait,
  cautions,
})

export interface TipOnSkin {
  point: Vector3
  /** mm */
  tip: number
  focal: boolean
}

/**
 * Where supports touched a part, on the part as it stands in the piece.
 *
 * @param way how it was stood in the printer: turned, then moved by `offset`, then by the supports' `shift`
 */
export function tipsOnSkin(
  tips: readonly { point: Vector3; tip: number; focal: boolean }[],
  way: { quaternion: readonly [number, number, number, number]; offset: Vector3; shift: Vector3 },
): TipOnSkin[] {
  const [x, y, z, w] = way.quaternion
  const back = fromQuaternion([-x, -y, -z, w])
  return tips.map((t) => ({
    ...t,
    point: apply3(back, t.point.map((v, k) => v - way.offset[k]! - way.shift[k]!) as unknown as Vector3),
  }))
}

/** mm that a mark may lie beside the scar it means, besides half the tip and half the flaw. */
const BESIDE = 0.8

/** What made a flaw, as far as it can be told: a scar where a tip stood, else what its kind comes of. */
export function causeOf(kind: FlawKind, point: Vector3, size: number, tips: readonly TipOnSkin[]): Cause | null {
  if (kind === 'pit' || kind === 'scratch' || kind === 'missing') {
    let best: TipOnSkin | null = null,
      least = Infinity
    for (const t of tips) {
      const d = Math.hypot(...t.point.map((v, k) => v - point[k]!)) - t.tip / 2 - size / 2
      if (d < least) {
        least = d
        best = t
      }
    }
    if (best && least <= BESIDE) return { kind: 'tip', tip: best.tip, focal: best.focal }
    return kind === 'scratch' ? { kind: 'sanding' } : null
  }
  return { step: { kind: 'layers' }, seam: { kind: 'joint' }, dust: { kind: 'spray' }, run: { kind: 'spray' } }[
    kind
  ] as Cause
}

export interface Learned {
  /** how many of how many flaws of that kind have this cause */
  count: number
  of: number
  kind: FlawKind
  cause: Cause
  /** where most of them are, by the scheme's regions; null where they are all over */
  region: string | null
}
/** Fewer than this prove nothing. */
const TELLING = 3

/** Which causes stand behind the flaws of a kind, the most frequent first: half of three or more is worth saying. */
export function learnedFrom(
  flaws: readonly { kind: FlawKind; cause: Cause | null; region?: string | null }[],
): Learned[] {
  const out: Learned[] = []
  for (const kind of new Set(flaws.map((f) => f.kind))) {
    const own = flaws.filter((f) => f.kind === kind)
    const by = new Map<string, { cause: Cause; count: number; regions: (string | null)[] }>()
    for (const { cause, region = null } of own) {
      if (!cause) continue
      const name = cause.kind === 'tip' ? `tip ${cause.tip}` : cause.kind
      const seen = by.get(name)
      if (seen) {
        seen.count++
        seen.regions.push(region)
      } else by.set(name, { cause, count: 1, regions: [region] })
    }
    for (const { cause, count, regions } of by.values())
      if (count >= TELLING && 2 * count >= own.length)
        out.push({ kind, cause, count, of: own.length, region: mostly(regions) })
  }
  return out.sort((a, b) => b.count - a.count)
}

/** Share of them in one region from which on it is said. */
const MOSTLY = 0.6
function mostly(regions: readonly (string | null)[]): string | null {
  const named = regions.filter((r) => r !== null)
  const by = [...new Set(named)].map((r) => ({ r, n: named.filter((x) => x === r).length }))
  const most = by.sort((a, b) => b.n - a.n)[0]
  return most && most.n >= MOSTLY * regions.length ? most.r : null
}
