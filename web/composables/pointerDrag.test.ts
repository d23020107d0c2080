import { beforeEach, describe, expect, it } from 'vitest'
import { pointerDrag, type PointerDrag } from './pointerDrag'

const event = (at: number, more: object = {}): PointerEvent =>
  ({ pointerId: 1, button: 0, isPrimary: true, clientX: at, target: null, ...more }) as unknown as PointerEvent

let said: string[], drag: PointerDrag, takes: boolean
beforeEach(() => {
  said = []
  takes = true
  drag = pointerDrag({
    start: (e) => {
      said.push(`start ${e.clientX}`)
      return takes
    },
    move: (e) => void said.push(`move ${e.clientX}`),
    end: (e) => void said.push(`end ${e.clientX}`),
    cancel: () => void said.push('cancel'),
  })
})

describe('a drag', () => {
  it('goes through every place the pointer was at, also those that came in one event', () => {
    drag.pointerdown(event(0))
    drag.pointermove(event(9, { getCoalescedEvents: () => [event(3), event(6), event(9)] }))
    drag.pointermove(event(12))
    drag.pointerup(event(12))
    drag.pointermove(event(20))
    expect(said).toEqual(['start 0', 'move 3', 'move 6', 'move 9', 'move 12', 'end 12'])
  })
  it('does not begin with the right button, the wheel or a second finger', () => {
    drag.pointerdown(event(0, { button: 2 }))
    drag.pointerdown(event(0, { button: 1 }))
    drag.pointerdown(event(0, { pointerId: 2, isPrimary: false }))
    drag.pointermove(event(5))
    expect(said).toEqual([])
  })
  it('is not moved or ended by a second finger', () => {
    drag.pointerdown(event(0))
    drag.pointerdown(event(50, { pointerId: 2, isPrimary: false }))
    drag.pointermove(event(60, { pointerId: 2, isPrimary: false }))
    drag.pointerup(event(60, { pointerId: 2, isPrimary: false }))
    drag.pointermove(event(4))
    expect(said).toEqual(['start 0', 'move 4'])
  })
  it('that the browser ends is cancelled, and the next one begins as if it had not been', () => {
    drag.pointerdown(event(0))
    drag.pointercancel(event(2))
    drag.pointermove(event(3))
    drag.pointerup(event(3))
    drag.pointerdown(event(8))
    expect(said).toEqual(['start 0', 'cancel', 'start 8'])
  })
  it('that is left to others is none', () => {
    takes = false
    drag.pointerdown(event(0))
    drag.pointermove(event(3))
    drag.pointerup(event(3))
    expect(said).toEqual(['start 0'])
  })
})
