import { defineStore } from 'pinia'
import { computed, proxyRefs } from 'vue'
import { judge, type Judged } from '../../core/findings/judge'
import type { PieceStage } from '../../core/stages'
import { useAssembly } from './assembly'
import { useCleaning } from './cleaning'
import { benchFacts } from './facts/benchFacts'
import { hollowFacts } from './facts/hollowFacts'
import { runFacts } from './facts/runFacts'
import { sculptFacts } from './facts/sculptFacts'
import { sliceFacts } from './facts/sliceFacts'
import { orientFacts } from './facts/orientFacts'
import { stepFact } from '../composables/facts'
import { mapped } from '../../core/findings/facts'
import { useInspection } from './inspection'
import { usePaintOrder } from './paintOrder'
import { usePiece } from './piece'
import { useScheme } from './scheme'

/** The other places where findings are shown give their own facts. */
type AllJudged = { [S in PieceStage | 'order']: Judged<S> }

/**
 * What was measured and concluded in every stage of the part on the table, whether or not the stage is open: the list of
 * stages counts it, the stage shows it. Checks are asked as soon as their mesh is there; slicing only on demand.
 */
export const useFindings = defineStore('findings', () => {
  const piece = usePiece(),
    scheme = useScheme(),
    order = usePaintOrder(),
    assembly = useAssembly(),
    inspection = useInspection(),
    cleaning = useCleaning()
  const sculpt = sculptFacts(),
    hollow = hollowFacts(),
    standing = orientFacts(),
    slices = sliceFacts(standing.orientedSize),
    runs = runFacts(),
    bench = benchFacts()

  /** The Scale stage as it would be at another factor, stretched otherwise. */
  const sizeAt = (factor: number, axes?: [number, number, number]): Judged<'scale'> =>
    judge('scale', sculpt.sizeAt(factor, axes))
  const at = {
    brief: computed(() => judge('brief', {})),
    import: computed(() => judge('import', sculpt.intake.value)),
    combine: computed(() => judge('combine', assembly.known)),
    pose: computed(() => judge('pose', { pose: mapped(stepFact('pose', piece.counted('pose')), (r) => r.pose) })),
    scale: computed(() => sizeAt(sculpt.scale.value)),
    hollow: computed(() => judge('hollow', hollow.core.value)),
    orient: computed(() => judge('orient', standing.stand.value)),
    plates: computed(() => judge('plates', slices.plates.value)),
    print: computed(() => judge('print', runs.print.value)),
    clean: computed(() => judge('clean', cleaning.known)),
    prime: computed(() => judge('prime', inspection.known)),
    scheme: computed(() => judge('scheme', scheme.known)),
    order: computed(() => judge('order', order.known)),
    plan: computed(() => judge('plan', bench.value)),
  }
  return {
    // Each stage on its own: news of one does not draw the others again.
    byStage: proxyRefs(at) as AllJudged,
    sizeAt,
    taken: sculpt.taken,
    suggestedVoxel: sculpt.suggestedVoxel,
    health: sculpt.health.report,
    healthProblem: sculpt.health.problem,
    thin: sculpt.thin.report,
    size: sculpt.size,
    measures: sculpt.measures,
    thinnessAt: sculpt.thinnessAt,
    layersProblem: standing.layers.problem,
    layers: standing.layers.report,
    down: hollow.down,
    drained: hollow.drained.report,
    drainedProblem: hollow.drained.problem,
    sliced: slices.sliced,
    sliceReport: slices.report,
    slice: slices.slice,
  }
})
