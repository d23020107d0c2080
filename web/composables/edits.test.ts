import { describe, expect, it } from 'vitest'
import { ApiProblem } from '../api'
import { fieldEdits, queued } from './edits'

interface Row {
  version: number
  name: string
  height: number
  tags: string[]
}
const later = (ms = 5): Promise<void> => new Promise((r) => setTimeout(r, ms))

/** A record on a server that answers late and refuses what was made from an older version. */
function served(start: Partial<Row> = {}) {
  let row: Row = { version: 1, name: 'a', height: 10, tags: [], ...start }
  let shown: Row | null = structuredClone(row)
  let name = 'row 1'
  const sent: Partial<Row>[] = []
  const server = {
    get row() {
      return row
    },
    get shown() {
      return shown
    },
    sent,
    /** changed by somebody else, or by the server's own bookkeeping */
    elsewhere(fields: Partial<Row>): void {
      row = { ...row, ...fields, version: row.version + 1 }
    },
    goTo(other: string, r: Row | null): void {
      name = other
      shown = r
    },
  }
  const edits = fieldEdits<Row>({
    name: () => name,
    current: () => shown,
    send: async (fields, from) => {
      sent.push(fields)
      await later()
      if (from.version !== row.version) throw new ApiProblem(409, 'stale-version', 'changed', { current: row })
      if (fields.height !== undefined && fields.height < 0) throw new ApiProblem(422, 'invalid', 'no such height', {})
      row = { ...row, ...fields, version: row.version + 1 }
      return structuredClone(row)
    },
    show: (r) => {
      shown = r
    },
    read: (newer) => newer as Row | null,
  })
  return { server, ...edits }
}

describe('the queue of a record', () => {
  it('runs changes in the order in which they were made, and those behind one that failed', async () => {
    const done: string[] = []
    const work =
      (name: string, ms: number, fail = false) =>
      async (): Promise<void> => {
        await later(ms)
        done.push(name)
        if (fail) throw new Error(name)
      }
    const first = queued('x', work('first', 15, true)),
      second = queued('x', work('second', 1)),
      other = queued('y', work('other', 1))
    await expect(first).rejects.toThrow('first')
    await Promise.all([second, other])
    expect(done).toEqual(['other', 'first', 'second'])
  })
})

describe('changes of single fields', () => {
  it('keep a second change that is made before the first was answered', async () => {
    const { server, edit } = served()
    const both = Promise.all([edit({ name: 'b' }), edit({ height: 20 })])
    // What was chosen is there at once.
    expect(server.shown).toMatchObject({ name: 'b', height: 20 })
    await both
    expect(server.row).toMatchObject({ name: 'b', height: 20, version: 3 })
    expect(server.shown).toEqual(server.row)
  })
  it('never show an older state of a field that has been changed again meanwhile', async () => {
    const { server, edit, withPending } = served()
    const first = edit({ name: 'b' }),
      second = edit({ name: 'c' })
    await first
    expect(server.shown!.name).toBe('c')
    // A fetch that was answered before the second change.
    expect(withPending({ ...server.row, name: 'b' }).name).toBe('c')
    await second
    expect(server.row.name).toBe('c')
  })
  it('are sent again when only other fields have been changed elsewhere', async () => {
    const { server, edit } = served()
    server.elsewhere({ tags: ['counted'] })
    await edit({ height: 30 })
    expect(server.row).toMatchObject({ tags: ['counted'], height: 30 })
    expect(server.shown).toEqual(server.row)
    expect(server.sent).toHaveLength(2)
  })
  it('are refused when the same field has been changed elsewhere, and the newer record is shown', async () => {
    const { server, edit } = served()
    server.elsewhere({ name: 'theirs' })
    const mine = edit({ name: 'mine' }),
      next = edit({ height: 40 })
    await expect(mine).rejects.toMatchObject({ status: 409 })
    await next
    expect(server.row).toMatchObject({ name: 'theirs', height: 40 })
    expect(server.shown).toEqual(server.row)
  })
  it('that are refused for what they say are taken from the screen, and those behind them are stored', async () => {
    const { server, edit } = served()
    const bad = edit({ height: -1 }),
      good = edit({ name: 'kept' })
    await expect(bad).rejects.toMatchObject({ status: 422 })
    await good
    expect(server.shown).toMatchObject({ height: 10, name: 'kept' })
  })
  it('are stored though the page has gone on to another record, and do not show there', async () => {
    const { server, edit } = served()
    const mine = edit({ name: 'b' })
    const other: Row = { version: 7, name: 'other', height: 1, tags: [] }
    server.goTo('row 2', other)
    await mine
    expect(server.row.name).toBe('b')
    expect(server.shown).toBe(other)
  })
})
