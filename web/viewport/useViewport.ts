import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Mesh } from '../../core/mesh/mesh'
import type { Marker, Picked } from './scene'

export type Quaternion = [number, number, number, number]

/** What the stage wants on the turntable. Stages write; the turntable, which outlives them, reads. */
export const useViewport = defineStore('viewport', () => {
  /** full mesh whose display copy is shown; null leaves the disc empty */
  const mesh = ref<string | null>(null)
  const bodyFaces = ref<number | undefined>(undefined)
  const markers = shallowRef<Marker[]>([])
  /** linear colours per vertex of the display mesh */
  const colours = shallowRef<Float32Array | null>(null)
  const quaternion = ref<Quaternion | null>(null)
  /** what a press on the sculpt does: nothing, one pick, a brush stroke, tilting it by hand */
  const mode = ref<'look' | 'pick' | 'brush' | 'tilt'>('look')
  const hint = ref('')
  const spot = shallowRef<[number, number, number] | null>(null)
  const shown = shallowRef<{ mesh: Mesh; hash: string; bodyFaces: number } | null>(null)
  let onPick: ((p: Picked) => void) | null = null
  let onTilt: ((q: Quaternion) => void) | null = null

  function clear(): void {
    markers.value = []
    colours.value = null
    quaternion.value = null
    mode.value = 'look'
    hint.value = ''
    bodyFaces.value = undefined
    onPick = onTilt = null
  }
  const picking = (handler: (p: Picked) => void): void => { onPick = handler }
  const tilting = (handler: (q: Quaternion) => void): void => { onTilt = handler }
  const picked = (p: Picked): void => onPick?.(p)
  const tilted = (q: Quaternion): void => onTilt?.(q)
  const show = (place: [number, number, number]): void => { spot.value = [...place] }
  return { mesh, bodyFaces, markers, colours, quaternion, mode, hint, spot, shown, clear, picking, tilting, picked, tilted, show }
})
