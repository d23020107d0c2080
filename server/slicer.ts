import { parentPort, workerData } from 'node:worker_threads'
import { LayerMaker } from '../core/print/layerMaker'
import type { Printer } from '../core/print/printer'

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
  parentPort!.postMessage({ index, made }, [made.png.buffer as ArrayBuffer])
})
