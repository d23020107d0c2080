import { hexToLab, toHex, toLab, toXyz, xyzToSrgb, type Triple } from './colour'
import { hiding, mix, opticsOf, type Optics } from './film'
import { rank, refineDrops, searchDrops, shortlist, type Found } from './recipeSearch'

export interface StockPaint {
  id: string
  name: string
  hex: string
  /** contrast ratio of one brushed coat, 0 to 1 */
  opacity: number
  kind: 'acrylic' | 'ink' | 'wash' | 'metallic' | 'fluorescent' | 'varnish'
}

export interface Recipe {
  drops: { paint: string; name: string; drops: number }[]
  total: number
  /** CIEDE2000 to the target, at full hiding */
  error: number
  hex: string
}

export interface RecipeAnswer {
  recipes: Recipe[]
  /** within ΔE00 2 of the target: a touch-up that is not noticed */
  reached: boolean
  /** what is missing when it is not reached, in words */
  missing: string | null
  /** paints left out of mixing arithmetic, with why */
  excluded: string[]
}

/** Mixes from which the search goes on among all paints. */
const STARTS = 10

/**
 * Best mixes of up to four paints in whole drops, up to twelve in all. Paints are first narrowed down by how far
 * mixing them into the best mix so far moves it toward the target; drop counts are searched exhaustively over the
 * shortlist; the nearest mixes are then bettered drop by drop among all paints. Ranked by error, an extra paint
 * having to earn half a ΔE00; the nearest of all is always among the answers.
 */
export function solveRecipe(
  targetHex: string,
  stock: readonly StockPaint[],
  optics?: ReadonlyMap<string, Optics>,
): RecipeAnswer {
  const target = hexToLab(targetHex)
  const excluded = stock
    .filter((p) => p.kind === 'metallic' || p.kind === 'fluorescent')
    .map((p) => `${p.name} (${p.kind}: reflects in a way that mixing arithmetic does not describe)`)
  const usable = stock.filter((p) => p.kind === 'acrylic' || p.kind === 'ink')
  const known = usable.map((p) => optics?.get(p.id) ?? opticsOf(p.hex, p.opacity))
  if (usable.length === 0)
    return { recipes: [], reached: false, missing: 'There is no mixable paint in the stock.', excluded }
  const first = rank(searchDrops(known, shortlist(known, target), target))
  const nearest = [...first].sort((a, b) => a.error - b.error).slice(0, STARTS)
  const bySet = new Map<string, Found>()
  for (const f of [...first, ...refineDrops(known, nearest, target)]) {
    const key = f.shares
      .map(([i]) => i)
      .sort((a, b) => a - b)
      .join()
    if (f.error < (bySet.get(key)?.error ?? Infinity)) bySet.set(key, f)
  }
  const ranked = rank([...bySet.values()])
  const closest = ranked.reduce((a, b) => (b.error < a.error ? b : a))
  const shown = ranked.slice(0, 5)
  if (!shown.includes(closest)) shown[4] = closest
  const recipes = shown.map(({ shares, error }): Recipe => ({
    drops: shares
      .map(([i, drops]) => ({ paint: usable[i]!.id, name: usable[i]!.name, drops }))
      .sort((a, b) => b.drops - a.drops),
    total: shares.reduce((s, [, d]) => s + d, 0),
    error,
    hex: toHex(
      xyzToSrgb(
        toXyz(
          hiding(
            mix(
              shares.map(([i]) => known[i]!),
              shares.map(([, d]) => d),
            ),
          ),
        ),
      ),
    ),
  }))
  const reached = closest.error <= 2
  return { recipes, reached, missing: reached ? null : missing(target, closest, known), excluded }
}

/** Names the direction in which the stock falls short. */
function missing(
  target: Triple,
  best: { shares: [number, number][]; error: number },
  known: readonly Optics[],
): string {
  const got = toLab(
    hiding(
      mix(
        best.shares.map(([i]) => known[i]!),
        best.shares.map(([, d]) => d),
      ),
    ),
  )
  const c1 = Math.hypot(target[1], target[2]),
    c2 = Math.hypot(got[1], got[2])
  const hue = ((Math.atan2(target[2], target[1]) * 180) / Math.PI + 360) % 360
  const name =
    hue < 25 || hue >= 345
      ? 'red'
      : hue < 60
        ? 'orange'
        : hue < 105
          ? 'yellow'
          : hue < 165
            ? 'green'
            : hue < 230
              ? 'turquoise'
              : hue < 290
                ? 'blue'
                : 'violet'
  if (c1 > c2 + 3)
    return `The stock has no ${name} pigment pure enough: the closest mix stays ${(c1 - c2).toFixed(0)} units of chroma short.`
  if (target[0] > got[0] + 2) return 'The stock has no white strong enough to reach this lightness.'
  if (target[0] < got[0] - 2) return 'The stock has no paint dark enough to reach this depth.'
  return `The closest mix misses the hue; a ${name} nearer to the target would reach it.`
}
