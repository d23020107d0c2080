import { readFile } from 'node:fs/promises'
import { readBy } from '../contract/answers'
import { paint } from '../contract/stock'
import { CsvTrouble } from '../core/formats/csv'
import { paintsFromCsv } from '../core/paint/recipes/paintsCsv'
import { stockPaint } from '../core/paint/recipes/stockPaint'
import type { Triple } from '../core/paint/optics/colour'
import { hexToLab, parseHex } from '../core/paint/optics/colour'
import type { StockPaint } from '../core/paint/recipes/recipe'
import { solveRecipe } from '../core/paint/recipes/recipe'
import { usage, type Call } from './call'
import { writeReport } from './results'

/** L,a,b or #rrggbb */
export function colourOf(text: string): Triple | null {
  if (parseHex(text)) return hexToLab(text)
  const v = text.split(',').map(Number)
  return v.length === 3 && v.every(Number.isFinite) && v[0]! >= 0 && v[0]! <= 100 && v.every((x) => Math.abs(x) <= 130)
    ? (v as unknown as Triple)
    : null
}

/** @throws CsvTrouble of a list that is wrong, Error of a file that cannot be read */
export async function paintsOf(file: string): Promise<StockPaint[]> {
  return paintsFromCsv(await readFile(file, 'utf8'), readBy(paint)).map((p) => stockPaint(p.name, p))
}

/** Exit 0 when a mix comes within ΔE00 2, 1 when none does, 2 when the paints cannot be read. */
export async function recipeCommand({ flags, out, fail }: Call): Promise<number> {
  const target = colourOf(flags.get('target') ?? ''),
    file = flags.get('paints')
  if (!target) return fail(usage('--target takes a colour as L,a,b or #rrggbb.'), 2)
  if (!file) return fail(usage('recipe needs --paints P.csv.'), 2)
  let stock: StockPaint[]
  try {
    stock = await paintsOf(file)
  } catch (e) {
    const said = e instanceof CsvTrouble ? e.problems.join(' ') : (e as Error).message
    return fail({ code: 'paints-unreadable', message: `${file}: ${said}` }, 2)
  }
  const answer = solveRecipe(target, stock)
  const problem = await writeReport(flags, answer)
  if (problem) return fail(problem, 2)
  if (flags.has('json')) out(`${JSON.stringify(answer, null, 1)}\n`)
  else {
    for (const r of answer.recipes)
      out(
        `ΔE00 ${r.error.toFixed(2).padStart(5)}  ${r.drops.map((d) => `${d.drops} ${d.name}`).join(' + ')}${r.merits.length > 0 ? `  (${r.merits.join(', ')})` : ''}\n`,
      )
    if (answer.missing) out(`${answer.missing}\n`)
    for (const e of answer.excluded) out(`left out: ${e}\n`)
  }
  return answer.reached ? 0 : 1
}
