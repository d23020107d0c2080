import { type PaintKind } from '../../defaults/paint'
import { hexToLab, toHex, toXyz, xyzToSrgb, type Triple } from '../optics/colour'
import { rankOf, UNSEEN, type Found } from './mixRank'
import { BLACK, coatsToHide, hiding, mix, opticsOf, opticsOfSwatches, type Optics } from '../optics/film'
import { missingPigment } from './missing'
import { searchMixes } from './recipeSearch'
import { message, type Message } from '../../words/message'

export interface StockPaint {
  id: string
  name: string
  /** where it hides fully */
  lab: Triple
  /** contrast ratio of one brushed coat, 0 to 1 */
  opacity: number
  /** one brushed coat over black, where a second swatch was made: it says more than the ratio */
  overBlack?: Triple | null
  kind: PaintKind
  /** money for 1 ml; 0 where it is not known */
  price?: number
  /** a bottle of it is open */
  open?: boolean
  finish?: 'matt' | 'satin' | 'gloss' | 'metal'
}

export const paintOptics = (p: StockPaint): Optics =>
  p.overBlack ? opticsOfSwatches(p.lab, p.overBlack) : opticsOf(p.lab, p.opacity)

export type Merit = 'simplest' | 'closest' | 'fewest' | 'cheapest' | 'open'
export interface Recipe {
  drops: { paint: string; name: string; drops: number }[]
  total: number
  /** CIEDE2000 to the target, at full hiding */
  error: number
  hex: string
  /** what it is best at; none: another way */
  merits: Merit[]
  /** money for 1 ml; null where a price is not known */
  price: number | null
  /** brushed coats until it hides over black; null where twelve are not enough */
  hides: number | null
}

export interface RecipeAnswer {
  recipes: Recipe[]
  /** within ΔE00 2 of the target: a touch-up that is not noticed */
  reached: boolean
  /** what is missing when it is not reached, in words */
  missing: Message | null
  /** paints left out of mixing arithmetic, with why */
  excluded: Message[]
}

/** What binds a paint: only paints of one binder mix; kinds without one do not mix at all. */
export const BINDER: Partial<Record<PaintKind, 'water' | 'oil' | 'enamel'>> = {
  acrylic: 'water',
  ink: 'water',
  oil: 'oil',
  enamel: 'enamel',
}
const WHY_NOT: Partial<Record<PaintKind, Message>> = {
  metallic: message('painting.leftOut.metallic'),
  fluorescent: message('painting.leftOut.fluorescent'),
  wash: message('painting.leftOut.wash'),
  powder: message('painting.leftOut.powder'),
  varnish: message('painting.leftOut.varnish'),
}
/** Opacity below which a paint is clear medium. */
const CLEAR = 0.01

/**
 * Best mixes of up to four paints in whole drops, up to twelve in all: the simplest that the eye cannot tell from the
 * closest, the closest, the fewest paints, the cheapest and the best of what is open, and a few others. Paints of
 * different binders do not mix: each binder is searched for itself.
 *
 * @param optics by paint id, where they are known already
 */
export function solveRecipe(
  target: string | Triple,
  stock: readonly StockPaint[],
  optics?: ReadonlyMap<string, Optics>,
): RecipeAnswer {
  const goal = typeof target === 'string' ? hexToLab(target) : target
  const usable = stock.filter((p) => BINDER[p.kind] !== undefined && p.opacity > CLEAR)
  const excluded = stock.flatMap((p) => {
    if (usable.includes(p)) return []
    return [
      message('painting.leftOut.paint', { name: p.name, why: WHY_NOT[p.kind] ?? message('painting.leftOut.clear') }),
    ]
  })
  if (usable.length === 0)
    return { recipes: [], reached: false, missing: message('painting.missing.noPaint'), excluded }
  const known = usable.map((p) => optics?.get(p.id) ?? paintOptics(p))
  const pool: { found: Found; merits: Merit[] }[] = []
  const put = (found: Found | null, ...merits: Merit[]): void => {
    if (!found) return
    const key = JSON.stringify(found.shares)
    const there = pool.find((p) => JSON.stringify(p.found.shares) === key)
    if (there) there.merits.push(...merits.filter((m) => !there.merits.includes(m)))
    else pool.push({ found, merits })
  }
  const priced = usable.every((p) => (p.price ?? 0) > 0)
  const among = (list: readonly number[]): ReturnType<typeof searchMixes> => {
    const best = searchMixes(
      list.map((i) => known[i]!),
      goal,
      priced ? list.map((i) => usable[i]!.price!) : undefined,
    )
    const back = (f: Found): Found => ({ error: f.error, shares: f.shares.map(([i, d]) => [list[i]!, d]) })
    return (
      best && {
        simplest: back(best.simplest),
        closest: back(best.closest),
        cheapest: best.cheapest && back(best.cheapest),
        others: best.others.map(back),
      }
    )
  }
  const least = (list: readonly Found[], by: (f: Found) => number): Found =>
    list.reduce((a, b) => (by(b) < by(a) ? b : a))
  const groups = [...new Set(usable.map((p) => BINDER[p.kind]!))].map((b) =>
    [...usable.keys()].filter((i) => BINDER[usable[i]!.kind] === b),
  )
  const found = groups.flatMap((list) => among(list) ?? [])
  const closest = least(
    found.map((b) => b.closest),
    (f) => f.error,
  )
  put(
    least(
      found.map((b) => b.simplest),
      rankOf,
    ),
    'simplest',
  )
  put(closest, 'closest')
  const all = found.flatMap((b) => [b.simplest, b.closest, ...b.others])
  const near = all.filter((f) => f.error <= Math.max(UNSEEN, closest.error + 0.5))
  put(
    least(near, (f) => f.shares.length * 100 + f.error),
    'fewest',
  )
  put(
    found
      .flatMap((b) => b.cheapest ?? [])
      .sort((a, b) => costOf(a, usable) - costOf(b, usable))
      .at(0) ?? null,
    'cheapest',
  )
  if (usable.some((p) => p.open) && !usable.every((p) => p.open))
    for (const list of groups) {
      const best = among(list.filter((i) => usable[i]!.open))
      if (best && best.simplest.error <= closest.error + 3) put(best.simplest, 'open')
    }
  for (const f of all.sort((a, b) => rankOf(a) - rankOf(b))) if (pool.length < 6) put(f)
  const recipes = pool.map(({ found: f, merits }) => asRecipe(f, merits, usable, known, priced))
  const reached = closest.error <= UNSEEN
  return { recipes, reached, missing: reached ? null : missingPigment(goal, closest, known), excluded }
}

const costOf = (f: Found, paints: readonly StockPaint[]): number =>
  f.shares.reduce((s, [i, d]) => s + d * (paints[i]!.price ?? 0), 0) / f.shares.reduce((s, [, d]) => s + d, 0)

function asRecipe(
  { shares, error }: Found,
  merits: Merit[],
  paints: readonly StockPaint[],
  known: readonly Optics[],
  priced: boolean,
): Recipe {
  const made = mixOf(shares, known)
  return {
    drops: shares
      .map(([i, drops]) => ({ paint: paints[i]!.id, name: paints[i]!.name, drops }))
      .sort((a, b) => b.drops - a.drops),
    total: shares.reduce((s, [, d]) => s + d, 0),
    error,
    hex: toHex(xyzToSrgb(toXyz(hiding(made)))),
    merits,
    price: priced ? costOf({ shares, error }, paints) : null,
    hides: coatsToHide(made, BLACK),
  }
}
const mixOf = (shares: Found['shares'], known: readonly Optics[]): Optics =>
  mix(
    shares.map(([i]) => known[i]!),
    shares.map(([, d]) => d),
  )
