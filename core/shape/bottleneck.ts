import { MinHeap } from '../math/heap'

/**
 * The way between two cells whose tightest place is widest (Pollack 1960, as a search that takes the roomiest cell first),
 * and that place.
 *
 * @param room of each cell; 0 where there is no way at all
 * @param beside visits the neighbours of a cell
 * @returns the tightest place on it; null when the two are not joined
 */
export function bottleneck(
  cells: number,
  start: number,
  goal: number,
  room: (cell: number) => number,
  beside: (cell: number, visit: (neighbour: number) => void) => void,
): { cell: number; room: number } | null {
  const tightest = new Int32Array(cells).fill(-1),
    done = new Uint8Array(cells)
  const heap = new MinHeap()
  tightest[start] = start
  heap.push(start, -room(start))
  while (heap.size > 0) {
    const c = heap.pop()
    if (done[c]) continue
    done[c] = 1
    const t = tightest[c]!
    if (c === goal) return { cell: t, room: room(t) }
    const least = room(t)
    beside(c, (n) => {
      if (done[n]) return
      const r = room(n)
      if (!(r > 0)) return
      const worst = r < least ? n : t
      if (tightest[n] !== -1 && room(tightest[n]!) >= room(worst)) return
      tightest[n] = worst
      heap.push(n, -room(worst))
    })
  }
  return null
}
