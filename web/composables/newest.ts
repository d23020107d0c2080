/**
 * Work that is asked for faster than it can be done, as while a hand drags: one at a time, and what was asked meanwhile
 * is done once more at the end, by the state of then.
 *
 * @returns asks for it; settles when nothing is left to do
 */
export function newestOnly(work: () => Promise<void>): () => Promise<void> {
  let running: Promise<void> | null = null,
    again = false
  return () => {
    if (running) {
      again = true
      return running
    }
    running = (async () => {
      try {
        do {
          again = false
          await work()
        } while (again)
      } finally {
        running = null
      }
    })()
    return running
  }
}
