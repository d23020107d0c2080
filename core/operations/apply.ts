import { bad, good, silent, type Answer, type Report } from '../answer'
import { transferColours } from '../mesh/transferColours'
import { measure } from '../mesh/measure'
import { isCloud, type Mesh } from '../mesh/mesh'
import type { OperationDefinition } from './operation'
import { operationOf, type Operation, type OperationReport } from './registry'
import { message } from '../words/message'

/**
 * Applies one operation. The input is never changed; a problem leaves nothing behind. Colours of the sculpt go along.
 *
 * @param others meshes that `othersOf` names, in its order
 */
export async function applyOperation(
  mesh: Mesh,
  op: Operation,
  progress: Report = silent,
  others: readonly Mesh[] = [],
): Promise<Answer<{ mesh: Mesh; report: OperationReport }>> {
  const definition = operationOf(op.kind) as unknown as OperationDefinition
  if (isCloud(mesh) && !definition.clouds) return bad('cloud-no-surface', message('problems.apply.thisIsACloudOf'))
  const made = await definition.apply({ mesh, op, others, progress })
  if (!made.ok) return made
  const result = transferColours(mesh, made.value.mesh)
  const report = { kind: op.kind, measures: measure(result), ...(made.value.report as object) } as OperationReport
  return good({ mesh: result, report })
}
