import { z } from 'zod'
import { checkOf, type CheckKind, type CheckReport } from '../core/checks/registry'
import { operationOf, type OperationKind, type OperationReport } from '../core/operations/registry'
import { measures } from '../core/schemas/geometry'

export { check, type Check } from '../core/checks/registry'

/** An operation, or a check. */
export type DerivationKind = OperationKind | CheckKind
/** What a derivation of a kind reports. */
export type ReportOf<K extends DerivationKind> = K extends OperationKind
  ? OperationReport<K>
  : K extends CheckKind
    ? CheckReport<K>
    : never

const schemas = new Map<string, z.ZodType | null>()
/** Schema of what a kind reports; null of a kind that is not known. */
export function reportSchema(kind: string): z.ZodType | null {
  const known = schemas.get(kind)
  if (known !== undefined) return known
  const own = operationOf(kind)?.report
  const made = own
    ? z.intersection(z.object({ kind: z.literal(kind), measures }), own)
    : (checkOf(kind)?.report ?? null)
  schemas.set(kind, made)
  return made
}

export const derivationStatus = z.enum(['waiting', 'running', 'done', 'failed'])
const record = z.object({
  key: z.string(),
  kind: z.string(),
  status: derivationStatus,
  progress: z.number(),
  meshHash: z.string().nullable(),
  /** name → blob hash of what else was made (a zip, an export, vertex maps) */
  blobs: z.record(z.string(), z.string()),
  /** as its kind has it once it is done; null before */
  report: z.json().nullable(),
  problem: z.object({ code: z.string(), message: z.string() }).nullable(),
})
/** A derivation as it crosses the API, with a report by its kind. */
export type DerivationRecord<K extends DerivationKind = DerivationKind> = Omit<
  z.output<typeof record>,
  'kind' | 'report'
> & { kind: K; report: ReportOf<K> | null }

export const derivation = record.superRefine((d, c) => {
  if (d.status !== 'done') return
  const r = reportSchema(d.kind)?.safeParse(d.report)
  if (r?.success === false)
    for (const issue of r.error.issues) c.addIssue({ ...issue, path: ['report', ...issue.path] } as never)
}) as unknown as z.ZodType<DerivationRecord>

/** Whether a derivation is of that kind. */
export const isOf = <K extends DerivationKind>(d: DerivationRecord, kind: K): d is DerivationRecord<K> =>
  (d.kind as string) === kind

/** What a derivation of that kind reports; null while it is not done, or where it is of another kind. */
export const reportOf = <K extends DerivationKind>(
  d: DerivationRecord | null | undefined,
  kind: K,
): ReportOf<K> | null => (d && d.status === 'done' && isOf(d, kind) ? d.report : null)
