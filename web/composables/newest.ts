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

/**
 * What is fetched by the first who needs it, and again once it is known to be old; what failed is asked again by the next.
 *
 * @returns `load` waits until it is there; `again` until it is there again; `asked` whether anybody ever needed it
 */
export function fetchedOnce(work: () => Promise<void>): {
  load: () => Promise<void>
  again: () => Promise<void>
  asked: () => boolean
} {
  const fetch = newestOnly(work)
  let loaded: Promise<void> | null = null
  const load = (): Promise<void> =>
    (loaded ??= fetch().catch((e: unknown) => {
      loaded = null
      throw e
    }))
  const again = (): Promise<void> => {
    loaded = null
    return load()
  }
  return { load, again, asked: () => loaded !== null }
}

/**
 * Questions that may be under way side by side, whose answers come in any order.
 *
 * @returns takes a number for a question; what it gives back tells, once its answer is there, whether that is still news:
 * false where one that was asked later has been answered already
 */
export function inOrder(): () => () => boolean {
  let asked = 0,
    answered = 0
  return () => {
    const mine = ++asked
    return () => {
      if (mine < answered) return false
      answered = mine
      return true
    }
  }
}
