// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import ColourInput from './ColourInput.vue'
import DraftInput from './DraftInput.vue'
import FileButton from './FileButton.vue'
import TextField from './TextField.vue'

const SCULPT = new File(['solid'], 'otter.stl')
async function choose(at: ReturnType<typeof mount>, ...files: File[]): Promise<void> {
  const input = at.find<HTMLInputElement>('input[type=file]')
  Object.defineProperty(input.element, 'files', { value: files, configurable: true })
  await input.trigger('change')
  await nextTick()
}

describe('a button that asks for files', () => {
  const open = (more: object = {}) =>
    mount(FileButton, { props: { label: 'Sculpt files', accept: '.stl', ...more }, slots: { default: 'Choose files' } })
  it('tells each choice, the same file twice if it is chosen twice', async () => {
    const at = open({ multiple: true })
    await choose(at, SCULPT, new File(['ply'], 'base.ply'))
    await choose(at, SCULPT)
    await choose(at)
    const told = at.emitted('files')!.map(([files]) => (files as File[]).map((f) => f.name))
    expect(told).toEqual([['otter.stl', 'base.ply'], ['otter.stl']])
  })
  it('is one field with its name, reached by the keyboard, and takes what it may', () => {
    const field = open({ multiple: true, capture: 'environment' }).find('input')
    expect(field.attributes()).toMatchObject({ type: 'file', accept: '.stl', 'aria-label': 'Sculpt files' })
    expect(field.attributes('tabindex')).toBeUndefined()
    expect(field.element.hasAttribute('multiple')).toBe(true)
  })
  it('asks for nothing while it is off, and opens its dialog for who asks by a shortcut', async () => {
    const at = open({ disabled: true })
    expect(at.find('input').element.disabled).toBe(true)
    expect(at.find('label').attributes('aria-disabled')).toBe('true')
    await at.setProps({ disabled: false })
    let asked = 0
    at.find('label').element.addEventListener('click', () => asked++)
    ;(at.vm as unknown as { open(): void }).open()
    expect(asked).toBeGreaterThan(0)
  })
})

describe('a colour', () => {
  it('is told once it is chosen, and not at every move over the palette', async () => {
    const at = mount(ColourInput, { props: { value: '#b9ac98', label: 'Target colour' } })
    const field = at.find('input')
    expect(field.element.value).toBe('#b9ac98')
    field.element.value = '#112233'
    await field.trigger('input')
    expect(at.emitted('chosen')).toBeUndefined()
    await field.trigger('change')
    expect(at.emitted('chosen')).toEqual([['#112233']])
  })
})

describe('a line that is saved when it is left', () => {
  it('keeps what is typed while something arrives, tells it once, and shows what arrives afterwards', async () => {
    const at = mount(DraftInput, { props: { value: 'Otter' } })
    const field = at.find('input')
    field.element.value = 'Otter on a rock'
    await field.trigger('input')
    await at.setProps({ value: 'Seal' })
    expect(field.element.value).toBe('Otter on a rock')
    await field.trigger('change')
    expect(at.emitted('done')).toEqual([['Otter on a rock']])
    await at.setProps({ value: 'Otter on a rock, wet' })
    expect(field.element.value).toBe('Otter on a rock, wet')
  })
  it('tells nothing where nothing changed, and runs as its letters do', async () => {
    const at = mount(DraftInput, { props: { value: 'שלום', lines: 3 } })
    const field = at.find('textarea')
    expect(field.attributes()).toMatchObject({ dir: 'auto', rows: '3' })
    await field.trigger('input')
    await field.trigger('change')
    expect(at.emitted('done')).toBeUndefined()
  })
})

describe('a line of a form', () => {
  it('is labelled, in view or not, and says what is wrong with it to every reader', async () => {
    const at = mount(TextField, { props: { modelValue: 'x', label: 'Name' } })
    const field = at.find('input')
    expect(at.find('label').attributes('for')).toBe(field.attributes('id'))
    expect(field.attributes('aria-invalid')).toBe('false')
    expect(at.find('[role=alert]').exists()).toBe(false)
    await at.setProps({ fault: 'Give the piece a name.', bare: true })
    expect(at.find('label').classes()).toContain('visually-hidden')
    expect(field.attributes('aria-invalid')).toBe('true')
    expect(at.find(`#${field.attributes('aria-describedby')}`).text()).toBe('Give the piece a name.')
    await field.setValue('Otter')
    expect(at.emitted('update:modelValue')!.at(-1)).toEqual(['Otter'])
  })
})
