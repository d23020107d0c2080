import type { Answer } from '../../answer'
import { numberOr, readCsv, taken, writeCsv } from '../../formats/csv'
import { labToHex, parseHex } from '../optics/colour'
import type { KeptPaint } from './stockPaint'
import { message } from '../../words/message'
import { SaidError } from '../../words/saidError'

const COLUMNS = [
  'name',
  'colour',
  'L',
  'a',
  'b',
  'opacity',
  'black L',
  'black a',
  'black b',
  'kind',
  'finish',
  'ml',
  'price per ml',
  'opened',
] as const
type Column = (typeof COLUMNS)[number]

/** Paints as a list: colour as #rrggbb and, where it was measured, as CIELAB; a swatch over black likewise. */
export const paintsToCsv = (list: readonly (KeptPaint & { level: number })[]): string =>
  writeCsv(
    COLUMNS,
    list.map((p) => [
      p.name,
      p.hex,
      ...(p.lab ?? ['', '', '']),
      p.opacity,
      ...(p.overBlack ?? ['', '', '']),
      p.kind,
      p.finish,
      p.level,
      p.price || '',
      p.opened ?? '',
    ]),
  )

/**
 * Paints of a file. A colour is #rrggbb or three CIELAB numbers; of a row with both, the numbers stand.
 *
 * @param read makes a paint of its fields, or says what is wrong with them
 * @throws CsvTrouble with a sentence for each line that is wrong; then nothing of the file is to be taken
 */
export function paintsFromCsv<T>(text: string, read: (fields: object) => Answer<T>): T[] {
  const names = new Set<string>()
  const out: T[] = []
  readCsv<Column>(
    text,
    (has) => has('name') && (has('colour') || has('L')),
    message('problems.csv.paintColumns'),
    (cell) => {
      const name = cell('name')
      if (names.has(name)) throw new SaidError(message('problems.csv.twice', { name }))
      names.add(name)
      const lab = triple(cell('L'), cell('a'), cell('b'), 'L, a, b')
      const hex = cell('colour')
      if (!lab && !parseHex(hex)) throw new SaidError(message('problems.csv.noColour', { hex }))
      const level = numberOr(cell('ml'), 'ml')
      out.push(
        taken(
          read({
            name,
            hex: lab ? labToHex(lab) : `#${hex.replace('#', '').toLowerCase()}`,
            lab,
            overBlack: triple(cell('black L'), cell('black a'), cell('black b'), 'black L, black a, black b'),
            opacity: numberOr(cell('opacity'), 'opacity') ?? 0.75,
            kind: cell('kind') || 'acrylic',
            finish: cell('finish') || 'matt',
            ...(level === null ? {} : { level }),
            price: numberOr(cell('price per ml'), 'price per ml') ?? 0,
            opened: cell('opened') || null,
          }),
        ),
      )
    },
  )
  return out
}

function triple(l: string, a: string, b: string, columns: string): [number, number, number] | null {
  if (l === '' && a === '' && b === '') return null
  const v = [l, a, b].map((t) => numberOr(t, columns))
  if (v.includes(null)) throw new SaidError(message('problems.csv.someOfThree', { columns }))
  return v as [number, number, number]
}
