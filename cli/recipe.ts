import { readFile } from 'node:fs/promises'
import { readBy } from '../contract/answers'
import { paint } from '../contract/stock'
import { paintsFromCsv } from '../core/paint/recipes/paintsCsv'
import { stockPaint } from '../core/paint/recipes/stockPaint'
import type { Triple } from '../core/paint/optics/colour'
import { hexToLab, parseHex } from '../core/paint/optics/colour'
import type { StockPaint } from '../core/paint/recipes/recipe'
import { solveRecipe } from '../core/paint/recipes/recipe'
import { usage, line, type Call } from './call'
import { writeReport } from './results'
import { message } from '../core/words/message'
import { say } from '../core/words/say'
import { spokenBody } from '../core/words/spokenBody'

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
  if (!target) return fail(usage('cli.usage.target'), 2)
  if (!file) return fail(usage('cli.usage.paints'), 2)
  let stock: StockPaint[]
  try {
    stock = await paintsOf(file)
  } catch (e) {
    return fail({ code: 'paints-unreadable', message: message('cli.atFile', { file, what: (e as Error).message }) }, 2)
  }
  const answer = solveRecipe(target, stock)
  const told = spokenBody(answer)
  const problem = await writeReport(flags, told)
  if (problem) return fail(problem, 2)
  if (flags.has('json')) out(`${JSON.stringify(told, null, 1)}\n`)
  else {
    for (const r of answer.recipes)
      out(
        `ΔE00 ${r.error.toFixed(2).padStart(5)}  ${r.drops.map((d) => `${d.drops} ${d.name}`).join(' + ')}${r.merits.length > 0 ? `  (${r.merits.join(', ')})` : ''}\n`,
      )
    if (answer.missing) out(`${say(answer.missing)}\n`)
    for (const e of answer.excluded) out(`${line('cli.recipe.leftOut', { paint: e })}\n`)
  }
  return answer.reached ? 0 : 1
}
