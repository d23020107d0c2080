import type { StockUnit } from '../defaults/stock'
/** In what stock is counted. */

/** Of each unit that is written, what it measures and how much of the base unit it is: ml, g, mm. */
const WRITTEN: Readonly<Record<string, readonly [StockUnit, number]>> = {
  ml: ['ml', 1],
  cl: ['ml', 10],
  l: ['ml', 1000],
  'fl oz': ['ml', 29.5735295625],
  g: ['g', 1],
  kg: ['g', 1000],
  oz: ['g', 28.349523125],
  lb: ['g', 453.59237],
  mm: ['mm', 1],
  cm: ['mm', 10],
  m: ['mm', 1000],
  in: ['mm', 25.4],
  ft: ['mm', 304.8],
  sheet: ['sheets', 1],
  sheets: ['sheets', 1],
  piece: ['pieces', 1],
  pieces: ['pieces', 1],
}

/** How much of one unit another is; null where they do not measure the same, or no density says how heavy it is. */
export function perUnit(from: StockUnit, to: StockUnit, density: number | null): number | null {
  if (from === to) return 1
  if (from === 'ml' && to === 'g') return density
  if (from === 'g' && to === 'ml') return density ? 1 / density : null
  return null
}

/**
 * Reads an amount as it stands on a label, "250 g", "1.5 m" or "2 fl oz", in the unit that something is counted in.
 *
 * @param density g/ml, by which volume and weight are turned into each other; null: they are not
 * @throws RangeError with a sentence, of what is no amount, or of another kind
 */
export function amountIn(unit: StockUnit, text: string, density: number | null): number {
  const m = /^\s*(\d+(?:[.,]\d+)?)\s*([a-z ]*?)\s*$/i.exec(text)
  if (!m) throw new RangeError(`“${text.trim()}” is no amount. It is written as 250 ${unit}.`)
  const value = Number(m[1]!.replace(',', '.'))
  const word = m[2]!.toLowerCase().replace(/\s+/g, ' ')
  if (word === '') return value
  const known = WRITTEN[word]
  if (!known) throw new RangeError(`“${m[2]}” is no unit that is known here. It is counted in ${unit}.`)
  const [measures, factor] = known
  const turned = perUnit(measures, unit, density)
  if (turned !== null) return value * factor * turned
  throw new RangeError(
    (unit === 'ml' || unit === 'g') && (measures === 'ml' || measures === 'g')
      ? `It is counted in ${unit}. Give its density, and “${text.trim()}” can be turned into that.`
      : `It is counted in ${unit}, and “${text.trim()}” is not.`,
  )
}

/** "1.20 l", "340 ml", "2.5 sheets": an amount as one reads it. */
export function amountText(unit: StockUnit, amount: number): string {
  const [value, word] =
    unit === 'ml' && amount >= 1000
      ? [amount / 1000, 'l']
      : unit === 'g' && amount >= 1000
        ? [amount / 1000, 'kg']
        : unit === 'mm' && amount >= 1000
          ? [amount / 1000, 'm']
          : [amount, unit]
  const digits = value >= 100 ? 0 : value >= 10 ? 1 : 2
  const rounded = Number(value.toFixed(digits))
  return `${rounded} ${rounded === 1 && (word === 'sheets' || word === 'pieces') ? word.slice(0, -1) : word}`
}
