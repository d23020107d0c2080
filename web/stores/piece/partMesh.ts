import type { PartRecord } from '../../../contract/pieces'
import { hasNoBody, isLeftOut } from '../../../core/operations/failed'
import { rankOf, type OperationKind } from '../../../core/operations/registry'

type Kind = OperationKind

type Step = PartRecord['steps'][number]

/** The steps that give the part its form, in order: without those that failed, and those left out with them. */
function* formed(part: PartRecord | null): Generator<Step> {
  const failed: Kind[] = []
  for (const s of part?.steps ?? [])
    if (s.derivation?.status === 'failed') failed.push(s.op.kind)
    else if (!isLeftOut(s.op.kind, failed)) yield s
}
const failedKinds = (part: PartRecord | null, counts: (kind: Kind) => boolean): Kind[] =>
  failedSteps(part).flatMap(({ op }) => (counts(op.kind) ? [op.kind] : []))

/**
 * The mesh of a part after all operations that count, as far as they did not fail; null while one of them is not done, and
 * where the one that makes the body failed.
 */
export function meshOf(part: PartRecord | null, counts: (kind: Kind) => boolean): string | null {
  if (hasNoBody(failedKinds(part, counts))) return null
  let mesh = part?.sculptMesh ?? null
  for (const s of formed(part)) {
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
  for (const s of formed(part)) {
    if (out[0] === mesh || s.derivation?.status !== 'done' || !s.derivation.meshHash) break
    if (s.derivation.meshHash !== out[0]) out.unshift(s.derivation.meshHash)
  }
  return out[0] === mesh ? out : []
}

/** The step of that kind that counts: one that failed, or was left out with another, is as if it were not there. */
export const countedStep = (part: PartRecord | null, kind: Kind): Step | null =>
  [...formed(part)].find((s) => s.op.kind === kind) ?? null

/** The operations of the list that failed, with why, each with its place in the list. */
export const failedSteps = (part: PartRecord | null): (Step & { index: number })[] =>
  (part?.steps ?? []).flatMap((s, index) => (s.derivation?.status === 'failed' ? [{ ...s, index }] : []))

/** Its first step that is not done was never asked for. */
export const isUnasked = (part: PartRecord): boolean =>
  [...formed(part)].find((s) => s.derivation?.status !== 'done')?.derivation === null
