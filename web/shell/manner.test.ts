// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { CHOICES } from '../manner'

/** A page loaded with what was chosen in this browser. */
async function page(chosen: Partial<Record<keyof typeof CHOICES, string>>) {
  for (const [key, value] of Object.entries(chosen)) localStorage.setItem(CHOICES[key as keyof typeof CHOICES], value)
  vi.resetModules()
  const manner = await import('../manner')
  const NumberField = (await import('./NumberField.vue')).default
  return { ...manner, NumberField }
}
afterEach(() => {
  localStorage.clear()
  vi.resetModules()
})

describe('a page in the units that were chosen', () => {
  it('shows a field in inches, takes any unit, and keeps millimetres', async () => {
    const { NumberField } = await page({ length: 'in', region: 'US' })
    const at = mount(NumberField, { props: { modelValue: 25.4, label: 'Height', unit: 'mm', min: 2.54, max: 254 } })
    const entry = at.find('input')
    expect([entry.element.value, at.find('.unit').text()]).toEqual(['1', 'in'])
    for (const typed of ['2', '60 mm', '1 1/2 in', '20']) {
      entry.element.value = typed
      await entry.trigger('input')
      await entry.trigger('keydown', { key: 'Enter' })
    }
    const told = at.emitted('update:modelValue')!.map(([v]) => v as number)
    expect(told.map((v) => Number(v.toFixed(6)))).toEqual([50.8, 60, 38.1, 254])
    expect(at.text()).toContain('Between 0.1 and 10 in.')
  })
  it('steps by its step with the arrow keys, and writes the decimals of its region', async () => {
    const { NumberField, figure } = await page({ region: 'DE' })
    const at = mount(NumberField, { props: { modelValue: 1.5, label: 'Wall', unit: 'mm', step: 0.1 } })
    expect(at.find('input').element.value).toBe('1,5')
    await at.find('input').trigger('keydown', { key: 'ArrowUp' })
    expect(at.emitted('update:modelValue')).toEqual([[1.6]])
    expect(figure(1234.5, 1)).toBe('1.234,5')
  })
  it('has days, times and weeks as its region has them', async () => {
    const german = await page({ region: 'DE' })
    expect(german.dateText('2026-11-30', 'day')).toBe('30 Nov')
    expect(german.dateText(new Date(2026, 10, 30, 14, 5), 'time')).toBe('14:05')
    expect(german.firstWeekday()).toBe(1)
    const american = await page({ region: 'US', temperature: '°F', volume: 'fl oz' })
    expect(american.dateText('2026-11-30', 'day')).toBe('Nov 30')
    expect(american.dateText(new Date(2026, 10, 30, 14, 5), 'time')).toMatch(/^2:05\sPM$/)
    expect(american.firstWeekday()).toBe(7)
    expect([american.quantity(20, 0, '°C'), american.unitName('ml')]).toEqual(['68 °F', 'fl oz'])
    expect(american.charted('mm', [25.4])).toEqual([25.4])
  })
})
