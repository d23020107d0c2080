import { parentPort, workerData } from 'node:worker_threads'
import { LayerMaker } from '../../core/print/slice/layerMaker'
import type { Printer } from '../../core/print/slice/printer'

/** A thread that makes layers of one body, as it is asked for them. */
export interface SlicerTask {
  positions: SharedArrayBuffer
  triangles: SharedArrayBuffer
  printer: Printer
}
const { positions, triangles, printer } = workerData as SlicerTask
const maker = new LayerMaker({ positions: new Float32Array(positions), triangles: new Uint32Array(triangles) }, printer)
parentPort!.on('message', (index: number) => {
  const made = maker.make(index)
  const { png, solid } = made
  const buffers = [png, solid.rowStart, solid.from, solid.to, solid.label, solid.light]
  parentPort!.postMessage({ index, made }, [...new Set(buffers.map((a) => a.buffer as ArrayBuffer))])
})
