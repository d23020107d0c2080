import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rebased, withOperation } from './list'
import { OPERATIONS } from './registry'
import { rankOf, REPEATED, type OperationKind } from './registry'

type Op = { kind: OperationKind; [field: string]: unknown }
const hollow = (fields: object): Op => ({ kind: 'hollow', wall: 2, voxel: 0.5, ...fields })
const cut = (at: number): Op => ({ kind: 'cut', point: [0, 0, at], normal: [0, 0, 1] })

/** Lists as they can come to be: in working order, one of each kind but those that may be repeated. */
const lists = fc
  .array(
    fc.record({
      kind: fc.constantFrom(...OPERATIONS.map((o) => o.kind)),
      factor: fc.integer({ min: 1, max: 3 }),
      axes: fc.constant([1, 1, 1]),
    }),
    { maxLength: 8 },
  )
  .map((ops) => ops.reduce<Op[]>((list, op) => withOperation(list, op as Op, null), []).map((o) => ({ ...o })))

describe('a change of a list that has been changed meanwhile', () => {
  it('is the change itself where nothing has happened', () =>
    fc.assert(
      fc.property(lists, lists, (before, wanted) => {
        expect(rebased(before, wanted, before)).toEqual(wanted)
      }),
    ))
  it('leaves the list as it is where it changed nothing', () =>
    fc.assert(
      fc.property(lists, lists, (before, now) => {
        expect(rebased(before, before, now)).toEqual(now)
      }),
    ))
  it('always gives a list in working order with one of each kind that is not repeated', () =>
    fc.assert(
      fc.property(lists, lists, lists, (before, wanted, now) => {
        const kinds = rebased(before, wanted, now).map((o) => o.kind)
        expect(kinds.map(rankOf)).toEqual([...kinds.map(rankOf)].sort((a, b) => a - b))
        const once = kinds.filter((k) => !REPEATED.includes(k))
        expect(new Set(once).size).toBe(once.length)
      }),
    ))
  it('keeps both of two changes to different operations, and to different fields of one', () => {
    const before = [hollow({})]
    const scaled = [{ kind: 'scale', factor: 2 } as Op, hollow({})]
    expect(rebased(before, [hollow({ wall: 3 })], scaled)).toEqual([scaled[0], hollow({ wall: 3 })])
    expect(rebased(before, [hollow({ wall: 3 })], [hollow({ voxel: 0.25 })])).toEqual([
      hollow({ wall: 3, voxel: 0.25 }),
    ])
    expect(rebased([cut(1)], [cut(1), cut(2)], [cut(1), cut(3)])).toEqual([cut(1), cut(3), cut(2)])
  })
  it('removes what it removed, also when that has been changed, and an optional field that it cleared', () => {
    expect(rebased([hollow({})], [], [hollow({ wall: 3 })])).toEqual([])
    expect(rebased([cut(1), cut(2)], [cut(2)], [cut(1), cut(2), cut(3)])).toEqual([cut(2), cut(3)])
    expect(rebased([hollow({ fill: 1 })], [hollow({})], [hollow({ fill: 1, wall: 3 })])).toEqual([hollow({ wall: 3 })])
  })
})
