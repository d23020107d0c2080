import { describe, expect, it } from 'vitest'
import { ProgressWriter } from './progress'

const later = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms))

describe('the progress of a job', () => {
  it('is written one value at a time, the newest of those that came meanwhile', async () => {
    const written: number[] = []
    const p = new ProgressWriter(async (f) => {
      await later(5)
      written.push(f)
    })
    for (const f of [0.1, 0.2, 0.3]) p.note(f)
    await later(20)
    p.note(0.9)
    await later(10)
    expect(written).toEqual([0.1, 0.3, 0.9])
  })
  it('is never written after the end, whatever was on its way', async () => {
    const written: number[] = []
    const p = new ProgressWriter(async (f) => {
      await later(5)
      written.push(f)
    })
    p.note(0.4)
    p.note(0.5)
    await p.end()
    expect(written).toEqual([0.4])
    p.note(0.6)
    await later(15)
    expect(written).toEqual([0.4])
  })
  it('survives a write that fails', async () => {
    let tries = 0
    const p = new ProgressWriter(() => {
      tries++
      return Promise.reject(new Error('the database is away'))
    })
    p.note(0.1)
    await later(1)
    p.note(0.2)
    await p.end()
    expect(tries).toBe(2)
  })
})
