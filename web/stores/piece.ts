import { reportOf } from '../../contract/derivations'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { OperationInput, OperationRecord } from '../../contract/operations'
import { operation } from '../../contract/operations'
import {
  arranged,
  part as partSchema,
  piece as pieceSchema,
  pieceDetail,
  type ArrangementInput,
  type PartRecord,
  type PieceDetail,
} from '../../contract/pieces'
import type { Vector3 } from '../../core/math/vectors'
import type { Carry } from '../../core/operations/carried'
import { movedList, rebased, withOperation } from '../../core/operations/list'
import { rankOf as rank, REPEATED, type OperationReport } from '../../core/operations/registry'
import { api, ApiProblem, tell } from '../api'
import { fieldEdits, queued } from '../composables/edits'
import { newestOnly } from '../composables/newest'
import { useChanges } from './changes'
import { useDerivations } from './derivations'

type Kind = OperationRecord['kind']
/** ms between two looks at whether a step has been computed */
const LOOK_AGAIN = 120
export type PlaceRecord = Extract<OperationRecord, { kind: 'place' }>
/** One change of the piece's parts that can be taken back: which lists stood before, which parts came and went. */
interface Change {
  lists: { id: string; operations: OperationRecord[] }[]
  remove: string[]
  restore: string[]
  /** which sculpt of the library a part is made from */
  swap: { id: string; sculpt: string }[]
}

/** Its first step that is not done was never asked for. */
const unasked = ({ steps }: PartRecord): boolean =>
  steps.find((s) => s.derivation?.status !== 'done')?.derivation === null

/** The piece on the table: its fields, its parts and their operation lists, with undo. */
export const usePiece = defineStore('piece', () => {
  const piece = ref<PieceDetail | null>(null)
  const partIndex = ref(0)
  const problem = ref<string | null>(null)
  const undone = ref<Change[]>([])
  const history = ref<Change[]>([])
  const derivations = useDerivations()
  const part = computed<PartRecord | null>(
    () => piece.value?.partList[partIndex.value] ?? piece.value?.partList[0] ?? null,
  )

  useChanges().listen((c) => {
    const id = piece.value?.id
    if (!id) return
    if ((c.type === 'piece' && c.id === id) || c.type === 'hello') void reload()
    else if (
      c.type === 'derivation' &&
      (c.status === 'done' || c.status === 'failed') &&
      piece.value?.partList.some((p) => p.steps.some((s) => s.derivation?.key === c.key))
    )
      void reload()
  })

  async function open(id: string): Promise<void> {
    if (piece.value?.id !== id) {
      piece.value = null
      partIndex.value = 0
      history.value = []
      undone.value = []
    }
    await fetchPiece(id)
  }
  const queue = (): string => `piece ${piece.value?.id}`
  const fields = fieldEdits<PieceDetail>({
    name: queue,
    current: () => piece.value,
    send: async (changed, from) => ({
      ...from,
      ...(await api(pieceSchema, 'PATCH', `/pieces/${from.id}`, { ...changed, version: from.version })),
    }),
    // Parts have versions of their own and come with each fetch.
    show: (p) => {
      piece.value =
        piece.value?.id === p.id ? { ...p, partList: piece.value.partList, intakes: piece.value.intakes } : p
    },
    read: (newer) => {
      const p = pieceSchema.safeParse(newer)
      return p.success && piece.value ? { ...piece.value, ...p.data } : null
    },
  })
  let newest: Promise<void> = Promise.resolve()
  /** Fetches the piece; settles once what is shown is no older than what was asked for. */
  function fetchPiece(id: string): Promise<void> {
    const mine: Promise<void> = fetched(id, () => newest === mine)
    newest = mine
    return mine
  }
  async function fetched(id: string, isNewest: () => boolean): Promise<void> {
    let p = await api(pieceDetail, 'GET', `/pieces/${id}`)
    // Nobody has asked for its next step: a newer version of the program computes it again.
    if (p.partList.some(unasked)) p = await api(pieceDetail, 'POST', `/pieces/${id}/advance`)
    // An answer that was overtaken says what was, or is of another piece: what was asked later counts.
    if (!isNewest()) return newest
    piece.value = fields.withPending(withNewer(p, piece.value?.id === id ? piece.value : null))
  }
  /** What was answered to a change while the piece was being fetched is newer than what was fetched. */
  function withNewer(p: PieceDetail, known: PieceDetail | null): PieceDetail {
    const partList = p.partList.map((x) => {
      const k = known?.partList.find((y) => y.id === x.id)
      return k && k.version > x.version ? k : noted(x)
    })
    return known && known.version > p.version ? { ...known, partList, intakes: p.intakes } : { ...p, partList }
  }
  function noted(x: PartRecord): PartRecord {
    for (const s of x.steps) if (s.derivation) s.derivation = derivations.note(s.derivation)
    return x
  }
  // Changes come in bursts; one fetch answers all that arrive while it is under way, and one more what came after.
  const reload = newestOnly(async () => {
    const id = piece.value?.id
    if (id) await fetchPiece(id).catch(() => undefined)
  })
  const save = async (changed: Partial<PieceDetail>): Promise<void> => {
    if (piece.value && !(await guarded(() => fields.edit(changed)))) await reload()
  }
  async function guarded(work: () => Promise<void>): Promise<boolean> {
    problem.value = null
    try {
      await work()
      return true
    } catch (e) {
      if (e instanceof ApiProblem && e.status === 409) {
        await reload()
        problem.value = `${e.message} The newer version is shown now; make your change again if it still applies.`
      } else problem.value = e instanceof Error ? e.message : String(e)
      return false
    }
  }

  const operations = (): OperationRecord[] => listOf(part.value)
  const listOf = (p: PartRecord | null): OperationRecord[] => p?.steps.map((s) => s.op) ?? []
  const partOf = (id: string): PartRecord | null => piece.value?.partList.find((p) => p.id === id) ?? null
  /** Stores a list, at its turn. @param wanted gives it, from what the part's list is by then */
  async function writeOperations(id: string, wanted: (now: OperationRecord[]) => OperationRecord[]): Promise<boolean> {
    const p = partOf(id)
    if (!p) return false
    const operations = wanted(listOf(p))
    return guarded(async () => {
      const next = noted(await api(partSchema, 'PUT', `/parts/${id}/operations`, { version: p.version, operations }))
      const there = partOf(id)
      if (there && there.version < next.version) Object.assign(there, next)
    })
  }
  function change(list: OperationRecord[]): Promise<boolean> {
    const p = part.value
    if (!p) return Promise.resolve(false)
    const before = listOf(p)
    return changeBy(p.id, (now) => rebased(before, list, now))
  }
  const changeBy = (id: string, wanted: (now: OperationRecord[]) => OperationRecord[]): Promise<boolean> =>
    queued(queue(), async () => {
      const before = listOf(partOf(id))
      if (!(await writeOperations(id, wanted))) return false
      history.value.push({ lists: [{ id, operations: before }], remove: [], restore: [], swap: [] })
      undone.value = []
      return true
    })
  /**
   * Changes several parts together, all or none, as one step of undo. New parts are copies of others or generated.
   *
   * @returns the ids of the parts that were made; null when nothing was done
   */
  async function arrange(a: {
    lists?: { id: string; operations: OperationInput[] }[]
    create?: NonNullable<ArrangementInput['create']>
    remove?: string[]
    swap?: { id: string; sculpt: string }[]
  }): Promise<string[] | null> {
    const asked = (a.lists ?? []).map((l) => ({
      id: l.id,
      before: listOf(partOf(l.id)),
      wanted: l.operations.map((o) => operation.parse(o)),
    }))
    return queued(queue(), async () => {
      const lists = asked.map(({ id, before, wanted }) => ({
        id,
        operations: rebased(before, wanted, listOf(partOf(id))),
      }))
      const inverse = inverseOf(lists)
      const back = swapsBack(a.swap ?? [])
      const change: Change = { lists, remove: a.remove ?? [], restore: [], swap: a.swap ?? [] }
      const created = await sendArrangement(change, a.create)
      if (!created) return null
      history.value.push({ lists: inverse, remove: created, restore: a.remove ?? [], swap: back })
      undone.value = []
      return created
    })
  }
  const inverseOf = (lists: Change['lists']): Change['lists'] =>
    lists.map(({ id }) => ({ id, operations: listOf(partOf(id)) }))
  const swapsBack = (swaps: Change['swap']): Change['swap'] =>
    swaps.flatMap(({ id }) => {
      const sculpt = partOf(id)?.sculptId
      return sculpt ? [{ id, sculpt }] : []
    })
  async function sendArrangement(
    c: Change,
    create: NonNullable<ArrangementInput['create']> = [],
  ): Promise<string[] | null> {
    const p = piece.value
    if (!p) return null
    let created: string[] | null = null
    await guarded(async () => {
      const r = await api(arranged, 'POST', `/pieces/${p.id}/arrange`, {
        changes: c.lists.map((l) => ({ ...l, version: p.partList.find((x) => x.id === l.id)?.version ?? 0 })),
        // A part that is both changed and swapped has been changed once by then.
        swap: c.swap.map((w) => ({
          ...w,
          version: (p.partList.find((x) => x.id === w.id)?.version ?? 0) + (c.lists.some((l) => l.id === w.id) ? 1 : 0),
        })),
        create,
        remove: c.remove,
        restore: c.restore,
      })
      await fetchPiece(p.id)
      created = r.created
    })
    return created
  }
  /** Puts the operation in its place in working order, see core's `withOperation`. */
  function apply(input: OperationInput): Promise<boolean> {
    const id = part.value?.id
    const op = operation.parse(input)
    return id ? changeBy(id, (now) => withOperation(now, op, footOf(partOf(id)))) : Promise.resolve(false)
  }
  /**
   * Computes the operation first and puts it into the list only when it gave a result; otherwise says why not, and the
   * list is as it was.
   */
  const tryOut = async (input: OperationInput): Promise<boolean> => (await tryOnly(input)) && apply(input)
  /** Computes the operation on a part without putting it into its list; says why not when it cannot be. */
  async function tryOnly(input: OperationInput, of = part.value): Promise<boolean> {
    const op = operation.parse(input)
    // A kind that may be repeated comes after the others of its kind; any other takes the place of the one there is.
    const counts = (k: Kind): boolean =>
      REPEATED.includes(op.kind) ? rank(k) <= rank(op.kind) : rank(k) < rank(op.kind)
    const mesh = of && (await meshOnceMade(of.id, counts))
    if (!mesh) {
      problem.value = 'An earlier step has failed. Change or remove it first.'
      return false
    }
    return (await tryOn(mesh, op)) !== null
  }
  /** The part's mesh after the operations that count, waited for while one of them is computed; null where one failed. */
  async function meshOnceMade(id: string, counts: (kind: Kind) => boolean): Promise<string | null> {
    for (;;) {
      const p = partOf(id)
      const mesh = meshOf(p, counts)
      const steps = p?.steps.filter((s) => counts(s.op.kind)) ?? []
      if (mesh || !p || steps.some((s) => s.derivation?.status === 'failed')) return mesh
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
  const listWith = (p: PartRecord | null, input: OperationInput): OperationRecord[] =>
    withOperation(listOf(p), operation.parse(input), footOf(p))
  /** Middle of the foot of the sized body, as it was measured. */
  function footOf(p: PartRecord | null): Vector3 | null {
    const sized = p?.steps.find((s) => s.op.kind === 'scale' && s.derivation?.status === 'done')
    const box = reportOf(sized?.derivation, 'scale')?.measures.box
    return box ? [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2, box.min[2]] : null
  }
  /** The part's list once it has been moved as a whole, see core's `movedList`. */
  const moved = (
    p: PartRecord,
    carry: Carry,
    place: (was: PlaceRecord) => Pick<PlaceRecord, 'quaternion' | 'mirror'>,
  ): OperationRecord[] =>
    movedList(listOf(p), carry, operation.parse({ kind: 'place' }) as PlaceRecord, place, footOf(p))
  const remove = (kind: Kind): Promise<boolean> => change(operations().filter((o) => o.kind !== kind))
  const removeAt = (index: number): Promise<boolean> => change(operations().filter((_, i) => i !== index))
  const undo = (): Promise<void> => queued(queue(), () => swing(history.value, undone.value))
  const redo = (): Promise<void> => queued(queue(), () => swing(undone.value, history.value))
  /** Does the last change of one pile and moves its opposite to the other. What is refused stays where it is. */
  async function swing(from: Change[], to: Change[]): Promise<void> {
    const c = from.at(-1)
    if (!c) return
    const opposite: Change = {
      lists: inverseOf(c.lists),
      remove: c.restore,
      restore: c.remove,
      swap: swapsBack(c.swap),
    }
    const [only] = c.lists
    const alone = c.lists.length === 1 && c.remove.length + c.restore.length + c.swap.length === 0
    const done =
      alone && partOf(only!.id)
        ? await writeOperations(only!.id, () => only!.operations)
        : (await sendArrangement(c)) !== null
    if (!done) return
    from.pop()
    to.push(opposite)
  }

  const step = (kind: Kind, of = part.value): PartRecord['steps'][number] | null =>
    of?.steps.find((s) => s.op.kind === kind) ?? null
  function report<K extends Kind>(kind: K): OperationReport<K> | null {
    return reportOf(step(kind)?.derivation, kind) as OperationReport<K> | null
  }
  /** Mesh that goes into the operation of that kind: the last one derived before its place. */
  const meshBefore = (kind: Kind, of = part.value): string | null => meshOf(of, (k) => rank(k) < rank(kind))
  /** Mesh after all operations up to that kind; null while one of them is not done. */
  const meshAfter = (kind: Kind, of = part.value): string | null => meshOf(of, (k) => rank(k) <= rank(kind))
  function meshOf(p: PartRecord | null, counts: (kind: Kind) => boolean): string | null {
    let mesh = p?.sculptMesh ?? null
    for (const s of p?.steps ?? []) {
      if (!counts(s.op.kind)) break
      if (s.derivation?.status !== 'done' || !s.derivation.meshHash) return null
      mesh = s.derivation.meshHash
    }
    return mesh
  }
  /**
   * A mesh of the part, what it was made of, and so on back to the sculpt. Empty where the part's steps do not lead to it:
   * what is on the table may be older than the list, or wait for a step that is still computed.
   */
  function chainOf(mesh: string, of = part.value): string[] {
    const out = of ? [of.sculptMesh] : []
    for (const s of of?.steps ?? []) {
      if (out[0] === mesh || s.derivation?.status !== 'done' || !s.derivation.meshHash) break
      if (s.derivation.meshHash !== out[0]) out.unshift(s.derivation.meshHash)
    }
    return out[0] === mesh ? out : []
  }
  /** The first operation of the part's list that failed, with why. */
  const failed = computed(() => part.value?.steps.find((s) => s.derivation?.status === 'failed') ?? null)
  async function dropFiles(files: readonly File[]): Promise<string[]> {
    const p = piece.value
    const refused: string[] = []
    if (!p) return refused
    for (const f of files) {
      try {
        await tell('POST', `/pieces/${p.id}/files?name=${encodeURIComponent(f.name)}`, f)
      } catch (e) {
        refused.push(e instanceof Error ? e.message : String(e))
      }
    }
    await reload()
    return refused
  }
  return {
    piece,
    part,
    partIndex,
    problem,
    history,
    undone,
    open,
    reload,
    save,
    apply,
    remove,
    removeAt,
    tryOut,
    tryOnly,
    tryOn,
    withOperation: listWith,
    movedList: moved,
    arrange,
    failed,
    undo,
    redo,
    step,
    report,
    meshBefore,
    meshAfter,
    chainOf,
    operations,
    change,
    dropFiles,
    guarded,
  }
})
