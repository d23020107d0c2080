import { text } from '../i18n'
import { reportOf } from '../../contract/derivations'
import { isAid } from '../../core/operations/registry'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { material as materialSchema, type Material, type PartRecord } from '../../contract/pieces'
import {
  failed as failedFact,
  known as knownFact,
  MEASURING,
  missing,
  NONE,
  mapped,
  type Fact,
  type JointLoad,
} from '../../core/findings/facts'
import type { KnownAt } from '../../core/findings/judge'
import { checkFact } from '../composables/facts'
import { TIP_WISH } from '../../core/defaults/fit'
import { azimuthOf } from '../../core/fit/facing'
import type { FitReport } from '../../core/fit/gap'
import { boxesNear, JOINT_REACH } from '../../core/fit/near'
import { outboardOf, type Standing } from '../../core/fit/load'
import type { Measures } from '../../core/mesh/measure'
import { useCheck } from '../composables/useCheck'
import { usePrinterAndResin } from '../composables/usePrinterAndResin'
import { seenDirection } from './partFrame'
import { messageOf } from '../messageOf'
import { useDerivations } from './derivations'
import { usePiece } from './piece'

export interface Placed {
  part: PartRecord
  /** as it stands in the piece; null while it is being computed */
  mesh: string | null
  measures: Measures | null
}
export interface Pair {
  key: string
  a: Placed
  b: Placed
  fit: FitReport | null
  problem: string | null
}

/** All parts of the piece as they stand together: how they meet, and whether the whole stands. */
export const useAssembly = defineStore('assembly', () => {
  const piece = usePiece(),
    derivations = useDerivations()
  const { resin } = usePrinterAndResin()
  const measured = ref(new Map<string, string>())
  const fitted = ref(new Map<string, string>())
  /** why a part or a pair could not be asked about */
  const fault = ref('')

  const placed = computed<Placed[]>(() =>
    (piece.piece?.partList ?? [])
      .filter((p) => !isAid(p.steps.map((s) => s.op)))
      .map((part) => {
        const mesh = piece.meshAfter('channel', part)
        const key = mesh ? measured.value.get(mesh) : undefined
        const d = key ? derivations.known.get(key) : undefined
        return { part, mesh, measures: reportOf(d, 'measures') }
      }),
  )
  const hasSkin = (p: Placed): boolean => p.measures !== null && p.measures.area > 0
  const near = computed(() => {
    const out: { key: string; a: Placed; b: Placed }[] = []
    const list = placed.value.filter(hasSkin)
    for (const [i, a] of list.entries())
      for (const b of list.slice(i + 1))
        if (boxesNear(a.measures!.box, b.measures!.box)) out.push({ key: `${a.part.id}+${b.part.id}`, a, b })
    return out
  })
  const pairs = computed<Pair[]>(() =>
    near.value.map((p) => {
      const d = derivations.known.get(fitted.value.get(`${p.a.mesh}${p.b.mesh}`) ?? '')
      return {
        ...p,
        fit: reportOf(d, 'fit'),
        problem: d?.status === 'failed' ? (d.problem?.message ?? text('stores.assembly.itFailed')) : null,
      }
    }),
  )
  /** Only pieces of several parts have anything to measure here. */
  const several = computed(() => placed.value.length > 1)

  watch(
    () => placed.value.map((p) => p.mesh).join(),
    async () => {
      fault.value = ''
      for (const { mesh } of placed.value) {
        if (!mesh || measured.value.has(mesh)) continue
        try {
          measured.value.set(mesh, (await derivations.ask(mesh, { kind: 'measures' })).key)
        } catch (e) {
          fault.value = messageOf(e)
        }
      }
    },
    { immediate: true },
  )
  watch(
    () => near.value.map((p) => `${p.a.mesh}${p.b.mesh}`).join(),
    async () => {
      if (!several.value) return
      for (const { a, b } of near.value) {
        if (fitted.value.has(`${a.mesh}${b.mesh}`)) continue
        try {
          const d = await derivations.ask(a.mesh!, { kind: 'fit', other: b.mesh!, reach: JOINT_REACH })
          fitted.value.set(`${a.mesh}${b.mesh}`, d.key)
        } catch (e) {
          fault.value = messageOf(e)
        }
      }
    },
    { immediate: true },
  )

  const materialOf = (id: string): Material =>
    materialSchema.parse(piece.piece?.materials[id] ?? { density: resin.value?.density ?? 1.12 })
  async function setMaterial(id: string, m: Partial<Material>): Promise<void> {
    await piece.save({ materials: { ...piece.piece?.materials, [id]: { ...materialOf(id), ...m } } })
  }
  const solid = computed(() => placed.value.filter(hasSkin))
  /**
   * What is weighed: each part as it will be, hollow where it is hollowed. Cast full, it is the whole body of casting resin
   * and the wall once more with what printing resin weighs beyond that.
   */
  const bodies = computed(() =>
    solid.value.flatMap((p): { mesh: string; density: number; infill: number }[] => {
      const { density, infill, cast } = materialOf(p.part.id)
      const hollow = piece.step('hollow', p.part) ? piece.meshAfter('hollow', p.part) : null
      if (!hollow) return [{ mesh: p.mesh!, density, infill }]
      return cast === null
        ? [{ mesh: hollow, density, infill: 1 }]
        : [
            { mesh: p.mesh!, density: cast, infill: 1 },
            { mesh: hollow, density: density - cast, infill: 1 },
          ]
    }),
  )
  const balance = useCheck(
    () => (solid.value.length === placed.value.length ? bodies.value[0]?.mesh : null),
    () => ({
      kind: 'balance',
      others: bodies.value.slice(1).map((b) => b.mesh),
      weights: bodies.value.map(({ density, infill }) => ({ density, infill })),
      wish: piece.piece?.tipWish ?? TIP_WISH,
    }),
  )
  /** What each joint carries, where the parts that hang on it are held by it alone. */
  const loads = computed<JointLoad[]>(() => {
    const touching = pairs.value.filter((p) => p.fit?.touching)
    const standing = solid.value.map((p): Standing => {
      const { density, infill } = materialOf(p.part.id)
      return {
        id: p.part.id,
        mass: (Math.abs(p.measures!.volume) / 1000) * density * infill,
        centre: p.measures!.centre,
        lowest: p.measures!.box.min[2],
      }
    })
    return outboardOf(
      standing,
      touching.map((p) => ({ a: p.a.part.id, b: p.b.part.id })),
    ).flatMap((out, i) => {
      const p = touching[i]!
      if (!out) return []
      const [hangs, holds] = out.ids.includes(p.a.part.id) ? [p.a, p.b] : [p.b, p.a]
      return [
        {
          key: p.key,
          hangs: hangs.part.name,
          holds: holds.part.name,
          mass: out.mass,
          centre: out.centre,
          joint: p.fit!.centre,
          area: p.fit!.area,
        },
      ]
    })
  })
  /** A joint that has a pin or magnets near its middle has been seen to. */
  const pinned = (l: JointLoad): boolean =>
    (piece.piece?.partList ?? []).some((p) =>
      p.steps.some(
        (s) =>
          s.op.kind === 'fix' &&
          s.op.fixings.some(
            (f) =>
              f.shape !== 'key' &&
              Math.hypot(...f.point.map((v, k) => v - l.joint[k]!)) < 2 * Math.sqrt(l.area / Math.PI) + 1,
          ),
      ),
    )
  /** Degrees from the front of the table: where the face looks, the base's front, and the nameplate. */
  const facing = computed(() => {
    const f = piece.piece?.facing
    const part = f && piece.piece?.partList.find((p) => p.id === f.partId)
    if (!f || !part) return null
    const face = azimuthOf(seenDirection(part, f.direction, f.joint))
    const base = piece.piece!.partList.find((p) => p.steps.some((s) => s.op.kind === 'base'))
    const front = (base && azimuthOf(seenDirection(base, [0, -1, 0], null))) ?? 0
    const plate = piece.piece!.partList.flatMap((p) =>
      p.steps.flatMap((s) => {
        if (s.op.kind !== 'nameplate') return []
        const a = (s.op.around * Math.PI) / 180
        const at = azimuthOf(seenDirection(p, [Math.sin(a), -Math.cos(a), 0], null))
        return at === null ? [] : [at]
      }),
    )[0]
    const box = placed.value.find((p) => p.part.id === part.id)?.measures?.box
    const at: [number, number, number] = box ? [(box.min[0] + box.max[0]) / 2, box.min[1], box.max[2]] : [0, 0, 0]
    return face === null ? null : { face, front, plate: plate ?? null, at }
  })
  const measuring = computed(
    () =>
      balance.measuring.value ||
      placed.value.some((p) => p.mesh !== null && p.measures === null) ||
      pairs.value.some((p) => !p.fit && !p.problem),
  )
  const open = computed(() => loads.value.filter((l) => !pinned(l)))
  const known = computed<KnownAt<'combine'>>(() => {
    const failure = pairs.value.find((p) => p.problem)?.problem ?? fault.value
    const ofPairs = <T>(value: T): Fact<T> =>
      !several.value
        ? NONE
        : failure
          ? failedFact(failure)
          : placed.value.some((p) => p.measures === null) || pairs.value.some((p) => !p.fit)
            ? MEASURING
            : knownFact(value)
    return {
      facing: facing.value ? knownFact(facing.value) : NONE,
      joints: ofPairs(open.value),
      pairs: ofPairs(
        pairs.value.flatMap((p) => (p.fit ? [{ a: p.a.part.name, b: p.b.part.name, key: p.key, fit: p.fit }] : [])),
      ),
      balance: mapped(
        checkFact(
          balance,
          placed.value.length === 0
            ? missing(text('stores.assembly.aSculpt'))
            : fault.value
              ? failedFact(fault.value)
              : MEASURING,
        ),
        (report) => ({
          report,
          wish: piece.piece?.tipWish ?? TIP_WISH,
        }),
      ),
    }
  })
  return {
    placed,
    pairs,
    several,
    balance: balance.report,
    balanceProblem: balance.problem,
    measuring,
    known,
    loads,
    facing,
    materialOf,
    setMaterial,
  }
})
