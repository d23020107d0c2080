import { ref, shallowRef, watch } from 'vue'
import { piecesAt, proposed, type PatchTree } from '../../../core/paint/surface/patches'
import { useSlowPaintWork } from '../../composables/usePaintWork'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'

/** How far a press goes, as the number of pieces that the whole skin would be in. */
export const REACHES = [2400, 1200, 600, 300, 160, 80, 40, 20, 12, 8, 5] as const

/** The skin in patches that end in creases, for filling a region by presses. */
export function useFill() {
  const viewport = useViewport(),
    slow = useSlowPaintWork()
  const tree = shallowRef<PatchTree | null>(null),
    looking = ref(false),
    reach = ref(3)
  let of: { tree: PatchTree; reach: number; piece: Uint32Array } | null = null
  watch(
    () => viewport.shown,
    () => (tree.value = null),
  )
  /** Looks for the creases of what is shown, once. */
  async function look(): Promise<PatchTree | null> {
    const on = viewport.shown
    if (!on || tree.value) return tree.value
    looking.value = true
    try {
      const found = await slow.patches(on.mesh)
      if (viewport.shown === on) tree.value = found
    } finally {
      looking.value = false
    }
    return tree.value
  }
  /** Vertices of the piece that was pressed; null while creases are looked for. */
  function pressed(p: Picked): Uint8Array | null {
    const t = tree.value,
      on = viewport.shown
    if (!t || !on) return null
    if (of?.tree !== t || of.reach !== reach.value)
      of = { tree: t, reach: reach.value, piece: piecesAt(t, REACHES[reach.value]!) }
    const { piece } = of
    const patch = t.of[on.mesh.triangles[3 * p.face]!]!
    return Uint8Array.from(t.of, (q) => (piece[q] === piece[patch] ? 1 : 0))
  }
  const propose = async (regions: number): Promise<Uint8Array | null> => {
    const t = await look()
    return t && proposed(t, regions)
  }
  return { reach, looking, look, pressed, propose }
}
