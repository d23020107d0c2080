import { describe, expect, it } from 'vitest'
import { fetchedOnce, inOrder, newestOnly } from './newest'

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

describe('answers that come in any order', () => {
  it('are news unless one that was asked later has been answered', () => {
    const ask = inOrder()
    const [first, second, third] = [ask(), ask(), ask()] as const
    expect(second()).toBe(true)
    expect(first()).toBe(false)
    expect(third()).toBe(true)
    expect(second()).toBe(false)
  })
})

describe('what is fetched once', () => {
  it('is fetched by the first who needs it, again once it is old, and by the next after it failed', async () => {
    let times = 0,
      bad = false
    const list = fetchedOnce(() => {
      times++
      return bad ? Promise.reject(new Error('away')) : Promise.resolve()
    })
    expect(list.asked()).toBe(false)
    await Promise.all([list.load(), list.load()])
    await list.load()
    expect(times).toBe(1)
    await list.again()
    expect(times).toBe(2)
    bad = true
    await expect(list.again()).rejects.toThrow('away')
    bad = false
    await list.load()
    expect(times).toBe(4)
    expect(list.asked()).toBe(true)
  })
})
