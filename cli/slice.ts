import { open, rename, rm } from 'node:fs/promises'
import { extname } from 'node:path'
import { Zip, ZipPassThrough } from 'fflate'
import type { z } from 'zod'
import { printerFile } from '../contract/stock'
import { good, type Answer } from '../core/answer'
import { manifest } from '../core/print/slice/manifest'
import { outlineStack } from '../core/print/slice/outlineStack'
import type { Mesh } from '../core/mesh/mesh'
import { slice, type SliceReport } from '../core/print/slice/slice'
import { usage, line, type Call } from './call'
import { load, loadJson } from './files'
import { CANNOT_WRITE, unwritable, writeReport } from './results'
import { fixed } from '../core/words/format'
import { message } from '../core/words/message'

type Setting = z.infer<typeof printerFile>
type Put = (bytes: Uint8Array) => Promise<void>
interface Outcome {
  told: (file: string) => string
  report: unknown
}

/** Slices a body for a printer: pictures, or outlines. */
export async function sliceCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [file] = words,
    target = flags.get('o'),
    printerPath = flags.get('printer')
  if (!file || !target || !printerPath) return fail(usage('cli.usage.slice'), 2)
  const kind = extname(target).toLowerCase()
  if (!['.zip', '.3mf', '.svg'].includes(kind))
    return fail({ code: 'format-unknown', message: message('cli.file.layers', { path: target }) }, 2)
  const printer = await loadJson(printerPath, printerFile)
  if (!printer.ok) return fail(printer.problem, 2)
  const mesh = await load(file)
  if (!mesh.ok) return fail(mesh.problem, 2)
  const r: Answer<Outcome> =
    kind === '.zip'
      ? await into(target, (put) => pictures(mesh.value, printer.value, put))
      : await into(target, (put) => stack(mesh.value, printer.value, kind as '.3mf' | '.svg', put))
  if (!r.ok) return fail(r.problem, r.problem.code === CANNOT_WRITE ? 2 : 1)
  const noted = await writeReport(flags, r.value.report)
  if (noted) return fail(noted, 2)
  out(`${r.value.told(target)}\n`)
  return 0
}

const tellPictures =
  (r: SliceReport) =>
  (file: string): string =>
    line('cli.slice.pictures', {
      file,
      layers: r.layers,
      hours: fixed(r.seconds / 3600, 1),
      resin: fixed(r.resinMl, 1),
      islands: r.islands.length,
      cups: r.cups.length,
    })

/** Writes beside the target as the bytes come, and moves there when whole. */
async function into<T>(target: string, work: (put: Put) => Promise<Answer<T>>): Promise<Answer<T>> {
  const beside = `${target}.part`
  const file = await open(beside, 'w').catch((error: unknown) => unwritable(target, error))
  if ('code' in file) return { ok: false, problem: file }
  try {
    const r = await work((bytes) => file.appendFile(bytes))
    await file.close()
    if (r.ok) await rename(beside, target)
    return r
  } catch (error) {
    return { ok: false, problem: unwritable(target, error) }
  } finally {
    await file.close().catch(() => undefined)
    await rm(beside, { force: true })
  }
}

async function pictures(mesh: Mesh, printer: Setting, put: Put): Promise<Answer<Outcome>> {
  const chunks: Uint8Array[] = []
  const zip = new Zip((error, chunk) => {
    if (error) throw error
    chunks.push(chunk)
  })
  const flush = async (): Promise<void> => {
    for (const c of chunks.splice(0)) await put(c)
  }
  const add = async (name: string, bytes: Uint8Array): Promise<void> => {
    const entry = new ZipPassThrough(name)
    zip.add(entry)
    entry.push(bytes, true)
    await flush()
  }
  const r = await slice(mesh, printer, printer.resin, add)
  if (!r.ok) return r
  await add(
    'manifest.json',
    new TextEncoder().encode(JSON.stringify(manifest(printer, printer.resin, r.value), null, 1)),
  )
  zip.end()
  await flush()
  return good({ told: tellPictures(r.value), report: r.value })
}

async function stack(mesh: Mesh, printer: Setting, kind: '.3mf' | '.svg', put: Put): Promise<Answer<Outcome>> {
  const r = await outlineStack(mesh, printer, kind === '.3mf' ? '3mf' : 'svg', put)
  if (!r.ok) return r
  const { layers } = r.value
  return good({ told: (file) => line('cli.slice.outlines', { file, layers }), report: r.value })
}
