import Papa from 'papaparse'
import { z } from 'zod'
import { labToHex, parseHex } from '../core/paint/optics/colour'
import { CsvTrouble, guarded, numberOr } from './csv'
import { paint, type PaintRecord } from './stock'

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
export function paintsToCsv(list: readonly PaintRecord[]): string {
  return Papa.unparse({
    fields: [...COLUMNS],
    data: list.map((p) =>
      [
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
      ].map(guarded),
    ),
  })
}

/**
 * Paints of a file. A colour is #rrggbb or three CIELAB numbers; of a row with both, the numbers stand.
 *
 * @throws CsvTrouble with a sentence for each line that is wrong; then nothing of the file is to be taken
 */
export function paintsFromCsv(text: string): PaintRecord[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
  })
  const has = (c: Column): boolean => meta.fields?.includes(c.toLowerCase()) ?? false
  if (!has('name') || !(has('colour') || has('L')))
    throw new CsvTrouble([
      'The first line names the columns: “name”, and “colour” (#rrggbb) or “L”, “a”, “b”. Give the list out once to see how.',
    ])
  const problems: string[] = []
  const names = new Set<string>()
  const out = data.flatMap((row, i): PaintRecord[] => {
    const cell = (c: Column): string => (row[c.toLowerCase()] ?? '').trim().replace(/^'(?=[=+\-@])/, '')
    try {
      const name = cell('name')
      if (names.has(name)) throw new RangeError(`“${name}” stands further up already.`)
      names.add(name)
      const lab = triple(cell('L'), cell('a'), cell('b'), 'the colour')
      const hex = cell('colour')
      if (!lab && !parseHex(hex))
        throw new RangeError(`“${hex}” is no colour. Write it as #8a5a3a, or give L, a and b.`)
      const level = numberOr(cell('ml'), 'the amount')
      return [
        paint.parse({
          name,
          hex: lab ? labToHex(lab) : `#${hex.replace('#', '').toLowerCase()}`,
          lab,
          overBlack: triple(cell('black L'), cell('black a'), cell('black b'), 'the colour over black'),
          opacity: numberOr(cell('opacity'), 'the opacity') ?? 0.75,
          kind: cell('kind') || 'acrylic',
          finish: cell('finish') || 'matt',
          ...(level === null ? {} : { level }),
          price: numberOr(cell('price per ml'), 'the price') ?? 0,
          opened: cell('opened') || null,
        }),
      ]
    } catch (e) {
      const said =
        e instanceof z.ZodError ? `${e.issues[0]!.path.join('.')}: ${e.issues[0]!.message}` : (e as Error).message
      problems.push(`Line ${i + 2}: ${said.replace(/^: /, '')}`)
      return []
    }
  })
  if (problems.length === 0 && out.length === 0) problems.push('There is nothing in it but the names of the columns.')
  if (problems.length > 0) throw new CsvTrouble(problems)
  return out
}

function triple(l: string, a: string, b: string, what: string): [number, number, number] | null {
  if (l === '' && a === '' && b === '') return null
  const v = [l, a, b].map((t) => numberOr(t, what))
  if (v.includes(null)) throw new RangeError(`${what} has only some of L, a and b. Give all three, or none.`)
  return v as [number, number, number]
}
