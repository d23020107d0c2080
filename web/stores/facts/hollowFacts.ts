import { computed } from 'vue'
import { NONE, mapped } from '../../../core/findings/facts'
import type { KnownAt } from '../../../core/findings/judge'
import { apply3, fromQuaternion } from '../../../core/math/vectors'
import { checkFact, stepFact } from '../../composables/facts'
import { useCheck } from '../../composables/useCheck'
import { usePiece } from '../piece'

/** What is known of the cavity of the part on the table, and of what stays in it. */
export function hollowFacts() {
  const piece = usePiece()
  /** The part hangs as it was stood; before that it is taken as upright. In its own frame. */
  const down = computed<[number, number, number]>(() => {
    const o = piece.counted('orient')?.op
    if (o?.kind !== 'orient') return [0, 0, -1]
    const [x, y, z, w] = o.quaternion
    return apply3(fromQuaternion([-x, -y, -z, w]), [0, 0, -1])
  })
  const drained = useCheck(
    () => (piece.counted('drill') ? piece.meshAfter('drill') : null),
    () => ({ kind: 'trapped', down: down.value }),
  )
  const core = computed<KnownAt<'hollow'>>(() => {
    const op = piece.counted('hollow')?.op,
      drill = stepFact('drill', piece.counted('drill'))
    return {
      hollow: mapped(stepFact('hollow', piece.counted('hollow')), (r) => ({
        report: r.hollow,
        voxel: op?.kind === 'hollow' ? op.voxel : 0,
        holes: piece.report('drill')?.drill.holes.length ?? 0,
      })),
      // Without holes nothing drains: the rule on holes says so.
      drainage: drill.state === 'known' ? checkFact(drained, NONE) : drill,
    }
  })
  return { down, drained, core }
}
