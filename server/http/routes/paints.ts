import { Router } from 'express'
import { z } from 'zod'
import { readBy } from '../../../contract/answers'
import { paint } from '../../../contract/stock'
import { changedMix, mixFields, mixRecord, type MixRecord } from '../../../contract/mixes'
import { paintsFromCsv, paintsToCsv } from '../../../core/paint/recipes/paintsCsv'
import { Booking } from '../../data/benchModels'
import { announce } from '../../data/events'
import { StockItem } from '../../data/models'
import { MixRow } from '../../data/paintModels'
import { mustBePicture } from '../../domain/pictures'
import { notFound, stale } from '../../domain/refusal'
import { endpoint, sentOnly } from '../route'
import { findPiece } from './pieces'
import { listRoutes } from './stockList'

/** Paints as a list that goes in and out, what was used of them, and the mix book. */
export const paintRoutes = Router()

// A list knows nothing of bottles that were measured, nor of how a paint is thinned here.
listRoutes(
  paintRoutes,
  'paint',
  'paints',
  paintsToCsv,
  (text) => paintsFromCsv(text, readBy(paint)),
  ({ lots, thinning }) => ({ lots, thinning }),
)

const used = z.object({ paintId: z.uuid(), coats: z.int(), ml: z.number() })
endpoint(
  paintRoutes,
  'get',
  '/paints/used',
  'Of each paint: in how many coats it was logged, and how much',
  { reply: z.array(used) },
  async () => {
    const paints = new Set((await StockItem.findAll({ where: { kind: 'paint' } })).map((r) => r.id))
    const sums = new Map<string, z.infer<typeof used>>()
    for (const b of await Booking.findAll()) {
      if (!paints.has(b.itemId)) continue
      const s = sums.get(b.itemId) ?? { paintId: b.itemId, coats: 0, ml: 0 }
      s.coats++
      s.ml += b.amount
      sums.set(b.itemId, s)
    }
    return [...sums.values()]
  },
)

const publicMix = (r: MixRow): MixRecord => ({ ...mixFields.parse(r.data), id: r.id, version: r.version })
async function checked(data: z.infer<typeof mixFields>): Promise<void> {
  if (data.pieceId) await findPiece(data.pieceId)
  await mustBePicture(data.photo)
}

endpoint(paintRoutes, 'get', '/mixes', 'The mix log, newest first', { reply: z.array(mixRecord) }, async () =>
  (await MixRow.findAll({ where: { deletedAt: null }, order: [['createdAt', 'DESC']] })).map(publicMix),
)

endpoint(paintRoutes, 'post', '/mixes', 'Note a mix', { body: mixFields, reply: mixRecord }, async (_req, body) => {
  await checked(body)
  const row = await MixRow.create({ pieceId: body.pieceId, data: body })
  await announce({ type: 'stock' })
  return publicMix(row)
})

endpoint(
  paintRoutes,
  'put',
  '/mixes/:id',
  'Change what is noted of a mix',
  { body: changedMix, reply: mixRecord },
  async (req, body) => {
    const row = await MixRow.findOne({ where: { id: req.params.id!, deletedAt: null } })
    if (!row) throw notFound('mix')
    const { version, ...fields } = body
    const data = mixFields.parse({ ...row.data, ...sentOnly(req, fields) })
    await checked(data)
    const [changed] = await MixRow.update(
      { data, pieceId: data.pieceId, version: version + 1 },
      { where: { id: row.id, version, deletedAt: null } },
    )
    await row.reload()
    if (changed === 0) throw stale(publicMix(row))
    await announce({ type: 'stock' })
    return publicMix(row)
  },
)

endpoint(paintRoutes, 'delete', '/mixes/:id', 'Take a mix out of the book (kept 30 days)', {}, async (req) => {
  await MixRow.update({ deletedAt: new Date() }, { where: { id: req.params.id!, deletedAt: null } })
  await announce({ type: 'stock' })
  return undefined
})
