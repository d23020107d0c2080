import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { effectScope, ref, watch, type EffectScope } from 'vue'
import { composed, EMPTY_SCENE, type SceneLayer } from './sceneDescription'
import { useViewport } from './useViewport'

let viewport: ReturnType<typeof useViewport>
beforeEach(() => {
  setActivePinia(createPinia())
  viewport = useViewport()
})
/** What a component says while it lives. */
function component(...layers: (() => SceneLayer | null)[]): EffectScope {
  const scope = effectScope()
  scope.run(() => {
    for (const l of layers) viewport.describe(l)
  })
  return scope
}

describe('the scene on the turntable', () => {
  it('is of what the upper layer says, and below it of what it is silent about', () => {
    const scene = composed([{ mesh: 'a', hint: 'below', mode: 'pick' }, null, { hint: 'above', mesh: undefined }])
    expect(scene).toEqual({ ...EMPTY_SCENE, mesh: 'a', hint: 'above', mode: 'pick' })
  })
  it('is bare again once its stage and its panels are closed, whatever they had begun', () => {
    const stage = component(() => ({ mesh: 'a', markers: [{ point: [0, 0, 0], kind: 'note' }] }))
    const panel = component(() => ({ mode: 'brush', hint: 'Brush', onPick: () => undefined }))
    expect(viewport.scene).toMatchObject({ mesh: 'a', mode: 'brush' })
    panel.stop()
    expect(viewport.scene).toMatchObject({ mesh: 'a', mode: 'look', hint: '', onPick: null })
    stage.stop()
    expect(viewport.scene).toEqual(EMPTY_SCENE)
  })
  it('follows the tool that was started last, and returns to the one before when that ends', () => {
    const first = ref(false),
      second = ref(false)
    component(() => (first.value ? { hint: 'first' } : null))
    component(() => (second.value ? { hint: 'second' } : null))
    second.value = true
    first.value = true
    expect(viewport.scene.hint).toBe('first')
    first.value = false
    expect(viewport.scene.hint).toBe('second')
    second.value = false
    expect(viewport.scene.hint).toBe('')
  })
  it('keeps the identity of what did not change, so that nothing is drawn without a need', () => {
    const markers = [{ point: [0, 0, 0] as [number, number, number], kind: 'note' as const }]
    const hint = ref('a')
    component(
      () => ({ markers }),
      () => ({ hint: hint.value }),
    )
    let drawn = 0
    watch(
      () => viewport.scene.markers,
      () => drawn++,
      { flush: 'sync' },
    )
    hint.value = 'b'
    expect([viewport.scene.hint, drawn]).toEqual(['b', 0])
  })
  it('says nothing of a mesh while no stage does, so that what stands there stays', () => {
    expect(viewport.scene.mesh).toBeUndefined()
    const stage = component(() => ({ mesh: null }))
    expect(viewport.scene.mesh).toBeNull()
    stage.stop()
    expect(viewport.scene.mesh).toBeUndefined()
  })
})
