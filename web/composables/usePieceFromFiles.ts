import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { newPiece, piece as pieceSchema } from '../../contract/pieces'
import { SCULPT_ENDINGS } from '../../core/formats/endings'
import { api, tell } from '../api'
import { text } from '../i18n'
import { messageOf } from '../messageOf'
import { usePiece } from '../stores/piece'

const isSculpt = (f: File): boolean => SCULPT_ENDINGS.some((e) => f.name.toLowerCase().endsWith(`.${e}`))

/** A new piece of files that were dropped or chosen, named after the first sculpt among them, and opened. */
export function usePieceFromFiles() {
  const router = useRouter()
  const fault = ref(''),
    busy = ref(false)
  async function open(files: readonly File[]): Promise<void> {
    const sculpts = files.filter(isSculpt)
    if (files.length === 0 || busy.value) return
    if (sculpts.length === 0) {
      fault.value = text('composables.usePieceFromFiles.noSculpt', {
        files: files.map((f) => f.name).join(', '),
        kinds: SCULPT_ENDINGS.map((e) => e.toUpperCase()).join(', '),
      })
      return
    }
    busy.value = true
    try {
      fault.value = ''
      await made(sculpts, files.length - sculpts.length)
    } catch (e) {
      fault.value = messageOf(e)
    } finally {
      busy.value = false
    }
  }
  async function made(sculpts: readonly File[], others: number): Promise<void> {
    const called = sculpts[0]!.name.replace(/\.[^.]*$/, '')
    const name = newPiece.shape.name.safeParse(called).data ?? text('composables.usePieceFromFiles.newPiece')
    const p = await api(pieceSchema, 'POST', '/pieces', { name })
    const store = usePiece()
    await store.open(p.id)
    const refused = await store.dropFiles(sculpts)
    if (refused.length === sculpts.length) {
      // Nothing came of it: no empty piece is left behind.
      await tell('DELETE', `/pieces/${p.id}`)
      fault.value = refused.join(' ')
      return
    }
    const said = [...refused, ...(others > 0 ? [text('composables.usePieceFromFiles.leftOut', { others })] : [])]
    if (said.length > 0) store.problem = said.join(' ')
    await router.push(`/pieces/${p.id}/import`)
  }
  return { open, fault, busy }
}
