import { DARKER } from './cost'
import type { OrderScheme, Precedes, Rule } from './types'

/** In which order rules give way when they contradict each other: the last first. */
const HARDNESS: Record<Rule, number> = {
  stack: 9,
  clear: 8,
  accentsLast: 5,
  mattBeforeMetal: 4,
  lightFirst: 3,
  darkFirst: 3,
  messyFirst: 2,
  sprayFirst: 1,
}

/** Light parts before dark ones, or after them: practitioners differ. */
export type Lights = 'lightFirst' | 'darkFirst'

/**
 * What has to come before what by the rules of the craft: each region's stack from below; what is sprayed before what
 * is brushed beside it; light and poorly covering colours before dark neighbours, or after them, as the school has it; what
 * is messy before clean neighbours; matt coats before metal, whose sheen they would kill; gloss accents last.
 */
export function precedences(scheme: OrderScheme, lights: Lights = 'lightFirst'): Precedes[] {
  const { coats, borders } = scheme
  const out: Precedes[] = []
  const beside = new Set(borders.flatMap(({ a, b, mm }) => (mm > 0 ? [`${a} ${b}`, `${b} ${a}`] : [])))
  // Clean work that nothing messy of its own region comes over: what follows its last wash, or its last coat.
  const finishing = new Set<number>()
  for (const { id } of scheme.regions) {
    const own = [...coats.keys()].filter((i) => coats[i]!.region === id && !coats[i]!.varnish)
    const last = own.findLastIndex((i) => coats[i]!.messy)
    for (const i of last >= 0 ? own.slice(last + 1) : own.slice(-1)) finishing.add(i)
  }
  for (let i = 0; i < coats.length; i++)
    for (let j = 0; j < coats.length; j++) {
      if (i === j) continue
      const a = coats[i]!,
        b = coats[j]!
      const put = (rule: Rule, first = i, then = j): void => {
        out.push({ first, then, rule })
      }
      if (a.region === b.region) {
        // Next to next is enough: what is below those comes along.
        if (i < j && !coats.slice(i + 1, j).some((c) => c.region === a.region)) put('stack')
        continue
      }
      const near = beside.has(`${a.region} ${b.region}`)
      if (a.varnish === 'matt' && b.metallic) put('mattBeforeMetal')
      if (b.varnish === 'gloss' && a.varnish !== 'gloss') put('accentsLast')
      if (a.varnish || b.varnish || !near) continue
      if (a.spray && !b.spray) put('sprayFirst')
      if (a.spray === b.spray && a.hides > 2 && a.lightness > b.lightness + DARKER && !a.messy && !b.messy)
        if (lights === 'lightFirst') put('lightFirst')
        else put('darkFirst', j, i)
      if (a.messy && finishing.has(j) && a.spray === b.spray) put('messyFirst')
    }
  return out
}

export interface Given {
  rules: Precedes[]
  /** rules that had to give way, each with the ring that they were part of */
  dropped: { rule: Precedes; ring: number[] }[]
}

/**
 * Rules without rings: taken the hardest first, each that would close a ring with those before it gives way, and the shortest
 * ring that it closes is named. So as many stay as can stay together: none that gave way could be taken back.
 */
export function withoutRings(count: number, rules: readonly Precedes[]): Given {
  const kept: Precedes[] = [],
    dropped: Given['dropped'] = []
  const after = Array.from({ length: count }, (): number[] => [])
  const words = Math.ceil(count / 32)
  /** by coat, a bit for each that comes after it; and for itself */
  const reach = Array.from({ length: count }, (_, v) => {
    const bits = new Uint32Array(words)
    bits[v >> 5]! |= 1 << (v & 31)
    return bits
  })
  const reaches = (u: number, v: number): boolean => ((reach[u]![v >> 5]! >>> (v & 31)) & 1) === 1
  for (const r of [...rules].sort((a, b) => HARDNESS[b.rule] - HARDNESS[a.rule])) {
    if (reaches(r.then, r.first)) {
      dropped.push({ rule: r, ring: shortestWay(after, r.then, r.first) })
      continue
    }
    kept.push(r)
    if (after[r.first]!.includes(r.then)) continue
    after[r.first]!.push(r.then)
    if (reaches(r.first, r.then)) continue
    const beyond = reach[r.then]!
    for (let v = 0; v < count; v++) if (reaches(v, r.first)) for (let w = 0; w < words; w++) reach[v]![w]! |= beyond[w]!
  }
  return { rules: kept, dropped }
}

/** Coats along the shortest way from one to another, both ends with it. */
function shortestWay(after: readonly (readonly number[])[], from: number, to: number): number[] {
  const came = new Map([[from, -1]])
  const queue = [from]
  for (let i = 0; i < queue.length && !came.has(to); i++)
    for (const v of after[queue[i]!]!)
      if (!came.has(v)) {
        came.set(v, queue[i]!)
        queue.push(v)
      }
  const way: number[] = []
  for (let v = to; v >= 0; v = came.get(v) ?? -1) way.unshift(v)
  return way
}
