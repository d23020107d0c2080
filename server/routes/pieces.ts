import { Router } from 'express'
import { z } from 'zod'
import { changedPart, changedPiece, newPiece, part as partSchema, piece as pieceSchema, pieceDetail, pieceSummary, type PartRecord, type PieceRecord } from '../../contract/pieces'
import { operationList } from '../../contract/operations'
import { advance, ensure, publicDerivation, settle } from '../derivations'
import { announce } from '../events'
import { Intake, Part, Piece, Tick } from '../models'
import { putStream, TooLarge } from '../blobs'
import { notFound, Refusal, stale } from '../problem'
import { endpoint } from '../route'

export const pieces = Router()
/** Largest sculpt file that is accepted, bytes. */
export const UPLOAD_LIMIT = 1_000_000_000

export async function findPiece(id: string): Promise<Piece> {
  const row = z.uuid().safeParse(id).success ? await Piece.findOne({ where: { id, deletedAt: null } }) : null
  if (!row) throw notFound('This piece')
  return row
}

export const publicPiece = (p: Piece): PieceRecord =>
  ({ ...newPiece.parse(p.data), id: p.id, version: p.version, createdAt: p.createdAt.toISOString() })

export async function publicPart(p: Part, again = false): Promise<PartRecord> {
  const { steps, meshHash } = await advance(p, again)
  return {
    id: p.id, pieceId: p.pieceId, name: p.name, version: p.version, sculptMesh: p.sculptMesh, fileName: p.fileName, meshHash,
    steps: steps.map((s) => ({ op: s.op, derivation: s.derivation ? publicDerivation(s.derivation) : null })),
  }
}

endpoint(pieces, 'get', '/pieces', 'All pieces, newest first', { reply: z.array(pieceSummary) }, async () => {
  const rows = await Piece.findAll({ where: { deletedAt: null }, order: [['createdAt', 'DESC']] })
  return Promise.all(rows.map(async (p) => {
    const parts = await Part.findAll({ where: { pieceId: p.id, deletedAt: null }, order: [['createdAt', 'ASC']] })
    return { ...publicPiece(p), parts: parts.length, thumbnailMesh: parts[0]?.sculptMesh ?? null, done: await Tick.count({ where: { pieceId: p.id } }) }
  }))
})

endpoint(pieces, 'post', '/pieces', 'A new piece', { body: newPiece, reply: pieceSchema }, async (_req, body) => {
  const p = await Piece.create({ data: body })
  await announce({ type: 'piece', id: p.id })
  return publicPiece(p)
})

endpoint(pieces, 'get', '/pieces/:id', 'A piece with its parts', { reply: pieceDetail }, async (req) => {
  const p = await findPiece(req.params.id!)
  const parts = await Part.findAll({ where: { pieceId: p.id, deletedAt: null }, order: [['createdAt', 'ASC']] })
  const intakes = await Intake.findAll({ where: { pieceId: p.id }, order: [['createdAt', 'ASC']] })
  return {
    ...publicPiece(p), partList: await Promise.all(parts.map((x) => publicPart(x))),
    intakes: intakes.map((i) => ({ id: i.id, fileName: i.fileName, status: i.status, problem: i.problem ?? null })),
  }
})

endpoint(pieces, 'patch', '/pieces/:id', 'Change a piece', { body: changedPiece, reply: pieceSchema }, async (req, body) => {
  const p = await findPiece(req.params.id!)
  const { version, ...fields } = body
  // Defaults of absent fields must not overwrite what is there: only keys that were sent count.
  const sent = Object.fromEntries(Object.entries(fields).filter(([k]) => k in (req.body as object)))
  const [changed] = await Piece.update({ data: { ...p.data, ...sent }, version: version + 1 }, { where: { id: p.id, version } })
  if (changed === 0) throw stale(publicPiece(p))
  await announce({ type: 'piece', id: p.id })
  return publicPiece(await p.reload())
})

endpoint(pieces, 'delete', '/pieces/:id', 'Put a piece in the bin for 30 days', {}, async (req) => {
  const p = await findPiece(req.params.id!)
  await p.update({ deletedAt: new Date() })
  await announce({ type: 'piece', id: p.id })
  return undefined
})

endpoint(pieces, 'post', '/pieces/:id/restore', 'Take a piece out of the bin', { reply: pieceSchema }, async (req) => {
  const row = await Piece.findByPk(req.params.id!)
  if (!row) throw notFound('This piece')
  await row.update({ deletedAt: null })
  await announce({ type: 'piece', id: row.id })
  return publicPiece(row)
})

endpoint(pieces, 'post', '/pieces/:id/files', 'Drop a sculpt file (raw body, ?name=)', { reply: z.object({ intake: z.uuid() }) }, async (req) => {
  const p = await findPiece(req.params.id!)
  const name = String(req.query.name ?? '').split(/[\\/]/).pop()!.slice(0, 200)
  if (name === '') throw new Refusal(422, 'no-name', 'The file has no name.')
  const tooLarge = new Refusal(413, 'file-too-large', `${name}: the file is larger than ${(UPLOAD_LIMIT / 1e9).toFixed(0)} GB, the most that is taken in. Decimate the sculpt, or split it.`)
  if (Number(req.headers['content-length'] ?? 0) > UPLOAD_LIMIT) throw tooLarge
  let stored: { hash: string; size: number }
  try { stored = await putStream(req, UPLOAD_LIMIT) } catch (error) { throw error instanceof TooLarge ? tooLarge : error }
  const d = await ensure('import', { fileName: name }, [stored.hash], true)
  const row = await Intake.create({ pieceId: p.id, fileName: name, fileHash: stored.hash, derivationKey: d.key })
  if (d.status === 'done' || d.status === 'failed') await settle(d)
  await announce({ type: 'piece', id: p.id })
  return { intake: row.id }
})

endpoint(pieces, 'delete', '/intakes/:id', 'Forget a refused file', {}, async (req) => {
  const row = await Intake.findByPk(req.params.id!)
  await row?.destroy()
  if (row) await announce({ type: 'piece', id: row.pieceId })
  return undefined
})

async function findPart(id: string): Promise<Part> {
  const row = z.uuid().safeParse(id).success ? await Part.findOne({ where: { id, deletedAt: null } }) : null
  if (!row) throw notFound('This part')
  return row
}

endpoint(pieces, 'put', '/parts/:id/operations', 'Replace the operation list of a part', { body: changedPart, reply: partSchema }, async (req, body) => {
  const p = await findPart(req.params.id!)
  const operations = operationList.parse(body.operations)
  const [changed] = await Part.update({ operations, version: body.version + 1 }, { where: { id: p.id, version: body.version } })
  if (changed === 0) throw stale(await publicPart(p))
  await p.reload()
  const reply = await publicPart(p, true)
  await announce({ type: 'piece', id: p.pieceId })
  return reply
})

endpoint(pieces, 'delete', '/parts/:id', 'Remove a part', {}, async (req) => {
  const p = await findPart(req.params.id!)
  await p.update({ deletedAt: new Date() })
  await announce({ type: 'piece', id: p.pieceId })
  return undefined
})
