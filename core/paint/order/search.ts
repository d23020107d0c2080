import { evenNumbers } from '../../math/random'
import { neighboursOf, masksFor, costOf, stepCost, type CoatNeighbours } from './cost'
import type { Precedes } from './types'

/** Sprayed coats up to which every order is weighed. */
export const EXACT = 16

/** Coats that must be there before each coat, as numbers. */
export function neededBefore(count: number, rules: readonly Precedes[]): number[][] {
  const out: number[][] = Array.from({ length: count }, () => [])
  for (const r of rules) out[r.then]!.push(r.first)
  return out
}

/**
 * The cheapest order of all coats. Up to 16 coats by Held and Karp's dynamic programme (1962) over which coats are done
 * and which was last. Of more, the sprayed ones in that way, as far as they are no more than 16, for they alone need
 * masks; then the brushed ones where they cost least, and large-neighbourhood search from there.
 */
export function cheapest(l: CoatNeighbours, rules: readonly Precedes[], seed = 1): number[] {
  const { coats } = l.scheme
  const needs = neededBefore(coats.length, rules)
  if (coats.length <= EXACT) return exact(l, needs)
  const sprayed = [...coats.keys()].filter((i) => coats[i]!.spray)
  return improved(l, needs, sprayed.length <= EXACT ? withBrushed(l, needs, sprayed) : greedy(l, needs), seed)
}

/** The sprayed coats in their own best order, the brushed ones put in where they cost least. */
function withBrushed(l: CoatNeighbours, needs: readonly number[][], sprayed: readonly number[]): number[] {
  const above = closure(needs)
  const own = sprayed.map((i) => sprayed.flatMap((j, k) => (above[i]!.has(j) ? [k] : [])))
  const alone = neighboursOf({ ...l.scheme, coats: sprayed.map((i) => l.scheme.coats[i]!) }, l.costs)
  let order = sprayed.length > 0 ? exact(alone, own).map((k) => sprayed[k]!) : []
  // In an order that keeps the rules each finds a place: between all that it needs and all that needs it.
  for (const i of sortedByRules(needs))
    if (!order.includes(i))
      order = putBack(
        l,
        above.map((x) => [...x]),
        order,
        i,
      )!
  return order
}
function closure(needs: readonly number[][]): Set<number>[] {
  const out = needs.map(() => new Set<number>())
  for (const i of sortedByRules(needs))
    for (const j of needs[i]!) {
      out[i]!.add(j)
      for (const k of out[j]!) out[i]!.add(k)
    }
  return out
}
function sortedByRules(needs: readonly number[][]): number[] {
  const out: number[] = []
  const seen = new Uint8Array(needs.length)
  const visit = (i: number): void => {
    if (seen[i]) return
    seen[i] = 1
    for (const j of needs[i]!) visit(j)
    out.push(i)
  }
  for (let i = 0; i < needs.length; i++) visit(i)
  return out
}

/**
 * A mask is an edge between the sprayed region and one that is covered, so masks of two sprayings are the same only
 * where both spray the same region: of each set of done coats, what the next one needs fits into one word of bits.
 *
 * @param needs of no more than 16 coats
 */
function exact(l: CoatNeighbours, needs: readonly number[][]): number[] {
  const { coats } = l.scheme,
    k = l.costs
  const n = needs.length,
    full = (1 << n) - 1
  if (n === 0) return []
  const needed = needs.map((list) => list.reduce((s, i) => s | (1 << i), 0))
  // Regions that may have to be covered, by place in a word of bits.
  const regions = [...new Set(l.beside.flatMap((side) => side.map((b) => b.region)))]
  const place = new Map(regions.map((r, i) => [r, i]))
  const hands = new Float64Array((full + 1) * regions.length)
  for (let set = 1; set <= full; set++) {
    const top = 31 - Math.clz32(set)
    const o = set * regions.length,
      less = (set & ~(1 << top)) * regions.length
    for (let r = 0; r < regions.length; r++) hands[o + r] = hands[less + r]!
    const r = place.get(coats[top]!.region)
    if (r !== undefined) hands[o + r]! += coats[top]!.handsOn
  }
  const width = Math.ceil(regions.length / 31) || 1
  const covered = new Int32Array((full + 1) * n * width)
  const own = new Float64Array((full + 1) * n)
  const tape = coats.map((_, i) => {
    const mm = new Float64Array(regions.length)
    for (const b of l.beside[i]!) mm[place.get(b.region)!]! += b.mm
    return mm
  })
  for (let set = 0; set <= full; set++) {
    const done = (i: number): boolean => ((set >> i) & 1) === 1
    for (let i = 0; i < n; i++) {
      if (done(i)) continue
      const masks = masksFor(l, i, done)
      for (const m of masks) {
        const r = place.get(m.covered)!
        covered[(set * n + i) * width + Math.floor(r / 31)]! |= 1 << (r % 31)
      }
      // What does not hang on the coat before it.
      own[set * n + i] = stepCost(l, i, [], -1, [], done).risk
    }
  }
  const cost = new Float64Array((full + 1) * n).fill(Infinity)
  const from = new Int8Array((full + 1) * n).fill(-1)
  const after = (set: number, last: number, next: number): number => {
    const c = coats[next]!
    const before = last < 0 ? -1 : ((set & ~(1 << last)) * n + last) * width
    const sameRegion = last >= 0 && coats[last]!.region === c.region
    let sum = own[set * n + next]!
    if (!(last >= 0 && coats[last]!.paint === c.paint && coats[last]!.spray === c.spray))
      sum += c.spray ? k.cleanSpray : k.cleanBrush
    for (let word = 0; word < width; word++) {
      let bits = covered[(set * n + next) * width + word]!
      const stood = before < 0 ? 0 : covered[before + word]!
      while (bits !== 0) {
        const low = bits & -bits
        bits ^= low
        const r = word * 31 + (31 - Math.clz32(low))
        const stands = (stood & low) !== 0
        if (!stands) sum += k.cover + k.lifts * hands[set * regions.length + r]!
        if (!(stands && sameRegion)) sum += k.tape * tape[next]![r]!
      }
    }
    return sum
  }
  for (let i = 0; i < n; i++) if (needed[i] === 0) cost[(1 << i) * n + i] = after(0, -1, i)
  for (let set = 1; set <= full; set++)
    for (let last = 0; last < n; last++) {
      const here = cost[set * n + last]!
      if (here === Infinity) continue
      for (let next = 0; next < n; next++) {
        if ((set >> next) & 1 || (needed[next]! & ~set) !== 0) continue
        const sum = here + after(set, last, next)
        const at = (set | (1 << next)) * n + next
        if (sum < cost[at]!) {
          cost[at] = sum
          from[at] = last
        }
      }
    }
  let last = 0
  for (let i = 1; i < n; i++) if (cost[full * n + i]! < cost[full * n + last]!) last = i
  const order: number[] = []
  for (let set = full; set > 0;) {
    order.unshift(last)
    const before = from[set * n + last]!
    set &= ~(1 << last)
    last = before
  }
  return order
}

/** Takes a few coats out of the order and puts each back where it costs least, over and over (Shaw 1998). */
function improved(l: CoatNeighbours, needs: readonly number[][], start: number[], seed: number): number[] {
  const random = evenNumbers(seed)
  let best = start,
    least = costOf(l, best).cost.total
  let now = best,
    cost = least
  const rounds = 60 * needs.length
  for (let round = 0; round < rounds; round++) {
    const out = new Set<number>()
    const many = 1 + Math.floor(random() * 4)
    // Coats that follow each other, or of one region: those that share masks go together.
    const at = Math.floor(random() * now.length)
    for (let k = 0; k < many; k++) out.add(now[(at + k) % now.length]!)
    let next = now.filter((i) => !out.has(i))
    for (const i of [...out].sort(() => random() - 0.5)) next = putBack(l, needs, next, i) ?? next
    if (next.length < now.length) continue
    const c = costOf(l, next).cost.total
    // A little worse is taken now and then, less and less.
    if (c < cost || random() < Math.exp((cost - c) / (30 * (1 - round / rounds) + 0.01))) {
      now = next
      cost = c
      if (c < least - 1e-9) {
        best = next
        least = c
      }
    }
  }
  return best
}

/** The order with a coat where it costs least and breaks no rule; null when no place breaks none. */
function putBack(
  l: CoatNeighbours,
  needs: readonly number[][],
  order: readonly number[],
  coat: number,
): number[] | null {
  let from = 0,
    to = order.length
  order.forEach((i, at) => {
    if (needs[coat]!.includes(i)) from = Math.max(from, at + 1)
    if (needs[i]!.includes(coat)) to = Math.min(to, at)
  })
  let best: number[] | null = null,
    least = Infinity
  for (let at = from; at <= to; at++) {
    const tried = [...order.slice(0, at), coat, ...order.slice(at)]
    const c = costOf(l, tried).cost.total
    if (c < least) {
      least = c
      best = tried
    }
  }
  return best
}

/** Always the coat that costs least next, of those whose rules are kept. */
function greedy(l: CoatNeighbours, needs: readonly number[][]): number[] {
  const order: number[] = []
  while (order.length < needs.length) {
    let best = -1,
      least = Infinity
    for (let i = 0; i < needs.length; i++) {
      if (order.includes(i) || needs[i]!.some((b) => !order.includes(b))) continue
      const c = costOf(l, [...order, i]).cost
      const now = c.total - c.handsOn
      if (now < least) {
        least = now
        best = i
      }
    }
    order.push(best)
  }
  return order
}
