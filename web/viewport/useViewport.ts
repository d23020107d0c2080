import { defineStore } from 'pinia'
import { computed, onScopeDispose, shallowRef, watch } from 'vue'
import type { Mesh } from '../../core/mesh/mesh'
import type { Eyes } from './gaze'
import { composed, type Point, type SceneDescription, type SceneLayer } from './sceneDescription'

/** What stands on the turntable: described by the stage that is open, read by the turntable, which outlives it. */
export const useViewport = defineStore('viewport', () => {
  const layers = shallowRef<readonly (() => SceneLayer | null)[]>([])
  const scene = computed<SceneDescription>(() => composed(layers.value.map((said) => said())))
  /**
   * Puts what the getter says over what is said already, for as long as the component or scope that asks lives. A layer
   * that had nothing to say comes uppermost when it speaks again: what was begun last counts.
   */
  function describe(layer: () => SceneLayer | null): void {
    const kept = computed(layer)
    const own = (): SceneLayer | null => kept.value
    watch(
      () => own() !== null,
      () => {
        layers.value = [...layers.value.filter((l) => l !== own), own]
      },
      { immediate: true, flush: 'sync' },
    )
    onScopeDispose(() => {
      layers.value = layers.value.filter((l) => l !== own)
    })
  }
  const spot = shallowRef<Point | null>(null)
  const shown = shallowRef<{ mesh: Mesh; hash: string; of: string; bodyFaces: number } | null>(null)
  /** the turntable's own eyes, while it stands */
  const eyes = shallowRef<Eyes | null>(null)
  const camera = (): ReturnType<Eyes['view']> | null => eyes.value?.view() ?? null
  const turnView = (azimuth: number, elevation: number): void => eyes.value?.lookFrom(azimuth, elevation)
  /** Looks at a place of the part at work. */
  const show = (place: Point): void => {
    spot.value = [...place]
  }
  return { scene, describe, spot, shown, eyes, camera, turnView, show }
})
