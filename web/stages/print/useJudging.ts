import { text } from '../../i18n'
import { computed, ref, watch } from 'vue'
import { z } from 'zod'
import { judged, mark as markSchema, type Mark, type Outcome, type PlateRecord } from '../../../contract/runs'
import { resin as resinSchema } from '../../../contract/stock'
import { api } from '../../api'
import { useAttempt } from '../../composables/useAttempt'
import { useRuns } from '../../stores/runs'
import { useStock } from '../../stores/stock'

type Result = Outcome['result']
const same = (a: { partId: string; copy: number }, b: { partId: string; copy: number }): boolean =>
  a.partId === b.partId && a.copy === b.copy

/** How the parts of a plate came out, while somebody looks them over; kept when they say so. */
export function useJudging(plate: () => PlateRecord) {
  const runs = useRuns(),
    stock = useStock()
  const marks = ref<Mark[]>([]),
    outcomes = ref<Outcome[]>([]),
    weighed = ref<number | null>(null)
  const at = ref(0),
    changed = ref(false),
    said = ref('')
  const { fault, busy, attempt: tried } = useAttempt()
  watch(
    () => [plate().id, plate().version],
    () => {
      // What is being said is not overwritten by news of the plate.
      if (changed.value) return
      const p = plate()
      marks.value = p.marks.map((m) => ({ ...m }))
      outcomes.value = p.outcomes.map((o) => ({ ...o }))
      weighed.value = p.weighed
      toFault()
    },
    { immediate: true },
  )
  /** The first part with a fault is laid on the table. */
  function toFault(): void {
    const [first] = marks.value
    const i = first ? plate().parts.findIndex((p) => same(p, first)) : -1
    if (i >= 0) at.value = i
  }
  const part = computed(() => plate().parts[Math.min(at.value, plate().parts.length - 1)]!)
  const own = computed(() => marks.value.filter((m) => same(m, part.value)))
  const resultOf = (p: { partId: string; copy: number }): Result | null =>
    outcomes.value.find((o) => same(o, p))?.result ?? null
  function say(p: { partId: string; copy: number }, result: Result): void {
    const { partId, copy } = p
    outcomes.value = [...outcomes.value.filter((o) => !same(o, p)), { partId, copy, result }]
    changed.value = true
  }
  function put(kind: Mark['kind'], point: [number, number, number]): void {
    const { partId, copy } = part.value
    const height = plate().layers * plate().layerHeight
    const id = crypto.randomUUID()
    marks.value.push({ id, partId, copy, kind, point, note: '', reach: kind === 'missing' ? [point[2], height] : null })
    if (resultOf(part.value) === null) say(part.value, kind === 'missing' || kind === 'torn' ? 'failed' : 'usable')
    changed.value = true
  }
  function drop(id: string): void {
    marks.value = marks.value.filter((m) => m.id !== id)
    changed.value = true
  }
  function attempt(work: () => Promise<void>): Promise<void> {
    said.value = ''
    return tried(work)
  }
  const seenSchema = z.object({
    marks: z.array(markSchema),
    outcomes: judged.shape.outcomes,
    grams: z.number(),
    layers: z.number(),
  })
  /** g that hang on the plate, by a device that can tell */
  const hangs = ref<number | null>(null)
  const look = (): Promise<void> =>
    attempt(async () => {
      const seen = await api(seenSchema, 'POST', `/plates/${plate().id}/look`)
      marks.value = seen.marks
      outcomes.value = seen.outcomes
      hangs.value = seen.grams
      toFault()
      changed.value = true
    })
  /** Lays what came off on the scale and reads it, several times against its noise. */
  const weigh = (): Promise<void> =>
    attempt(async () => {
      const scale = runs.scale
      if (!scale) throw new Error(text('print.useJudging.noScaleIsConnected'))
      if (scale.card.standIn && hangs.value !== null) {
        await runs.command(scale.serial, { do: 'load', grams: hangs.value })
        await new Promise((r) => setTimeout(r, 400))
      }
      const READINGS = 5
      let sum = 0
      for (let i = 0; i < READINGS; i++) {
        const { state } = await runs.command(scale.serial, { do: 'state' })
        sum += Number(state?.grams ?? 0)
      }
      weighed.value = Math.round((100 * sum) / READINGS) / 100
      changed.value = true
    })
  /** g that all parts should weigh with their supports, by volume and the resin's density */
  const meant = computed(() => {
    const r = stock.resins.find((x) => x.id === runs.runOf(plate()).resinId)
    const volume = plate().parts.reduce((s, p) => s + (p.facts.volume ?? 0), 0)
    return r && volume > 0 ? (volume / 1000) * resinSchema.parse(r).density : null
  })
  const keep = (): Promise<void> =>
    attempt(async () => {
      // What nobody found fault with came out.
      const rest = plate()
        .parts.filter((p) => resultOf(p) === null)
        .map(({ partId, copy }): Outcome => ({ partId, copy, result: 'good' }))
      outcomes.value = [...outcomes.value, ...rest]
      await runs.judge(plate(), {
        outcomes: outcomes.value,
        marks: marks.value,
        weighed: weighed.value,
      })
      changed.value = false
      said.value = text('print.useJudging.savedThePrintStatistics')
    })
  return {
    marks,
    outcomes,
    weighed,
    at,
    part,
    own,
    resultOf,
    say,
    put,
    drop,
    look,
    weigh,
    meant,
    keep,
    changed,
    fault,
    said,
    busy,
  }
}
