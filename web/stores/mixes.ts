import { defineStore } from 'pinia'
import { ref } from 'vue'
import { z } from 'zod'
import { mixRecord, type MixFields, type MixInput, type MixRecord } from '../../contract/mixes'
import { api, tell } from '../api'
import { queued } from '../composables/edits'
import { newestOnly } from '../composables/newest'
import { useChanges } from './changes'

/** The mix book. */
export const useMixes = defineStore('mixes', () => {
  const book = ref<MixRecord[] | null>(null)
  const load = newestOnly(async () => {
    book.value = await api(z.array(mixRecord), 'GET', '/mixes')
  })
  useChanges().listen((c) => {
    if (book.value && (c.type === 'stock' || c.type === 'hello')) void load().catch(() => undefined)
  })
  async function note(fields: MixInput): Promise<MixRecord> {
    const made = await api(mixRecord, 'POST', '/mixes', fields)
    await load()
    return made
  }
  async function change(mix: MixRecord, fields: Partial<MixFields>): Promise<void> {
    await queued(`mix ${mix.id}`, async () => {
      const { version } = book.value?.find((m) => m.id === mix.id) ?? mix
      const stored = await api(mixRecord, 'PUT', `/mixes/${mix.id}`, { ...fields, version })
      book.value = book.value?.map((m) => (m.id === stored.id ? stored : m)) ?? null
    })
    await load()
  }
  async function remove(id: string): Promise<void> {
    await tell('DELETE', `/mixes/${id}`)
    await load()
  }
  return { book, load, note, change, remove }
})
