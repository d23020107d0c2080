import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { z } from 'zod'
import { workshop as workshopSchema, type Workshop } from '../../contract/workshop'
import {
  paint as paintSchema,
  stockKind,
  type MaterialRecord,
  type PaintRecord,
  type PrinterRecord,
  type ResinRecord,
} from '../../contract/stock'
import type { StarterPrinter } from '../../core/defaults/stock'
import { dayAt } from '../../core/math/wallClock'
import { api, tell } from '../api'
import { fieldEdits, type FieldEdits } from '../composables/edits'
import { fetchedOnce } from '../composables/newest'
import { useChanges } from './changes'
import { manner } from '../manner'

const item = z.object({
  id: z.string(),
  kind: stockKind,
  version: z.number(),
  data: z.record(z.string(), z.unknown()),
})
type StoredItem = z.infer<typeof item>
/** An item's own fields, with its version. */
type ItemFields = Record<string, unknown> & { version: number }
export type Item<T> = { id: string; version: number } & T

/** Printers, resins, paints and the workshop's settings. */
export const useStock = defineStore('stock', () => {
  const items = ref<z.infer<typeof item>[]>([])
  const workshop = ref<Workshop | null>(null)
  const pick = <T>(kind: string): Item<T>[] =>
    items.value.filter((i) => i.kind === kind).map((i) => ({ ...(i.data as T), id: i.id, version: i.version }))
  const printers = computed(() => pick<PrinterRecord>('printer'))
  const resins = computed(() => pick<ResinRecord>('resin'))
  const paints = computed(() =>
    pick<PaintRecord>('paint').map((p) => ({ ...paintSchema.parse(p), id: p.id, version: p.version })),
  )
  const materials = computed(() => pick<MaterialRecord>('material'))
  useChanges().listen((c) => {
    if (c.type === 'stock' || c.type === 'workshop' || c.type === 'hello') {
      void refresh()
    }
  })
  const { load, again } = fetchedOnce(async () => {
    items.value = (await api(z.array(item), 'GET', '/stock')).map((i) => asItem(i, edits(i).withPending(fieldsOf(i))))
    workshop.value = settings.withPending(await api(workshopSchema, 'GET', '/workshop'))
  })
  /**
   * What was changed is changed, whether or not the list can be read again at once: when it cannot, the connection is
   * gone, and the list is read when it is back ('hello').
   */
  const refresh = (): Promise<void> => again().catch(() => undefined)
  async function add(kind: string, data: object): Promise<void> {
    await tell('POST', `/stock/${kind}`, data)
    await refresh()
  }
  /** Adds what a workshop may start with, but what is there by that name already. */
  async function addStarter(printer: StarterPrinter): Promise<void> {
    await tell('POST', '/stock/starter', { printer })
    await refresh()
  }
  const fieldsOf = (i: StoredItem): ItemFields => ({ ...i.data, version: i.version })
  const asItem = (i: StoredItem, { version, ...data }: ItemFields): StoredItem => ({ ...i, version, data })
  const editors = new Map<string, FieldEdits<ItemFields>>()
  function edits({ kind, id }: Pick<StoredItem, 'kind' | 'id'>): FieldEdits<ItemFields> {
    const there = editors.get(id)
    if (there) return there
    const find = (): StoredItem | undefined => items.value.find((i) => i.id === id)
    const made = fieldEdits<ItemFields>({
      name: () => `stock ${id}`,
      current: () => {
        const i = find()
        return i ? fieldsOf(i) : null
      },
      send: async (fields, { version, ...from }) =>
        fieldsOf(await api(item, 'PUT', `/stock/${kind}/${id}`, { version, data: { ...from, ...fields } })),
      show: (f) => {
        items.value = items.value.map((i) => (i.id === id ? asItem(i, f) : i))
      },
      read: (newer) => {
        const i = item.safeParse(newer)
        return i.success ? fieldsOf(i.data) : null
      },
    })
    editors.set(id, made)
    return made
  }
  /** Changes fields of an item; @throws ApiProblem when they are refused. */
  async function change(kind: StoredItem['kind'], id: string, fields: object): Promise<void> {
    try {
      // Once somebody has set one of its figures they are his.
      await edits({ kind, id }).edit({ ...fields, starting: undefined } as Partial<ItemFields>)
    } finally {
      await refresh()
    }
  }
  async function remove(kind: string, id: string): Promise<void> {
    await tell('DELETE', `/stock/${kind}/${id}`)
    await refresh()
  }
  const settings = fieldEdits<Workshop>({
    name: () => 'workshop',
    current: () => workshop.value,
    send: (fields, from) => api(workshopSchema, 'PUT', '/workshop', { ...from, ...fields, version: from.version }),
    show: (w) => {
      workshop.value = w
    },
    read: (newer) => workshopSchema.safeParse(newer).data ?? null,
  })
  /** Changes settings of the workshop; @throws ApiProblem when they are refused. */
  const changeWorkshop = (fields: Partial<Workshop>): Promise<void> => settings.edit(fields)
  /** the zone of the clock on the workshop's wall, and the day that it shows, ISO */
  const zone = computed(() => workshop.value?.zone ?? undefined)
  const today = (): string => dayAt(zone.value)
  const money = (amount: number): string =>
    new Intl.NumberFormat(manner.locale, { style: 'currency', currency: workshop.value?.currency ?? 'EUR' }).format(
      amount,
    )
  return {
    items,
    printers,
    resins,
    paints,
    materials,
    workshop,
    load,
    add,
    addStarter,
    change,
    remove,
    changeWorkshop,
    zone,
    today,
    money,
  }
})
