// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { defineComponent, h, nextTick, ref } from 'vue'
import ChoiceSelect from './ChoiceSelect.vue'

/** A select of three, whose owner answers a choice as a test says. */
function owned(first: string | number | null, answer: (chosen: unknown, set: (v: string) => void) => void) {
  const value = ref<string | number | null>(first),
    told: unknown[] = []
  const page = mount(
    defineComponent(
      () => () =>
        h(
          ChoiceSelect,
          {
            modelValue: value.value,
            'onUpdate:modelValue': (v: unknown) => {
              told.push(v)
              answer(v, (given) => (value.value = given))
            },
            'aria-label': 'Printer',
            class: 'w-auto',
          },
          () => [
            h('option', { value: '' }, 'not chosen'),
            h('option', { value: 'a' }, 'A'),
            h('option', { value: 'b' }, 'B'),
          ],
        ),
    ),
  )
  const select = page.find('select')
  return { select, told, value, shown: () => select.element.value }
}

describe('a choice that belongs to its owner', () => {
  it('is told once and shown as it is given back', async () => {
    const { select, told, shown } = owned('a', (v, set) => set(v as string))
    expect(shown()).toBe('a')
    await select.setValue('b')
    expect(told).toEqual(['b'])
    expect(shown()).toBe('b')
  })
  it('goes back when it was refused, and can be made again', async () => {
    let refused = true
    const { select, told, shown } = owned('a', (v, set) => (refused ? undefined : set(v as string)))
    await select.setValue('b')
    await nextTick()
    expect(shown()).toBe('a')
    refused = false
    await select.setValue('b')
    expect(told).toEqual(['b', 'b'])
    expect(shown()).toBe('b')
  })
  it('shows what comes later, from here or from another window', async () => {
    const { select, value, shown } = owned('a', () => undefined)
    await select.setValue('b')
    value.value = 'b'
    await nextTick()
    expect(shown()).toBe('b')
    value.value = null
    await nextTick()
    expect(shown()).toBe('')
  })
  it('is a menu where its value is always none: each choice is told, and none stays', async () => {
    const { select, told, shown } = owned('', () => undefined)
    for (const v of ['a', 'b', 'a']) {
      await select.setValue(v)
      await nextTick()
      expect(shown()).toBe('')
    }
    expect(told).toEqual(['a', 'b', 'a'])
  })
  it('has its name and classes on the control itself', () => {
    const { select } = owned('a', () => undefined)
    expect(select.attributes('aria-label')).toBe('Printer')
    expect(select.classes()).toEqual(expect.arrayContaining(['form-select', 'w-auto']))
  })
})
