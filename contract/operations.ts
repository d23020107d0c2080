import { z } from 'zod'
import { operation, type Operation } from '../core/operations/registry'

export { operation } from '../core/operations/registry'
export type { OperationInput } from '../core/operations/registry'
/** An operation record as it is stored. */
export type OperationRecord = Operation
export const operationList = z.array(operation).max(200)
