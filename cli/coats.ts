import { z } from 'zod'
import { lab } from '../contract/colour'
import { deltaE00, labToHex, toLab } from '../core/paint/optics/colour'
import { coatsToHide, filmOver, hiding, mix, opticsOf, opticsOfSwatches, thinned } from '../core/paint/optics/film'
import { groundOf } from '../core/paint/coats/undercoat'
import { PRIMERS } from '../core/defaults/paint'
import { usage, line, type Call } from './call'
import { loadJson } from './files'
import { writeReport } from './results'
import { fixed } from '../core/words/format'

const colour = z.union([lab, z.string().regex(/^#[0-9a-f]{6}$/i, line('cli.coats.colour'))])
const paint = z.object({
  colour,
  opacity: z.number().min(0).max(1).default(0.75),
  overBlack: lab.optional(),
  drops: z.number().gt(0).default(1),
})
/** A stack of coats over an undercoat, first to last. */
export const coatStack = z.object({
  undercoat: z
    .union(
      [z.enum(PRIMERS), z.templateLiteral(['#', z.string().regex(/^[0-9a-f]{6}$/i)])],
      line('cli.coats.undercoat', { primers: PRIMERS.join(', ') }),
    )
    .default('grey'),
  coats: z
    .array(
      z.object({
        name: z.string().default('coat'),
        mix: z.array(paint).min(1),
        film: z.number().gt(0).max(400).describe('µm dry of one coat').default(20),
        count: z.int().min(1).max(40).default(1),
        pigment: z.number().gt(0).max(1).describe('volume share of paint').default(1),
      }),
    )
    .min(1),
})

/** Exit 0 when every coat hides or was meant as a glaze, 1 when one that is to hide does not, 2 when it cannot be read. */
export async function coatsCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words
  if (!file) return fail(usage('cli.usage.coats'), 2)
  const read = await loadJson(file, coatStack)
  if (!read.ok) return fail(read.problem, 2)
  const stack = read.value
  let ground: Float64Array = groundOf(stack.undercoat)
  const coats = stack.coats.map((c) => {
    const paints = c.mix.map((p) =>
      p.overBlack && typeof p.colour !== 'string'
        ? opticsOfSwatches(p.colour, p.overBlack)
        : opticsOf(p.colour, p.opacity),
    )
    const o = thinned(
      mix(
        paints,
        c.mix.map((p) => p.drops),
      ),
      c.pigment,
    )
    const hides = coatsToHide(o, ground, c.film)
    const below = ground
    ground = filmOver(o, c.film * c.count, below)
    const seen = toLab(ground)
    return {
      name: c.name,
      count: c.count,
      hides,
      lab: seen,
      hex: labToHex(seen),
      short: deltaE00(seen, toLab(hiding(o))),
      // A coat of less than half paint is a glaze: it is not to hide.
      glaze: c.pigment < 0.5,
    }
  })
  const problem = await writeReport(flags, { undercoat: stack.undercoat, coats })
  if (problem) return fail(problem, 2)
  if (flags.has('json')) out(`${JSON.stringify({ undercoat: stack.undercoat, coats }, null, 1)}\n`)
  else
    for (const c of coats)
      out(
        `${line('cli.coats.coat', {
          hex: c.hex,
          name: c.name,
          count: c.count,
          covers: c.hides ?? 0,
          short: fixed(c.short, 2),
        })}\n`,
      )
  return coats.every((c) => c.glaze || (c.hides !== null && c.hides <= c.count)) ? 0 : 1
}
