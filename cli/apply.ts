import { dirname } from 'node:path'
import { operationList } from '../contract/operations'
import { applyOperation } from '../core/operations/apply'
import type { Operation, OperationReport } from '../core/operations/registry'
import { usage, line, type Call } from './call'
import { load, loadJson, loadOthers } from './files'
import { write, writeReport, writerFor } from './results'
import { message } from '../core/words/message'

/** Applies a list of operation records. Exit 0 done, 1 when one of them refuses, 2 when something cannot be read or written. */
export async function applyCommand({ words, flags, out, fail }: Call): Promise<number> {
  const [opsFile, file] = words,
    target = flags.get('o')
  if (!opsFile || !file || !target) return fail(usage('cli.usage.apply'), 2)
  const ops = await loadJson(opsFile, operationList)
  if (!ops.ok) return fail(ops.problem, 2)
  const writer = writerFor(target)
  if (typeof writer !== 'function') return fail(writer, 2)
  const input = await load(file)
  if (!input.ok) return fail(input.problem, 2)
  let mesh = input.value
  const reports: OperationReport[] = []
  for (const [i, op] of ops.value.entries()) {
    const others = await loadOthers(op, dirname(opsFile))
    if (!others.ok) return fail(others.problem, 2)
    const r = await applyOperation(mesh, op as Operation, undefined, others.value)
    if (!r.ok)
      return fail(
        { ...r.problem, message: message('cli.operation', { n: i + 1, kind: op.kind, what: r.problem.message }) },
        1,
      )
    reports.push(r.value.report)
    mesh = r.value.mesh
  }
  const noted = (await write(target, writer(mesh))) ?? (await writeReport(flags, reports))
  if (noted) return fail(noted, 2)
  out(`${line('cli.applied', { file: target, faces: mesh.triangles.length / 3, operations: reports.length })}\n`)
  return 0
}
