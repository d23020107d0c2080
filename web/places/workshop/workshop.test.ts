// @vitest-environment happy-dom
import { mount, type VueWrapper } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { reactive } from 'vue'
import { CLEARANCES } from '../../../core/defaults/fit'
import type { Workshop } from '../../../contract/workshop'
import ClearanceTable from '../ClearanceTable.vue'
import { choose, control, enter, press, type } from '../../stages/stageTesting'
import HoursEditor from './HoursEditor.vue'
import MannerPanel from './MannerPanel.vue'
import PeoplePanel from './PeoplePanel.vue'

/** Forms of the workshop, which change what they are given in place: it is sent as a whole. */
const on = <T extends object>(component: object, value: T, props: object = {}): { at: VueWrapper; value: T } => {
  const held = reactive(value) as T
  return { at: mount(component as never, { props: { modelValue: held, ...props } as never }), value: held }
}

describe('bench hours', () => {
  it('are minutes of the day, written as a clock shows them', async () => {
    const { at, value } = on(HoursEditor, [{ weekday: 1, from: 545, to: 1080 }])
    expect(control(at, 'From').element.value).toBe('09:05')
    await enter(at, 'To', '21:30')
    await choose(at, 'Day', '3')
    expect(value).toEqual([{ weekday: 3, from: 545, to: 1290 }])
    await press(at, 'Add hours')
    expect(value).toHaveLength(2)
    await press(at, 'Remove these hours')
    expect(value).toEqual([{ weekday: 6, from: 600, to: 720 }])
  })
  it('are named by whose they are, so that two tables can be told apart', () => {
    const { at } = on(HoursEditor, [{ weekday: 1, from: 545, to: 1080 }], { whose: 'Ada' })
    expect(control(at, 'From, Ada').element.value).toBe('09:05')
  })
})

describe('who works here', () => {
  const people = (): Workshop['people'] => [{ name: 'Ada', hours: null, off: ['2026-12-24'] }]
  it('is one person in the bench hours until somebody is named', async () => {
    const { at, value } = on(PeoplePanel, [] as Workshop['people'])
    expect(at.text()).toContain('One person works in the bench hours.')
    await press(at, 'Add a person')
    expect(value).toEqual([{ name: 'Person 1', hours: null, off: [] }])
  })
  it('has hours of their own or the bench’s, and none of their own by mistake', async () => {
    const { at, value } = on(PeoplePanel, people())
    const own = at.find<HTMLInputElement>('input[type=checkbox]')
    await own.setValue(true)
    expect(value[0]!.hours).toEqual([])
    await press(at, 'Add hours')
    expect(value[0]!.hours).toHaveLength(1)
    await own.setValue(false)
    expect(value[0]!.hours).toBeNull()
  })
  it('is off on days in their order, each once, and can be called back', async () => {
    const { at, value } = on(PeoplePanel, people())
    await enter(at, 'A day off of Ada', '6/12/2026')
    await enter(at, 'A day off of Ada', '24/12/2026')
    await enter(at, 'A day off of Ada', '')
    expect(control(at, 'A day off of Ada').element.value).toBe('')
    expect(value[0]!.off).toEqual(['2026-12-06', '2026-12-24'])
    await press(at, 'Remove Ada’s day off on 24 Dec 2026')
    expect(value[0]!.off).toEqual(['2026-12-06'])
  })
})

describe('clearances', () => {
  const rules = (): Workshop['clearances'] => ({
    resin: { ...CLEARANCES.resin, print: null },
    filament: { ...CLEARANCES.filament, print: null },
  })
  it('are drawn wider by what a printed peg and hole say that the machine closes', async () => {
    const { at, value } = on(ClearanceTable, rules())
    const resin = at.findAll('.sheet')[0]!
    await press(resin, 'Enter a fit print')
    // A peg that came 0.1 too thick in a hole that came 0.06 too narrow: 0.08 of the diameter closes, half of it a side twice.
    await type(resin, 'Peg of 10 mm measures', '10.1')
    await type(resin, 'Hole of 10 mm measures', '9.94')
    const closes = (0.1 + 0.06) / 2
    expect(resin.text()).toContain(`Your printer closes gaps by ${closes.toFixed(3)} mm per side`)
    expect(resin.text()).toContain(`${(value.resin.sliding + closes).toFixed(3)} mm apart`)
    expect(value.filament.print).toBeNull()
    await press(resin, 'Remove fit print')
    expect(value.resin.print).toBeNull()
  })
})

describe('units and formats of this browser', () => {
  afterEach(() => {
    localStorage.clear()
    vi.restoreAllMocks()
  })
  const open = (unsaved = false) => {
    const reload = vi.spyOn(location, 'reload').mockImplementation(() => undefined)
    return { at: mount(MannerPanel, { props: { unsaved } }), reload }
  }
  it('are kept and load the page again, so that every text is written in them', async () => {
    const { at, reload } = open()
    await choose(at, /^Lengths/, 'in')
    expect([localStorage.getItem('undercut.length'), reload.mock.calls.length]).toEqual(['in', 1])
    await choose(at, /^Numbers and dates/, 'DE')
    expect([localStorage.getItem('undercut.region'), reload.mock.calls.length]).toEqual(['DE', 2])
    await choose(at, /^Numbers and dates/, '')
    expect(localStorage.getItem('undercut.region')).toBeNull()
  })
  it('show an example of what they are now, and whose region it is', () => {
    const { at } = open()
    expect(at.text()).toContain('1,234.5')
    expect(at.text()).toContain('United Kingdom (as the browser)')
  })
  it('cannot be changed while something typed is not saved, and say so: the page would be loaded without it', async () => {
    const { at, reload } = open(true)
    expect(at.findAll('select').every((s) => s.element.disabled)).toBe(true)
    expect(at.text()).toContain('Save the workshop first')
    await at.setProps({ unsaved: false })
    expect(at.findAll('select').some((s) => s.element.disabled)).toBe(false)
    expect(at.text()).not.toContain('Save the workshop first')
    expect(reload).not.toHaveBeenCalled()
  })
})
