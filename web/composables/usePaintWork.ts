import * as Comlink from 'comlink'
import type { PaintWork } from '../workers/paint.worker'

const spawn = (): Worker => new Worker(new URL('../workers/paint.worker.ts', import.meta.url), { type: 'module' })
const start = (): Comlink.Remote<PaintWork> => Comlink.wrap<PaintWork>(spawn())
let live: Comlink.Remote<PaintWork> | null = null,
  slow: Comlink.Remote<PaintWork> | null = null
/** The page's paint worker, which follows the hand. */
export const usePaintWork = (): Comlink.Remote<PaintWork> => (live ??= start())
/** Another beside it, for searches that would keep the hand waiting: recipes, orders, edges. */
export const useSlowPaintWork = (): Comlink.Remote<PaintWork> => (slow ??= start())

/** One of its own for something long, that can be stopped in the middle. */
export function ownPaintWork(): { work: Comlink.Remote<PaintWork>; stop: () => void } {
  const worker = spawn()
  return { work: Comlink.wrap<PaintWork>(worker), stop: () => worker.terminate() }
}
