import { text } from '../i18n'
import { computed } from 'vue'
import type { OperationRecord } from '../../contract/operations'
import type { PartRecord } from '../../contract/pieces'
import type { BodyMove } from '../../core/operations/moved'
import { apply3, fromQuaternion, multiplyQuaternions, quaternionBetween } from '../../core/math/vectors'
import { useAssembly } from '../stores/assembly'
import { useDerivations } from '../stores/derivations'
import { usePiece } from '../stores/piece'
import type { Motion } from '../viewport/motion'

type Place = Extract<OperationRecord, { kind: 'place' }>
type Triple = [number, number, number]
type Quaternion = [number, number, number, number]

/** Moves and turns of the part on the table, as changes of its `place` record. Millimetres as they are seen. */
export function usePlacing() {
  const store = usePiece(),
    assembly = useAssembly(),
    derivations = useDerivations()
  const placeOf = (part: PartRecord | null): Place => {
    const op = part?.steps.find((s) => s.op.kind === 'place')?.op
    return op?.kind === 'place' ? op : { kind: 'place', quaternion: [0, 0, 0, 1], shift: [0, 0, 0], mirror: false }
  }
  const current = computed<Place>(() => placeOf(store.part))
  const own = computed(() => assembly.placed.find((p) => p.part.id === store.part?.id) ?? null)
  const others = computed(() => assembly.placed.filter((p) => p.part.id !== store.part?.id && p.mesh !== null))
  const middle = computed<Triple | null>(() => {
    const box = own.value?.measures?.box
    return box ? ([0, 1, 2].map((k) => (box.min[k]! + box.max[k]!) / 2) as Triple) : null
  })

  /** Parts that are moved together with the one on the table, itself among them. */
  const group = computed(() => {
    const p = store.part
    const name = p && store.piece?.groups[p.id]
    return p
      ? (store.piece?.partList ?? []).filter((x) => x.id === p.id || (name && store.piece!.groups[x.id] === name))
      : []
  })

  /** A rigid motion of the part and its group, as it is seen: p ↦ turned p + shift, mm. */
  const moveBy = ({ quaternion, shift }: Motion): Promise<boolean> =>
    moveAll({ matrix: fromQuaternion(quaternion), shift }, (was) => ({
      quaternion: multiplyQuaternions(quaternion, was.quaternion) as Quaternion,
      mirror: was.mirror,
    }))
  async function moveAll(move: BodyMove, place: Parameters<typeof store.movedList>[2]): Promise<boolean> {
    const lists = group.value.map((part) => ({ id: part.id, operations: store.movedList(part, move, place) }))
    return (await store.arrange({ lists })) !== null
  }
  const shiftBy = (shift: Triple): Promise<boolean> => moveBy({ quaternion: [0, 0, 0, 1], shift })
  /** Turns about a point as it is seen; then shifts. */
  function turnBy(quaternion: Quaternion, about: Triple, then: Triple = [0, 0, 0]): Promise<boolean> {
    const turned = apply3(fromQuaternion(quaternion), about)
    return moveBy({ quaternion, shift: about.map((v, i) => v - turned[i]! + then[i]!) as Triple })
  }
  const spin = async (axis: Triple, degrees: number): Promise<boolean> => {
    if (!middle.value) return false
    const h = (degrees * Math.PI) / 360
    return turnBy([axis[0] * Math.sin(h), axis[1] * Math.sin(h), axis[2] * Math.sin(h), Math.cos(h)], middle.value)
  }
  /** Left for right, about its own middle. */
  async function mirror(): Promise<boolean> {
    const m = middle.value
    if (!m) return false
    // As seen: x ↦ 2m − x. In the record the mirroring comes before the turn, which is reflected in exchange.
    return moveAll(
      { matrix: [-1, 0, 0, 0, 1, 0, 0, 0, 1], shift: [2 * m[0], 0, 0] },
      ({ quaternion: q, mirror: was }) => ({
        quaternion: [q[0], -q[1], -q[2], q[3]],
        mirror: !was,
      }),
    )
  }

  /** Down onto the table, or onto whatever of the other parts is below. */
  async function rest(onParts: boolean): Promise<boolean> {
    const o = own.value
    if (!o?.mesh || !o.measures) return false
    if (!onParts) return shiftBy([0, 0, -o.measures.box.min[2]])
    return store.guarded(async () => {
      const { up } = await derivations.reported(o.mesh!, { kind: 'rest', others: others.value.map((p) => p.mesh!) })
      if (up === null) throw new Error(text('composables.usePlacing.thereIsNoPart'))
      await shiftBy([0, 0, up])
    })
  }
  /** Its upright axis onto another part's. */
  async function middleOver(id: string): Promise<boolean> {
    const box = assembly.placed.find((p) => p.part.id === id)?.measures?.box
    if (!box || !middle.value) return false
    return shiftBy([
      (box.min[0] + box.max[0]) / 2 - middle.value[0],
      (box.min[1] + box.max[1]) / 2 - middle.value[1],
      0,
    ])
  }
  /** Puts a place of this part's skin onto a place of another's, the two skins facing each other. */
  function faceToFace(
    mine: { point: Triple; normal: Triple },
    theirs: { point: Triple; normal: Triple },
  ): Promise<boolean> {
    const against = theirs.normal.map((v) => -v) as Triple
    return turnBy(
      quaternionBetween(mine.normal, against),
      mine.point,
      theirs.point.map((v, k) => v - mine.point[k]!) as Triple,
    )
  }
  /** The place record that brings a point of another sculpt to where a point of this part's sculpt stands. */
  function anchored(was: Triple, is: Triple): Place {
    const { quaternion, shift, mirror } = current.value
    const turned = (p: Triple): Triple => apply3(fromQuaternion(quaternion), mirror ? [-p[0], p[1], p[2]] : p)
    const [a, b] = [turned(was), turned(is)]
    return { ...current.value, shift: shift.map((v, k) => v + a[k]! - b[k]!) as Triple }
  }
  /** Lays an axis of this part along an axis of another's, the short way, where it is nearest. */
  async function axisToAxis(mine: Triple, theirs: Triple, otherMesh: string): Promise<boolean> {
    const mesh = own.value?.mesh
    if (!mesh) return false
    let done = false
    await store.guarded(async () => {
      const [a, b] = await Promise.all([
        derivations.reported(mesh, { kind: 'axis', point: mine }),
        derivations.reported(otherMesh, { kind: 'axis', point: theirs }),
      ])
      const alike = a.direction.reduce((s, v, k) => s + v * b.direction[k]!, 0) >= 0 ? 1 : -1
      const q = quaternionBetween(a.direction, b.direction.map((v) => v * alike) as Triple)
      // Only across the axis: along it the part stays where it is.
      const off = a.point.map((v, k) => b.point[k]! - v)
      const along = off.reduce((s, v, k) => s + v * b.direction[k]!, 0)
      done = await turnBy(q, a.point, off.map((v, k) => v - along * b.direction[k]!) as Triple)
    })
    return done
  }
  return {
    anchored,
    axisToAxis,
    group,
    moveBy,
    current,
    own,
    others,
    middle,
    shiftBy,
    spin,
    mirror,
    rest,
    middleOver,
    faceToFace,
  }
}
