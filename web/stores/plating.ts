import { text } from '../i18n'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { plating as platingSchema, type PartRecord, type Plating } from '../../contract/pieces'
import { printer as printerSchema, slicedResin, type PrinterRecord } from '../../contract/stock'
import { nestDefaults, type NestedPlate } from '../../core/print/nest/types'
import type { NestReport } from '../../core/print/nest/nestReport'
import { useCheck } from '../composables/useCheck'
import { usePrinterAndResin } from '../composables/usePrinterAndResin'
import { useDerivations, type CheckOf } from './derivations'
import { usePiece } from './piece'
import { useStock, type Item } from './stock'

export interface OnPlates {
  part: PartRecord
  mesh: string
  /** that are wanted, and that are printed besides */
  copies: number
  spares: number
}

const changed = (value: Ref): Promise<void> =>
  new Promise((done) => {
    const stop = watch(value, () => {
      stop()
      done()
    })
  })

/** How the parts of the piece are set on plates and printers, and which plate is being sliced. */
export const usePlating = defineStore('plating', () => {
  const piece = usePiece(),
    stock = useStock(),
    derivations = useDerivations()
  const { printer, resin } = usePrinterAndResin()
  const wish = computed<Plating>(() => platingSchema.parse(piece.piece?.plating ?? {}))
  async function change(more: Partial<Plating>): Promise<void> {
    await piece.save({ plating: { ...wish.value, ...more } })
  }
  /** Only what has been stood up can be printed. */
  const stands = (part: PartRecord): boolean =>
    piece.step('orient', part) !== null || piece.step('support', part) !== null
  /** What is printed in filament goes on no plate of a resin printer. */
  const inResin = computed(() =>
    (piece.piece?.partList ?? []).filter((p) => piece.piece?.materials[p.id]?.name !== 'filament'),
  )
  const parts = computed<OnPlates[]>(() =>
    inResin.value.flatMap((part) => {
      const mesh = stands(part) ? piece.meshAfter('support', part) : null
      const copies = wish.value.copies[part.id] ?? 1
      return mesh ? [{ part, mesh, copies, spares: copies > 0 ? (wish.value.spares[part.id] ?? 0) : 0 }] : []
    }),
  )
  const unplaced = computed(() => inResin.value.filter((p) => !stands(p)))
  const printers = computed<Item<PrinterRecord>[]>(() => {
    const named = stock.printers.filter((p) => wish.value.printers.includes(p.id))
    return named.length > 0 ? named : printer.value ? [printer.value] : []
  })
  /** while the stage is open; nesting is not done for nobody */
  const open = ref(false)
  const wanted = computed(() => parts.value.filter((p) => p.copies > 0))
  const asked = computed<CheckOf<'nest'> | null>(() =>
    open.value && wanted.value.length > 0 && printers.value.length > 0 && resin.value
      ? {
          kind: 'nest',
          others: wanted.value.slice(1).map((p) => p.mesh),
          parts: wanted.value.map((p) => ({
            id: p.part.id,
            copies: p.copies + p.spares,
            turn: !wish.value.straight[p.part.id],
            locks: wish.value.locks[p.part.id] ?? [],
          })),
          printers: printers.value.map((p) => ({ ...printerSchema.parse(p), id: p.id })),
          resin: slicedResin.parse(resin.value),
          margin: nestDefaults.margin,
          aim: wish.value.aim,
        }
      : null,
  )
  const check = useCheck<'nest'>(
    () => wanted.value[0]?.mesh ?? null,
    () => asked.value,
  )
  // A drawing that vanished at every change would lose the hand that drags in it.
  const last = shallowRef<NestReport | null>(null)
  watch(check.report, (r) => {
    if (r) last.value = r
  })
  watch(
    () => piece.piece?.id,
    () => {
      last.value = null
      target.value = null
      selected.value = 0
    },
  )
  const report = computed(() => (wanted.value.length > 0 ? (check.report.value ?? last.value) : null))
  const selected = ref(0)
  const plate = computed<NestedPlate | null>(() => {
    const all = report.value?.nesting.plates ?? []
    return all[Math.min(selected.value, all.length - 1)] ?? null
  })
  const printerOf = (p: NestedPlate): Item<PrinterRecord> | null =>
    stock.printers.find((q) => q.id === p.printer) ?? null

  /** A whole plate to be sliced instead of the part at work alone. */
  const target = shallowRef<{ mesh: string; printer: Item<PrinterRecord>; plate: NestedPlate } | null>(null)
  const same = (a: NestedPlate, b: NestedPlate): boolean => JSON.stringify(a) === JSON.stringify(b)
  // Arranged again it is no longer that plate; the same answer come again changes nothing.
  watch(check.report, (r) => {
    const t = target.value
    if (t && !r?.nesting.plates.some((p) => same(p, t.plate))) target.value = null
  })
  /** All parts of a plate as one body; its hash. */
  async function bodyOf(p: NestedPlate): Promise<string | null> {
    const [first, ...rest] = wanted.value
    if (!first) return null
    const d = await derivations.settled(first.mesh, {
      kind: 'plate',
      others: rest.map((r) => r.mesh),
      parts: p.parts.map(({ id, x, y, angle }) => ({
        of: wanted.value.findIndex((w) => w.part.id === id),
        x,
        y,
        angle,
      })),
    })
    return d.meshHash
  }
  /**
   * Makes the body of a plate and has it sliced instead of the part. Parts may be laid again while it is made: then it is
   * the plate as it lies by now that counts.
   *
   * @throws when that printer has no such plate any more
   */
  async function setUp(wanted: NestedPlate): Promise<void> {
    for (let p = wanted; ;) {
      while (check.behind.value) await changed(check.behind)
      const on = printerOf(p),
        mesh = await bodyOf(p)
      const now = report.value?.nesting.plates.find((q) => q.printer === p.printer && q.number === p.number)
      if (!now || !on || !mesh) throw new Error(text('stores.plating.theLayoutOfThe'))
      if (same(now, p)) {
        target.value = { mesh, printer: on, plate: now }
        return
      }
      p = now
    }
  }
  return {
    wish,
    change,
    parts,
    unplaced,
    printers,
    open,
    report,
    measuring: check.measuring,
    behind: check.behind,
    problem: check.problem,
    selected,
    plate,
    printerOf,
    target,
    bodyOf,
    setUp,
  }
})
