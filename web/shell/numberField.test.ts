// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import NumberField from './NumberField.vue'

const field = (props: object = {}): VueWrapper =>
  mount(NumberField, { props: { modelValue: 2, label: 'Wall', ...props } })
const entry = (f: VueWrapper) => f.find('input')
const told = (f: VueWrapper): unknown[] => (f.emitted('update:modelValue') ?? []).map(([v]) => v)
async function typed(f: VueWrapper, text: string): Promise<void> {
  await entry(f).setValue(text)
  await entry(f).trigger('keydown', { key: 'Enter' })
}

describe('a field for a number', () => {
  it('works out what is typed, shows it with its unit, and tells it once', async () => {
    const f = field({ unit: 'mm', max: 50 })
    await typed(f, '180/6')
    await entry(f).trigger('blur')
    expect(told(f)).toEqual([30])
    expect(entry(f).element.value).toBe('30')
    expect(f.text()).toContain('mm')
    await f.setProps({ modelValue: 30 })
    await typed(f, '1,25')
    expect(told(f)).toEqual([30, 1.25])
  })
  it('tells nothing while it is typed, and nothing when it is left without a change', async () => {
    const f = field()
    entry(f).element.value = '3'
    await entry(f).trigger('input')
    await f.setProps({ modelValue: 7 })
    expect([told(f), entry(f).element.value]).toEqual([[], '3'])
    await entry(f).trigger('blur')
    expect(told(f)).toEqual([3])
    await f.setProps({ modelValue: 3 })
    await entry(f).trigger('focus')
    await entry(f).trigger('blur')
    expect(told(f)).toEqual([3])
  })
  it('says beside it that something is no number, and keeps what was typed to be put right', async () => {
    const f = field()
    await typed(f, 'thickness')
    expect(told(f)).toEqual([])
    expect(entry(f).element.value).toBe('thickness')
    expect(entry(f).attributes('aria-invalid')).toBe('true')
    expect(f.text()).toContain('Type a number')
    await typed(f, '4')
    expect(f.text()).not.toContain('Type a number')
    expect(entry(f).attributes('aria-invalid')).toBe('false')
  })
  it.each([
    [{ min: 0.8, max: 12, unit: 'mm' }, '99', 12, 'Between 0.8 and 12 mm.'],
    [{ min: 0.8, unit: 'mm' }, '0.1', 0.8, 'At least 0.8 mm.'],
    [{ max: 90 }, '180', 90, 'At most 90.'],
  ])('stays within the limits that it has, and names only those', async (props, text, kept, sentence) => {
    const f = field(props)
    await typed(f, text)
    expect(told(f)).toEqual([kept])
    expect(f.text()).toContain(sentence)
    expect(f.text()).not.toContain('Infinity')
  })
  it('goes up and down by its step, by ten of them with Shift, and no farther than its limits', async () => {
    const f = field({ modelValue: 1, step: 0.1, min: 0.5, max: 3 })
    const key = (k: string, shiftKey = false) => entry(f).trigger('keydown', { key: k, shiftKey })
    await key('ArrowUp')
    expect(told(f)).toEqual([1.1])
    await key('ArrowUp', true)
    expect(told(f)).toEqual([1.1, 2.1])
    for (let i = 0; i < 30; i++) await key('ArrowDown')
    expect(told(f).at(-1)).toBe(0.5)
    expect(entry(f).element.value).toBe('0.5')
  })
  it('shows what its value is now, no longer than asked, and where it came from', async () => {
    const f = field({ modelValue: 1 / 3, digits: 2, source: 'the resin' })
    expect(entry(f).element.value).toBe('0.33')
    expect(f.text()).toContain('the resin')
    await f.setProps({ modelValue: 5 })
    expect(entry(f).element.value).toBe('5')
    expect(entry(f).attributes('aria-label')).toBe('Wall')
  })
  it('that may be empty tells so, takes whole numbers where it must, and names itself to a reader', async () => {
    const f = field({ optional: true, whole: true, min: 1, max: 12, bare: true, spoken: 'Months of lot 2' })
    await typed(f, '')
    await typed(f, '2.6')
    expect(told(f)).toEqual([null, 3])
    expect(entry(f).attributes('aria-label')).toBe('Months of lot 2')
    expect(f.text()).not.toContain('Wall')
    await typed(f, '40')
    expect(told(f)).toEqual([null, 3, 12])
    expect(f.text()).toContain('Between 1 and 12.')
  })
})
