export interface DragSteps {
  /** The left button or the first finger goes down; false leaves the gesture to others. */
  start: (e: PointerEvent) => boolean
  /** Called for every place the pointer was at, also those that the browser put into one event. */
  move: (e: PointerEvent) => void
  end: (e: PointerEvent) => void
  /** The browser took the pointer away: what was begun is not done. */
  cancel: () => void
}

/** What a drag is told of the pointer; to be bound to the element's events of these names. */
export interface PointerDrag {
  pointerdown: (e: PointerEvent) => void
  pointermove: (e: PointerEvent) => void
  pointerup: (e: PointerEvent) => void
  pointercancel: (e: PointerEvent) => void
}

/**
 * One drag at a time with the left button or one finger. Other buttons and further fingers are none of its business; a
 * pointer that the browser takes away ends it without its effect.
 */
export function pointerDrag(steps: DragSteps): PointerDrag {
  let held: number | null = null
  return {
    pointerdown(e) {
      if (held !== null || e.button !== 0 || !e.isPrimary) return
      if (!steps.start(e)) return
      held = e.pointerId
      // What the drag is bound to holds the pointer: what was pressed may be drawn elsewhere, as another element.
      ;((e.currentTarget ?? e.target) as Element | null)?.setPointerCapture?.(e.pointerId)
    },
    pointermove(e) {
      if (e.pointerId !== held) return
      const all = e.getCoalescedEvents?.() ?? []
      for (const at of all.length > 0 ? all : [e]) steps.move(at)
    },
    pointerup(e) {
      if (e.pointerId !== held) return
      held = null
      steps.end(e)
    },
    pointercancel(e) {
      if (e.pointerId !== held) return
      held = null
      steps.cancel()
    },
  }
}
