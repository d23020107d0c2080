import { operationOf, type OperationKind } from './registry'

/**
 * Whether an operation is left out because of earlier ones of its list that failed. Others go on from the last result that
 * there is: a wall that is too thick for a body keeps nobody from supporting it.
 *
 * @param failed kinds of the operations before it that failed
 */
export const isLeftOut = (kind: OperationKind, failed: readonly OperationKind[]): boolean =>
  hasNoBody(failed) || operationOf(kind)!.buildsOn.some((k) => failed.some((f) => f === k))

/** Whether nothing is left to work on: what makes the body failed. */
export const hasNoBody = (failed: readonly OperationKind[]): boolean =>
  failed.some((k) => operationOf(k)?.makes ?? false)
