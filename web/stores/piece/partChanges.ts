import { ref, type ComputedRef } from 'vue'
import { operation, type OperationInput, type OperationRecord } from '../../../contract/operations'
import { arranged, part as partSchema, type ArrangementInput, type PartRecord } from '../../../contract/pieces'
import { rebased } from '../../../core/operations/list'
import { api } from '../../api'
import { queued } from '../../composables/edits'
import type { OpenPiece } from './openPiece'

type Created = NonNullable<ArrangementInput['create']>
/** One change of the piece's parts that can be taken back: which lists stood before, which parts came and went. */
interface Change {
  lists: { id: string; operations: OperationRecord[] }[]
  remove: string[]
  restore: string[]
  /** which sculpt of the library a part is made from */
  swap: { id: string; sculpt: string }[]
}

export const listOf = (p: PartRecord | null): OperationRecord[] => p?.steps.map((s) => s.op) ?? []

/** Changes of a piece's parts, one after the other, each of which can be undone and done again. */
export function partChanges(
  { piece, queue, fetchPiece, noted, guarded }: OpenPiece,
  part: ComputedRef<PartRecord | null>,
) {
  const history = ref<Change[]>([]),
    undone = ref<Change[]>([])
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
  const done = (change: Change): void => {
    history.value.push(change)
    undone.value = []
  }
  /** Another list for the part at work; what was added to it meanwhile stays. */
  function change(list: OperationRecord[]): Promise<boolean> {
    const p = part.value
    if (!p) return Promise.resolve(false)
    const before = listOf(p)
    return changeBy(p.id, (now) => rebased(before, list, now))
  }
  const changeBy = (id: string, wanted: (now: OperationRecord[]) => OperationRecord[]): Promise<boolean> =>
    queued(queue(), async () => {
      const before = listOf(partOf(id))
      if (wanted(before) === before) return true
      if (!(await writeOperations(id, wanted))) return false
      done({ lists: [{ id, operations: before }], remove: [], restore: [], swap: [] })
      return true
    })

  /**
   * Changes several parts together, all or none, as one step of undo. New parts are copies of others or generated.
   *
   * @returns the ids of the parts that were made; null when nothing was done
   */
  async function arrange(a: {
    lists?: { id: string; operations: OperationInput[] }[]
    create?: Created
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
      if (created) done({ lists: inverse, remove: created, restore: a.remove ?? [], swap: back })
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
  async function sendArrangement(c: Change, create: Created = []): Promise<string[] | null> {
    const p = piece.value
    if (!p) return null
    const version = (id: string): number => p.partList.find((x) => x.id === id)?.version ?? 0
    let created: string[] | null = null
    await guarded(async () => {
      const r = await api(arranged, 'POST', `/pieces/${p.id}/arrange`, {
        changes: c.lists.map((l) => ({ ...l, version: version(l.id) })),
        // A part that is both changed and swapped has been changed once by then.
        swap: c.swap.map((w) => ({ ...w, version: version(w.id) + (c.lists.some((l) => l.id === w.id) ? 1 : 0) })),
        create,
        remove: c.remove,
        restore: c.restore,
      })
      await fetchPiece(p.id)
      created = r.created
    })
    return created
  }

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
    const isDone =
      alone && partOf(only!.id)
        ? await writeOperations(only!.id, () => only!.operations)
        : (await sendArrangement(c)) !== null
    if (!isDone) return
    from.pop()
    to.push(opposite)
  }
  /** Another piece has another past. */
  function forget(): void {
    history.value = []
    undone.value = []
  }
  return { history, undone, partOf, change, changeBy, arrange, undo, redo, forget }
}
