import { Router } from 'express'
import { QueryTypes } from 'sequelize'
import { z } from 'zod'
import { HIT_KINDS, searchHit, searchQuery, type SearchHit } from '../../../contract/search'
import { database } from '../../data/database'
import { endpoint } from '../route'

export const search = Router()
/** Hits of one kind: more are found by more words. */
const MOST = 6

/**
 * All words have to be there, in any order. What is called so comes before what only mentions it. `kind`, `id`, `name`,
 * `about` and `piece` name the columns of each place that is looked into.
 */
const FOUND = `
  WITH there(kind, id, name, about, piece, at) AS (
    SELECT 'piece', id::text, data->>'name', concat_ws(' ', data->>'client', data->>'brief'), NULL, created_at
      FROM piece WHERE deleted_at IS NULL
    UNION ALL
    SELECT 'sculpt', id::text, data->>'name', concat_ws(' ', file_name, data->>'origin', data->>'licence'), NULL, created_at
      FROM sculpt WHERE deleted_at IS NULL
    UNION ALL
    SELECT kind, id::text, data->>'name', coalesce(data->>'safety', ''), NULL, NULL
      FROM stock_item WHERE deleted_at IS NULL
    UNION ALL
    SELECT 'log', l.id::text, p.data->>'name', l.text, l.piece_id::text, l.at
      FROM log_entry l JOIN piece p ON p.id = l.piece_id AND p.deleted_at IS NULL
  ), ranked AS (
    SELECT *, row_number() OVER (PARTITION BY kind ORDER BY (name ILIKE $2) DESC, at DESC NULLS LAST, name) AS nth
      FROM there
     WHERE NOT EXISTS (SELECT 1 FROM unnest($1::text[]) AS word WHERE concat_ws(' ', name, about) NOT ILIKE word)
       AND (kind <> 'log' OR NOT EXISTS (SELECT 1 FROM unnest($1::text[]) AS word WHERE about NOT ILIKE word))
  )
  SELECT kind, id, name, about, piece AS "pieceId" FROM ranked WHERE nth <= ${MOST}
   ORDER BY array_position($3::text[], kind), nth`
/** Letters that ILIKE would read as any others are taken as themselves. */
const literally = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`

endpoint(
  search,
  'get',
  '/search',
  'Pieces, sculpts, stock and entries of logs that have all words of ?q=',
  { query: searchQuery, reply: z.array(searchHit) },
  async (_req, _body, _res, { q }) => {
    const words = q.split(/\s+/).filter(Boolean)
    if (words.length === 0) return []
    return database.query<SearchHit>(FOUND, {
      bind: [words.map(literally), literally(words[0]!), HIT_KINDS],
      type: QueryTypes.SELECT,
    })
  },
)
