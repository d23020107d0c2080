import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { OperationInput, OperationRecord } from '../../contract/operations'
import { operation } from '../../contract/operations'
import { part as partSchema, piece as pieceSchema, pieceDetail, type PartRecord, type PieceDetail } from '../../contract/pieces'
import { OPERATION_ORDER, type OperationReport } from '../../core/shape/operations'
import { api, ApiProblem, tell } from '../api'
import { useChanges } from './changes'
import { useDerivations } from './derivations'

type Kind = OperationRecord['kind']

/** The piece on the table: its fields, its parts and their operation lists, with undo. */
export const usePiece = defineStore('piece', () => {
  const piece = ref<PieceDetail | null>(null)
  const partIndex = ref(0)
  const problem = ref<string | null>(null)
  const undone = ref<OperationRecord[][]>([])
  const history = ref<OperationRecord[][]>([])
  const derivations = useDerivations()
  const part = computed<PartRecord | null>(() => piece.value?.partList[partIndex.value] ?? piece.value?.partList[0] ?? null)
  let reloading: Promise<void> | null = null, again = false

  useChanges().listen((c) => {
    const id = piece.value?.id
    if (!id) return
    if ((c.type === 'piece' && c.id === id) || c.type === 'hello') void reload()
    else if (c.type === 'derivation' && (c.status === 'done' || c.status === 'failed') && part.value?.steps.some((s) => s.derivation?.key === c.key)) void reload()
  })

  async function open(id: string): Promise<void> {
    if (piece.value?.id !== id) { piece.value = null; partIndex.value = 0; history.value = []; undone.value = [] }
    await fetchPiece(id)
  }
  async function fetchPiece(id: string): Promise<void> {
    const p = await api(pieceDetail, 'GET', `/pieces/${id}`)
    for (const x of p.partList) for (const s of x.steps) if (s.derivation) s.derivation = derivations.note(s.derivation)
    piece.value = p
  }
  async function reload(): Promise<void> {
    const id = piece.value?.id
    if (!id) return
    // Changes come in bursts; one fetch answers all that arrive while it is under way, and one more what came after.
    if (reloading) { again = true; return reloading }
    reloading = fetchPiece(id).catch(() => undefined).finally(() => {
      reloading = null
      if (again) { again = false; void reload() }
    })
    await reloading
  }
  async function save(fields: Partial<PieceDetail>): Promise<void> {
    const p = piece.value
    if (!p) return
    await guarded(async () => { Object.assign(p, await api(pieceSchema, 'PATCH', `/pieces/${p.id}`, { ...fields, version: p.version })) })
  }
  async function guarded(work: () => Promise<void>): Promise<boolean> {
    problem.value = null
    try { await work(); return true } catch (e) {
      if (e instanceof ApiProblem && e.status === 409) { await reload(); problem.value = `${e.message} The newer version is shown now; make your change again if it still applies.` }
      else problem.value = e instanceof Error ? e.message : String(e)
      return false
    }
  }

  const operations = (): OperationRecord[] => part.value?.steps.map((s) => s.op) ?? []
  async function writeOperations(list: OperationRecord[]): Promise<boolean> {
    const p = part.value
    if (!p) return false
    return guarded(async () => {
      const next = await api(partSchema, 'PUT', `/parts/${p.id}/operations`, { version: p.version, operations: list })
      for (const s of next.steps) if (s.derivation) s.derivation = derivations.note(s.derivation)
      Object.assign(p, next)
    })
  }
  async function change(list: OperationRecord[]): Promise<boolean> {
    const before = operations()
    if (!(await writeOperations(list))) return false
    history.value.push(before)
    undone.value = []
    return true
  }
  /** Puts the operation in its place in working order, replacing an earlier one of its kind. Scales add up. */
  async function apply(input: OperationInput): Promise<boolean> {
    const op = operation.parse(input)
    const list = operations().filter((o) => o.kind !== op.kind).map((o) => (op.kind === 'scale' ? carriedAlong(o, op.factor) : o))
    const place = list.findIndex((o) => OPERATION_ORDER.indexOf(o.kind) > OPERATION_ORDER.indexOf(op.kind))
    list.splice(place < 0 ? list.length : place, 0, op)
    return change(list)
  }
  /** Holes and hand-set supports keep their place on the sculpt when its size changes. */
  function carriedAlong(o: OperationRecord, factor: number): OperationRecord {
    const old = step('scale')
    const ratio = factor / (old?.op.kind === 'scale' ? old.op.factor : 1)
    const box = (report('scale') ?? report('hollow'))?.measures.box
    if (o.kind === 'support') return { ...o, edits: o.edits.map((e) => ({ ...e, point: e.point.map((v) => v * ratio) as [number, number, number] })) }
    if (o.kind !== 'drill' || !box) return o
    const foot = [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2, box.min[2]]
    return { ...o, holes: o.holes.map((h) => ({ ...h, point: h.point.map((v, k) => foot[k]! + (v - foot[k]!) * ratio) as [number, number, number] })) }
  }
  const remove = (kind: Kind): Promise<boolean> => change(operations().filter((o) => o.kind !== kind))
  async function undo(): Promise<void> {
    const last = history.value.pop()
    if (!last) return
    const now = operations()
    if (await writeOperations(last)) undone.value.push(now)
  }
  async function redo(): Promise<void> {
    const next = undone.value.pop()
    if (!next) return
    const now = operations()
    if (await writeOperations(next)) history.value.push(now)
  }

  const step = (kind: Kind): PartRecord['steps'][number] | null => part.value?.steps.find((s) => s.op.kind === kind) ?? null
  function report<K extends Kind>(kind: K): Extract<OperationReport, { kind: K }> | null {
    const s = step(kind)
    return s?.derivation?.status === 'done' ? (s.derivation.report as Extract<OperationReport, { kind: K }>) : null
  }
  /** Mesh that goes into the operation of that kind: the last one derived before its place. */
  function meshBefore(kind: Kind): string | null {
    let mesh = part.value?.sculptMesh ?? null
    for (const s of part.value?.steps ?? []) {
      if (OPERATION_ORDER.indexOf(s.op.kind) >= OPERATION_ORDER.indexOf(kind)) break
      if (s.derivation?.status !== 'done' || !s.derivation.meshHash) return null
      mesh = s.derivation.meshHash
    }
    return mesh
  }
  function meshAfter(kind: Kind): string | null {
    const s = step(kind)
    return s ? (s.derivation?.status === 'done' ? s.derivation.meshHash : null) : meshBefore(kind)
  }
  async function dropFiles(files: readonly File[]): Promise<string[]> {
    const p = piece.value
    const refused: string[] = []
    if (!p) return refused
    for (const f of files) {
      try { await tell('POST', `/pieces/${p.id}/files?name=${encodeURIComponent(f.name)}`, f) } catch (e) { refused.push(e instanceof Error ? e.message : String(e)) }
    }
    await reload()
    return refused
  }
  return { piece, part, partIndex, problem, history, undone, open, reload, save, apply, remove, undo, redo, step, report, meshBefore, meshAfter, operations, change, dropFiles, guarded }
})
