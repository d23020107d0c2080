import express, { Router } from 'express'
import { z } from 'zod'
import { CsvTrouble, materialsFromCsv, materialsToCsv } from '../../contract/materialsCsv'
import { material, shoppingRow } from '../../contract/stock'
import { database } from '../database'
import { announce } from '../events'
import { StockItem } from '../models'
import { Refusal } from '../problem'
import { endpoint } from '../route'
import { shopping } from '../shopping'

/** Materials as a list that goes in and out, and what has to be bought. */
export const materialRoutes = Router()

endpoint(
  materialRoutes,
  'get',
  '/shopping',
  'What has to be bought for all that is planned',
  { reply: z.array(shoppingRow) },
  shopping,
)

endpoint(materialRoutes, 'get', '/materials.csv', 'All materials and their lots', {}, async (_req, _body, res) => {
  const rows = await StockItem.findAll({ where: { kind: 'material', deletedAt: null } })
  const list = rows.map((r) => material.parse(r.data)).sort((a, b) => a.name.localeCompare(b.name))
  res.type('text/csv; charset=utf-8').attachment('materials.csv').send(materialsToCsv(list))
  return undefined
})

materialRoutes.post('/materials.csv', express.text({ type: () => true, limit: '4mb' }))
endpoint(
  materialRoutes,
  'post',
  '/materials.csv',
  'Take a list of materials in: all of it, or nothing; of a name that is there the new stands',
  { reply: z.object({ added: z.int(), changed: z.int() }) },
  async (req) => {
    let list
    try {
      list = materialsFromCsv(typeof req.body === 'string' ? req.body : '')
    } catch (e) {
      if (!(e instanceof CsvTrouble)) throw e
      const more = e.problems.length > 8 ? ` And ${e.problems.length - 8} more.` : ''
      throw new Refusal(422, 'list-wrong', `${e.problems.slice(0, 8).join(' ')}${more} Nothing was taken in.`)
    }
    const counts = await database.transaction(async (transaction) => {
      const rows = await StockItem.findAll({ where: { kind: 'material', deletedAt: null }, lock: true, transaction })
      const there = new Map(rows.map((r) => [material.parse(r.data).name, r]))
      for (const m of list) {
        const row = there.get(m.name)
        if (row) await row.update({ data: m, version: row.version + 1 }, { transaction })
        else await StockItem.create({ kind: 'material', data: m }, { transaction })
      }
      const changed = list.filter((m) => there.has(m.name)).length
      return { added: list.length - changed, changed }
    })
    await announce({ type: 'stock' })
    return counts
  },
)
