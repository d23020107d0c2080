import { ref } from 'vue'
import { messageOf } from '../messageOf'

/** Something that may be refused: what was said against it, and whether it is still under way. */
export function useAttempt() {
  const fault = ref(''),
    busy = ref(false)
  async function attempt(work: () => Promise<unknown>): Promise<void> {
    fault.value = ''
    busy.value = true
    try {
      await work()
    } catch (e) {
      fault.value = messageOf(e)
    } finally {
      busy.value = false
    }
  }
  return { fault, busy, attempt }
}
