/** A spreadsheet runs what begins like a formula; a quote before it makes it words. */
export const guarded = (v: unknown): unknown => (typeof v === 'string' && /^[=+\-@\t\r]/.test(v) ? `'${v}` : v)

/** What is wrong with a file, line by line. */
export class CsvTrouble extends Error {
  constructor(readonly problems: readonly string[]) {
    super(problems.join(' '))
  }
}

/** @throws RangeError of what is no number, with `what` to name it */
export function numberOr(text: string, what: string): number | null {
  if (text === '') return null
  const v = Number(text.replace(',', '.'))
  if (!Number.isFinite(v)) throw new RangeError(`${what} is “${text}”, which is no number.`)
  return v
}
