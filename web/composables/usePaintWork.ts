import * as Comlink from 'comlink'
import type { PaintWork } from '../workers/paint.worker'

const start = (): Comlink.Remote<PaintWork> =>
  Comlink.wrap<PaintWork>(new Worker(new URL('../workers/paint.worker.ts', import.meta.url), { type: 'module' }))
let live: Comlink.Remote<PaintWork> | null = null,
  slow: Comlink.Remote<PaintWork> | null = null
/** The page's paint worker, which follows the hand. */
export const usePaintWork = (): Comlink.Remote<PaintWork> => (live ??= start())
/** Another beside it, for searches that would keep the hand waiting: recipes, orders, edges. */
export const useSlowPaintWork = (): Comlink.Remote<PaintWork> => (slow ??= start())
