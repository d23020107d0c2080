// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { PIECE } from '../stores/fakeServer'
import { usePiece } from '../stores/piece'
import { DOMWrapper } from '@vue/test-utils'
import { SCHOOLS } from '../../core/defaults/plan'
import { choose, control, PRINTER_ID, RESIN_ID, settle, StageBench, type } from './stageTesting'

let page: StageBench
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const open = () => page.on(() => import('./BriefStage.vue'))
const sent = (): unknown[] => page.bench.sent.filter((s) => s.call === `PATCH /pieces/${PIECE}`).map((s) => s.body)
/** What stands in the middle of the page is no child of the stage there. */
const middle = () => new DOMWrapper(document.body)

describe('the brief', () => {
  it('sends each field by itself as soon as it is left, with the version that the last answer gave', async () => {
    await open()
    const at = middle()
    await type(at, 'Name', 'Lighthouse keeper')
    await choose(at, /Purpose/, 'commission')
    await choose(at, /Finish/, 'exhibition')
    expect(sent()).toEqual([
      { version: 1, name: 'Lighthouse keeper' },
      { version: 2, purpose: 'commission' },
      { version: 3, finish: 'exhibition' },
    ])
    expect(usePiece().piece).toMatchObject({ name: 'Lighthouse keeper', purpose: 'commission', version: 4 })
  })
  it('keeps two choices that are made before the first is answered', async () => {
    page.bench.slow = 20
    await open()
    await settle()
    const at = middle()
    await control(at, /Purpose/).setValue('sell')
    await control(at, /Finish/).setValue('exhibition')
    await vi.waitFor(() => expect(page.bench.fields).toMatchObject({ purpose: 'sell', finish: 'exhibition' }))
  })
  it('takes a deadline away as none, not as an empty day', async () => {
    page.bench.deadline = '2027-02-01'
    await open()
    await choose(middle(), /Deadline/, '')
    expect(sent()).toEqual([{ version: 1, deadline: null }])
  })
  it('lists the printers and resins of the stock and can leave both open', async () => {
    page.stocked()
    await open()
    const at = middle()
    await choose(at, /Printer/, PRINTER_ID)
    await choose(at, /Resin/, RESIN_ID)
    await choose(at, /Printer/, '')
    expect(sent()).toMatchObject([{ printerId: PRINTER_ID }, { resinId: RESIN_ID }, { printerId: null }])
  })
  it('goes back to the house rule by leaving a choice out', async () => {
    const [key, school] = Object.entries(SCHOOLS)[0]!
    page.bench.fields = { schools: { [key]: Object.keys(school.choices)[0] } }
    const at = await open()
    await choose(at, school.question, Object.keys(school.choices)[1]!)
    await choose(at, school.question, '')
    expect(sent()).toMatchObject([{ schools: { [key]: Object.keys(school.choices)[1] } }, { schools: {} }])
    expect((sent()[1] as { schools: object }).schools).not.toHaveProperty(key)
  })
})
