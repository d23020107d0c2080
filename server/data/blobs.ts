import { createHash, randomUUID } from 'node:crypto'
import { QueryTypes } from 'sequelize'
import { database } from './database'

/** Bytes per row: small enough that neither side ever holds a whole file. */
const CHUNK = 4 * 1024 * 1024

export class TooLarge extends Error {
  constructor(readonly limit: number) {
    super('too large')
  }
}

/**
 * Stores a stream under its SHA-256. Chunks go in under a fresh id and become visible only when the last byte is
 * there; a broken upload leaves orphans that the sweep removes, never half a file.
 */
export async function putStream(
  source: AsyncIterable<Uint8Array>,
  limit = Infinity,
): Promise<{ hash: string; size: number }> {
  const id = randomUUID(),
    hash = createHash('sha256')
  let size = 0,
    n = 0,
    pending: Uint8Array[] = [],
    held = 0
  const flush = async (): Promise<void> => {
    if (held === 0) return
    await database.query('INSERT INTO blob_chunk (id, n, bytes) VALUES ($1, $2, $3)', {
      bind: [id, n++, Buffer.concat(pending)],
    })
    pending = []
    held = 0
  }
  try {
    for await (const bytes of source) {
      size += bytes.length
      if (size > limit) throw new TooLarge(limit)
      hash.update(bytes)
      for (let at = 0; at < bytes.length;) {
        const piece = bytes.subarray(at, at + CHUNK - held)
        pending.push(piece)
        held += piece.length
        at += piece.length
        if (held === CHUNK) await flush()
      }
    }
    await flush()
  } catch (error) {
    await database.query('DELETE FROM blob_chunk WHERE id = $1', { bind: [id] })
    throw error
  }
  const digest = hash.digest('hex')
  const rows = await database.query(
    'INSERT INTO blob (hash, id, size) VALUES ($1, $2, $3) ON CONFLICT (hash) DO NOTHING RETURNING hash',
    { bind: [digest, id, size], type: QueryTypes.SELECT },
  )
  if (rows.length === 0) await database.query('DELETE FROM blob_chunk WHERE id = $1', { bind: [id] })
  return { hash: digest, size }
}

export async function putBytes(bytes: Uint8Array): Promise<string> {
  return (
    await putStream(
      (async function* () {
        yield bytes
      })(),
    )
  ).hash
}

export async function blobSize(hash: string): Promise<number | null> {
  const [row] = await database.query<{ size: string }>('SELECT size FROM blob WHERE hash = $1', {
    bind: [hash],
    type: QueryTypes.SELECT,
  })
  return row ? Number(row.size) : null
}

/** Streams a blob chunk by chunk, from a byte on. */
export async function* readStream(hash: string, from = 0): AsyncGenerator<Buffer> {
  const first = Math.floor(from / CHUNK)
  for (let n = first; ; n++) {
    const [row] = await database.query<{ bytes: Buffer }>(
      'SELECT c.bytes FROM blob b JOIN blob_chunk c ON c.id = b.id WHERE b.hash = $1 AND c.n = $2',
      { bind: [hash, n], type: QueryTypes.SELECT },
    )
    if (!row) return
    yield n === first ? row.bytes.subarray(from - first * CHUNK) : row.bytes
  }
}

export async function readBytes(hash: string): Promise<Uint8Array> {
  const size = await blobSize(hash)
  if (size === null) throw new Error(`Blob ${hash} is not in the store.`)
  const out = new Uint8Array(size)
  let at = 0
  for await (const chunk of readStream(hash)) {
    out.set(chunk, at)
    at += chunk.length
  }
  return out
}

/** Removes chunks whose upload never finished, once they are a day old. */
export async function sweepOrphans(): Promise<void> {
  await database.query(
    "DELETE FROM blob_chunk c WHERE c.created_at < now() - interval '1 day' AND NOT EXISTS (SELECT 1 FROM blob b WHERE b.id = c.id)",
  )
}
