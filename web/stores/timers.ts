import { text } from '../i18n'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { timers as timersSchema, type TimerRecord } from '../../contract/bench'
import { api, tell } from '../api'
import { useChanges } from './changes'

/** Clocks that the server keeps: cures, mixes that set, coats that dry. Announced once they run out, until somebody has heard. */
export const useTimers = defineStore('timers', () => {
  const list = ref<TimerRecord[]>([]),
    now = ref(Date.now())
  /** ms by which the server's clock is ahead of this device's */
  let ahead = 0
  setInterval(() => {
    now.value = Date.now() + ahead
    announce()
  }, 1000)
  let asked = 0
  async function load(): Promise<void> {
    const mine = ++asked
    const t = await api(timersSchema, 'GET', '/timers')
    // An answer that was overtaken says what was.
    if (mine !== asked) return
    ahead = new Date(t.now).getTime() - Date.now()
    now.value = Date.now() + ahead
    list.value = t.timers
  }
  useChanges().listen((c) => {
    if (c.type === 'timers' || c.type === 'hello') void load().catch(() => undefined)
  })
  /** s that are left; 0 when it has run out */
  const left = (t: TimerRecord): number => Math.max(0, Math.round((new Date(t.until).getTime() - now.value) / 1000))
  const running = computed(() => list.value.filter((t) => left(t) > 0))
  const over = computed(() => list.value.filter((t) => left(t) === 0))

  const told = new Set<string>()
  function announce(): void {
    for (const t of over.value) {
      if (told.has(t.id)) continue
      told.add(t.id)
      chime()
      if ('Notification' in window && Notification.permission === 'granted')
        new Notification(words(t), { body: t.piece, tag: t.id })
    }
  }
  const heard = (t: TimerRecord): Promise<void> => tell('PUT', `/timers/${t.id}/heard`)
  const stop = (t: TimerRecord): Promise<void> => tell('DELETE', `/timers/${t.id}`)
  const start = (t: Pick<TimerRecord, 'pieceId' | 'stepKey' | 'kind' | 'title'>, seconds: number): Promise<void> =>
    tell('POST', '/timers', { ...t, title: t.title.slice(0, 300), seconds: Math.round(seconds) })
  const of = (pieceId: string, stepKey: string): TimerRecord[] =>
    list.value.filter((t) => t.pieceId === pieceId && t.stepKey === stepKey)
  return { list, now, running, over, left, heard, stop, start, of, load }
})

/** What it means that a clock ran out. */
export function words(t: TimerRecord): string {
  if (t.kind === 'pot') return text('stores.timers.theMixHasSet', { title: t.title })
  if (t.kind === 'recoat') return text('stores.timers.theNextCoatCan', { title: t.title })
  return text('stores.timers.theWaitIsOver', { title: t.title })
}

function chime(): void {
  try {
    const a = new AudioContext()
    for (const [i, f] of [523, 659, 784].entries()) {
      const o = a.createOscillator(),
        g = a.createGain()
      o.frequency.value = f
      g.gain.value = 0.12
      o.connect(g).connect(a.destination)
      o.start(a.currentTime + i * 0.25)
      o.stop(a.currentTime + i * 0.25 + 0.22)
    }
  } catch {
    /* no sound here; the words are on the screen */
  }
}
