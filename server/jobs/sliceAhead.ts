import { availableParallelism } from 'node:os'
import { Worker } from 'node:worker_threads'
import type { Mesh } from '../../core/mesh/mesh'
import type { MadeLayer } from '../../core/print/slice/layerMaker'
import type { Printer } from '../../core/print/slice/printer'
import type { slice } from '../../core/print/slice/slice'
import type { SlicerTask } from './slicer'

const SLICER = new URL('./slicer.mjs', import.meta.url)
/** Layers that a thread may have before it: enough never to wait, few enough to hold. */
const DEEP = 6
const MAX_THREADS = 6

/**
 * Makes layers in threads beside this one, which follows regions and stores what comes. The body is shared, not copied, and
 * each thread takes every n-th layer, so that its cut rises steadily through it. Undefined where there is one processor only.
 */
export function sliceAhead(printer: Printer): Parameters<typeof slice>[5] {
  const threads = Math.min(MAX_THREADS, availableParallelism())
  if (threads < 2) return undefined
  const workers: Worker[] = []
  const waiting = new Map<number, { done: (m: MadeLayer) => void; fail: (e: Error) => void }>()
  return {
    width: threads * DEEP,
    layers(mesh: Mesh) {
      const task: SlicerTask = { positions: shared(mesh.positions), triangles: shared(mesh.triangles), printer }
      for (let i = 0; i < threads; i++) {
        const w = new Worker(SLICER, { workerData: task })
        w.on('message', ({ index, made }: { index: number; made: MadeLayer }) => {
          waiting.get(index)?.done(made)
          waiting.delete(index)
        })
        w.on('error', (e) => {
          for (const { fail } of waiting.values()) fail(e instanceof Error ? e : new Error(String(e)))
        })
        workers.push(w)
      }
      return (index) =>
        new Promise((done, fail) => {
          waiting.set(index, { done, fail })
          workers[index % threads]!.postMessage(index)
        })
    },
    done() {
      for (const w of workers) void w.terminate()
    },
  }
}

function shared(a: Float32Array | Uint32Array): SharedArrayBuffer {
  const out = new SharedArrayBuffer(a.byteLength)
  new Uint8Array(out).set(new Uint8Array(a.buffer, a.byteOffset, a.byteLength))
  return out
}
