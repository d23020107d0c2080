import * as Comlink from 'comlink'
import { onBeforeUnmount, ref, shallowRef, toRaw, watch, type Ref } from 'vue'
import type { JointRecord } from '../../core/operations/pose'
import type { PartRecord } from '../../contract/pieces'
import { fromQuaternion, type Matrix3 } from '../../core/math/vectors'
import type { WeightDab } from '../../core/pose/paintOver'
import { useAssembly } from '../stores/assembly'
import { useDerivations } from '../stores/derivations'
import { loadMesh } from '../viewport/meshCache'
import { useViewport } from '../viewport/useViewport'
import type { PoseWorker, Stand } from '../workers/pose.worker'

let remote: Comlink.Remote<PoseWorker> | null = null
interface Wish {
  joints: JointRecord[]
  paint: WeightDab[]
}

/**
 * Bends the sculpt on screen as the joints are turned, off the main thread, and tells how far the whole could be tipped.
 * While one picture is being made only the latest wish waits, so it never falls behind the hand.
 */
export function usePosePreview(wish: () => Wish | null, part: () => PartRecord | null): { tip: Ref<number | null> } {
  const viewport = useViewport(),
    assembly = useAssembly(),
    derivations = useDerivations()
  remote ??= Comlink.wrap<PoseWorker>(
    new Worker(new URL('../workers/pose.worker.ts', import.meta.url), { type: 'module' }),
  )
  const worker = remote
  const tip = ref<number | null>(null)
  const positions = shallowRef<Float32Array | null>(null)
  viewport.describe(() => (positions.value ? { positions: positions.value } : null))
  let opened = '',
    busy = false,
    again = false,
    left = false
  async function draw(): Promise<void> {
    if (busy) {
      again = true
      return
    }
    busy = true
    do {
      again = false
      const now = wish(),
        shown = viewport.shown
      if (!shown || !now || now.joints.length < 2) positions.value = null
      else {
        if (opened !== shown.hash) {
          await worker.open(toRaw(shown.mesh))
          opened = shown.hash
        }
        const plain = JSON.parse(JSON.stringify(now)) as Wish
        const made = await worker.posed(plain.joints, plain.paint)
        if (!left && viewport.shown?.hash === opened) {
          positions.value = wish() ? (made?.positions ?? null) : null
          tip.value = made?.tip ?? null
        }
      }
    } while (again)
    busy = false
  }
  watch(
    () => [viewport.shown?.hash, JSON.stringify(wish())],
    () => void draw(),
    { immediate: true },
  )
  const weightOf = (id: string): { density: number; infill: number } => {
    const { density, infill } = assembly.materialOf(id)
    return { density, infill }
  }
  // What stands beside it, and how it is placed itself: asked once, not at every turn.
  watch(
    () =>
      assembly.placed.map((p) => [p.part.id === part()?.id ? placing(p.part) : p.mesh, assembly.materialOf(p.part.id)]),
    async () => {
      const own = part()
      if (!own) return
      const others: Stand['others'] = []
      for (const p of assembly.placed) {
        if (p.part.id === own.id || !p.mesh) continue
        const d = await derivations.settled(p.mesh, { kind: 'display', faces: 60_000 }).catch(() => null)
        if (d?.meshHash) others.push({ mesh: toRaw(await loadMesh(d.meshHash)), ...weightOf(p.part.id) })
      }
      if (!left) await worker.standOn({ ...placing(own), ...weightOf(own.id), others })
    },
    { immediate: true, deep: true },
  )
  onBeforeUnmount(() => {
    left = true
  })
  return { tip }
}

/** From a part's own frame to where it stands, by its place and its size about the origin. */
function placing(part: PartRecord): Pick<Stand, 'matrix' | 'shift'> {
  const place = part.steps.find((s) => s.op.kind === 'place')?.op,
    scale = part.steps.find((s) => s.op.kind === 'scale')?.op
  const r = fromQuaternion(place?.kind === 'place' ? place.quaternion : [0, 0, 0, 1])
  const mirrored = place?.kind === 'place' && place.mirror
  const k = scale?.kind === 'scale' && scale.about === 'origin' ? scale.factor : 1
  return {
    matrix: r.map((v, i) => k * (mirrored && i % 3 === 0 ? -v : v)) as unknown as Matrix3,
    shift: (place?.kind === 'place' ? place.shift : [0, 0, 0]).map((v) => v * k) as [number, number, number],
  }
}
