import { basename, dirname, join } from 'node:path'
import { z } from 'zod'
import { balance, type BalanceReport, type Weight } from '../core/fit/balance'
import { fitOf, type FitReport } from '../core/fit/gap'
import { usage, type Call } from './call'
import { load, loadJson } from './files'

const table = (title: string, rows: [string, string][]): string =>
  `${title}\n${rows.map(([k, v]) => `  ${k.padEnd(30)}${v}`).join('\n')}\n`
const mm = (v: number): string => `${v.toFixed(2)} mm`

/** Exit 0 when they fit, 1 when they overlap or do not touch, 2 when a file cannot be read. */
export async function fitCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [a, b] = words
  if (!a || !b) return fail(usage('fit needs two files, A and B.'), 2)
  const [first, second] = [await load(a), await load(b)]
  if (!first.ok) return fail(first.problem, 2)
  if (!second.ok) return fail(second.problem, 2)
  const r = await fitOf(first.value, second.value)
  if (!r.ok) return fail(r.problem, 1)
  out(flags.has('json') ? `${JSON.stringify(r.value, null, 1)}\n` : describeFit(basename(a), basename(b), r.value))
  return r.value.touching && r.value.overlap < 0.01 ? 0 : 1
}

function describeFit(a: string, b: string, r: FitReport): string {
  if (!r.touching) return `${a} and ${b} do not come within 3 mm of each other\n`
  return table(`${a} and ${b}: ${r.overlap < 0.01 ? 'no overlap' : 'they overlap'}`, [
    ['facing skin', `${(r.area / 100).toFixed(2)} cm²`],
    ['gap, 5th percentile', mm(r.p5)],
    ['gap, median', mm(r.p50)],
    ['gap, 95th percentile', mm(r.p95)],
    ['overlap', `${r.overlap.toFixed(2)} mm³`],
    ['seam that shows', `${r.seam.toFixed(1)} mm`],
    ['filler for it', `${(r.filler / 1000).toFixed(3)} ml`],
  ])
}

export const assemblyFile = z.object({
  parts: z
    .array(
      z.object({
        file: z.string().min(1).describe('beside the assembly file, placed as it stands'),
        density: z.number().min(0).max(25).default(1.12).describe('g/cm³'),
        infill: z.number().min(0).max(1).default(1).describe('share of the inside that is filled, for filament'),
      }),
    )
    .min(1),
  wish: z.number().min(1).max(80).default(15).describe('degrees that it should bear in every direction'),
})

/** Exit 0 when it bears the wished angle all round, 1 when not, 2 when a file cannot be read. */
export async function balanceCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words
  if (!file) return fail(usage('balance needs ASSEMBLY.json.'), 2)
  const assembly = await loadJson(file, assemblyFile)
  if (!assembly.ok) return fail(assembly.problem, 2)
  const weights: Weight[] = []
  for (const p of assembly.value.parts) {
    const mesh = await load(join(dirname(file), p.file))
    if (!mesh.ok) return fail(mesh.problem, 2)
    weights.push({ mesh: mesh.value, density: p.density, infill: p.infill })
  }
  const { wish } = assembly.value
  const r = balance(weights, wish)
  if (!r.ok) return fail(r.problem, 1)
  out(flags.has('json') ? `${JSON.stringify(r.value, null, 1)}\n` : describeBalance(basename(file), r.value, wish))
  return r.value.weakest.angle >= wish ? 0 : 1
}

function describeBalance(name: string, r: BalanceReport, wish: number): string {
  const rows: [string, string][] = [
    ['mass', `${r.mass.toFixed(1)} g`],
    ['centre of mass', r.centre.map((c) => c.toFixed(2)).join(', ')],
    ['tips first at', `${r.weakest.angle.toFixed(1)}°, toward ${r.weakest.direction}° from the front`],
    ['margin there', mm(r.weakest.margin)],
    ['work to topple it', `${(r.energy * 1000).toFixed(1)} mJ`],
  ]
  if (r.remedy) {
    rows.push([
      `for ${wish}°: ballast`,
      r.remedy.ballast === null
        ? 'no ballast is enough'
        : `${r.remedy.ballast.toFixed(0)} g of ballast low in the foot`,
    ])
    rows.push(['or widen the foot', `by ${((r.remedy.widen - 1) * 100).toFixed(0)} %`])
  }
  return table(
    `${name}: ${r.weakest.angle < 0 ? 'falls over' : r.remedy ? 'stands, but not well' : 'stands well'}`,
    rows,
  )
}
