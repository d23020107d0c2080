import { describe, expect, it } from 'vitest'
import { newestOnly } from './newest'

describe('the newest only', () => {
  it('does what was asked first and what was asked last, and nothing between', async () => {
    const done: number[] = []
    let state = 0
    const ask = newestOnly(async () => {
      const mine = state
      await new Promise((r) => setTimeout(r, 5))
      done.push(mine)
    })
    const all: Promise<void>[] = []
    for (state = 1; state <= 20; state++) all.push(ask())
    state = 20
    await Promise.all(all)
    expect(done).toEqual([1, 20])
    state = 21
    await ask()
    expect(done).toEqual([1, 20, 21])
  })
  it('can be asked again after it failed', async () => {
    let bad = true
    const ask = newestOnly(() => (bad ? Promise.reject(new Error('no')) : Promise.resolve()))
    await expect(ask()).rejects.toThrow('no')
    bad = false
    await expect(ask()).resolves.toBeUndefined()
  })
})
