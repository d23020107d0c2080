import type { PartRecord } from '../../../contract/pieces'
import { rankOf, type OperationKind } from '../../../core/operations/registry'

type Kind = OperationKind

/** The mesh of a part after all operations that count; null while one of them is not done. */
export function meshOf(part: PartRecord | null, counts: (kind: Kind) => boolean): string | null {
  let mesh = part?.sculptMesh ?? null
  for (const s of part?.steps ?? []) {
    if (!counts(s.op.kind)) break
    if (s.derivation?.status !== 'done' || !s.derivation.meshHash) return null
    mesh = s.derivation.meshHash
  }
  return mesh
}
/** Mesh that goes into the operation of that kind: the last one derived before its place. */
export const meshBefore = (part: PartRecord | null, kind: Kind): string | null =>
  meshOf(part, (k) => rankOf(k) < rankOf(kind))
/** Mesh after all operations up to that kind; null while one of them is not done. */
export const meshAfter = (part: PartRecord | null, kind: Kind): string | null =>
  meshOf(part, (k) => rankOf(k) <= rankOf(kind))

/**
 * A mesh of the part, what it was made of, and so on back to the sculpt. Empty where the part's steps do not lead to it:
 * what is on the table may be older than the list, or wait for a step that is still computed.
 */
export function chainOf(part: PartRecord | null, mesh: string): string[] {
  const out = part ? [part.sculptMesh] : []
  for (const s of part?.steps ?? []) {
    if (out[0] === mesh || s.derivation?.status !== 'done' || !s.derivation.meshHash) break
    if (s.derivation.meshHash !== out[0]) out.unshift(s.derivation.meshHash)
  }
  return out[0] === mesh ? out : []
}

/** The first operation of the list that failed, with why. */
export const failedStep = (part: PartRecord | null): PartRecord['steps'][number] | null =>
  part?.steps.find((s) => s.derivation?.status === 'failed') ?? null

/** Its first step that is not done was never asked for. */
export const isUnasked = ({ steps }: PartRecord): boolean =>
  steps.find((s) => s.derivation?.status !== 'done')?.derivation === null
