import Papa from 'papaparse'
import { z } from 'zod'
import { SUPPLIES } from '../core/plan/materials/supplies'
import { amountIn } from '../core/stock/units'
import { CsvTrouble, guarded, numberOr } from './csv'
import { material, STOCK_UNITS, type MaterialRecord } from './stock'

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

export function materialsToCsv(list: readonly MaterialRecord[]): string {
  const rows = list.flatMap((m) => {
    const own = {
      name: m.name,
      'serves as': m.serves.map((w) => SUPPLIES.find((s) => s.what === w)?.name ?? w).join('; '),
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
  return Papa.unparse({
    fields: [...COLUMNS],
    data: rows.map((r) => COLUMNS.map((c) => guarded((r as Record<Column, unknown>)[c] ?? ''))),
  })
}
/**
 * Materials of a file: rows of one name are lots of one material. Amounts are read with their units.
 *
 * @throws CsvTrouble with a sentence for each line that is wrong; then nothing of the file is to be taken
 */
export function materialsFromCsv(text: string): MaterialRecord[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  if (!meta.fields?.includes('name'))
    throw new CsvTrouble([
      'The first line names the columns, and one of them is “name”. Export the list once to see how.',
    ])
  const problems: string[] = []
  const made = new Map<string, Record<string, unknown> & { lots: unknown[] }>()
  data.forEach((row, i) => {
    const cell = (c: Column): string => (row[c] ?? '').trim().replace(/^'(?=[=+\-@])/, '')
    try {
      const unit = z.enum(STOCK_UNITS, `The unit is one of ${STOCK_UNITS.join(', ')}.`).parse(cell('unit') || 'ml')
      const density = numberOr(cell('density, g/ml'), 'the density')
      const m = made.get(cell('name')) ?? {
        name: cell('name'),
        serves: cell('serves as').split(';').flatMap(served),
        unit,
        density,
        price: numberOr(cell('price each'), 'the price') ?? 0,
        reorder: cell('reorder at') === '' ? null : amountIn(unit, cell('reorder at'), density),
        working: numberOr(cell('working, min'), 'the working time'),
        next: numberOr(cell('next step after, min'), 'the time to the next step'),
        safety: cell('safety'),
        lots: [],
      }
      if (m.unit !== unit) throw new RangeError(`${cell('name')} is counted in ${String(m.unit)} further up.`)
      if (cell('amount') !== '')
        m.lots.push({
          lot: cell('lot'),
          amount: amountIn(unit, cell('amount'), density),
          opened: cell('opened') || null,
          ...(cell('keeps, months') === '' ? {} : { keeps: Number(cell('keeps, months')) }),
          bestBefore: cell('best before') || null,
        })
      material.parse(m)
      made.set(cell('name'), m)
    } catch (e) {
      const said =
        e instanceof z.ZodError ? `${e.issues[0]!.path.join('.')}: ${e.issues[0]!.message}` : (e as Error).message
      // The line of the names is the first.
      problems.push(`Line ${i + 2}: ${said.replace(/^: /, '')}`)
    }
  })
  if (problems.length === 0 && made.size === 0) problems.push('There is nothing in it but the names of the columns.')
  if (problems.length > 0) throw new CsvTrouble(problems)
  return [...made.values()].map((m) => material.parse(m))
}

function served(word: string): string[] {
  const w = word.trim()
  if (w === '') return []
  const known = SUPPLIES.find((s) => s.name === w || s.what === w)
  if (!known)
    throw new RangeError(`“${w}” is nothing that steps use. Leave “serves as” empty and choose it under Stock.`)
  return [known.what]
}
