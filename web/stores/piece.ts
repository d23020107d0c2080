import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { reportOf } from '../../contract/derivations'
import { operation, type OperationInput, type OperationRecord } from '../../contract/operations'
import type { PartRecord } from '../../contract/pieces'
import type { Vector3 } from '../../core/math/vectors'
import type { BodyMove } from '../../core/operations/moved'
import { movedList, withOperation } from '../../core/operations/list'
import type { OperationReport } from '../../core/operations/registry'
import { tell } from '../api'
import { messageOf } from '../messageOf'
import { openPiece } from './piece/openPiece'
import { listOf, partChanges } from './piece/partChanges'
import * as partMesh from './piece/partMesh'
import { trials } from './piece/trials'

type Kind = OperationRecord['kind']
export type PlaceRecord = Extract<OperationRecord, { kind: 'place' }>

/** The piece on the table: its fields, its parts and their operation lists, with undo. */
export const usePiece = defineStore('piece', () => {
  const opened = openPiece()
  const { piece, problem, fetchPiece, reload, save, guarded } = opened
  const partIndex = ref(0)
  const part = computed<PartRecord | null>(
    () => piece.value?.partList[partIndex.value] ?? piece.value?.partList[0] ?? null,
  )
  const changes = partChanges(opened, part)
  const { partOf, changeBy, change } = changes
  const { tryOnly: tryOnlyOn, tryOn } = trials(opened, partOf)

  async function open(id: string): Promise<void> {
    if (piece.value?.id !== id) {
      piece.value = null
      partIndex.value = 0
      changes.forget()
    }
    await fetchPiece(id)
  }
  const operations = (): OperationRecord[] => listOf(part.value)
  /** Puts the operation in its place in working order, see core's `withOperation`. */
  const apply = (input: OperationInput): Promise<boolean> => applyWhere(input, () => true)
  /** Does so unless one of its kind is there once all that was asked for before is stored. */
  const applyIfNone = (input: OperationInput): Promise<boolean> =>
    applyWhere(input, (now) => now.every((o) => o.kind !== input.kind))
  function applyWhere(input: OperationInput, isWanted: (now: OperationRecord[]) => boolean): Promise<boolean> {
    const id = part.value?.id
    const op = operation.parse(input)
    if (!id) return Promise.resolve(false)
    return changeBy(id, (now) => (isWanted(now) ? withOperation(now, op, footOf(partOf(id))) : now))
  }
  const tryOnly = (input: OperationInput, of = part.value): Promise<boolean> => tryOnlyOn(input, of)
  /**
   * Computes the operation first and puts it into the list only when it gave a result; otherwise says why not, and the
   * list is as it was.
   */
  const tryOut = async (input: OperationInput): Promise<boolean> => (await tryOnly(input)) && apply(input)
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
    move: BodyMove,
    place: (was: PlaceRecord) => Pick<PlaceRecord, 'quaternion' | 'mirror'>,
  ): OperationRecord[] =>
    movedList(listOf(p), move, operation.parse({ kind: 'place' }) as PlaceRecord, place, footOf(p))
  const remove = (kind: Kind): Promise<boolean> => change(operations().filter((o) => o.kind !== kind))
  const removeAt = (index: number): Promise<boolean> => change(operations().filter((_, i) => i !== index))

  const step = (kind: Kind, of = part.value): PartRecord['steps'][number] | null =>
    of?.steps.find((s) => s.op.kind === kind) ?? null
  /** The same, null also where it failed. */
  const counted = (kind: Kind, of = part.value): PartRecord['steps'][number] | null => partMesh.countedStep(of, kind)
  function report<K extends Kind>(kind: K): OperationReport<K> | null {
    return reportOf(step(kind)?.derivation, kind) as OperationReport<K> | null
  }
  const meshBefore = (kind: Kind, of = part.value): string | null => partMesh.meshBefore(of, kind)
  const meshAfter = (kind: Kind, of = part.value): string | null => partMesh.meshAfter(of, kind)
  const chainOf = (mesh: string, of = part.value): string[] => partMesh.chainOf(of, mesh)
  const failed = computed(() => partMesh.failedSteps(part.value))

  /** Takes files in. @returns a sentence for each that was refused */
  async function dropFiles(files: readonly File[]): Promise<string[]> {
    const p = piece.value
    const refused: string[] = []
    if (!p) return refused
    for (const f of files) {
      try {
        await tell('POST', `/pieces/${p.id}/files?name=${encodeURIComponent(f.name)}`, f)
      } catch (e) {
        refused.push(messageOf(e))
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
    history: changes.history,
    undone: changes.undone,
    open,
    reload,
    save,
    apply,
    applyIfNone,
    remove,
    removeAt,
    tryOut,
    tryOnly,
    tryOn,
    withOperation: listWith,
    movedList: moved,
    arrange: changes.arrange,
    failed,
    undo: changes.undo,
    redo: changes.redo,
    step,
    counted,
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
