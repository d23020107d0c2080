import { rightNow } from '../../data/clock'
import { Router } from 'express'
import { Op } from 'sequelize'
import { changedFlaw, endedPass, flaw, flawFields, inspection, newFlaw } from '../../../contract/flaws'
import type { Vector3 } from '../../../core/math/vectors'
import { causeOf, tipsOnSkin, type TipOnSkin } from '../../../core/plan/facts/flaws'
import { gradeDefaults } from '../../../core/print/support/supportRoute'
import type { OperationReport } from '../../../core/operations/registry'
import { database } from '../../data/database'
import { walk, reportOfRow } from '../../jobs/derivations'
import { announce } from '../../data/events'
import { publicFlaw, readInspection } from '../../domain/inspections'
import { Part } from '../../data/models'
import { FlawRow, InspectionRow } from '../../data/benchModels'
import { notFound, Refusal, stale } from '../../domain/refusal'
import { mustBePicture } from '../../domain/pictures'
import { endpoint, sentOnly } from '../route'
import { regionsOn } from '../../domain/regions'
import { findPiece } from './pieces'
import { message } from '../../../core/words/message'

export const inspections = Router()

endpoint(
  inspections,
  'get',
  '/pieces/:id/inspection',
  'Flaws of a piece and the passes in which they were found',
  { reply: inspection },
  async (req) => readInspection((await findPiece(req.params.id!)).id),
)

const open = (pieceId: string): Promise<InspectionRow | null> =>
  InspectionRow.findOne({ where: { pieceId, endedAt: null } })

endpoint(
  inspections,
  'post',
  '/pieces/:id/inspection/passes',
  'Begin a pass of looking over the primed piece',
  { reply: inspection },
  async (req) => {
    const p = await findPiece(req.params.id!)
    if (!(await open(p.id))) await begin(p.id)
    await announce({ type: 'piece', id: p.id })
    return readInspection(p.id)
  },
)

/** The next pass. Two who begin it at once begin the same one. */
async function begin(pieceId: string): Promise<number> {
  const last = (await InspectionRow.max<number, InspectionRow>('pass', { where: { pieceId } })) ?? 0
  const [row] = await InspectionRow.findOrCreate({
    where: { pieceId, pass: last + 1 },
    defaults: { pieceId, pass: last + 1 },
  })
  return row.pass
}

endpoint(
  inspections,
  'put',
  '/pieces/:id/inspection/passes/:pass',
  'End a pass; `acceptRest` closes the loop over what is left',
  { body: endedPass, reply: inspection },
  async (req, body) => {
    const p = await findPiece(req.params.id!),
      pass = Number(req.params.pass)
    if (body.acceptRest && body.note.trim() === '')
      throw new Refusal(422, 'note-wanted', message('refusals.inspection.writeWhyWhatIsLeft'))
    await database.transaction(async (transaction) => {
      const [ended] = await InspectionRow.update(
        { endedAt: rightNow(), note: body.note.trim() },
        { where: { pieceId: p.id, pass, endedAt: null }, transaction },
      )
      if (ended === 0)
        throw new Refusal(
          409,
          'pass-not-open',
          message('refusals.inspection.passIsNotUnderWay', { pass: req.params.pass }),
        )
      if (body.acceptRest)
        await FlawRow.update(
          { state: 'accepted', closedPass: pass },
          { where: { pieceId: p.id, state: 'open' }, transaction },
        )
    })
    await announce({ type: 'piece', id: p.id })
    return readInspection(p.id)
  },
)

endpoint(
  inspections,
  'post',
  '/pieces/:id/flaws',
  'Mark a flaw; it belongs to the pass under way, or begins one',
  { body: newFlaw, reply: flaw },
  async (req, body) => {
    const p = await findPiece(req.params.id!)
    const part = await Part.findOne({ where: { id: body.partId, pieceId: p.id, deletedAt: null } })
    if (!part) throw notFound('part')
    await mustBePicture(body.photo)
    const { id, partId, ...data } = body
    const pass = (await open(p.id))?.pass ?? (await begin(p.id))
    const cause = causeOf(body.kind, body.point, body.size, await tipsOf(part))
    const region = (await regionsOn(p.id, partId))?.at(body.point) ?? null
    const [row] = await FlawRow.findOrCreate({
      where: { id },
      defaults: { id, pieceId: p.id, partId, pass, data: { ...data, cause, region } },
    })
    await announce({ type: 'piece', id: p.id })
    return publicFlaw(row)
  },
)

endpoint(
  inspections,
  'put',
  '/flaws/:id',
  'Change a flaw: what it is, or what became of it',
  { body: changedFlaw, reply: flaw },
  async (req, body) => {
    const row = await FlawRow.findByPk(req.params.id!)
    if (!row) throw notFound('flaw')
    const { version, state, ...fields } = body
    await mustBePicture(body.photo)
    const data = { ...row.data, ...sentOnly(req, fields) }
    if (state === 'accepted' && flawFields.parse(data).note.trim() === '')
      throw new Refusal(422, 'note-wanted', message('refusals.inspection.writeWhyItMayStay'))
    const last =
      (await InspectionRow.max<number, InspectionRow>('pass', { where: { pieceId: row.pieceId } })) ?? row.pass
    const [changed] = await FlawRow.update(
      {
        data,
        version: version + 1,
        ...(state ? { state, closedPass: state === 'open' ? null : last } : {}),
      },
      { where: { id: row.id, version } },
    )
    await row.reload()
    if (changed === 0) throw stale(publicFlaw(row))
    await announce({ type: 'piece', id: row.pieceId })
    return publicFlaw(row)
  },
)

endpoint(inspections, 'delete', '/flaws/:id', 'Take back a mark that is none', {}, async (req) => {
  const row = await FlawRow.findByPk(req.params.id!)
  if (!row) return undefined
  const gone = await FlawRow.destroy({ where: { id: row.id, state: { [Op.ne]: 'mended' } } })
  if (gone === 0) throw new Refusal(409, 'flaw-mended', message('refusals.inspection.itWasRepairedSoThere'))
  await announce({ type: 'piece', id: row.pieceId })
  return undefined
})

/** Where supports touched the part, on it as it stands in the piece. */
async function tipsOf(part: Part): Promise<TipOnSkin[]> {
  const { steps } = await walk(part)
  const done = <K extends 'support' | 'orient'>(kind: K): OperationReport<K> | null =>
    reportOfRow(steps.find((x) => x.op.kind === kind)?.derivation, kind) as OperationReport<K> | null
  const support = done('support'),
    stood = done('orient'),
    op = steps.find((s) => s.op.kind === 'orient')?.op
  if (!support || !stood || op?.kind !== 'orient') return []
  return tipsOnSkin(
    support.support.tips.map((t) => ({ point: t.point, tip: gradeDefaults[t.grade].tip, focal: t.focal })),
    { quaternion: op.quaternion, offset: stood.offset as Vector3, shift: support.support.shift },
  )
}
