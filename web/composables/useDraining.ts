import * as Comlink from 'comlink'
import { onBeforeUnmount, ref, shallowRef, toRaw, type Ref } from 'vue'
import type { Vector3 } from '../../core/math/vectors'
import type { Mesh } from '../../core/mesh/mesh'
import { useViewport } from '../viewport/useViewport'
import type { DrainWorker } from '../workers/drain.worker'

/** ms from picture to picture, and the pause in which the turned part is looked at before its resin moves */
const FRAME = 90,
  PAUSE = 700
const PER_POSE = 16

let remote: Comlink.Remote<DrainWorker> | null = null
const wait = (ms: number): Promise<void> => new Promise((done) => window.setTimeout(done, ms))

/** Plays on the shown sculpt how what is in it runs out, pose after pose; its pictures are made off the main thread. */
export function useDraining(turn: (down: Vector3) => void): {
  playing: Ref<boolean>
  left: Ref<number | null>
  play: (poses: readonly Vector3[]) => Promise<void>
  stop: () => void
} {
  const viewport = useViewport()
  const playing = ref(false),
    left = ref<number | null>(null)
  const liquid = shallowRef<Mesh | null>(null)
  viewport.describe(() => (liquid.value ? { liquid: liquid.value } : null))
  let run = 0
  function stop(): void {
    run++
    playing.value = false
    left.value = null
    liquid.value = null
  }
  async function play(poses: readonly Vector3[]): Promise<void> {
    const shown = viewport.shown
    if (!shown || poses.length === 0) return
    const mine = ++run
    playing.value = true
    // Only whoever plays needs the worker.
    remote ??= Comlink.wrap<DrainWorker>(
      new Worker(new URL('../workers/drain.worker.ts', import.meta.url), { type: 'module' }),
    )
    const worker = remote
    await worker.begin(toRaw(shown.mesh), JSON.parse(JSON.stringify(poses)) as Vector3[], PER_POSE)
    for (let pose = -1; ;) {
      const began = performance.now()
      const frame = await worker.next()
      if (mine !== run) return
      if (!frame) break
      liquid.value = frame.surface
      left.value = frame.left
      if (frame.pose !== pose) {
        pose = frame.pose
        turn(poses[pose]!)
        await wait(PAUSE)
      } else await wait(Math.max(0, FRAME - (performance.now() - began)))
      if (mine !== run) return
    }
    // What stays is looked at until the player is stopped.
    playing.value = false
  }
  onBeforeUnmount(stop)
  return { playing, left, play, stop }
}
