import { z } from 'zod'
import { orderCosts } from '../contract/workshop'
import { brokenRules, orderPlan } from '../core/paint/order/plan'
import { precedences } from '../core/paint/order/rules'
import { ORDER_COSTS } from '../core/defaults/paint'
import type { OrderScheme, Precedes } from '../core/paint/order/types'
import { usage, line, type Call } from './call'
import { loadJson } from './files'
import { writeReport } from './results'
import { fixed, type Fixed } from '../core/words/format'
import { message } from '../core/words/message'

const id = z.int().min(0)
/** Regions, the edges they share, and coats; `order` is one's own. */
export const orderFile = z.object({
  regions: z.array(
    z.object({
      id,
      name: z.string(),
      area: z.number().min(0),
      glueFace: z.boolean().optional(),
      clear: z.boolean().optional(),
    }),
  ),
  borders: z.array(z.object({ a: id, b: id, mm: z.number().min(0) })).default([]),
  coats: z
    .array(
      z.object({
        id: z.string(),
        region: id,
        name: z.string().default('coat'),
        paint: z.string(),
        spray: z.boolean().default(true),
        handsOn: z.number().min(0).describe('s').default(300),
        lightness: z.number().min(0).max(100).default(50),
        hides: z.number().min(1).default(2),
        messy: z.boolean().default(false),
        metallic: z.boolean().default(false),
        varnish: z.enum(['matt', 'satin', 'gloss']).nullable().default(null),
      }),
    )
    .min(1, line('cli.order.none')),
  order: z.array(z.string()).optional(),
  lights: z.enum(['lightFirst', 'darkFirst']).default('lightFirst'),
  costs: orderCosts
    .partial()
    .default({})
    // What is not named keeps its starting value.
    .transform((given) => ({ ...ORDER_COSTS, ...given })),
})

/** Exit 0, 1 when the given order breaks a rule or rules contradict each other, 2 when it cannot be read. */
export async function orderCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words
  if (!file) return fail(usage('cli.usage.order'), 2)
  const loaded = await loadJson(file, orderFile)
  if (!loaded.ok) return fail(loaded.problem, 2)
  const read = loaded.value
  const known = new Map(read.coats.map((c, i) => [c.id, i]))
  const gone = read.coats.find((c) => !read.regions.some((r) => r.id === c.region))
  if (gone)
    return fail({ code: 'scheme-unreadable', message: message('cli.order.noRegion', { file, coat: gone.id }) }, 2)
  if (known.size < read.coats.length)
    return fail({ code: 'scheme-unreadable', message: message('cli.order.alike', { file }) }, 2)
  const hand = read.order?.map((x) => known.get(x) ?? -1) ?? null
  if (hand && (hand.includes(-1) || new Set(hand).size !== read.coats.length))
    return fail({ code: 'scheme-unreadable', message: message('cli.order.notOnce', { file }) }, 2)
  const scheme: OrderScheme = read
  const plan = orderPlan(scheme, hand, read.costs, read.lights)
  const word = (i: number): string => read.coats[i]!.id
  const pair = (r: Precedes): { first: string; then: string; rule: string } => ({
    ...r,
    first: word(r.first),
    then: word(r.then),
  })
  const report = {
    order: plan.steps.map((s) => word(s.coat)),
    cost: plan.cost,
    largestFirst: { cost: plan.largestFirst.cost, broken: plan.largestFirst.broken.map(pair) },
    hand: plan.hand && { cost: plan.hand.cost },
    broken: hand ? brokenRules(precedences(scheme, read.lights), hand).map(pair) : [],
    dropped: plan.dropped.map((d) => ({ ...pair(d.rule), ring: d.ring.map(word) })),
  }
  const problem = await writeReport(flags, report)
  if (problem) return fail(problem, 2)
  const minutes = (s: number): Fixed => fixed(s / 60, 1)
  if (flags.has('json')) out(`${JSON.stringify(report, null, 1)}\n`)
  else {
    plan.steps.forEach((s, i) =>
      out(
        `${line('cli.order.coat', {
          n: i + 1,
          coat: word(s.coat),
          masked: s.masks.length,
          masks: s.masks.map((m) =>
            message('cli.order.mask', {
              region: read.regions.find((r) => r.id === m.covered)!.name,
              length: fixed(m.mm, 0),
            }),
          ),
        })}\n`,
      ),
    )
    const { cost, largestFirst } = plan
    out(
      `${line('cli.order.cost', {
        masking: minutes(cost.masking),
        total: minutes(cost.total),
        otherMasking: minutes(largestFirst.cost.masking),
        otherTotal: minutes(largestFirst.cost.total),
      })}\n`,
    )
    if (plan.hand)
      out(
        `${line('cli.order.own', { masking: minutes(plan.hand.cost.masking), total: minutes(plan.hand.cost.total) })}\n`,
      )
    for (const b of report.broken) out(`${line('cli.order.broken', { first: b.first, then: b.then, rule: b.rule })}\n`)
    for (const d of report.dropped) out(`${line('cli.order.dropped', { ring: d.ring.join(', '), rule: d.rule })}\n`)
  }
  return report.broken.length > 0 || report.dropped.length > 0 ? 1 : 0
}
