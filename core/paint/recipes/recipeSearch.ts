import { BANDS, deltaE00, type Triple } from '../optics/colour'
import { gcd, MAX_DROPS, MAX_PAINTS, rankOf, STEP, UNSEEN, type Found } from './mixRank'
import { opticsOf, type Optics } from '../optics/film'
import { nearest, nearestToOrigin } from './hull'
import { broad, flat, labOf, Nearby, WIDTH } from './mixColour'

export interface Best {
  /** first by `rankOf` */
  simplest: Found
  /** least ΔE00 */
  closest: Found
  /** least money of those that pass unseen; null when none does */
  cheapest: Found | null
  /** some others that pass unseen or come near, best by `rankOf` first, one for each set of paints */
  others: Found[]
}

/** Shares in lowest terms of `count` paints in up to twelve drops, each at least one; by count. */
const LATTICE = Array.from({ length: MAX_PAINTS + 1 }, (_, count) => lattice(count))
function lattice(count: number): Uint8Array {
  const out: number[] = []
  const n: number[] = []
  const descend = (left: number): void => {
    if (n.length === count) {
      if (count > 0 && n.reduce(gcd, 0) === 1) out.push(...n)
      return
    }
    for (let d = 1; d <= left - (count - n.length - 1); d++) {
      n.push(d)
      descend(left - d)
      n.pop()
    }
  }
  descend(MAX_DROPS)
  return new Uint8Array(out)
}

/** Up to so many paints all sets are looked through; of more, the triples and quadruples of those that serve best. */
const ALL = 30,
  THREES = 22,
  FOURS = 13
/**
 * How far the straight lines about a set's own optimum may be wrong: of the predicted error (`trust`), and ΔE00 besides
 * (`doubt`); and by what a set may reach nearer than its nearest point promises, for bodies of mixes are bent: times what
 * would help (`slack`), and ΔE00 besides (`curved`). A set whose first look misses by more than twice what would help, and
 * `away` besides, is not looked at again, nor one that by its next turns misses by `nearer`.
 */
interface Margins {
  trust: number
  doubt: number
  slack: number
  curved: number
  away: number
  nearer: number
}
const NARROW: Margins = { trust: 0.45, doubt: 0.6, slack: 1, curved: 0.3, away: 12, nearer: 2 },
  WIDE: Margins = { trust: 0.15, doubt: 2, slack: 2.5, curved: 1, away: Infinity, nearer: Infinity }
/** ΔE00 */
const SETTLED = 0.3
const TURNS = 8
/** Rounds of exchanging paints of what was found. */
const ROUNDS = 6,
  STARTS = 5

/**
 * The best mixes of up to four paints in up to twelve whole drops. For each set of paints the best mix in any shares
 * is found by active-set least squares (nearest point of the hull in `Nearby`, linearised again until it stands); it
 * bounds what whole drops can reach, so that most sets end there. In the others every count of drops is predicted by
 * the same straight lines and calculated exactly where it may be better than the best so far.
 *
 * Up to 30 paints every set is looked at, with wide margins, and then paints of the best are exchanged, added and left out,
 * every count of drops calculated exactly, until that betters nothing: far outside the gamut lines promise little. Of more, all pairs, and the triples and quadruples of those paints that
 * serve best in pairs or alone.
 *
 * @param price money of a drop of each paint; where given, the cheapest mix that passes unseen is looked for
 */
export function searchMixes(known: readonly Optics[], target: Triple, price?: readonly number[]): Best | null {
  if (known.length === 0) return null
  const all = known.map((_, i) => i),
    many = known.length > ALL
  const search = new Search(known.map(flat), target, many ? NARROW : WIDE, price)
  search.sets(all, 1)
  search.sets(all, 2)
  search.sets(many ? search.useful(THREES) : all, 3)
  search.sets(many ? search.useful(FOURS) : all, 4)
  if (!many) search.exchange()
  return search.answer()
}

class Search {
  private simplest: Found | null = null
  private simplestRank = Infinity
  private closest: Found | null = null
  private cheapest: Found | null = null
  private cost = Infinity
  /** distance by the straight lines over ΔE00, at the closest so far and about it */
  private stretch = 1
  /** best of each set that came near */
  private readonly pool = new Map<string, Found>()
  /** least error bound that each paint took part in, of pairs and alone */
  private readonly served: Float64Array
  private readonly nearby: Nearby
  private readonly made = new Float64Array(WIDTH)
  private readonly corners = new Float64Array(12)
  private readonly scatter = new Float64Array(4)
  private readonly hull = nearest()
  private readonly near = new Float64Array(BANDS)
  private readonly shares = new Float64Array(MAX_PAINTS)
  private readonly before = new Float64Array(MAX_PAINTS)
  private readonly broad: Float64Array[]
  /** corner and scatter of each paint about the target's own smooth spectrum: where the first look begins */
  private readonly reference: Float64Array

  constructor(
    private readonly paints: readonly Float64Array[],
    private readonly target: Triple,
    private readonly margins: Margins,
    private readonly price?: readonly number[],
  ) {
    this.nearby = new Nearby(target)
    this.served = new Float64Array(paints.length).fill(Infinity)
    this.broad = paints.map(broad)
    this.reference = new Float64Array(4 * paints.length)
    this.nearby.about(broad(flat(opticsOf(target, 0.7))))
    this.broad.forEach((p, i) => {
      this.reference[4 * i + 3] = this.nearby.corner(p, this.reference, 4 * i)
    })
  }

  useful(count: number): number[] {
    return [...this.served.keys()].sort((a, b) => this.served[a]! - this.served[b]!).slice(0, count)
  }

  /** Looks through all sets of `count` of the listed paints. */
  sets(list: readonly number[], count: number): void {
    const set = new Int32Array(count)
    const descend = (from: number, depth: number): void => {
      if (depth === count) {
        this.look(set, count)
        return
      }
      for (let i = from; i < list.length; i++) {
        set[depth] = list[i]!
        descend(i + 1, depth + 1)
      }
    }
    if (list.length >= count) descend(0, 0)
  }

  /** Reckons out all sets that differ in one paint from the closest, the first and others near, and from those in turn. */
  exchange(): void {
    const done = new Set<string>()
    const calculate = (set: readonly number[]): void => {
      const sorted = Int32Array.from(set).sort(),
        key = sorted.join()
      if (done.has(key)) return
      done.add(key)
      const counts = LATTICE[sorted.length]!
      for (let o = 0; o < counts.length; o += sorted.length) this.consider(sorted, sorted.length, counts, o)
    }
    for (let round = 0; round < ROUNDS; round++) {
      const before = [this.closest!, this.simplest!]
      const near = [...this.pool.values()].sort((a, b) => a.error - b.error).slice(0, STARTS)
      for (const from of [...before, ...near]) {
        const set = from.shares.map(([i]) => i)
        const other = [...this.paints.keys()].filter((i) => !set.includes(i))
        for (const i of other) {
          if (set.length < MAX_PAINTS) calculate([...set, i])
          for (const out of set) calculate([...set.filter((x) => x !== out), i])
        }
        if (set.length > 1) for (const out of set) calculate(set.filter((x) => x !== out))
        calculate(set)
      }
      if (before[0] === this.closest && before[1] === this.simplest) return
    }
  }

  private look(set: Int32Array, count: number): void {
    // Of few paints all pairs are calculated out: they are soon done, and stand alone where nothing comes near.
    if (count === 1 || (count === 2 && this.paints.length <= ALL)) {
      const counts = LATTICE[count]!
      for (let o = 0; o < counts.length; o += count) this.consider(set, count, counts, o)
    }
    const bound = this.bound(set, count)
    if (count <= 2) for (let i = 0; i < count; i++) this.served[set[i]!] = Math.min(this.served[set[i]!]!, bound)
    const reach = this.reach(count)
    const { trust, doubt, slack, curved } = this.margins
    if (bound > slack * reach + curved) return
    this.exactly(set, count)
    const counts = LATTICE[count]!
    const { corners: w, scatter: s } = this
    const most = (bound + Math.max(0, reach - bound) / trust + doubt) ** 2
    for (let o = 0; o < counts.length; o += count) {
      let x = 0,
        y = 0,
        z = 0,
        all = 0
      for (let i = 0; i < count; i++) {
        const m = counts[o + i]! * s[i]!
        all += m
        x += m * w[3 * i]!
        y += m * w[3 * i + 1]!
        z += m * w[3 * i + 2]!
      }
      if (x * x + y * y + z * z <= most * all * all) this.consider(set, count, counts, o)
    }
  }

  /** Distance, as the straight lines have it, above which a mix of so many paints betters nothing. */
  private reach(count: number): number {
    const { simplest, closest } = this
    if (!simplest || !closest) return Infinity
    const step = Math.ceil(simplest.error / STEP - 1e-9)
    const first = count <= simplest.shares.length ? step * STEP : (step - 1) * STEP
    return this.stretch * Math.max(first, closest.error, this.price && count < MAX_PAINTS ? UNSEEN : 0)
  }

  /** Least error, about, that any shares of the set reach; `corners` and `scatter` are left as they stand there. */
  private bound(set: Int32Array, count: number): number {
    const { corners, scatter, hull, nearby, reference } = this
    for (let i = 0; i < count; i++) {
      const p = set[i]!
      for (let k = 0; k < 3; k++) corners[3 * i + k] = reference[4 * p + k]!
      scatter[i] = reference[4 * p + 3]!
    }
    nearestToOrigin(corners, count, hull)
    const reach = this.reach(count),
      { away, nearer } = this.margins
    let last = Math.sqrt(hull.squared)
    if (last > 2 * reach + away) return last
    const far = 2 * reach + nearer
    const { shares } = this
    let nearestYet = Infinity
    for (let turn = 0; turn < TURNS; turn++) {
      let all = 0
      for (let i = 0; i < count; i++) all += hull.weights[i]! / scatter[i]!
      for (let i = 0; i < count; i++) shares[i] = hull.weights[i]! / scatter[i]! / all
      let at = nearby.about(this.blend(set, count, shares))
      // Lines drawn from far away overshoot: half of the way back until it comes nearer.
      for (let half = 0; half < 4 && at > nearestYet; half++) {
        for (let i = 0; i < count; i++) shares[i] = (shares[i]! + this.before[i]!) / 2
        at = nearby.about(this.blend(set, count, shares))
      }
      nearestYet = at
      this.before.set(shares)
      for (let i = 0; i < count; i++) scatter[i] = nearby.corner(this.broad[set[i]!]!, corners, 3 * i)
      nearestToOrigin(corners, count, hull)
      last = Math.sqrt(hull.squared)
      // It stands when the mix about which was linearised is itself as near as the lines promise.
      if (count === 1 || last > far || at - last < SETTLED * (1 + last)) return last
    }
    return last
  }

  /** K and S on the broad bands of a set in some shares. */
  private blend(set: Int32Array, count: number, shares: Float64Array): Float64Array {
    const made = this.near
    made.fill(0)
    for (let i = 0; i < count; i++) {
      const p = shares[i]!,
        paint = this.broad[set[i]!]!
      if (p > 0) for (let k = 0; k < BANDS; k++) made[k]! += p * paint[k]!
    }
    return made
  }

  /** Sets the corners right by the exact colour of the mix about which was linearised last. */
  private exactly(set: Int32Array, count: number): void {
    const { made } = this
    made.fill(0)
    for (let i = 0; i < count; i++) {
      const p = this.before[i]!,
        paint = this.paints[set[i]!]!
      if (p > 0) for (let k = 0; k < WIDTH; k++) made[k]! += p * paint[k]!
    }
    this.nearby.correct(labOf(made), this.corners, count)
  }

  private consider(set: Int32Array, count: number, counts: Uint8Array, o: number): void {
    const { made, price } = this
    made.fill(0)
    let drops = 0,
      money = 0
    for (let i = 0; i < count; i++) {
      const p = this.paints[set[i]!]!,
        n = counts[o + i]!
      drops += n
      if (price) money += n * price[set[i]!]!
      for (let k = 0; k < WIDTH; k++) made[k]! += n * p[k]!
    }
    const lab = labOf(made)
    const error = deltaE00(lab, this.target)
    const better = error < (this.closest?.error ?? Infinity) - 1e-9
    const saves = price !== undefined && error <= UNSEEN && money / drops < this.cost - 1e-12
    const worth = error <= UNSEEN || this.simplestRank === Infinity || error <= this.closest!.error + 1
    if (!better && !saves && !worth) return
    const found: Found = { error, shares: [] }
    for (let i = 0; i < count; i++) found.shares.push([set[i]!, counts[o + i]!])
    found.shares.sort((a, b) => a[0] - b[0])
    const rank = rankOf(found)
    if (rank < this.simplestRank) {
      this.simplestRank = rank
      this.simplest = found
    }
    if (better) {
      this.closest = found
      // Far from the target its metric is another than nearby, and another in each direction.
      const there = this.nearby.distance(lab) / Math.max(1e-6, error)
      this.stretch = error < 1 ? 1 : Math.max(1, there) * (1 + Math.min(0.4, error / 40))
    }
    if (saves) {
      this.cost = money / drops
      this.cheapest = found
    }
    const key = found.shares.map(([i]) => i).join()
    const there = this.pool.get(key)
    if (!there || rank < rankOf(there)) this.pool.set(key, found)
  }

  answer(): Best {
    const { simplest, closest, cheapest } = this
    const others = [...this.pool.values()].sort((a, b) => rankOf(a) - rankOf(b)).slice(0, 12)
    return { simplest: simplest!, closest: closest!, cheapest, others }
  }
}
