import { readFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import type { z } from 'zod'
import type { OperationRecord } from '../contract/operations'
import { bad, good, type Answer } from '../core/answer'
import { readSculpt } from '../core/formats/readSculpt'
import { concatenate, type Mesh } from '../core/mesh/mesh'
import { issueSaid } from '../contract/issues'
import { message } from '../core/words/message'

/** Bodies that a join names by files beside its operation list. */
export async function loadOthers(op: OperationRecord, beside: string): Promise<Answer<Mesh[]>> {
  const meshes: Mesh[] = []
  for (const { part } of op.kind === 'join' ? op.others : []) {
    const m = await load(join(beside, part))
    if (!m.ok) return m
    meshes.push(m.value)
  }
  return good(meshes)
}

/** A sculpt file as one mesh. */
export async function load(path: string): Promise<Answer<Mesh>> {
  try {
    const bodies = readSculpt(basename(path), new Uint8Array(await readFile(path)))
    return bodies.ok
      ? good(bodies.value.length === 1 ? bodies.value[0]!.mesh : concatenate(bodies.value.map((b) => b.mesh)))
      : bodies
  } catch (error) {
    return bad(
      'file-unreadable',
      message('cli.file.cannotOpen', { path, why: (error as NodeJS.ErrnoException).code ?? 'none' }),
    )
  }
}

export async function loadJson<T>(path: string, schema: z.ZodType<T>): Promise<Answer<T>> {
  let text: string
  try {
    text = await readFile(path, 'utf8')
  } catch {
    return bad('file-unreadable', message('cli.file.cannotOpen', { path, why: 'none' }))
  }
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (e) {
    return bad('json-bad', message('cli.file.notJson', { path, why: (e as Error).message }))
  }
  const parsed = schema.safeParse(value)
  if (parsed.success) return good(parsed.data)
  const issue = parsed.error.issues[0]!
  const where = issue.path.join('.') || message('cli.file.top')
  return bad('json-schema', message('cli.file.schema', { path, where, what: issueSaid(issue, false) }))
}
