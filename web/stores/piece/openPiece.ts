import { text } from '../../i18n'
import { ref } from 'vue'
import { piece as pieceSchema, pieceDetail, type PartRecord, type PieceDetail } from '../../../contract/pieces'
import { api, ApiProblem } from '../../api'
import { messageOf } from '../../messageOf'
import { fieldEdits } from '../../composables/edits'
import { newestOnly } from '../../composables/newest'
import { useChanges } from '../changes'
import { useDerivations } from '../derivations'
import { isUnasked } from './partMesh'

/** The piece that is open: fetched, kept up to date as the server tells of changes, and its fields saved. */
export function openPiece() {
  const piece = ref<PieceDetail | null>(null)
  /** why the last change was not made */
  const problem = ref<string | null>(null)
  const derivations = useDerivations()

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

  /** Name of the queue in which changes of the piece, of its fields as of its parts, are sent. */
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
    if (p.partList.some(isUnasked)) p = await api(pieceDetail, 'POST', `/pieces/${id}/advance`)
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
  /** The part with its derivations as newest as they are known. */
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
  /** Does it, or says why not; whether it was done. */
  async function guarded(work: () => Promise<void>): Promise<boolean> {
    problem.value = null
    try {
      await work()
      return true
    } catch (e) {
      if (e instanceof ApiProblem && e.status === 409) {
        await reload()
        problem.value = text('piece.openPiece.theNewerVersionIs', { message: e.message })
      } else problem.value = messageOf(e)
      return false
    }
  }
  return { piece, problem, queue, fetchPiece, noted, reload, save, guarded }
}
export type OpenPiece = ReturnType<typeof openPiece>
