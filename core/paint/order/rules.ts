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

/** Rules without rings: in each ring the softest gives way, and is named. */
export function withoutRings(count: number, rules: readonly Precedes[]): Given {
  let kept = [...rules]
  const dropped: Given['dropped'] = []
  for (;;) {
    const ring = ringIn(count, kept)
    if (!ring) return { rules: kept, dropped }
    const softest = ring.reduce((a, b) => (HARDNESS[b.rule] < HARDNESS[a.rule] ? b : a))
    dropped.push({ rule: softest, ring: ring.map((r) => r.first) })
    kept = kept.filter((r) => r !== softest)
  }
}

/** Some ring of rules, as the rules along it; null when there is none. */
function ringIn(count: number, rules: readonly Precedes[]): Precedes[] | null {
  const out: Precedes[][] = Array.from({ length: count }, () => [])
  for (const r of rules) out[r.first]!.push(r)
  const state = new Uint8Array(count)
  const path: Precedes[] = []
  const visit = (v: number): Precedes[] | null => {
    state[v] = 1
    for (const r of out[v]!) {
      if (state[r.then] === 1) {
        const from = path.findIndex((p) => p.first === r.then)
        return [...(from < 0 ? [] : path.slice(from)), r]
      }
      if (state[r.then] === 2) continue
      path.push(r)
      const ring = visit(r.then)
      if (ring) return ring
      path.pop()
    }
    state[v] = 2
    return null
  }
  for (let v = 0; v < count; v++) {
    if (state[v] !== 0) continue
    const ring = visit(v)
    if (ring) return ring
  }
  return null
}
