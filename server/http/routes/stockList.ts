import express, { type Router } from 'express'
import { z } from 'zod'
import { CsvTrouble } from '../../../core/formats/csv'
import { database } from '../../data/database'
import { announce } from '../../data/events'
import { StockItem } from '../../data/models'
import { Refusal } from '../../domain/refusal'
import { endpoint } from '../route'
import { KINDS } from './stock'
import { message, sentences } from '../../../core/words/message'

/**
 * A kind of stock as a CSV list that goes in and out. A list is taken in whole or not at all; of a name that is there
 * the new stands.
 *
 * @param words what the items are called
 * @param keep what stays of an item that the list changes, since the list does not have it
 */
export function listRoutes<K extends 'material' | 'paint'>(
  router: Router,
  kind: K,
  words: string,
  write: (list: z.infer<(typeof KINDS)[K]>[]) => string,
  read: (text: string) => z.infer<(typeof KINDS)[K]>[],
  keep: (there: z.infer<(typeof KINDS)[K]>) => object = () => ({}),
): void {
  const path = `/${words}.csv`
  const parse = (data: unknown): z.infer<(typeof KINDS)[K]> => KINDS[kind].parse(data) as z.infer<(typeof KINDS)[K]>
  endpoint(router, 'get', path, `All ${words}`, {}, async (_req, _body, res) => {
    const rows = await StockItem.findAll({ where: { kind, deletedAt: null } })
    const list = rows.map((r) => parse(r.data)).sort((a, b) => a.name.localeCompare(b.name))
    res.type('text/csv; charset=utf-8').attachment(`${words}.csv`).send(write(list))
    return undefined
  })
  router.post(path, express.text({ type: () => true, limit: '4mb' }))
  endpoint(
    router,
    'post',
    path,
    `Take a list of ${words} in: all of it, or nothing; of a name that is there the new stands`,
    { reply: z.object({ added: z.int(), changed: z.int() }) },
    async (req) => {
      let list
      try {
        list = read(typeof req.body === 'string' ? req.body : '')
      } catch (e) {
        if (!(e instanceof CsvTrouble)) throw e
        throw new Refusal(
          422,
          'list-wrong',
          message('refusals.stockList.nothingWasImported', {
            problems: sentences(e.problems.slice(0, 8)),
            more: Math.max(0, e.problems.length - 8),
          }),
        )
      }
      const counts = await database.transaction(async (transaction) => {
        const rows = await StockItem.findAll({ where: { kind, deletedAt: null }, lock: true, transaction })
        const there = new Map(rows.map((r) => [parse(r.data).name, r]))
        for (const item of list) {
          const row = there.get(item.name)
          if (row)
            await row.update({ data: { ...item, ...keep(parse(row.data)) }, version: row.version + 1 }, { transaction })
          else await StockItem.create({ kind, data: item }, { transaction })
        }
        const changed = list.filter((i) => there.has(i.name)).length
        return { added: list.length - changed, changed }
      })
      await announce({ type: 'stock' })
      return counts
    },
  )
}
