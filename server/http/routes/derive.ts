import { Router } from 'express'
import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import { z } from 'zod'
import { check, derivation } from '../../../contract/derivations'
import { operation } from '../../../contract/operations'
import { othersOf } from '../../../core/operations/registry'
import { inputsOf } from '../../../core/checks/registry'
import { askAgain, current, derivationKey, ensure, publicDerivation } from '../../jobs/derivations'
import { announce } from '../../data/events'
import { blobSize, putStream, readStream, TooLarge } from '../../data/blobs'
import { database } from '../../data/database'
import { Derivation } from '../../data/models'
import { layerOf } from '../../jobs/layerRead'
import { notFound, Refusal } from '../../domain/refusal'
import { endpoint } from '../route'
import { message } from '../../../core/words/message'

export const derive = Router()
const hash = z.string().regex(/^[0-9a-f]{64}$/)
/** Largest photo or label map, bytes. */
const SMALL_LIMIT = 40_000_000

endpoint(
  derive,
  'post',
  '/checks',
  'Ask a check of a mesh',
  { body: z.object({ mesh: hash, check }), reply: derivation },
  async (_req, body) => {
    const inputs = [body.mesh, ...inputsOf(body.check)]
    for (const h of inputs) if ((await blobSize(h)) === null) throw notFound('mesh')
    const { kind, ...params } = body.check
    return publicDerivation(await ensure(kind, params, inputs, true))
  },
)

endpoint(
  derive,
  'post',
  '/trials',
  'Try an operation on a mesh before it goes into a list; its result is then there already',
  { body: z.object({ mesh: hash, op: operation }), reply: derivation },
  async (_req, body) => {
    const inputs = [body.mesh, ...othersOf(body.op)]
    for (const h of inputs) if ((await blobSize(h)) === null) throw notFound('mesh')
    const { kind, ...params } = body.op
    return publicDerivation(await ensure(kind, params, inputs, true))
  },
)

endpoint(
  derive,
  'post',
  '/checks/known',
  'A check of a mesh if it was asked before; null otherwise',
  { body: z.object({ mesh: hash, check }), reply: derivation.nullable() },
  async (_req, body) => {
    const { kind, ...params } = body.check
    const row = await Derivation.findByPk(derivationKey(kind, params, [body.mesh, ...inputsOf(body.check)]))
    return row ? publicDerivation(await current(row)) : null
  },
)

endpoint(derive, 'get', '/derivations/:key', 'A derivation as it stands', { reply: derivation }, async (req) => {
  const row = await Derivation.findByPk(req.params.key!)
  if (!row) throw notFound('result')
  return publicDerivation(await current(row))
})

endpoint(derive, 'post', '/derivations/:key/cancel', 'Stop a derivation', {}, async (req) => {
  const row = await Derivation.findByPk(req.params.key!)
  if (!row || (row.status !== 'running' && row.status !== 'waiting')) return undefined
  if (row.status === 'waiting') {
    await row.update({
      status: 'failed',
      problem: { code: 'cancelled', message: message('problems.runKernel.cancelled') },
    })
    await announce({ type: 'derivation', key: row.key, status: 'failed', progress: 0 })
  } else await database.query('SELECT pg_notify($1, $2)', { bind: ['undercut_cancel', row.key] })
  return undefined
})

endpoint(
  derive,
  'post',
  '/derivations/:key/retry',
  'Run a failed derivation again',
  { reply: derivation },
  async (req) => {
    const row = await Derivation.findByPk(req.params.key!)
    if (!row) throw notFound('result')
    if (row.status === 'failed') await askAgain(row)
    return publicDerivation(row)
  },
)

endpoint(
  derive,
  'get',
  '/blobs/:hash',
  'Bytes of the store (?download= gives them a file name)',
  { query: z.object({ download: z.string().optional(), type: z.string().optional() }) },
  async (req, _body, res, { download, type: asked }) => {
    const size = await blobSize(hash.parse(req.params.hash))
    if (size === null) throw notFound('file')
    const name = download === undefined ? null : download.replace(/[^\w.\- ]+/g, '_').slice(0, 120)
    const type = asked !== undefined && /^image\/(png|jpeg|webp)$/.test(asked) ? asked : 'application/octet-stream'
    // Content never changes under its hash.
    res.writeHead(200, {
      'content-type': type,
      'content-length': size,
      'cache-control': 'private, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
      ...(name ? { 'content-disposition': `attachment; filename="${name}"` } : {}),
    })
    await pipeline(Readable.from(readStream(req.params.hash!)), res)
    return undefined
  },
)

endpoint(
  derive,
  'post',
  '/blobs',
  'Store a small file: a photo, a label map (raw body)',
  { reply: z.object({ hash, size: z.number() }) },
  async (req) => {
    try {
      return await putStream(req.iterator({ destroyOnReturn: false }), SMALL_LIMIT)
    } catch (error) {
      if (error instanceof TooLarge)
        throw new Refusal(
          413,
          'file-too-large',
          message('refusals.derive.theFileIsLargerThan', { small_limit: SMALL_LIMIT / 1e6 }),
        )
      throw error
    }
  },
)

/** Largest layer archive from elsewhere, bytes. */
const ARCHIVE_LIMIT = 8_000_000_000
endpoint(
  derive,
  'post',
  '/archives',
  'Store a layer archive made elsewhere, to be looked into (raw body)',
  { reply: z.object({ hash, size: z.number() }) },
  async (req) => {
    try {
      return await putStream(req.iterator({ destroyOnReturn: false }), ARCHIVE_LIMIT)
    } catch (error) {
      if (error instanceof TooLarge)
        throw new Refusal(
          413,
          'file-too-large',
          message('refusals.derive.theArchiveIsLargerThan', { archive_limit: ARCHIVE_LIMIT / 1e9 }),
        )
      throw error
    }
  },
)

endpoint(derive, 'get', '/layers/:hash/:index', 'One layer of an archive as PNG', {}, async (req, _body, res) => {
  const bytes = await layerOf(hash.parse(req.params.hash), z.coerce.number().int().min(0).parse(req.params.index))
  if (!bytes) throw notFound('layer')
  res.writeHead(200, {
    'content-type': 'image/png',
    'content-length': bytes.length,
    'cache-control': 'private, max-age=31536000, immutable',
  })
  res.end(bytes)
  return undefined
})
