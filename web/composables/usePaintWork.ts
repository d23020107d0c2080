import * as Comlink from 'comlink'
import type { PaintWork } from '../workers/paint.worker'

let remote: Comlink.Remote<PaintWork> | null = null
/** The one paint worker of the page. */
export function usePaintWork(): Comlink.Remote<PaintWork> {
  remote ??= Comlink.wrap<PaintWork>(
    new Worker(new URL('../workers/paint.worker.ts', import.meta.url), { type: 'module' }),
  )
  return remote
}
