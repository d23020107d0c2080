import type { Answer } from '../../answer'
import { numberOr, readCsv, taken, writeCsv } from '../../formats/csv'
import { SUPPLIES, supplyName } from './supplies'
import { STOCK_UNITS, type StockUnit } from '../../defaults/stock'
import { amountIn } from '../../stock/units'
import { message } from '../../words/message'
import { SaidError } from '../../words/saidError'

/** A material as its rows have it. */
export interface MaterialRow {
  name: string
  serves: readonly string[]
  unit: StockUnit
  density: number | null
  price: number
  reorder: number | null
  working: number | null
  next: number | null
  safety: string
  lots: readonly { lot: string; amount: number; opened: string | null; keeps: number; bestBefore: string | null }[]
}

/** Columns of the file, one row a lot; a material without lots has one row without an amount. */
const COLUMNS = [
  'name',
  'serves as',
  'unit',
  'amount',
  'lot',
  'opened',
  'keeps, months',
  'best before',
  'reorder at',
  'price each',
  'density, g/ml',
  'working, min',
  'next step after, min',
  'safety',
] as const
type Column = (typeof COLUMNS)[number]

export function materialsToCsv(list: readonly MaterialRow[]): string {
  const rows = list.flatMap((m) => {
    const own = {
      name: m.name,
      'serves as': m.serves.map((w) => supplyName(w)).join('; '),
      unit: m.unit,
      'reorder at': m.reorder ?? '',
      'price each': m.price || '',
      'density, g/ml': m.density ?? '',
      'working, min': m.working ?? '',
      'next step after, min': m.next ?? '',
      safety: m.safety,
    }
    const lots = m.lots.map((l) => ({
      ...own,
      amount: l.amount,
      lot: l.lot,
      opened: l.opened ?? '',
      'keeps, months': l.keeps,
      'best before': l.bestBefore ?? '',
    }))
    return lots.length > 0 ? lots : [own]
  })
  return writeCsv(
    COLUMNS,
    rows.map((r) => COLUMNS.map((c) => (r as Partial<Record<Column, unknown>>)[c] ?? '')),
  )
}

/**
 * Materials of a file: rows of one name are lots of one material. Amounts are read with their units.
 *
 * @param read makes a material of its fields, or says what is wrong with them
 * @throws CsvTrouble with a sentence for each line that is wrong; then nothing of the file is to be taken
 */
export function materialsFromCsv<T>(text: string, read: (fields: object) => Answer<T>): T[] {
  const made = new Map<string, { unit: string; lots: object[] }>()
  readCsv<Column>(
    text,
    (has) => has('name'),
    message('problems.csv.materialColumns'),
    (cell) => {
      const unit = STOCK_UNITS.find((u) => u === (cell('unit') || 'ml'))
      if (!unit) throw new SaidError(message('problems.csv.unit', { units: STOCK_UNITS.join(', ') }))
      const density = numberOr(cell('density, g/ml'), 'density, g/ml')
      const fresh = {
        name: cell('name'),
        serves: cell('serves as').split(';').flatMap(served),
        unit,
        density,
        price: numberOr(cell('price each'), 'price each') ?? 0,
        reorder: cell('reorder at') === '' ? null : amountIn(unit, cell('reorder at'), density),
        working: numberOr(cell('working, min'), 'working, min'),
        next: numberOr(cell('next step after, min'), 'next step after, min'),
        safety: cell('safety'),
        lots: [] as object[],
      }
      const m = made.get(cell('name')) ?? fresh
      if (m.unit !== unit) throw new SaidError(message('problems.csv.otherUnit', { name: cell('name'), unit: m.unit }))
      if (cell('amount') !== '')
        m.lots.push({
          lot: cell('lot'),
          amount: amountIn(unit, cell('amount'), density),
          opened: cell('opened') || null,
          ...(cell('keeps, months') === '' ? {} : { keeps: Number(cell('keeps, months')) }),
          bestBefore: cell('best before') || null,
        })
      taken(read(m))
      made.set(cell('name'), m)
    },
  )
  return [...made.values()].map((m) => taken(read(m)))
}

function served(word: string): string[] {
  const w = word.trim()
  if (w === '') return []
  const known = SUPPLIES.find((s) => supplyName(s.what) === w || s.what === w)
  if (!known) throw new SaidError(message('problems.csv.servesNothing', { word: w }))
  return [known.what]
}
