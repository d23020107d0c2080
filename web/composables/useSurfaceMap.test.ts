// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { defineComponent, ref, type Ref } from 'vue'
import { useDerivations } from '../stores/derivations'
import { fakePage } from '../stores/fakeServer'
import { useViewport } from '../viewport/useViewport'
import { useSurfaceMap } from './useSurfaceMap'

/** Maps by their blob: a value for each of two vertices. */
const MAPS: Record<string, [number, number]> = { thin: [0, 1], deep: [1, 0] }
let answers: Map<string, () => void>, wanted: Ref<'thin' | 'deep' | 'torn' | null>
beforeEach(() => {
  fakePage((url) =>
    Promise.resolve(new Response(new Float32Array(MAPS[url.split('/').at(-1)!] ?? []).buffer as ArrayBuffer)),
  )
  answers = new Map()
  wanted = ref(null)
  // Answers come when the test says so, in any order.
  vi.spyOn(useDerivations(), 'settled').mockImplementation(((_mesh: string, check: { others: string[] }) => {
    const [name] = check.others as [string]
    return new Promise((done, fail) => {
      answers.set(name, () =>
        name === 'torn' ? fail(new Error('The body is open.')) : done({ blobs: { map: name } } as never),
      )
    })
  }) as never)
  useViewport().shown = { mesh: {} as never, hash: 'copy', of: 'Reset view', bodyFaces: 0 }
})
function panel() {
  let made!: ReturnType<typeof useSurfaceMap>
  const shown = mount(
    defineComponent({
      setup() {
        made = useSurfaceMap(() =>
          wanted.value
            ? {
                check: { kind: 'stretchMap', others: [wanted.value] } as never,
                scale: () => ({ kind: 'sides', from: 0, to: 1 }),
              }
            : null,
        )
        return () => null
      },
    }),
  )
  return { made, shown }
}
const colours = (): Float32Array | null => useViewport().scene.colours
const answer = async (name: string): Promise<void> => {
  answers.get(name)!()
  await flushPromises()
}

it('shows a map while it is wanted, and removes it with its scale', async () => {
  const { made } = panel()
  expect(colours()).toBeNull()
  wanted.value = 'thin'
  await flushPromises()
  expect(colours()).toBeNull()
  await answer('thin')
  expect(colours()).toHaveLength(6)
  expect(made.scale.value).toEqual({ kind: 'sides', from: 0, to: 1 })
  wanted.value = null
  await flushPromises()
  expect(colours()).toBeNull()
  expect(made.scale.value).toBeNull()
})

it('shows what was asked last, though the answer before it comes later', async () => {
  panel()
  wanted.value = 'thin'
  await flushPromises()
  wanted.value = 'deep'
  await flushPromises()
  await answer('deep')
  const deep = [...colours()!]
  await answer('thin')
  expect([...colours()!]).toEqual(deep)
})

it('says why there is none, and the panel that is closed leaves nothing on the sculpt', async () => {
  const { made, shown } = panel()
  wanted.value = 'torn'
  await flushPromises()
  await answer('torn')
  expect(made.problem.value).toBe('The body is open.')
  wanted.value = 'thin'
  await flushPromises()
  expect(made.problem.value).toBe('')
  await answer('thin')
  expect(colours()).not.toBeNull()
  shown.unmount()
  expect(colours()).toBeNull()
})

it('is drawn by nobody once its panel is closed before the answer came', async () => {
  const { shown } = panel()
  wanted.value = 'thin'
  await flushPromises()
  shown.unmount()
  await answer('thin')
  expect(colours()).toBeNull()
})
