import { expose, transfer } from 'comlink'
import type { Mesh } from '../../core/mesh/mesh'
import type { Vector3 } from '../../core/math/vectors'
import { drainFrames, type DrainFrame } from '../../core/print/resin/draining'

/** Makes the pictures of a draining part one by one, as the page asks for them. */
let frames: Generator<DrainFrame> | null = null

const worker = {
  begin(mesh: Mesh, poses: Vector3[], perPose: number): void {
    frames = drainFrames(mesh, poses, perPose)
  },
  next(): DrainFrame | null {
    const step = frames?.next()
    if (!step || step.done) return null
    const { positions, triangles } = step.value.surface
    return transfer(step.value, [positions.buffer, triangles.buffer])
  },
}
export type DrainWorker = typeof worker
expose(worker)
