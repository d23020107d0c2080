import Papa from 'papaparse'
import type { Answer } from '../answer'
import { say } from '../words/say'

/** A spreadsheet runs what begins like a formula; a quote before it makes it words. */
const guarded = (v: unknown): unknown => (typeof v === 'string' && /^[=+\-@\t\r]/.test(v) ? `'${v}` : v)

/** What is wrong with a file, line by line. */
export class CsvTrouble extends Error {
  constructor(readonly problems: readonly string[]) {
    super(problems.join(' '))
  }
}

/** Rows under a line of column names. */
export const writeCsv = (columns: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  Papa.unparse({ fields: [...columns], data: rows.map((r) => r.map(guarded)) })

/** One row of a file: its cells by column, trimmed; empty where there is none. */
export type Cells<C extends string> = (column: C) => string

/**
 * Reads the rows of a file, each by a function that throws a sentence about what is wrong with it.
 *
 * @param usable whether the columns that there are will do; else `need` is thrown
 * @throws CsvTrouble with a sentence for each line that is wrong; then nothing of the file is to be taken
 */
export function readCsv<C extends string>(
  text: string,
  usable: (has: (column: C) => boolean) => boolean,
  need: string,
  row: (cell: Cells<C>) => void,
): void {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  if (!usable((c) => meta.fields?.includes(c.toLowerCase()) ?? false)) throw new CsvTrouble([need])
  const problems: string[] = []
  data.forEach((r, i) => {
    try {
      row((c) => (r[c.toLowerCase()] ?? '').trim().replace(/^'(?=[=+\-@])/, ''))
    } catch (e) {
      // The line of the names is the first.
      problems.push(`Line ${i + 2}: ${(e as Error).message.replace(/^: /, '')}`)
    }
  })
  if (problems.length === 0 && data.length === 0) problems.push('There is nothing in it but the names of the columns.')
  if (problems.length > 0) throw new CsvTrouble(problems)
}

/** @throws RangeError of what is no number, with `what` to name it */
export function numberOr(text: string, what: string): number | null {
  if (text === '') return null
  const v = Number(text.replace(',', '.'))
  if (!Number.isFinite(v)) throw new RangeError(`${what} is “${text}”, which is no number.`)
  return v
}

/** The value of an answer. @throws RangeError with its sentence */
export function taken<T>(a: Answer<T>): T {
  if (!a.ok) throw new RangeError(say(a.problem.message))
  return a.value
}
