import { computed, ref, watch } from 'vue'
import type { JointRecord } from '../../../core/operations/pose'
import type { OperationRecord } from '../../../contract/operations'
import { anglesOf, turnOf, type Angles } from '../../../core/pose/angles'
import { holdsOf, keptInPlace, type Hold } from '../../../core/pose/keepInPlace'
import { strains, withinLimits } from '../../../core/pose/limits'
import { motionsOf } from '../../../core/pose/skeleton'
import { jointAt } from '../../../core/pose/volume'
import { usePiece } from '../../stores/piece'

export type PoseRecord = Extract<OperationRecord, { kind: 'pose' }>
type BrushSpot = PoseRecord['paint'][number]
const copy = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T

/** The pose that is being tried on the part on the table: joints, what holds them, and what the brush said of the skin. */
export function usePosing() {
  const store = usePiece()
  const kept = computed<PoseRecord | null>(() => {
    const op = store.step('pose')?.op
    return op?.kind === 'pose' ? op : null
  })
  const joints = ref<JointRecord[]>([])
  const paint = ref<BrushSpot[]>([])
  const rigid = ref(false)
  const chosen = ref(0)
  /** joints stop where a body's would */
  const limited = ref(true)
  /** joints that stay where they are while others move */
  const holds = ref<Hold[]>([])
  const short = ref<number[]>([])
  watch(
    kept,
    (op) => {
      if (op) reset()
    },
    { immediate: true },
  )
  function reset(): void {
    joints.value = copy(kept.value?.joints ?? [])
    paint.value = copy(kept.value?.paint ?? [])
    rigid.value = kept.value ? kept.value.rigid !== null : false
    holds.value = []
  }
  const changed = computed(
    () =>
      JSON.stringify([joints.value, rigid.value, paint.value]) !==
      JSON.stringify([
        kept.value?.joints ?? [],
        kept.value ? kept.value.rigid !== null : false,
        kept.value?.paint ?? [],
      ]),
  )
  const angles = computed<Angles>(() => anglesOf(joints.value[chosen.value]?.turn ?? [0, 0, 0, 1]))
  const strained = computed(() => strains(joints.value))

  function turn(part: Partial<Angles>): void {
    const j = joints.value[chosen.value]
    if (j) setTurns(new Map([[chosen.value, turnOf({ ...angles.value, ...part })]]))
  }
  /** New turns, kept within limits if wished, and what is held brought back to its place. */
  function setTurns(turns: ReadonlyMap<number, JointRecord['turn']>): void {
    let next = copy(joints.value)
    for (const [i, q] of turns) {
      const was = next[i]!.turn
      next = next.map((j, k) => (k === i ? { ...j, turn: q } : j))
      if (limited.value) next = withinLimits(next, i, was)
    }
    const free = holds.value.filter((h) => !turns.has(h.joint))
    const r = keptInPlace(next, free)
    short.value = r.short
    joints.value = r.joints
  }
  const isHeld = (i: number): boolean => holds.value.some((h) => h.joint === i)
  /** Only a joint with two above it can be held: an ankle or a wrist. */
  const canHold = (i: number): boolean => {
    const parent = joints.value[i]?.parent ?? -1
    return parent >= 0 && joints.value[parent]!.parent >= 0
  }
  function toggleHold(i: number): void {
    holds.value = isHeld(i) ? holds.value.filter((h) => h.joint !== i) : [...holds.value, ...holdsOf(joints.value, [i])]
  }
  /** Where the joints stand as they are turned now, mm. */
  const bent = computed(() => {
    const motions = motionsOf(joints.value)
    return joints.value.map((j, i) => jointAt(j, motions[i]!))
  })
  function drop(i: number): void {
    // What hung on it hangs on its parent.
    joints.value = joints.value
      .map((j) => ({ ...j, parent: j.parent === i ? joints.value[i]!.parent : j.parent }))
      .filter((_, k) => k !== i)
      .map((j) => ({ ...j, parent: j.parent > i ? j.parent - 1 : j.parent }))
    paint.value = paint.value
      .filter((d) => d.joint !== i)
      .map((d) => ({ ...d, joint: d.joint > i ? d.joint - 1 : d.joint }))
    holds.value = []
    chosen.value = Math.max(0, Math.min(chosen.value, joints.value.length - 1))
  }
  return {
    kept,
    joints,
    paint,
    rigid,
    chosen,
    limited,
    holds,
    short,
    changed,
    angles,
    strained,
    bent,
    reset,
    turn,
    setTurns,
    isHeld,
    canHold,
    toggleHold,
    drop,
  }
}
export type Posing = ReturnType<typeof usePosing>
