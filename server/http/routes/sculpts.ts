import { Router } from 'express'
import { Op } from 'sequelize'
import { z } from 'zod'
import { intake as intakeSchema } from '../../../contract/pieces'
import {
  changedSculpt,
  editionOf,
  sculpt as sculptSchema,
  sculptFields,
  type SculptRecord,
} from '../../../contract/sculpts'
import { announce } from '../../data/events'
import { Intake, Part, Piece, SculptRow } from '../../data/models'
import { notFound, Refusal, stale } from '../../domain/refusal'
import { endpoint, sentOnly } from '../route'
import { receiveFile } from '../../domain/receiveFile'
import { publicIntake } from './pieces'
import { message } from '../../../core/words/message'

/** The library: every sculpt that was ever taken in, whatever pieces use it. */
export const sculpts = Router()

async function findSculpt(id: string): Promise<SculptRow> {
  const row = z.uuid().safeParse(id).success ? await SculptRow.findOne({ where: { id, deletedAt: null } }) : null
  if (!row) throw notFound('sculpt')
  return row
}

async function publicSculpts(rows: readonly SculptRow[]): Promise<SculptRecord[]> {
  const uses = await Part.findAll({
    attributes: ['sculptId', 'pieceId'],
    where: { sculptId: rows.map((r) => r.id), deletedAt: null },
  })
  const pieces = await Piece.findAll({ where: { id: [...new Set(uses.map((u) => u.pieceId))], deletedAt: null } })
  return rows.map((r) => ({
    ...sculptFields.parse(r.data),
    id: r.id,
    version: r.version,
    family: r.family,
    edition: r.edition,
    fileName: r.fileName,
    mesh: r.mesh,
    createdAt: r.createdAt.toISOString(),
    usedIn: pieces
      .filter((p) => uses.some((u) => u.sculptId === r.id && u.pieceId === p.id))
      .map((p) => ({ id: p.id, name: String(p.data.name) })),
  }))
}
const publicSculpt = async (row: SculptRow): Promise<SculptRecord> => (await publicSculpts([row]))[0]!

endpoint(sculpts, 'get', '/sculpts', 'All sculpts, newest first', { reply: z.array(sculptSchema) }, async () =>
  publicSculpts(await SculptRow.findAll({ where: { deletedAt: null }, order: [['createdAt', 'DESC']] })),
)

endpoint(
  sculpts,
  'get',
  '/sculpts/intakes',
  'Files on their way into the library, or refused',
  { reply: z.array(intakeSchema) },
  async () =>
    Promise.all(
      (
        await Intake.findAll({ where: { pieceId: null, status: { [Op.ne]: 'done' } }, order: [['createdAt', 'ASC']] })
      ).map(publicIntake),
    ),
)

endpoint(
  sculpts,
  'post',
  '/sculpts/files',
  'Drop a sculpt file into the library (raw body, ?name=)',
  { reply: z.object({ intake: z.uuid() }) },
  async (req) => ({ intake: await receiveFile(req, null) }),
)

endpoint(
  sculpts,
  'patch',
  '/sculpts/:id',
  'Change what is known of a sculpt',
  { body: changedSculpt, reply: sculptSchema },
  async (req, body) => {
    const row = await findSculpt(req.params.id!)
    const { version, ...fields } = body
    await changeAt(row, version, { data: { ...row.data, ...sentOnly(req, fields) } })
    return publicSculpt(row)
  },
)

endpoint(
  sculpts,
  'put',
  '/sculpts/:id/edition',
  'Say that a sculpt is the next edition of another, or of none',
  { body: editionOf, reply: sculptSchema },
  async (req, { version, of }) => {
    const row = await findSculpt(req.params.id!)
    if (of === row.id) throw new Refusal(422, 'own-edition', message('refusals.sculpts.aSculptCannotBeAn'))
    const family = of ? (await findSculpt(of)).family : row.id
    const newest = of
      ? ((await SculptRow.max('edition', { where: { family, id: { [Op.ne]: row.id }, deletedAt: null } })) as number)
      : 0
    await changeAt(row, version, { family, edition: newest + 1 })
    return publicSculpt(row)
  },
)

async function changeAt(
  row: SculptRow,
  version: number,
  values: Partial<Pick<SculptRow, 'data' | 'family' | 'edition'>>,
): Promise<void> {
  const [changed] = await SculptRow.update({ ...values, version: version + 1 }, { where: { id: row.id, version } })
  if (changed === 0) throw stale(await publicSculpt(row))
  await announce({ type: 'sculpts' })
  await row.reload()
}

endpoint(sculpts, 'delete', '/sculpts/:id', 'Move a sculpt to the trash for 30 days', {}, async (req) => {
  await (await findSculpt(req.params.id!)).update({ deletedAt: new Date() })
  await announce({ type: 'sculpts' })
  return undefined
})

endpoint(
  sculpts,
  'post',
  '/sculpts/:id/restore',
  'Restore a sculpt from the trash',
  { reply: sculptSchema },
  async (req) => {
    const row = z.uuid().safeParse(req.params.id).success ? await SculptRow.findByPk(req.params.id!) : null
    if (!row) throw notFound('sculpt')
    await row.update({ deletedAt: null })
    await announce({ type: 'sculpts' })
    return publicSculpt(row)
  },
)
