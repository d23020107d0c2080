import { Worker } from 'node:worker_threads'

/** Beside the bundled worker process. */
const KERNEL = new URL('./kernel.mjs', import.meta.url)
/** MB of old generation that one derivation may take */
const MAX_HEAP = 4096
/** bytes that a thread may hold on to when it is done: more was a large body, whose memory is given back by ending it */
const MAX_KEPT = 384 * 2 ** 20

/**
 * Threads that derivations run in, one at a time each. Loading the kernel takes longer than most checks, so a thread that has
 * done its work waits for the next; one that was ended, failed or holds much memory does not come back.
 */
export class KernelThreads {
  private readonly idle: Worker[] = []

  /** @param make how a thread is made; tests give their own */
  constructor(
    private readonly make: () => Worker = () =>
      new Worker(KERNEL, { resourceLimits: { maxOldGenerationSizeMb: MAX_HEAP } }),
  ) {}

  /** A thread that nobody else uses: to be given back, or ended. */
  take(): Worker {
    const waiting = this.idle.pop()
    if (waiting) stopListening(waiting)
    return waiting ?? this.make()
  }

  /** @param held bytes that it holds on to, as it says */
  giveBack(thread: Worker, held: number): void {
    stopListening(thread)
    if (held > MAX_KEPT) {
      void thread.terminate()
      return
    }
    const gone = (): void => {
      const at = this.idle.indexOf(thread)
      if (at >= 0) this.idle.splice(at, 1)
    }
    thread.on('error', gone)
    thread.on('exit', gone)
    this.idle.push(thread)
  }

  /** How many wait for work. */
  get waiting(): number {
    return this.idle.length
  }

  async end(): Promise<void> {
    for (const thread of this.idle.splice(0)) await thread.terminate()
  }
}

/** Nobody listens to it any longer. All its listeners at once would take its own along. */
function stopListening(thread: Worker): void {
  for (const event of ['message', 'error', 'exit']) thread.removeAllListeners(event)
}
