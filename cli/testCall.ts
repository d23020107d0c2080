import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { run } from './main'

/** A folder of a test's own, files in it, and the command line run with what it says and its exit code. */
export const folder = mkdtempSync(join(tmpdir(), 'undercut-cli-'))
export const file = (name: string, content: string | Uint8Array): string => {
  const p = join(folder, name)
  writeFileSync(p, content)
  return p
}
export const call = async (...args: string[]): Promise<{ code: number; out: string; err: string }> => {
  let out = '',
    err = ''
  const code = await run(
    args,
    (s) => {
      out += s
    },
    (s) => {
      err += s
    },
  )
  return { code, out, err }
}
