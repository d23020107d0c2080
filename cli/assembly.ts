import { basename, dirname, join } from 'node:path'
import { z } from 'zod'
import { balance, type BalanceReport, type Weight } from '../core/fit/balance'
import { fitOf, type FitReport } from '../core/fit/gap'
import { usage, line, table, type Call } from './call'
import { load, loadJson } from './files'
import { fixed } from '../core/words/format'

const mm = (v: number, digits = 2): string => line('cli.value.mm', { v: fixed(v, digits) })

/** Exit 0 when they fit, 1 when they overlap or do not touch, 2 when a file cannot be read. */
export async function fitCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [a, b] = words
  if (!a || !b) return fail(usage('cli.usage.fit'), 2)
  const [first, second] = [await load(a), await load(b)]
  if (!first.ok) return fail(first.problem, 2)
  if (!second.ok) return fail(second.problem, 2)
  const r = await fitOf(first.value, second.value)
  if (!r.ok) return fail(r.problem, 1)
  out(flags.has('json') ? `${JSON.stringify(r.value, null, 1)}\n` : describeFit(basename(a), basename(b), r.value))
  return r.value.touching && r.value.overlap < 0.01 ? 0 : 1
}

function describeFit(a: string, b: string, r: FitReport): string {
  if (!r.touching) return `${line('cli.fit.apart', { a, b })}\n`
  return table(line('cli.fit.title', { a, b, overlap: r.overlap >= 0.01 }), [
    [line('cli.fit.area'), line('cli.value.cm2', { v: fixed(r.area / 100, 2) })],
    [line('cli.fit.p5'), mm(r.p5)],
    [line('cli.fit.p50'), mm(r.p50)],
    [line('cli.fit.p95'), mm(r.p95)],
    [line('cli.fit.overlap'), line('cli.value.mm3', { v: fixed(r.overlap, 2) })],
    [line('cli.fit.seam'), mm(r.seam, 1)],
    [line('cli.fit.filler'), line('cli.value.ml', { v: fixed(r.filler / 1000, 3) })],
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
  if (!file) return fail(usage('cli.usage.balance'), 2)
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
    [line('cli.balance.mass'), line('cli.value.g', { v: fixed(r.mass, 1) })],
    [line('cli.balance.centre'), r.centre.map((c) => c.toFixed(2)).join(', ')],
    [
      line('cli.balance.tips'),
      line('cli.balance.toward', { angle: fixed(r.weakest.angle, 1), direction: r.weakest.direction }),
    ],
    [line('cli.balance.margin'), mm(r.weakest.margin)],
    [line('cli.balance.work'), line('cli.value.mj', { v: fixed(r.energy * 1000, 1) })],
  ]
  if (r.remedy) {
    rows.push([
      line('cli.balance.for', { wish }),
      r.remedy.ballast === null
        ? line('cli.balance.noBallast')
        : line('cli.balance.ballast', { mass: fixed(r.remedy.ballast, 0) }),
    ])
    rows.push([line('cli.balance.widen'), line('cli.balance.by', { percent: fixed((r.remedy.widen - 1) * 100, 0) })])
  }
  return table(
    line('cli.balance.title', {
      name,
      how: r.weakest.angle < 0 ? 'falls' : r.remedy ? 'poorly' : 'well',
    }),
    rows,
  )
}
