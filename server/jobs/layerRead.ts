import { QueryTypes } from 'sequelize'
import { readEntry, zipDirectory, type ByteSource, type ZipEntry } from '../../core/formats/zipDirectory'
import { layerFiles, MAX_LAYER } from '../../core/print/slice/readLayers'
import { blobSize } from '../data/blobs'
import { database } from '../data/database'

const CHUNK = 4 * 1024 * 1024
/** Layers of the archives looked at last, in order, so that scrubbing reads each directory only once. */
const directories = new Map<string, ZipEntry[]>()

/** A stored blob, read by its place. Null when it is not there. */
export async function blobSource(hash: string): Promise<ByteSource | null> {
  const size = await blobSize(hash)
  return size === null ? null : { size, read: (from, length) => range(hash, from, Math.min(length, size - from)) }
}

/** One layer of a stored archive, whoever made it, without touching the rest. Null when there is no such layer. */
export async function layerOf(hash: string, index: number): Promise<Uint8Array | null> {
  const source = await blobSource(hash)
  if (!source) return null
  let layers = directories.get(hash)
  if (!layers) {
    const read = await zipDirectory(source)
    layers = read.ok ? layerFiles(read.value) : []
    directories.set(hash, layers)
    if (directories.size > 8) directories.delete(directories.keys().next().value!)
  }
  const entry = layers[index]
  const bytes = entry ? await readEntry(source, entry, MAX_LAYER) : null
  return bytes?.ok ? bytes.value : null
}

/** Bytes from..from + length of a blob, from the chunks that hold them. */
async function range(hash: string, from: number, length: number): Promise<Uint8Array> {
  if (length <= 0) return new Uint8Array()
  const first = Math.floor(from / CHUNK),
    last = Math.floor((from + length - 1) / CHUNK)
  const rows = await database.query<{ bytes: Buffer }>(
    `SELECT CASE WHEN $2::int = $3::int THEN substring(c.bytes from $4::int for $5::int) ELSE c.bytes END AS bytes
     FROM blob b JOIN blob_chunk c ON c.id = b.id WHERE b.hash = $1 AND c.n BETWEEN $2 AND $3 ORDER BY c.n`,
    { bind: [hash, first, last, from - first * CHUNK + 1, length], type: QueryTypes.SELECT },
  )
  const all = Buffer.concat(rows.map((r) => r.bytes))
  return new Uint8Array(first === last ? all : all.subarray(from - first * CHUNK, from - first * CHUNK + length))
}
