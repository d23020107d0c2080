import { onBeforeUnmount, onMounted, ref } from 'vue'

/** Keeps the screen awake while something is shown; taken again whenever the page comes back to the front. */
export function useWakeLock() {
  const awake = ref(false)
  let lock: WakeLockSentinel | null = null,
    gone = false
  async function take(): Promise<void> {
    if (document.visibilityState !== 'visible' || !('wakeLock' in navigator)) return
    try {
      const mine = await navigator.wakeLock.request('screen')
      if (gone) {
        await mine.release()
        return
      }
      lock = mine
      awake.value = true
      mine.addEventListener('release', () => {
        awake.value = false
      })
    } catch {
      // The device saves power; the words on the screen say that it may go dark.
      awake.value = false
    }
  }
  const again = (): void => void take()
  onMounted(() => {
    document.addEventListener('visibilitychange', again)
    void take()
  })
  onBeforeUnmount(() => {
    gone = true
    document.removeEventListener('visibilitychange', again)
    void lock?.release()
  })
  return { awake }
}
