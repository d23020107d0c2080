import { once } from 'node:events'
import { Worker } from 'node:worker_threads'
import { afterEach, expect, it } from 'vitest'
import { KernelThreads } from './kernelThreads'

/** Answers what it is sent, and throws what it is told to. */
const ECHO = `const { parentPort } = require('node:worker_threads')
parentPort.on('message', (m) => { if (m === 'throw') throw new Error('as told'); parentPort.postMessage(m) })`
let threads: KernelThreads
const made: Worker[] = []
const make = (): Worker => {
  const w = new Worker(ECHO, { eval: true })
  made.push(w)
  return w
}
afterEach(async () => {
  for (const w of made.splice(0)) await w.terminate()
})
async function asked(thread: Worker, what: string): Promise<unknown> {
  thread.postMessage(what)
  const [answer] = (await once(thread, 'message')) as unknown[]
  return answer
}

it('a thread that has answered is used again, and hears only whoever has it', async () => {
  threads = new KernelThreads(make)
  const first = threads.take()
  const received: unknown[] = []
  first.on('message', (m) => received.push(m))
  expect(await asked(first, 'one')).toBe('one')
  threads.giveBack(first, 1000)
  const again = threads.take()
  expect(again).toBe(first)
  expect(await asked(again, 'two')).toBe('two')
  expect(received).toEqual(['one'])
  // Two at a time are two threads.
  expect(threads.take()).not.toBe(first)
})

it('a thread that holds much memory, was ended or failed does not come back', async () => {
  threads = new KernelThreads(make)
  const large = threads.take()
  threads.giveBack(large, 2 ** 30)
  await expect.poll(() => large.threadId).toBe(-1)
  expect(threads.waiting).toBe(0)

  const ended = threads.take()
  threads.giveBack(ended, 0)
  await ended.terminate()
  expect(threads.waiting).toBe(0)

  const failing = threads.take()
  threads.giveBack(failing, 0)
  failing.postMessage('throw')
  await expect.poll(() => failing.threadId).toBe(-1)
  expect(threads.waiting).toBe(0)
  expect(await asked(threads.take(), 'still')).toBe('still')
})

it('ends what waits', async () => {
  threads = new KernelThreads(make)
  const thread = threads.take()
  await asked(thread, 'up')
  threads.giveBack(thread, 0)
  await threads.end()
  expect(threads.waiting).toBe(0)
  expect(thread.threadId).toBe(-1)
})
