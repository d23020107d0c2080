import { describe, expect, it } from 'vitest'
import { ProgressWriter } from './progress'

/** A store that has written a value when the test says so. */
class Store {
  readonly written: number[] = []
  private readonly underWay: (() => void)[] = []
  readonly progress = new ProgressWriter(
    (fraction) =>
      new Promise((done) => {
        this.underWay.push(() => {
          this.written.push(fraction)
          done()
        })
      }),
  )
  /** Ends the write that is under way, and lets what follows from it happen. */
  async writes(): Promise<void> {
    expect(this.underWay).toHaveLength(1)
    this.underWay.shift()!()
    await quiet()
  }
  get idle(): boolean {
    return !this.underWay.length
  }
}
/** Until nothing is left to do but what a test still holds back. */
const quiet = (): Promise<void> => new Promise((r) => setImmediate(r))

describe('the progress of a job', () => {
  it('is written one value at a time, the newest of those that came meanwhile', async () => {
    const store = new Store()
    for (const f of [0.1, 0.2, 0.3]) store.progress.note(f)
    await store.writes()
    await store.writes()
    expect(store.written).toEqual([0.1, 0.3])
    expect(store.idle).toBe(true)
    store.progress.note(0.9)
    await store.writes()
    expect(store.written).toEqual([0.1, 0.3, 0.9])
  })
  it('is never written after the end, whatever was on its way', async () => {
    const store = new Store()
    store.progress.note(0.4)
    store.progress.note(0.5)
    let over = false
    const end = store.progress.end().then(() => (over = true))
    await quiet()
    // The end waits for the write that is under way.
    expect(over).toBe(false)
    await store.writes()
    await end
    store.progress.note(0.6)
    await quiet()
    expect(store.written).toEqual([0.4])
    expect(store.idle).toBe(true)
  })
  it('survives a write that fails', async () => {
    let tries = 0
    const p = new ProgressWriter(() => {
      tries++
      return Promise.reject(new Error('the database is away'))
    })
    p.note(0.1)
    await quiet()
    p.note(0.2)
    await p.end()
    expect(tries).toBe(2)
  })
})
