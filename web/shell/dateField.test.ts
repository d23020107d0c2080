// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { nameOf } from '../../contract/name'
import DateField from './DateField.vue'
import SavedText from './SavedText.vue'

/** Types a text and leaves the field. */
async function enter(at: VueWrapper, text: string): Promise<void> {
  const field = at.find('input')
  field.element.value = text
  await field.trigger('input')
  await field.trigger('change')
}
const shown = (at: VueWrapper): string => at.find('input').element.value

describe('a day', () => {
  const open = (props: object = {}) => mount(DateField, { props: { value: '2026-12-24', label: 'Opened', ...props } })
  it('is shown and read as the region writes it, and told once as it is kept', async () => {
    const at = open()
    expect(shown(at)).toBe('24/12/2026')
    expect(at.find('input').element.readOnly).toBe(false)
    await enter(at, '1.2.27')
    expect(at.emitted('done')).toEqual([['2027-02-01']])
    expect(shown(at)).toBe('01/02/2027')
    await at.setProps({ value: '2027-02-01' })
    await enter(at, '1 feb 2027')
    expect(at.emitted('done')).toHaveLength(1)
    await enter(at, '')
    expect(at.emitted('done')!.at(-1)).toEqual([''])
  })
  it('that is none stays as it was typed, with how one writes it below, until it is mended', async () => {
    const at = open({ max: '2026-12-31' })
    await enter(at, '31/4/2026')
    const field = at.find('input')
    expect(field.attributes('aria-invalid')).toBe('true')
    expect(at.find(`#${field.attributes('aria-describedby')}`).text()).toBe(
      '“31/4/2026” is no date. Write it as 30/11/2026.',
    )
    // What arrives meanwhile is not written over it.
    await at.setProps({ value: '2026-12-01' })
    expect([shown(at), at.emitted('done')]).toEqual(['31/4/2026', undefined])
    await enter(at, '1/1/2027')
    expect(at.find('[role=alert]').text()).toBe('The day must be 31/12/2026 or before.')
    await enter(at, '30/4/2026')
    expect([at.find('[role=alert]').exists(), at.emitted('done')]).toEqual([false, [['2026-04-30']]])
  })
  it('is taken from a calendar, whose button says what it opens', async () => {
    const at = mount(DateField, { props: { value: '2026-12-24', label: 'Opened' }, attachTo: document.body })
    const opener = at.findAll('button').find((b) => b.text().includes('Open the calendar'))!
    expect(opener.text()).toContain('Opened')
    at.findComponent({ name: 'BDatePicker' }).vm.$emit('update:modelValue', { toString: () => '2026-12-06' })
    await at.vm.$nextTick()
    expect([at.emitted('done'), shown(at)]).toEqual([[['2026-12-06']], '06/12/2026'])
    at.unmount()
  })
  it('with a time keeps its time when another day is taken, and a time alone may not be left out', async () => {
    const moment = open({ kind: 'moment', value: '2026-12-24T18:30' })
    expect(shown(moment)).toBe('24/12/2026, 18:30')
    await enter(moment, '25/12/2026 9:15')
    moment.findComponent({ name: 'BDatePicker' }).vm.$emit('update:modelValue', { toString: () => '2026-12-06' })
    expect(moment.emitted('done')).toEqual([['2026-12-25T09:15'], ['2026-12-06T18:30']])
    const time = open({ kind: 'time', value: '09:05', required: true })
    await enter(time, '')
    expect([shown(time), time.emitted('done')]).toEqual(['09:05', undefined])
    await enter(time, '9 pm')
    expect(time.emitted('done')).toEqual([['21:00']])
    await enter(time, '25:00')
    expect(time.find('[role=alert]').text()).toBe('“25:00” is no time. Write it as 21:30.')
  })
})

describe('a text that is saved when it is left', () => {
  const open = (schema: z.ZodType<string> = nameOf(12, 'forms.giveThePieceAName'), value = 'Otter') =>
    mount(SavedText, { props: { value, label: 'Name', schema } })
  it('is told once, as its schema has it, and not at every key', async () => {
    const at = open()
    const field = at.find('input')
    field.element.value = ' שועל '
    await field.trigger('input')
    expect(at.emitted('done')).toBeUndefined()
    await field.trigger('change')
    expect([at.emitted('done'), shown(at)]).toEqual([[['שועל']], 'שועל'])
    await field.trigger('change')
    expect(at.emitted('done')).toHaveLength(1)
  })
  it('that its schema does not take stays, is said to be wrong below, and is not written over', async () => {
    const at = open()
    await enter(at, '🐦'.repeat(13))
    expect(at.find('[role=alert]').text()).toBe('At most 12 characters; there are 13.')
    await at.setProps({ value: 'Seal' })
    expect([shown(at), at.emitted('done')]).toEqual(['🐦'.repeat(13), undefined])
    await enter(at, '   ')
    expect(at.find('[role=alert]').text()).toBe('Give the piece a name.')
    await enter(at, 'Heron')
    expect([at.find('[role=alert]').exists(), at.emitted('done')]).toEqual([false, [['Heron']]])
  })
  it('of several lines is a text area of so many', async () => {
    const at = mount(SavedText, { props: { value: 'a\nb', label: 'Notes', lines: 5, schema: z.string().max(9) } })
    expect(at.find('textarea').attributes()).toMatchObject({ rows: '5', dir: 'auto' })
    await at.find('textarea').setValue('far too long')
    expect(at.find('[role=alert]').text()).toBe('At most 9 characters; there are 12.')
  })
})
