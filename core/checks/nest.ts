import { z } from 'zod'
import { good } from '../answer'
import type { NestReport } from '../print/nest/nestReport'
import { plateLock } from '../schemas/plateLock'
import { printer, slicedResin } from '../schemas/printer'
import { hash } from '../schemas/geometry'
import { defineCheck } from './check'

const way = z.object({ seconds: z.number(), finish: z.number(), plates: z.number(), left: z.number() })

export const nest = defineCheck({
  version: 1,
  schema: z.object({
    kind: z.literal('nest'),
    others: z.array(hash).max(199).describe('the other parts that are to be printed'),
    parts: z
      .array(
        z.object({
          id: z.string().max(60),
          copies: z.int().min(1).max(200),
          turn: z.boolean(),
          locks: z.array(plateLock).max(200).default([]),
        }),
      )
      .min(1)
      .max(200)
      .describe('of the mesh and the others, in order'),
    printers: z
      .array(printer.extend({ id: z.string().max(60) }))
      .min(1)
      .max(20),
    resin: slicedResin,
    margin: z.number().min(0).max(50).default(2).describe('mm'),
    aim: z.enum(['hours', 'soonest']).default('hours'),
  }),
  report: z.object({
    nesting: z.object({
      plates: z.array(
        z.object({
          printer: z.string(),
          number: z.number(),
          resin: z.string(),
          parts: z.array(
            z.object({ id: z.string(), copy: z.number(), x: z.number(), y: z.number(), angle: z.number() }),
          ),
          height: z.number(),
          seconds: z.number(),
          filled: z.number(),
        }),
      ),
      left: z.array(z.object({ id: z.string(), why: z.enum(['tall', 'wide', 'taken']) })),
      seconds: z.number(),
      finish: z.number(),
      vatChanges: z.number(),
    }),
    oneByOne: way,
    only: z.array(way.extend({ printer: z.string() })),
    soonest: way.nullable(),
    shapes: z.array(
      z.object({ id: z.string(), height: z.number(), loops: z.array(z.array(z.tuple([z.number(), z.number()]))) }),
    ),
  }) satisfies z.ZodType<NestReport>,
  inputs: (p) => p.others,
  run: async ({ meshes, params, host }) => {
    const { nestReport } = await import('../print/nest/nestReport')
    const { nestPrinter } = await import('../print/nest/printerTime')
    const { silhouette } = await import('../print/nest/silhouette')
    const { nestDefaults } = await import('../print/nest/types')
    const items = params.parts.map((p, i) => {
      const mesh = meshes[i]
      if (!mesh || mesh.positions.length === 0) throw new RangeError(`Part ${p.id} has no body.`)
      return { ...p, silhouette: silhouette(mesh), resin: '' }
    })
    const printers = params.printers.map((p) => nestPrinter(p.id, p, params.resin))
    const wish = { ...nestDefaults, margin: params.margin, aim: params.aim }
    return good({ report: nestReport(items, printers, wish, host.progress) })
  },
})
