import { open, type FileHandle } from 'node:fs/promises'
import { createWriteStream } from 'node:fs'
import { Transform, type Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { layerManifest, type LayerManifest } from '../../contract/manifest'
import { bad, good, type Answer } from '../../core/answer'
import { entryStart, readEntry, zipDirectory, type ByteSource, type ZipEntry } from '../../core/formats/zipDirectory'
import { MAX_LAYER } from '../../core/print/slice/readLayers'
import { Refusal } from '../domain/refusal'
import { fixed } from '../../core/words/format'
import { message } from '../../core/words/message'

const MAX_MANIFEST = 50_000_000
/** Largest job, bytes. */
export const MAX_JOB = 32_000_000_000

/** A file read by its place, never whole. */
export async function fileSource(path: string): Promise<{ source: ByteSource; file: FileHandle }> {
  const file = await open(path, 'r')
  const { size } = await file.stat()
  return {
    file,
    source: {
      size,
      read: async (from, length) => {
        const bytes = new Uint8Array(Math.max(0, Math.min(length, size - from)))
        await file.read(bytes, 0, bytes.length, from)
        return bytes
      },
    },
  }
}

/**
 * Takes bytes of a job from where it has come to; gives how many there are then. What breaks off in the middle stays, and is
 * gone on with from there.
 */
export async function receive(path: string, from: number, total: number, body: Readable): Promise<void> {
  let at = from
  const count = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      at += chunk.length
      if (at > total) done(new Refusal(413, 'job-longer', message('refusals.job.moreCameThanWasAnnounced')))
      else done(null, chunk)
    },
  })
  try {
    await pipeline(body, count, createWriteStream(path, { flags: from === 0 ? 'w' : 'r+', start: from }))
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOSPC')
      throw new Refusal(507, 'device-full', message('refusals.job.thePrinterSMemoryIs'))
    throw error
  }
}

export interface PrinterFigures {
  pixels: readonly [number, number]
  pitch: readonly [number, number]
  height: number
}

/** Looks a job through as a printer does before it says yes: its manifest, that every layer is there, and has the panel's size. */
export async function checkJob(
  source: ByteSource,
  printer: PrinterFigures,
): Promise<Answer<{ manifest: LayerManifest; layers: ZipEntry[] }>> {
  const directory = await zipDirectory(source)
  if (!directory.ok) return directory
  const byName = new Map(directory.value.map((e) => [e.name, e]))
  const entry = byName.get('manifest.json')
  if (!entry) return bad('job-no-manifest', message('problems.job.theJobHasNoManifest'))
  const bytes = await readEntry(source, entry, MAX_MANIFEST)
  if (!bytes.ok) return bytes
  let raw: unknown
  try {
    raw = JSON.parse(new TextDecoder().decode(bytes.value))
  } catch {
    raw = null
  }
  const parsed = layerManifest.safeParse(raw)
  if (!parsed.success) return bad('job-manifest', message('problems.job.theJobSManifestCannot'))
  const m = parsed.data
  if (m.printer.pixels[0] !== printer.pixels[0] || m.printer.pixels[1] !== printer.pixels[1])
    return bad(
      'job-pixels',
      message('problems.job.theJobWasSlicedFor', {
        pixels: m.printer.pixels.join(' × '),
        pixels2: printer.pixels.join(' × '),
      }),
    )
  if (m.printer.pitch.some((p, k) => Math.abs(p / printer.pitch[k]! - 1) > 0.001))
    return bad(
      'job-pitch',
      message('problems.job.theJobWasSlicedFor2', {
        pitch: m.printer.pitch.join(' × '),
        pitch2: printer.pitch.join(' × '),
      }),
    )
  const tall = m.layers * m.layerHeight
  if (tall > printer.height + 1e-6)
    return bad('job-tall', message('problems.job.theJobIsMmTall', { tall: fixed(tall, 1), height: printer.height }))
  if (m.files.length !== m.layers) return bad('job-manifest', message('problems.job.theJobSManifestNames'))
  const layers: ZipEntry[] = []
  for (const { file } of m.files) {
    const layer = byName.get(file)
    if (!layer)
      return bad('job-layer-missing', message('problems.job.layerIsMissingInThe', { layers: layers.length + 1 }))
    const size = await pngSize(source, layer)
    if (!size || size[0] !== printer.pixels[0] || size[1] !== printer.pixels[1])
      return bad('job-layer-size', message('problems.job.layerIsNoPictureOf', { layers: layers.length + 1 }))
    layers.push(layer)
  }
  return good({ manifest: m, layers })
}

/** Width and height from a stored PNG's first chunk; null where there is none. */
async function pngSize(source: ByteSource, entry: ZipEntry): Promise<[number, number] | null> {
  let head: Uint8Array
  if (entry.method === 0) {
    const start = await entryStart(source, entry)
    if (start === null) return null
    head = await source.read(start, 24)
  } else {
    const all = await readEntry(source, entry, MAX_LAYER)
    if (!all.ok) return null
    head = all.value
  }
  if (head.length < 24 || head[0] !== 0x89 || head[1] !== 0x50) return null
  const view = new DataView(head.buffer, head.byteOffset, head.byteLength)
  return [view.getUint32(16), view.getUint32(20)]
}

/** Machine time of layers from..to, s: exposures and motion, by what the manifest says. */
export function plannedSeconds(m: LayerManifest, from: number, to: number): number {
  let s = 0
  for (let i = from; i < to; i++) s += layerSeconds(m, i)
  return s
}
export const layerSeconds = (m: LayerManifest, i: number): number =>
  (i < m.bottomLayers ? m.bottomExposure : m.exposure) + m.motion.lift + m.motion.retract + m.motion.rest
