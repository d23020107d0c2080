import { rename, rm, writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import type { Problem } from '../core/answer'
import { writeObj } from '../core/formats/obj'
import { writePly } from '../core/formats/ply'
import { writeStl } from '../core/formats/stl'
import { write3mf } from '../core/formats/write3mf'
import { writeGlb } from '../core/formats/writeGlb'
import type { Mesh } from '../core/mesh/mesh'
import { message } from '../core/words/message'

export const CANNOT_WRITE = 'file-unwritable'
export const unwritable = (path: string, error: unknown): Problem => ({
  code: CANNOT_WRITE,
  message: message('cli.file.cannotWrite', { path, why: (error as NodeJS.ErrnoException).code ?? String(error) }),
})

const WRITERS: Record<string, (m: Mesh) => Uint8Array> = {
  '.stl': writeStl,
  '.obj': (m) => writeObj(m),
  '.ply': writePly,
  '.glb': (m) => writeGlb(m),
  '.3mf': write3mf,
}
/** What writes a body by the ending of its file, or the problem that none does. */
export const writerFor = (path: string): ((m: Mesh) => Uint8Array) | Problem =>
  WRITERS[extname(path).toLowerCase()] ?? {
    code: 'format-unknown',
    message: message('cli.file.results', { path }),
  }

/** Writes beside the target and moves there when whole, so that a half result never stands under its name. */
export async function write(path: string, content: Uint8Array | string): Promise<Problem | null> {
  const beside = `${path}.part`
  try {
    await writeFile(beside, content)
    await rename(beside, path)
    return null
  } catch (error) {
    await rm(beside, { force: true })
    return unwritable(path, error)
  }
}

/** The report where one is asked for. */
export const writeReport = (flags: ReadonlyMap<string, string>, report: unknown): Promise<Problem | null> => {
  const path = flags.get('report')
  return path === undefined ? Promise.resolve(null) : write(path, JSON.stringify(report, null, 1))
}
