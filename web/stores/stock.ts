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
import { api, tell } from '../api'
import { fetchedOnce } from '../composables/newest'
import { useChanges } from './changes'

const item = z.object({
  id: z.string(),
  kind: stockKind,
  version: z.number(),
  data: z.record(z.string(), z.unknown()),
})
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
      void again().catch(() => undefined)
    }
  })
  const { load, again } = fetchedOnce(async () => {
    items.value = await api(z.array(item), 'GET', '/stock')
    workshop.value = await api(workshopSchema, 'GET', '/workshop')
  })
  async function add(kind: string, data: object): Promise<void> {
    await tell('POST', `/stock/${kind}`, data)
    await again()
  }
  async function change(kind: string, id: string, version: number, data: object): Promise<void> {
    await tell('PUT', `/stock/${kind}/${id}`, { version, data })
    await again()
  }
  async function remove(kind: string, id: string): Promise<void> {
    await tell('DELETE', `/stock/${kind}/${id}`)
    await again()
  }
  async function saveWorkshop(next: Workshop): Promise<void> {
    workshop.value = await api(workshopSchema, 'PUT', '/workshop', next)
  }
  const money = (amount: number): string =>
    new Intl.NumberFormat(undefined, { style: 'currency', currency: workshop.value?.currency ?? 'EUR' }).format(amount)
  return { items, printers, resins, paints, materials, workshop, load, add, change, remove, saveWorkshop, money }
})
