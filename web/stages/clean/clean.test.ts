// @vitest-environment happy-dom
import { DOMWrapper } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import type { Cleaning } from '../../../contract/runs'
import { useCleaning } from '../../stores/cleaning'
import { PIECE } from '../../stores/fakeServer'
import { PLATE, plate, run } from '../plateTesting'
import { choose, press, shop, StageBench, type } from '../stageTesting'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const sent = (call: string): unknown[] => page.bench.sent.filter((s) => s.call === call).map((s) => s.body)
const bath = (litres: number, resin: number) => ({ litres, resin, limit: 10 })

describe('the baths', () => {
  const open = async (carryOver: object | null) => {
    page.bench.replies.set('GET /workshop', shop({ baths: { first: bath(2, 100), second: bath(1, 120) } }))
    page.bench.replies.set('PUT /workshop', shop())
    return page.on(() => import('./BathPanel.vue'), { carryOver })
  }
  it('say how much resin is in each and how many more washes like this they take', async () => {
    const at = await open({ first: 10, second: 1 })
    const [first, second] = at.findAll('[data-bath]')
    // 100 ml in 2 l; up to a tenth of it are 100 ml more, ten times 10 ml.
    expect(first!.find('.fold-title').text()).toBe(
      'First, dirty bath: 5.0 % of 10 %, enough for 10 more prints like this',
    )
    expect(second!.find('.fold-title').text()).toContain('12.0 % of 10 %, enough for 0 more prints like this')
    expect(second!.find('i').classes()).toContain('full')
  })
  it('promise nothing where nothing is washed', async () => {
    const at = await open(null)
    expect(at.text()).not.toContain('more like this')
  })
  it('change the figure that is typed and leave the other bath', async () => {
    const at = await open(null)
    await type(at.find('[data-bath=second]'), 'Resin in the liquid', 40)
    expect(sent('PUT /workshop')).toMatchObject([{ baths: { first: bath(2, 100), second: bath(1, 40) } }])
  })
  it('are refilled: no resin, as much liquid', async () => {
    const at = await open(null)
    await press(at.find('[data-bath=first]'), 'Mark as refilled')
    expect(sent('PUT /workshop')).toMatchObject([{ baths: { first: bath(2, 0) } }])
  })
})

describe('cleaning what came off a plate', () => {
  it('says where it comes from while nothing has', async () => {
    await page.on(() => import('../CleanStage.vue'))
    expect(new DOMWrapper(document.body).text()).toContain('No plate is finished yet.')
  })
  const open = async () => {
    page.bench.replies.set(`GET /pieces/${PIECE}/runs`, [run([plate()])])
    page.bench.replies.set('GET /devices', [])
    const cleaning: Cleaning = {
      first: 10,
      second: 1,
      steps: [step('wash', '2026-11-20T10:00:00Z'), step('rinse', null), step('cure', null)],
    }
    page.bench.replies.set(`GET /plates/${PLATE}/cleaning`, cleaning)
    page.bench.replies.set(`PUT /plates/${PLATE}/cleaning`, {
      ...cleaning,
      steps: cleaning.steps.map((s) => ({ ...s, doneAt: '2026-11-20T11:00:00Z' })),
    })
    return page.on(() => import('../CleanStage.vue'))
  }
  const middle = () => new DOMWrapper(document.body)
  it('shows the cautions and materials of the next step, and counts the work and the waiting that are left', async () => {
    const at = await open()
    expect(middle().find('[data-step=rinse]').classes()).toContain('next')
    expect(middle().findAll('.caution')).toHaveLength(1)
    expect(middle().find('[data-step=rinse] .caution').text()).toBe('Nitrile gloves.')
    expect(at.text()).toContain('10 min of work left, and 20 min of waiting')
    expect(at.text()).toContain('2 × bust')
  })
  it('ticks a step and says when all of it is clean', async () => {
    const at = await open()
    await choose(middle(), 'Done: rinse', true)
    expect(sent(`PUT /plates/${PLATE}/cleaning`)).toEqual([{ key: 'rinse', done: true }])
    expect(at.text()).toContain('Everything is clean.')
    expect(middle().find('.next').exists()).toBe(false)
  })
  it('carries nothing more into a bath that was washed in already', async () => {
    page.bench.replies.set('GET /workshop', shop({ baths: { first: bath(2, 100), second: bath(1, 120) } }))
    await open()
    expect(useCleaning().known.baths).toMatchObject({ value: { carryOver: { first: 0, second: 1 } } })
  })
})
const step = (key: string, doneAt: string | null): Cleaning['steps'][number] => ({
  key,
  title: key,
  why: '',
  handsOn: 300,
  wait: 600,
  program: null,
  materials: ['gloves'],
  cautions: ['Nitrile gloves.'],
  doneAt,
})
