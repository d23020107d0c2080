// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { pieceSummary } from '../../contract/pieces'
import { EXERCISES } from '../../core/plan/facts/practice'
import { SCHOOLS } from '../../core/defaults/plan'
import { PIECE } from '../stores/fakeServer'
import { usePiece } from '../stores/piece'
import { useStock } from '../stores/stock'
import { button, control, press, settle, shop, StageBench, type } from '../stages/stageTesting'
import { say } from '../../core/words/say'

let page: StageBench
const id = (n: number): string => `${n}0000000-0000-4000-8000-000000000000`
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop({ timeZone: 'UTC' }))
})
afterEach(() => {
  page.end()
  vi.useRealTimers()
})
const sent = (call: string): unknown[] => page.bench.sent.filter((s) => s.call === call).map((s) => s.body)

describe('the pieces on the bench', () => {
  const piece = (n: number, more: object = {}) =>
    pieceSummary.parse({
      id: id(n),
      version: 1,
      createdAt: '2026-11-01',
      name: `Piece ${n}`,
      parts: 1,
      done: 0,
      thumbnailMesh: null,
      ...more,
    })
  const open = async (...list: object[]) => {
    page.bench.replies.set('GET /pieces?limit=60', list)
    return page.show((await import('./PiecesPlace.vue')).default)
  }
  it('say when each is due, by the workshop’s day', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: Date.UTC(2026, 10, 20, 23, 30) })
    const at = await open(
      piece(1),
      piece(2, { deadline: '2026-11-20' }),
      piece(3, { deadline: '2026-11-21' }),
      piece(4, { deadline: '2026-11-10' }),
    )
    const when = (): string[] => at.findAll('.side').map((d) => d.find('dd').text())
    expect(when()).toEqual(['no deadline', 'today', 'in 1 day', '10 days late'])
    // In Auckland it is the 21st already.
    page.bench.replies.set('GET /workshop', shop({ timeZone: 'Pacific/Auckland', zone: 'Pacific/Auckland' }))
    useStock().workshop = shop({ timeZone: 'Pacific/Auckland', zone: 'Pacific/Auckland' }) as never
    await settle()
    expect(when()).toEqual(['no deadline', '1 day late', 'today', '11 days late'])
  })
  it('begin with a name, and go where the first sculpt is dropped', async () => {
    const at = await open()
    await control(at, 'Name of a new piece').setValue('Tern')
    await at.find('form').trigger('submit')
    await settle()
    expect(at.find('[role=alert]').exists()).toBe(true)
    page.bench.replies.set('POST /pieces', piece(5, { name: 'Tern' }))
    await at.find('form').trigger('submit')
    await settle()
    expect(sent('POST /pieces').at(-1)).toEqual({ name: 'Tern' })
    expect(page.router.currentRoute.value.path).toBe(`/pieces/${id(5)}/import`)
  })
  it('begin with three ways in: a sculpt, a stock to start with, or the demo', async () => {
    const at = await open()
    expect(at.findAll('.door h2').map((h) => h.text())).toEqual([
      'Open a sculpt',
      'Set up my workshop',
      'Look at the demo workshop',
    ])
    page.bench.replies.set('POST /stock/starter', [])
    page.bench.replies.set('POST /workshop/demo', shop({ demo: 'filling' }))
    await control(at, 'Size of the printer').setValue('large')
    page.stocked()
    await press(at, 'Add starter stock')
    expect(sent('POST /stock/starter')).toEqual([{ printer: 'large' }])
    // With a stock there is nothing to fill, and the button says so.
    expect(at.text()).toContain('In stock: 1 printer, 1 resin, 0 paints, 0 materials.')
    expect(button(at, 'Fill with the demo').element.disabled).toBe(true)
    expect(at.text()).toContain('The demo needs an empty workshop')
  })
  it('are made of the sculpts among the files that are chosen, and of nothing else', async () => {
    const at = await open()
    const choose = async (...names: string[]): Promise<void> => {
      const field = at.find<HTMLInputElement>('.door input[type=file]')
      Object.defineProperty(field.element, 'files', { value: names.map((n) => new File(['x'], n)), configurable: true })
      await field.trigger('change')
      await settle()
    }
    await choose('notes.txt')
    expect(at.find('[role=alert]').text()).toContain('No sculpt among the files: notes.txt.')
    expect(sent('POST /pieces')).toEqual([])
    page.bench.replies.set('POST /pieces', piece(1, { id: PIECE, name: 'heron' }))
    page.bench.replies.set(`POST /pieces/${PIECE}/files?name=heron.stl`, {})
    await choose('heron.stl', 'notes.txt')
    expect(sent('POST /pieces')).toEqual([{ name: 'heron' }])
    expect(page.router.currentRoute.value.path).toBe(`/pieces/${PIECE}/import`)
    expect(usePiece().problem).toBe('One file is no sculpt and was left out.')
  })
  it('leave nothing behind where every file was refused', async () => {
    const at = await open()
    page.bench.replies.set('POST /pieces', piece(1, { id: PIECE, name: 'heron' }))
    page.bench.replies.set(`DELETE /pieces/${PIECE}`, {})
    const field = at.find<HTMLInputElement>('.door input[type=file]')
    Object.defineProperty(field.element, 'files', { value: [new File(['x'], 'heron.stl')], configurable: true })
    await field.trigger('change')
    await settle()
    expect(page.bench.calls).toContain(`DELETE /pieces/${PIECE}`)
    expect(at.find('[role=alert]').exists()).toBe(true)
    expect(page.router.currentRoute.value.path).not.toContain(PIECE)
  })
  it('go into the bin only when the server has put them there, and come back', async () => {
    const at = await open(piece(1), piece(2))
    await press(at, 'Delete Piece 1')
    expect(at.text()).not.toContain('is in the trash')
    expect(at.find('[role=alert]').exists()).toBe(true)
    page.bench.replies.set(`DELETE /pieces/${id(1)}`, {})
    page.bench.replies.set('GET /pieces?limit=60', [piece(2)])
    await press(at, 'Delete Piece 1')
    expect(at.text()).toContain('“Piece 1” is in the trash for 30 days.')
    expect(at.findAll('.row-piece')).toHaveLength(1)
    page.bench.replies.set(`POST /pieces/${id(1)}/restore`, {})
    page.bench.replies.set('GET /pieces?limit=60', [piece(1), piece(2)])
    await press(at, 'Restore')
    expect(at.findAll('.row-piece')).toHaveLength(2)
    expect(at.text()).not.toContain('is in the trash')
  })
})

describe('the workshop’s settings', () => {
  const open = async () => {
    await useStock().load()
    return page.show((await import('./WorkshopPlace.vue')).default)
  }
  it('are saved as what was changed, and nothing else is sent again', async () => {
    page.bench.replies.set('PUT /workshop', shop({ timeZone: 'UTC', labour: 25 }))
    const at = await open()
    await type(at, 'Cost of an hour of work', '25')
    await at.find('form').trigger('submit')
    await settle()
    expect(sent('PUT /workshop')).toMatchObject([{ labour: 25, name: 'Test workshop' }])
    expect(at.find('[role=status]').text()).toBe('Saved.')
    // Of what is typed since, that is not said.
    await type(at, 'Humidity', '61')
    expect(at.find('[role=status]').exists()).toBe(false)
  })
  it('are shown as they are kept, and said to be saved, where the server wrote them otherwise', async () => {
    const kept = { name: 'Ada', hours: null, off: [] }
    page.bench.replies.set('PUT /workshop', shop({ timeZone: 'UTC', people: [kept] }))
    const at = await open()
    await press(at, 'Add a person')
    await control(at, 'Person 1').setValue(' Ada ')
    await at.find('form').trigger('submit')
    await settle()
    expect(sent('PUT /workshop')).toMatchObject([{ people: [{ name: ' Ada ' }] }])
    expect(control(at, 'Person 1').element.value).toBe('Ada')
    expect(at.find('[role=status]').text()).toBe('Saved.')
  })
  it('refuse hours that end before they begin, and send nothing', async () => {
    const at = await open()
    await press(at, 'Add hours')
    await control(at, 'From').setValue('18:00')
    await control(at, 'To').setValue('09:00')
    await at.find('form').trigger('submit')
    await settle()
    expect(at.find('[role=alert]').text()).toBe('Saturday: the bench hours end before they start.')
    expect(sent('PUT /workshop')).toEqual([])
  })
  it('say beside each field what is wrong with it, people included, and send nothing until it is mended', async () => {
    page.bench.replies.set('PUT /workshop', shop({ timeZone: 'UTC', name: 'Quay' }))
    const at = await open()
    await control(at, 'Name').setValue('  ')
    await control(at, 'Currency').setValue('€')
    await control(at, /^Time zone/).setValue('Atlantis')
    await press(at, 'Add a person')
    await control(at, 'Person 1').setValue('')
    await at.find('form').trigger('submit')
    await settle()
    expect(at.findAll('[role=alert]').map((a) => a.text())).toEqual([
      'Give the workshop a name.',
      'A currency is three capital letters, as EUR.',
      'This time zone is not known. It is written as Europe/Berlin.',
      'Give everybody a name.',
    ])
    expect(sent('PUT /workshop')).toEqual([])
    await control(at, 'Name').setValue('Quay')
    await control(at, 'Currency').setValue('EUR')
    await control(at, /^Time zone/).setValue('UTC')
    await control(at, 'Person 1').setValue('Ada')
    await press(at, 'Remove Ada')
    expect(at.find('[role=alert]').exists()).toBe(false)
    await at.find('form').trigger('submit')
    await settle()
    expect(sent('PUT /workshop')).toMatchObject([{ name: 'Quay' }])
  })
  it('keep what is being typed while something else of the workshop changes', async () => {
    const at = await open()
    await type(at, 'Cost of an hour of work', '31')
    useStock().workshop = shop({ timeZone: 'UTC', name: 'Renamed elsewhere' }) as never
    await settle()
    expect(control(at, 'Cost of an hour of work').element.value).toBe('31')
    expect(control(at, /^Name/).element.value).toBe('Renamed elsewhere')
  })
  it('follow the computer’s zone where none is written', async () => {
    page.bench.replies.set('PUT /workshop', shop())
    const at = await open()
    await control(at, /^Time zone/).setValue('  ')
    await at.find('form').trigger('submit')
    await settle()
    expect(sent('PUT /workshop')).toMatchObject([{ timeZone: null }])
    expect(Object.keys(SCHOOLS).length).toBeGreaterThan(0)
  })
})

describe('practice', () => {
  it('counts tries by exercise and keeps one with how it went', async () => {
    const [one, two] = [EXERCISES[0]!, EXERCISES[1]!]
    const tried = { id: 'a', exercise: two.id, at: '2026-11-01T10:00:00Z', went: 'well', note: '', photo: null }
    page.bench.replies.set('GET /workshop', shop({ tries: [tried] }))
    page.bench.replies.set('PUT /workshop', shop({ tries: [tried] }))
    await useStock().load()
    const at = await page.show((await import('./PracticePlace.vue')).default)
    const rows = at.findAll('.exercise').map((b) => b.text())
    expect(rows.find((r) => r.startsWith(say(one.name)))).toContain('not tried')
    expect(rows.find((r) => r.startsWith(say(two.name)))).toContain('1 attempt, last well')
    await at
      .findAll('.exercise')
      .find((b) => b.text().startsWith(say(two.name)))!
      .trigger('click')
    expect(at.find('h2').text()).toBe(say(two.name))
    for (const step of two.does) expect(at.text()).toContain(say(step))
    await at.find('input[type=radio][value=partly]').setValue(true)
    await control(at, 'Result').setValue(' too thin ')
    await at.find('form').trigger('submit')
    await settle()
    const { tries } = sent('PUT /workshop')[0] as { tries: Record<string, unknown>[] }
    expect(tries).toHaveLength(2)
    expect(tries[1]).toMatchObject({ exercise: two.id, went: 'partly', note: 'too thin', photo: null })
    expect(control(at, 'Result').element.value).toBe('')
    expect(button(at, 'Practice body (STL)').element.disabled).toBe(false)
  })
})
