import { Router } from 'express'
import { literal, Op } from 'sequelize'
import { z } from 'zod'
import {
  arranged,
  arrangement,
  changedPart,
  changedPiece,
  intake as intakeSchema,
  newPiece,
  part as partSchema,
  piece as pieceSchema,
  pieceDetail,
  pieceSummary,
  type PartRecord,
  type PieceRecord,
} from '../../../contract/pieces'
import { operationList, type OperationRecord } from '../../../contract/operations'
import { meshToBytes } from '../../../core/formats/meshBytes'
import { othersOf } from '../../../core/operations/registry'
import { database } from '../../data/database'
import { advance, publicDerivation, reportOfRow, walk, type Walked } from '../../jobs/derivations'
import { announce } from '../../data/events'
import { Derivation, Intake, Part, Piece, SculptRow } from '../../data/models'
import { blobSize, putBytes } from '../../data/blobs'
import { receiveFile } from '../../domain/receiveFile'
import { notFound, Refusal, stale } from '../../domain/refusal'
import { endpoint, sentOnly } from '../route'
import { message } from '../../../core/words/message'
import type { Unspoken } from '../../../core/words/spokenBody'

export const pieces = Router()

export async function findPiece(id: string): Promise<Piece> {
  const row = z.uuid().safeParse(id).success ? await Piece.findOne({ where: { id, deletedAt: null } }) : null
  if (!row) throw notFound('piece')
  return row
}

export const publicPiece = (p: Piece): PieceRecord => ({
  ...newPiece.parse(p.data),
  id: p.id,
  version: p.version,
  createdAt: p.createdAt.toISOString(),
})

export async function publicPart(p: Part, walked?: Walked): Promise<Unspoken<PartRecord>> {
  const { steps, meshHash } = walked ?? (await walk(p))
  return {
    id: p.id,
    pieceId: p.pieceId,
    name: p.name,
    version: p.version,
    sculptMesh: p.sculptMesh,
    sculptId: p.sculptId ?? null,
    fileName: p.fileName,
    meshHash,
    steps: steps.map((s) => ({ op: s.op, derivation: s.derivation ? publicDerivation(s.derivation) : null })),
  }
}

export async function publicIntake(i: Intake): Promise<Unspoken<z.input<typeof intakeSchema>>> {
  const report = i.status === 'done' ? reportOfRow(await Derivation.findByPk(i.derivationKey), 'import') : null
  return {
    id: i.id,
    fileName: i.fileName,
    status: i.status,
    problem: i.problem ?? null,
    passedOver: report?.passedOver ?? [],
  }
}

const PARTS_OF = 'FROM part WHERE part.piece_id = "Piece"."id" AND part.deleted_at IS NULL'
/** Counted and found with the pieces themselves: one question however many there are. */
const SUMMED: [ReturnType<typeof literal>, string][] = [
  [literal(`(SELECT count(*)::int ${PARTS_OF})`), 'parts'],
  [literal(`(SELECT sculpt_mesh ${PARTS_OF} ORDER BY created_at LIMIT 1)`), 'thumbnailMesh'],
  [literal('(SELECT count(*)::int FROM tick WHERE tick.piece_id = "Piece"."id" AND tick.done_at IS NOT NULL)'), 'done'],
]
const MAX_PAGE = 500
/** `limit` pieces from the one after `cursor` on, both in the query; the header Link names the next page. */
const page = z.object({ limit: z.coerce.number().int().min(1).max(MAX_PAGE).optional(), cursor: z.uuid().optional() })

endpoint(
  pieces,
  'get',
  '/pieces',
  'Pieces, newest first: all, or ?limit= of them from after ?cursor= on',
  { query: page, reply: z.array(pieceSummary) },
  async (_req, _body, res, { limit, cursor }) => {
    const from = cursor ? await Piece.findByPk(cursor) : null
    if (cursor && !from) throw notFound('listPiece')
    const rows = await Piece.findAll({
      attributes: { include: SUMMED },
      where: {
        deletedAt: null,
        ...(from
          ? {
              [Op.or]: [
                { createdAt: { [Op.lt]: from.createdAt } },
                { createdAt: from.createdAt, id: { [Op.lt]: from.id } },
              ],
            }
          : {}),
      },
      order: [
        ['createdAt', 'DESC'],
        ['id', 'DESC'],
      ],
      ...(limit ? { limit: limit + 1 } : {}),
    })
    const shown = limit ? rows.slice(0, limit) : rows
    if (shown.length < rows.length)
      res.setHeader('Link', `</api/pieces?limit=${limit}&cursor=${shown.at(-1)!.id}>; rel="next"`)
    return shown.map((p) => ({
      ...publicPiece(p),
      parts: p.get('parts') as number,
      thumbnailMesh: p.get('thumbnailMesh') as string | null,
      done: p.get('done') as number,
    }))
  },
)

endpoint(pieces, 'post', '/pieces', 'A new piece', { body: newPiece, reply: pieceSchema }, async (_req, body) => {
  const p = await Piece.create({ data: body })
  await announce({ type: 'piece', id: p.id })
  return publicPiece(p)
})

async function detailOf(p: Piece): Promise<Unspoken<z.input<typeof pieceDetail>>> {
  // Intakes first: one that is seen as taken has its parts committed by then.
  const intakes = await Intake.findAll({ where: { pieceId: p.id }, order: [['createdAt', 'ASC']] })
  const parts = await Part.findAll({ where: { pieceId: p.id, deletedAt: null }, order: [['createdAt', 'ASC']] })
  return {
    ...publicPiece(p),
    partList: await Promise.all(parts.map((x) => publicPart(x))),
    intakes: await Promise.all(intakes.map(publicIntake)),
  }
}

endpoint(pieces, 'get', '/pieces/:id', 'A piece with its parts', { reply: pieceDetail }, async (req) =>
  detailOf(await findPiece(req.params.id!)),
)

endpoint(
  pieces,
  'patch',
  '/pieces/:id',
  'Change a piece',
  { body: changedPiece, reply: pieceSchema },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    const { version, ...fields } = body
    const [changed] = await Piece.update(
      { data: { ...p.data, ...sentOnly(req, fields) }, version: version + 1 },
      { where: { id: p.id, version } },
    )
    if (changed === 0) throw stale(publicPiece(p))
    await announce({ type: 'piece', id: p.id })
    return publicPiece(await p.reload())
  },
)

endpoint(pieces, 'delete', '/pieces/:id', 'Move a piece to the trash for 30 days', {}, async (req) => {
  const p = await findPiece(req.params.id!)
  await p.update({ deletedAt: new Date() })
  await announce({ type: 'piece', id: p.id })
  return undefined
})

endpoint(
  pieces,
  'post',
  '/pieces/:id/restore',
  'Restore a piece from the trash',
  { reply: pieceSchema },
  async (req) => {
    const row = await Piece.findByPk(req.params.id!)
    if (!row) throw notFound('piece')
    await row.update({ deletedAt: null })
    await announce({ type: 'piece', id: row.id })
    return publicPiece(row)
  },
)

endpoint(
  pieces,
  'post',
  '/pieces/:id/files',
  'Drop a sculpt file (raw body, ?name=)',
  { reply: z.object({ intake: z.uuid() }) },
  async (req) => ({ intake: await receiveFile(req, (await findPiece(req.params.id!)).id) }),
)

endpoint(pieces, 'delete', '/intakes/:id', 'Forget a refused file', {}, async (req) => {
  const row = await Intake.findByPk(req.params.id!)
  await row?.destroy()
  if (row) await announce(row.pieceId ? { type: 'piece', id: row.pieceId } : { type: 'sculpts' })
  return undefined
})

async function findPart(id: string): Promise<Part> {
  const row = z.uuid().safeParse(id).success ? await Part.findOne({ where: { id, deletedAt: null } }) : null
  if (!row) throw notFound('part')
  return row
}

endpoint(
  pieces,
  'put',
  '/parts/:id/operations',
  'Replace the operation list of a part',
  { body: changedPart, reply: partSchema },
  async (req, body) => {
    const p = await findPart(req.params.id!)
    const operations = operationList.parse(body.operations)
    await othersExist(operations)
    const [changed] = await Part.update(
      { operations, version: body.version + 1 },
      { where: { id: p.id, version: body.version } },
    )
    if (changed === 0) throw stale(await publicPart(p))
    await p.reload()
    const reply = await publicPart(p, await advance(p, true))
    await announce({ type: 'piece', id: p.pieceId })
    return reply
  },
)

/** A hash that names nothing must not become a derivation that can never be done. */
async function othersExist(operations: readonly OperationRecord[]): Promise<void> {
  for (const op of operations)
    for (const mesh of othersOf(op))
      if ((await blobSize(mesh)) === null)
        throw new Refusal(422, 'unknown-mesh', message('refusals.pieces.theOtherPartOfThis'))
}

endpoint(
  pieces,
  'post',
  '/pieces/:id/arrange',
  'Change, add, remove and restore several parts at once',
  { body: arrangement, reply: arranged },
  async (req, body) => {
    const piece = await findPiece(req.params.id!)
    for (const c of [...body.changes, ...body.create]) await othersExist(c.operations)
    const nothing = await putBytes(meshToBytes({ positions: new Float32Array(0), triangles: new Uint32Array(0) }))
    const created = await database.transaction(async (transaction) => {
      for (const { id, version, operations } of body.changes) {
        const [changed] = await Part.update(
          { operations, version: version + 1 },
          { where: { id, version, pieceId: piece.id, deletedAt: null }, transaction },
        )
        if (changed === 0) throw stale(publicPiece(piece))
      }
      for (const { id, version, sculpt } of body.swap) {
        const other = await SculptRow.findOne({ where: { id: sculpt, deletedAt: null }, transaction })
        if (!other) throw notFound('sculpt')
        const [changed] = await Part.update(
          {
            sculptMesh: other.mesh,
            sculptId: other.id,
            fileName: other.fileName,
            fileHash: other.fileHash,
            version: version + 1,
          },
          { where: { id, version, pieceId: piece.id, deletedAt: null }, transaction },
        )
        if (changed === 0) throw stale(publicPiece(piece))
      }
      const ids: string[] = []
      for (const { name, from, sculpt, operations } of body.create) {
        const shelf = sculpt ? await SculptRow.findOne({ where: { id: sculpt, deletedAt: null }, transaction }) : null
        if (sculpt && !shelf) throw notFound('sculpt')
        const original = from
          ? await Part.findOne({ where: { id: from, pieceId: piece.id, deletedAt: null }, transaction })
          : null
        if (from && !original) throw notFound('original')
        const part = await Part.create(
          {
            pieceId: piece.id,
            name,
            fileName: original?.fileName ?? shelf?.fileName ?? '',
            fileHash: original?.fileHash ?? shelf?.fileHash ?? nothing,
            sculptMesh: original?.sculptMesh ?? shelf?.mesh ?? nothing,
            sculptId: original?.sculptId ?? shelf?.id ?? null,
            operations,
          },
          { transaction },
        )
        ids.push(part.id)
      }
      for (const [list, deletedAt] of [
        [body.remove, new Date()],
        [body.restore, null],
      ] as const)
        if (list.length > 0) await Part.update({ deletedAt }, { where: { id: list, pieceId: piece.id }, transaction })
      return ids
    })
    const touched = new Set([...created, ...[...body.changes, ...body.swap].map((c) => c.id), ...body.restore])
    for (const id of touched) await advance((await Part.findByPk(id))!, true)
    await announce({ type: 'piece', id: piece.id })
    return { created }
  },
)

endpoint(
  pieces,
  'post',
  '/pieces/:id/advance',
  'Compute what nobody has asked for yet of all parts',
  { reply: pieceDetail },
  async (req) => {
    const p = await findPiece(req.params.id!)
    const parts = await Part.findAll({ where: { pieceId: p.id, deletedAt: null } })
    for (const part of parts) await advance(part)
    return detailOf(p)
  },
)

endpoint(pieces, 'delete', '/parts/:id', 'Remove a part', {}, async (req) => {
  const p = await findPart(req.params.id!)
  await p.update({ deletedAt: new Date() })
  await announce({ type: 'piece', id: p.pieceId })
  return undefined
})
