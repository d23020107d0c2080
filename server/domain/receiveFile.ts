import type { Request } from 'express'
import { putStream, TooLarge } from '../data/blobs'
import { ensure, settle } from '../jobs/derivations'
import { announce } from '../data/events'
import { Intake } from '../data/models'
import { Refusal } from './refusal'
import { fixed } from '../../core/words/format'
import { message } from '../../core/words/message'

/** Largest sculpt file that is accepted, bytes. */
export const UPLOAD_LIMIT = 1_000_000_000

/** Stores a dropped file as it streams in and asks for its reading; for a piece, or for the library alone. */
export async function receiveFile(req: Request, pieceId: string | null): Promise<string> {
  const name = String(req.query.name ?? '')
    .split(/[\\/]/)
    .pop()!
    .slice(0, 200)
  if (name === '') throw new Refusal(422, 'no-name', message('refusals.receiveFile.theFileHasNoName'))
  const tooLarge = new Refusal(
    413,
    'file-too-large',
    message('refusals.receiveFile.theFileIsLargerThan', { name, upload_limit: fixed(UPLOAD_LIMIT / 1e9, 0) }),
  )
  if (Number(req.headers['content-length'] ?? 0) > UPLOAD_LIMIT) throw tooLarge
  let stored: { hash: string; size: number }
  try {
    stored = await putStream(req.iterator({ destroyOnReturn: false }), UPLOAD_LIMIT)
  } catch (error) {
    throw error instanceof TooLarge ? tooLarge : error
  }
  const d = await ensure('import', { fileName: name }, [stored.hash], true)
  const row = await Intake.create({ pieceId, fileName: name, fileHash: stored.hash, derivationKey: d.key })
  if (d.status === 'done' || d.status === 'failed') await settle(d)
  await announce(pieceId ? { type: 'piece', id: pieceId } : { type: 'sculpts' })
  return row.id
}
