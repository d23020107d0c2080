import Papa from 'papaparse'
import type { Answer } from '../answer'
import { say } from '../words/say'
import { message, type Message } from '../words/message'
import { SaidError } from '../words/saidError'

/** A spreadsheet runs what begins like a formula; a quote before it makes it words. */
const guarded = (v: unknown): unknown => (typeof v === 'string' && /^[=+\-@\t\r]/.test(v) ? `'${v}` : v)

/** What is wrong with a file, line by line. */
export class CsvTrouble extends Error {
  constructor(readonly problems: readonly Message[]) {
    super(problems.map((p) => say(p)).join(' '))
  }
}

/** Rows under a line of column names. */
export const writeCsv = (columns: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  Papa.unparse({ fields: [...columns], data: rows.map((r) => r.map(guarded)) })

/** One row of a file: its cells by column, trimmed; empty where there is none. */
export type Cells<C extends string> = (column: C) => string

/**
 * Reads the rows of a file, each by a function that throws a SaidError about what is wrong with it.
 *
 * @param usable whether the columns that there are will do; else `need` is thrown
 * @throws CsvTrouble with a message for each line that is wrong; then nothing of the file is to be taken
 */
export function readCsv<C extends string>(
  text: string,
  usable: (has: (column: C) => boolean) => boolean,
  need: Message,
  row: (cell: Cells<C>) => void,
): void {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  if (!usable((c) => meta.fields?.includes(c.toLowerCase()) ?? false)) throw new CsvTrouble([need])
  const problems: Message[] = []
  data.forEach((r, i) => {
    try {
      row((c) => (r[c.toLowerCase()] ?? '').trim().replace(/^'(?=[=+\-@])/, ''))
    } catch (e) {
      if (!(e instanceof SaidError)) throw e
      // The line of the names is the first.
      problems.push(message('problems.csv.line', { line: i + 2, what: e.said }))
    }
  })
  if (problems.length === 0 && data.length === 0) problems.push(message('problems.csv.onlyNames'))
  if (problems.length > 0) throw new CsvTrouble(problems)
}

/** @throws SaidError of what is no number, with the name of its column */
export function numberOr(text: string, column: string): number | null {
  if (text === '') return null
  const v = Number(text.replace(',', '.'))
  if (!Number.isFinite(v)) throw new SaidError(message('problems.csv.noNumber', { column, text }))
  return v
}

/** The value of an answer. @throws SaidError with its message */
export function taken<T>(a: Answer<T>): T {
  if (!a.ok) throw new SaidError(a.problem.message)
  return a.value
}
