import { text } from '../../i18n'
import { issueSaid } from '../../../contract/issues'
import { say } from '../../../core/words/say'
import { manner } from '../../manner'
import { operation, type OperationInput } from '../../../contract/operations'
import type { PartRecord } from '../../../contract/pieces'
import { hasNoBody } from '../../../core/operations/failed'
import { rankOf, REPEATED, type OperationKind } from '../../../core/operations/registry'
import { useDerivations } from '../derivations'
import type { OpenPiece } from './openPiece'
import { failedSteps, meshOf } from './partMesh'

/** ms between two looks at whether a step has been computed */
const LOOK_AGAIN = 120

/** Operations computed before they are put into a part's list, so that what fails never gets there. */
export function trials({ problem, guarded }: OpenPiece, partOf: (id: string) => PartRecord | null) {
  const derivations = useDerivations()

  /** Computes the operation on a part without putting it into its list; says why not when it cannot be. */
  async function tryOnly(input: OperationInput, of: PartRecord | null): Promise<boolean> {
    const read = operation.safeParse(input)
    if (!read.success) {
      problem.value = text('piece.trials.thisCannotBeDone', { issues: say(issueSaid(read.error.issues[0]!), manner) })
      return false
    }
    const op = read.data
    // A kind that may be repeated comes after the others of its kind; any other takes the place of the one there is.
    const counts = (k: OperationKind): boolean =>
      REPEATED.includes(op.kind) ? rankOf(k) <= rankOf(op.kind) : rankOf(k) < rankOf(op.kind)
    const mesh = of && (await meshOnceMade(of.id, counts))
    if (!mesh) {
      problem.value = text('piece.trials.anEarlierStepHas')
      return false
    }
    return (await tryOn(mesh, op)) !== null
  }
  /** The part's mesh after the operations that count, waited for while one is computed; null where it has no body. */
  async function meshOnceMade(id: string, counts: (kind: OperationKind) => boolean): Promise<string | null> {
    for (;;) {
      const p = partOf(id)
      const mesh = meshOf(p, counts)
      const failed = failedSteps(p).flatMap(({ op }) => (counts(op.kind) ? [op.kind] : []))
      if (mesh || !p || hasNoBody(failed)) return mesh
      await new Promise((r) => setTimeout(r, LOOK_AGAIN))
    }
  }
  /** The hash of what an operation makes of a mesh; null, with the reason said, when it cannot. */
  async function tryOn(mesh: string, input: OperationInput): Promise<string | null> {
    let made: string | null = null
    await guarded(async () => {
      made = (await derivations.tried(mesh, operation.parse(input))).meshHash
    })
    return made
  }
  return { tryOnly, tryOn }
}
