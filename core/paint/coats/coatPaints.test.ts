import { describe, expect, it } from 'vitest'
import { dropsOf, paintKey, sharesOf } from './coatPaints'

const mix = [
  { paintId: 'red', drops: 3 },
  { paintId: 'white', drops: 1 },
]

describe('what a coat is made of', () => {
  it('is its mix where there is one, also beside a paint that was chosen before', () => {
    expect(dropsOf({ paintId: 'blue', mix })).toEqual(mix)
    expect(dropsOf({ paintId: 'blue', mix: [] })).toEqual([{ paintId: 'blue', drops: 1 }])
    expect(dropsOf({ paintId: null, mix: [] })).toEqual([])
    expect(sharesOf({ paintId: 'blue', mix })).toEqual([
      { id: 'red', share: 0.75 },
      { id: 'white', share: 0.25 },
    ])
  })
  it('has one name for the same paint or mix, and none in common for coats without', () => {
    expect(paintKey({ id: 'a', paintId: 'blue', mix })).toBe(paintKey({ id: 'b', paintId: null, mix }))
    expect(paintKey({ id: 'a', paintId: 'blue', mix: [] })).not.toBe(paintKey({ id: 'a', paintId: 'blue', mix }))
    expect(paintKey({ id: 'a', paintId: null, mix: [] })).not.toBe(paintKey({ id: 'b', paintId: null, mix: [] }))
  })
})
