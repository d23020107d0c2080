import { Router } from 'express'
import { z } from 'zod'
import { changedWorkshop, workshop } from '../../../contract/workshop'
import { material, paint, printer, resin, starterWish, stockKind } from '../../../contract/stock'
import { starterStock } from '../../../core/plan/materials/starterStock'
import { say } from '../../../core/words/say'
import { database } from '../../data/database'
import { announce } from '../../data/events'
import { Piece, StockItem, WorkshopRow } from '../../data/models'
import { fillWithDemo } from '../../domain/demo'
import { notFound, Refusal, stale } from '../../domain/refusal'
import { readWorkshop } from '../../domain/workshop'
import { endpoint, mannerOf } from '../route'
import { message } from '../../../core/words/message'

export const stock = Router()
export const KINDS = { printer, resin, paint, material } as const
type Kind = keyof typeof KINDS
const item = z.object({
  id: z.uuid(),
  kind: stockKind,
  version: z.int(),
  data: z.record(z.string(), z.unknown()),
})

function kindOf(value: string): Kind {
  if (value in KINDS) return value as Kind
  throw new Refusal(404, 'no-such-stock', message('refusals.stock.stockIsPrintersResinsPaints'))
}
const publicItem = (r: StockItem): z.infer<typeof item> => ({
  id: r.id,
  kind: r.kind,
  version: r.version,
  data: KINDS[r.kind].parse(r.data),
})

endpoint(stock, 'get', '/stock', 'Everything in stock', { reply: z.array(item) }, async () =>
  (await StockItem.findAll({ where: { deletedAt: null } }))
    .map(publicItem)
    .sort((a, b) => String(a.data.name).localeCompare(String(b.data.name))),
)

endpoint(
  stock,
  'post',
  '/stock/starter',
  'Add usual printers, resin, paints and materials to start with, but what is there by that name',
  { body: starterWish, reply: z.array(item) },
  async (req, body) => {
    const manner = mannerOf(req)
    const made = await database.transaction(async (transaction) => {
      const there = await StockItem.findAll({ where: { deletedAt: null }, transaction })
      const isThere = (kind: string, name: string): boolean =>
        there.some((r) => r.kind === kind && (r.data as { name: string }).name === name)
      return StockItem.bulkCreate(
        starterStock(body.printer).flatMap(({ kind, name, data }) =>
          isThere(kind, say(name, manner))
            ? []
            : [{ kind, data: KINDS[kind].parse({ name: say(name, manner), ...data }) }],
        ),
        { transaction },
      )
    })
    await announce({ type: 'stock' })
    return made.map(publicItem)
  },
)

endpoint(
  stock,
  'post',
  '/stock/:kind',
  'Add to stock',
  { body: z.record(z.string(), z.unknown()), reply: item },
  async (req, body) => {
    const kind = kindOf(req.params.kind!)
    const row = await StockItem.create({ kind, data: KINDS[kind].parse(body) })
    await announce({ type: 'stock' })
    return publicItem(row)
  },
)

endpoint(
  stock,
  'put',
  '/stock/:kind/:id',
  'Change an item',
  { body: z.object({ version: z.int(), data: z.record(z.string(), z.unknown()) }), reply: item },
  async (req, body) => {
    const kind = kindOf(req.params.kind!)
    const [changed] = await StockItem.update(
      { data: KINDS[kind].parse(body.data), version: body.version + 1 },
      { where: { id: req.params.id!, kind, version: body.version, deletedAt: null } },
    )
    const row = await StockItem.findByPk(req.params.id!)
    if (!row) throw notFound('item')
    if (changed === 0) throw stale(publicItem(row))
    await announce({ type: 'stock' })
    return publicItem(row)
  },
)

endpoint(stock, 'delete', '/stock/:kind/:id', 'Take out of stock (kept 30 days)', {}, async (req) => {
  await StockItem.update({ deletedAt: new Date() }, { where: { id: req.params.id!, kind: kindOf(req.params.kind!) } })
  await announce({ type: 'stock' })
  return undefined
})

endpoint(
  stock,
  'post',
  '/workshop/demo',
  'Fill an empty workshop with the demo: its pieces appear one after another',
  { reply: workshop },
  async () => {
    const there = { where: { deletedAt: null } }
    if ((await Piece.count(there)) + (await StockItem.count(there)) > 0)
      throw new Refusal(409, 'not-empty', message('refusals.stock.demoOnlyInEmpty'))
    await fillWithDemo()
    return readWorkshop()
  },
)

endpoint(stock, 'get', '/workshop', 'Settings of the workshop', { reply: workshop }, readWorkshop)

endpoint(
  stock,
  'put',
  '/workshop',
  'Change settings',
  { body: changedWorkshop, reply: workshop },
  async (_req, body) => {
    const { version, ...sent } = body
    // The zone that counts is answered, not stored: the one that was set is among the settings.
    const data = { ...sent, zone: undefined }
    await readWorkshop()
    const [changed] = await WorkshopRow.update({ data, version: version + 1 }, { where: { id: 1, version } })
    if (changed === 0) throw stale(await readWorkshop())
    await announce({ type: 'workshop' })
    return readWorkshop()
  },
)
