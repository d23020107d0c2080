import { defineStore } from 'pinia'
import { ref } from 'vue'

export type Change = { type: string; id?: string; key?: string; status?: string; progress?: number }

/** The stream of changes from the server; who shows something listens and fetches it again. */
export const useChanges = defineStore('changes', () => {
  const connected = ref(true)
  const listeners = new Set<(c: Change) => void>()
  let source: EventSource | null = null

  function open(): void {
    source ??= (() => {
      const s = new EventSource('/api/events')
      s.onmessage = (e: MessageEvent<string>) => {
        connected.value = true
        const c = JSON.parse(e.data) as Change
        for (const l of listeners) l(c)
      }
      s.onerror = () => {
        connected.value = false
      }
      return s
    })()
  }
  function listen(l: (c: Change) => void): () => void {
    open()
    listeners.add(l)
    return () => {
      listeners.delete(l)
    }
  }
  return { connected, listen }
})
