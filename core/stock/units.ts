import type { StockUnit } from '../defaults/stock'
import { keptValue, METRIC, quantityText, shownUnit, type Manner } from '../words/manner'
import { converted, measureOf, unitNamed } from '../words/units'
import { message } from '../words/message'
import { SaidError } from '../words/saidError'

/** In what stock is counted. */

/** In which unit each measure is counted. */
const BASE: Readonly<Partial<Record<string, StockUnit>>> = {
  volume: 'ml',
  mass: 'g',
  length: 'mm',
  sheets: 'sheets',
  pieces: 'pieces',
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
 * @param manner how one writes here: a number alone is in the unit that is shown
 * @param density g/ml, by which volume and weight are turned into each other; null: they are not
 * @throws SaidError of what is no amount, or of another kind
 */
export function amountIn(unit: StockUnit, text: string, density: number | null, manner: Manner = METRIC): number {
  const m = /^\s*(\d+(?:[.,]\d+)?)\s*([a-zµ"″ ]*?)\s*$/i.exec(text)
  if (!m) throw new SaidError(message('problems.amount.none', { text: text.trim(), unit }))
  const value = Number(m[1]!.replace(',', '.'))
  if (m[2] === '') return keptValue(value, unit, manner)
  const word = unitNamed(m[2]!)
  const measures = word && BASE[measureOf(word)!]
  if (!measures) throw new SaidError(message('problems.amount.noUnit', { word: m[2]!, unit }))
  const turned = perUnit(measures, unit, density)
  if (turned !== null) return converted(value, word, measures)! * turned
  const byDensity = (unit === 'ml' || unit === 'g') && (measures === 'ml' || measures === 'g')
  const amount = text.trim()
  throw new SaidError(
    byDensity
      ? message('problems.amount.needsDensity', { text: amount, unit })
      : message('problems.amount.otherMeasure', { text: amount, unit }),
  )
}

/** "1.20 l", "340 ml", "2.5 sheets": an amount as one reads it. */
export function amountText(unit: StockUnit, amount: number, manner: Manner = METRIC): string {
  const [value, word] =
    unit === 'ml' && amount >= 1000
      ? [amount / 1000, 'l']
      : unit === 'g' && amount >= 1000
        ? [amount / 1000, 'kg']
        : unit === 'mm' && amount >= 1000
          ? [amount / 1000, 'm']
          : [amount, unit]
  const digits = value >= 100 ? 0 : value >= 10 ? 1 : 2
  if (shownUnit(word, manner) !== word) return quantityText(value, Math.max(0, digits - 1), word, manner)
  const rounded = Number(value.toFixed(digits))
  return `${rounded} ${rounded === 1 && (word === 'sheets' || word === 'pieces') ? word.slice(0, -1) : word}`
}
