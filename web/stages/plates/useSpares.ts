import { reportOf } from '../../../contract/derivations'
import { onMounted, ref } from 'vue'
import { record as recordSchema, type PrintRecord } from '../../../contract/runs'
import { likely, sparesFor, type Spares } from '../../../core/print/failure/spares'
import { tiltOf } from '../../../core/print/failure/facts'
import { tiltWord } from '../../../core/print/failure/record'
import { api } from '../../api'
import { usePlating, type OnPlates } from '../../stores/plating'

const GRADES = ['whisker', 'strut', 'post'] as const

/** How many to print besides, so that enough come out: by how often parts held and tilted like these did so far. */
export function useSpares() {
  const plating = usePlating()
  const record = ref<PrintRecord | null>(null)
  onMounted(async () => {
    record.value = await api(recordSchema, 'GET', '/record').catch(() => null)
  })
  /** The least of what printer, tilt and tips have each come to: whichever is weakest decides. */
  function chance({ part }: OnPlates): number {
    const orient = part.steps.find((s) => s.op.kind === 'orient')?.op,
      report = reportOf(part.steps.find((s) => s.op.kind === 'support')?.derivation, 'support')
    const tips = report?.support.tips ?? []
    const alike: [string, string | undefined][] = [
      ['printer', plating.printers[0]?.name],
      ['tilt', orient?.kind === 'orient' ? tiltWord(tiltOf(orient.quaternion)) : undefined],
      ['tips', GRADES.find((g) => tips.some((t) => t.grade === g))],
    ]
    const rates = alike.flatMap(([by, what]) => record.value?.rates.filter((r) => r.by === by && r.what === what) ?? [])
    return Math.min(...[{ parts: 0, good: 0 }, ...rates].map(likely))
  }
  const spares = (p: OnPlates): (Spares & { chance: number }) | null => {
    const at = chance(p),
      s = sparesFor(p.copies, at)
    return s ? { ...s, chance: at } : null
  }
  return { spares }
}
