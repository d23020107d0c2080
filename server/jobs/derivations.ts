import { createHash, randomUUID } from 'node:crypto'
import { Op, type Transaction } from 'sequelize'
import {
  reportSchema,
  type Check,
  type DerivationKind,
  type DerivationRecord,
  type ReportOf,
} from '../../contract/derivations'
import { operationList, type OperationRecord } from '../../contract/operations'
import { sculptFields } from '../../contract/sculpts'
import { readFile } from '../../core/checks/readFile'
import { checkOf, inputsOf } from '../../core/checks/registry'
import { isLeftOut } from '../../core/operations/failed'
import { operationOf, othersOf, type OperationKind, type OperationReport } from '../../core/operations/registry'
import { database } from '../data/database'
import { announce } from '../data/events'
import { Derivation, Intake, Part, SculptRow } from '../data/models'
import { sendDerive } from './queue'
import type { Problem } from '../../core/answer'
import { message } from '../../core/words/message'
import { say } from '../../core/words/say'

/** JSON with sorted keys, so that equal parameters always give equal text. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`
  if (value && typeof value === 'object') {
    return `{${Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => `${JSON.stringify(k)}:${canonical(v)}`)
      .join(',')}}`
  }
  return JSON.stringify(value)
}

/** key = sha256(kind, version, parameters, inputs): the same question has the same key on every machine. */
export function derivationKey(kind: string, params: Record<string, unknown>, inputs: readonly string[]): string {
  const version = (operationOf(kind) ?? checkOf(kind))?.version ?? 0
  return createHash('sha256')
    .update(canonical([kind, version, params, inputs]))
    .digest('hex')
}

/** Whether a report is as its kind has it now. */
export const readable = (kind: string, report: unknown): boolean =>
  reportSchema(kind)?.safeParse(report).success ?? true

/** Keys whose report has been found readable. What is done never changes, so that it is looked at once. */
const looked = new Set<string>()
const MAX_LOOKED = 20_000

/** Whether what a row reports can still be read. */
function isReadable(row: Derivation): boolean {
  if (looked.has(row.key)) return true
  if (!readable(row.kind, row.report)) return false
  if (looked.size >= MAX_LOOKED) looked.clear()
  looked.add(row.key)
  return true
}
/** The row, computed again where an earlier version of the program left a report that can no longer be read. */
export async function current(row: Derivation): Promise<Derivation> {
  if (row.status === 'done' && !isReadable(row)) await askAgain(row)
  return row
}

/** The derivation of that question, asked now if nobody has before. A cancelled one stays so until a user asks `again`. */
export async function ensure(
  kind: string,
  params: Record<string, unknown>,
  inputs: string[],
  again = false,
): Promise<Derivation> {
  const key = derivationKey(kind, params, inputs)
  const [row, fresh] = await Derivation.findOrCreate({ where: { key }, defaults: { key, kind, params, inputs } })
  if (fresh) await sendDerive(row)
  else if (again && row.status === 'failed' && row.problem?.code === 'cancelled') await askAgain(row)
  return current(row)
}

/**
 * The answers to many checks at once, in order.
 *
 * @param ask those that nobody asked before are asked now; else they are null
 */
export async function knownChecks(
  asked: readonly { mesh: string; check: Check }[],
  ask: boolean,
): Promise<(Derivation | null)[]> {
  const all = asked.map(({ mesh, check }) => {
    const { kind, ...params } = check,
      inputs = [mesh, ...inputsOf(check)]
    return { kind, params, inputs, key: derivationKey(kind, params, inputs) }
  })
  const known = new Map(
    (await Derivation.findAll({ where: { key: [...new Set(all.map((a) => a.key))] } })).map((d) => [d.key, d]),
  )
  const out: (Derivation | null)[] = []
  for (const a of all) {
    const row = known.get(a.key)
    out.push(row ? await current(row) : ask ? await ensure(a.kind, a.params, a.inputs) : null)
  }
  return out
}

export async function askAgain(row: Derivation): Promise<void> {
  await row.update({ status: 'waiting', progress: 0, problem: null, updatedAt: new Date() })
  await sendDerive(row)
}

/** What a row of that kind reports, read by its schema; null while it is not done, or where it is of another kind. */
export function reportOfRow<K extends DerivationKind>(row: Derivation | null | undefined, kind: K): ReportOf<K> | null {
  if (row?.status !== 'done' || row.kind !== kind) return null
  return (reportSchema(kind)!.safeParse(row.report).data as ReportOf<K> | undefined) ?? null
}
/** What an operation reports, whichever it is. */
export const operationReport = (row: Derivation | null | undefined): OperationReport | null =>
  row && operationOf(row.kind) ? reportOfRow(row, row.kind as OperationKind) : null

export function publicDerivation(d: Derivation): Omit<DerivationRecord, 'problem'> & { problem: Problem | null } {
  return {
    key: d.key,
    kind: d.kind as DerivationKind,
    status: d.status,
    progress: d.progress,
    meshHash: d.meshHash ?? null,
    blobs: d.blobs,
    // Parsed by the schema of its kind when it is sent.
    report: (d.report ?? null) as DerivationRecord['report'],
    problem: d.problem ?? null,
  }
}

export interface PartStep {
  op: OperationRecord
  derivation: Derivation | null
}

export interface Walked {
  steps: PartStep[]
  /** after the last step that is done */
  meshHash: string
}

/**
 * Follows a part's operations as far as they are derived; `find` gives the derivation of a question, or null. What failed is
 * left out: what follows goes on from the last result.
 */
async function followed(
  part: Part,
  find: (kind: string, params: Record<string, unknown>, inputs: string[]) => Promise<Derivation | null>,
): Promise<Walked> {
  const steps: PartStep[] = []
  let meshHash = part.sculptMesh,
    stopped = false
  const failedKinds: OperationKind[] = []
  // Records of an earlier day get the defaults of what has been added since.
  for (const op of operationList.parse(part.operations)) {
    const { kind, ...params } = op
    const leftOut = isLeftOut(kind, failedKinds)
    const derivation = stopped || leftOut ? null : await find(kind, params, [meshHash, ...othersOf(op)])
    steps.push({ op, derivation })
    if (derivation?.status === 'done' && derivation.meshHash) meshHash = derivation.meshHash
    else if (derivation?.status === 'failed') failedKinds.push(kind)
    else if (!leftOut) stopped = true
  }
  return { steps, meshHash }
}

/** A part's operations as far as they are derived. Asks for nothing: what nobody has asked for has no derivation. */
export const walk = (part: Part): Promise<Walked> =>
  followed(part, async (kind, params, inputs) => {
    const row = await Derivation.findByPk(derivationKey(kind, params, inputs))
    return row?.status === 'done' && !isReadable(row) ? null : row
  })

/** The same, and asks for the next one that is not there yet; the worker goes on from it. */
export async function advance(part: Part, again = false): Promise<Walked> {
  const walked = await followed(part, (kind, params, inputs) => ensure(kind, params, inputs, again))
  const last = walked.steps.findLast((s) => s.derivation)?.derivation
  const awaiting = last && last.status !== 'done' && last.status !== 'failed' ? last.key : null
  if (part.awaiting !== awaiting) {
    part.awaiting = awaiting
    await Part.update({ awaiting }, { where: { id: part.id } })
  }
  return walked
}

/** After a derivation ended: parts go on to their next step, dropped files become parts or say why not. */
export async function settle(d: Derivation): Promise<void> {
  await announce({ type: 'derivation', key: d.key, status: d.status, progress: d.progress })
  for (const part of await Part.findAll({ where: { awaiting: d.key } })) {
    await advance(part)
    await announce({ type: 'piece', id: part.pieceId })
  }
  if (d.kind !== 'import') return
  for (const row of await Intake.findAll({ where: { derivationKey: d.key, status: 'waiting' } })) {
    await database.transaction(async (transaction) => {
      // The status moves only once, so two workers that settle the same file make its parts once; and with them, so
      // that a file is never taken in by half.
      const [moved] = await Intake.update(
        { status: d.status === 'done' ? 'done' : 'refused', problem: rename(d.problem, row.fileName) },
        { where: { id: row.id, status: 'waiting' }, transaction },
      )
      if (moved === 0 || d.status !== 'done') return
      const { bodies } = readFile.report.parse(d.report)
      for (const body of bodies) {
        const name = body.name || row.fileName.replace(/\.[^.]*$/, '')
        const sculpt = await shelved(name, body.mesh, row, transaction)
        if (row.pieceId)
          await Part.create(
            {
              pieceId: row.pieceId,
              name,
              fileName: row.fileName,
              fileHash: row.fileHash,
              sculptMesh: body.mesh,
              sculptId: sculpt.id,
            },
            { transaction },
          )
      }
    })
    await announce({ type: 'sculpts' })
    if (row.pieceId) await announce({ type: 'piece', id: row.pieceId })
  }
}

/** The library's entry for a mesh: the one there is, or a new one. */
async function shelved(name: string, mesh: string, from: Intake, transaction: Transaction): Promise<SculptRow> {
  const there = await SculptRow.findOne({ where: { mesh, deletedAt: null }, transaction })
  if (there) return there
  const id = randomUUID()
  return SculptRow.create(
    {
      id,
      family: id,
      mesh,
      fileName: from.fileName,
      fileHash: from.fileHash,
      data: sculptFields.parse({ name: name.slice(0, 120) }),
    },
    { transaction },
  )
}

const rename = (problem: Problem | null | undefined, file: string): Problem | null =>
  problem
    ? {
        code: problem.code,
        message: say(problem.message).startsWith(file)
          ? problem.message
          : message('problems.readSculpt.ofFile', { name: file, message: problem.message }),
      }
    : null

/** Settles what ended just before its worker did: files and parts that still wait for a derivation that is over. */
export async function settleLeftovers(): Promise<void> {
  const waiting = [
    ...(await Intake.findAll({ where: { status: 'waiting' } })).map((i) => i.derivationKey),
    ...(await Part.findAll({ where: { awaiting: { [Op.ne]: null }, deletedAt: null } })).map((p) => p.awaiting!),
  ]
  for (const d of await Derivation.findAll({ where: { key: [...new Set(waiting)], status: ['done', 'failed'] } }))
    await settle(d)
}
