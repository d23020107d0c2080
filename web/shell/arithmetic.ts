import { converted, UNIT_NAMES, unitNamed } from '../../core/words/units'

/** A whole number and a fraction of it, as an inch rule is read: "1 1/2". */
const MIXED = /(\d+)\s+(\d+)\/(\d+)/g
/** Numbers, signs and units; comma and point both part decimals. */
const TOKEN = new RegExp(
  `\\s*(?:(\\d*[.,]?\\d+(?:e[-+]?\\d+)?)|([-+*/×:()])|(${[...UNIT_NAMES, '%'].map((u) => u.replace(/[^\w\s]/g, '\\$&').replace(' ', '\\s*')).join('|')})(?![a-zµ]))`,
  'iy',
)

/**
 * Value of what is typed into a field: a number, a sum such as `180/6` or `2*(3+1.5)`, each with or without a unit, as
 * `1 1/2 in` or `3 cm + 2`.
 *
 * @param unit of the field; what has no unit is in it
 * @returns in that unit; null when it is no sum, or has a unit that does not belong there
 */
export function arithmetic(text: string, unit = ''): number | null {
  const tokens = tokensOf(text.replace(MIXED, '($1+$2/$3)'))
  if (!tokens) return null
  let at = 0
  const next = (): string | undefined => tokens[at]
  const isUnit = (t: string | undefined): t is string => t !== undefined && /[^\d.e+\-*/:()]/i.test(t) && t !== '×'
  const sum = (): number => {
    let v = product()
    while (next() === '+' || next() === '-') v = tokens[at++] === '+' ? v + product() : v - product()
    return v
  }
  /** "1/2 in" is half an inch: the unit is of the whole product, and there is one at most. */
  const product = (): number => {
    let v = factor(),
      turn: ((value: number) => number) | null = unitAt()
    while (next() !== undefined && '*/×:'.includes(next()!)) {
      const by = tokens[at++]!
      const f = factor()
      v = by === '*' || by === '×' ? v * f : v / f
      const more = unitAt()
      if (more && turn) return NaN
      turn ??= more
    }
    return turn ? turn(v) : v
  }
  const unitAt = (): ((value: number) => number) | null => {
    const t = next()
    if (!isUnit(t)) return null
    at++
    const named = unitNamed(t) ?? t
    return (v) => (named === unit ? v : (converted(v, named, unit) ?? NaN))
  }
  const factor = (): number => {
    if (next() === '-') {
      at++
      return -factor()
    }
    if (next() === '(') {
      at++
      const v = sum()
      return tokens[at++] === ')' ? v : NaN
    }
    const t = tokens[at++]
    return t !== undefined && /^[\d.]/.test(t) ? Number(t) : NaN
  }
  const v = tokens.length === 0 ? NaN : sum()
  return at === tokens.length && Number.isFinite(v) ? v : null
}

function tokensOf(text: string): string[] | null {
  const tokens: string[] = []
  const s = text
    .trim()
    .replace(/−/g, '-')
    .replace(/[uμ]m\b/gi, 'µm')
  for (TOKEN.lastIndex = 0; TOKEN.lastIndex < s.length;) {
    const m = TOKEN.exec(s)
    if (!m) return null
    tokens.push(m[1] ? m[1].replace(',', '.') : (m[2] ?? m[3]!.replace(/\s+/g, '')))
  }
  return tokens
}
