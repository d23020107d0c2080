// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { sculpt, type SculptRecord } from '../../contract/sculpts'
import { PIECE } from '../stores/fakeServer'
import { useSculpts } from '../stores/sculpts'
import { choose, control, enter, press, settle, StageBench } from '../stages/stageTesting'

let page: StageBench, shelf: SculptRecord[]
const id = (n: number): string => `${n}0000000-0000-4000-8000-000000000000`
const made = (n: number, more: object = {}): SculptRecord =>
  sculpt.parse({
    id: id(n),
    version: 1,
    family: id(n),
    edition: 1,
    name: `Sculpt ${n}`,
    fileName: `sculpt${n}.stl`,
    mesh: `${n}`.repeat(64),
    createdAt: '2026-11-01T10:00:00Z',
    usedIn: [],
    ...more,
  })
const told = (...list: SculptRecord[]): void => {
  shelf = list
  page.bench.replies.set('GET /sculpts', shelf)
  page.bench.replies.set('GET /sculpts/intakes', [])
}
beforeEach(() => {
  page = new StageBench()
})
afterEach(() => page.end())
const open = async () => page.show((await import('./SculptsPlace.vue')).default)
const names = (at: Awaited<ReturnType<typeof open>>): string[] => at.findAll('.cards .name').map((n) => n.text())
const sent = (call: string): unknown[] => page.bench.sent.filter((s) => s.call === call).map((s) => s.body)

describe('the library of sculpts', () => {
  it('finds by every word, in name, file, origin, licence or tag, and by a tag', async () => {
    told(
      made(1, { name: 'Lighthouse keeper', tags: ['figure', 'sea'], origin: 'own sculpt' }),
      made(2, { name: 'Tern', tags: ['bird', 'sea'], licence: 'not for sale in shops' }),
      made(3, { name: 'Plinth', tags: ['base'] }),
    )
    const at = await open()
    const find = control(at, 'Find a sculpt')
    for (const [words, found] of [
      ['', ['Lighthouse keeper', 'Tern', 'Plinth']],
      ['KEEPER own', ['Lighthouse keeper']],
      ['shops', ['Tern']],
      ['sculpt3', ['Plinth']],
      ['keeper bird', []],
    ] as const) {
      await find.setValue(words)
      expect(names(at)).toEqual(found)
    }
    expect(at.text()).toContain('No sculpt matches.')
    await find.setValue('')
    await press(at, 'sea')
    expect(names(at)).toEqual(['Lighthouse keeper', 'Tern'])
    await press(at, 'sea')
    expect(names(at)).toHaveLength(3)
  })
  it('shows the newest edition of each, and the others when it is chosen', async () => {
    told(made(1), made(2, { family: id(1), edition: 2, name: 'Sculpt 1, mended' }), made(3))
    const at = await open()
    expect(names(at)).toEqual(['Sculpt 1, mended', 'Sculpt 3'])
    await at.findAll('.card-sculpt')[0]!.trigger('click')
    expect(at.findAll('.about .link').map((b) => b.text().slice(0, 15))).toEqual(['2: sculpt2.stl,', '1: sculpt1.stl,'])
    page.bench.replies.set(`PUT /sculpts/${id(2)}/edition`, made(2, { version: 2 }))
    await choose(at, /This is the next edition of/, id(3))
    expect(sent(`PUT /sculpts/${id(2)}/edition`)).toEqual([{ version: 1, of: id(3) }])
  })
  it('keeps tags once each, in small letters and without what is empty', async () => {
    told(made(1, { tags: ['sea'] }))
    page.bench.replies.set(`PATCH /sculpts/${id(1)}`, made(1, { version: 2, tags: ['sea', 'bust'] }))
    const at = await open()
    await at.find('.card-sculpt').trigger('click')
    await enter(at, /^Tags/, ' Sea, bust,, Bust , sea')
    expect(sent(`PATCH /sculpts/${id(1)}`)).toEqual([{ version: 1, tags: ['sea', 'bust'] }])
  })
  it('says that a sculpt is in the trash only when it is, and takes it back', async () => {
    told(made(1), made(2))
    const at = await open()
    await at.find('.card-sculpt').trigger('click')
    await press(at, 'Delete')
    expect(at.text()).not.toContain('is in the trash')
    expect(at.find('[role=alert]').exists()).toBe(true)
    page.bench.replies.set(`DELETE /sculpts/${id(1)}`, {})
    page.bench.replies.set('GET /sculpts', [shelf[1]])
    await press(at, 'Delete')
    expect(at.text()).toContain('“Sculpt 1” is in the trash for 30 days')
    expect(at.text()).toContain('Choose a sculpt to see')
    await press(at, 'Restore')
    expect(at.text()).toContain('is in the trash for 30 days')
    page.bench.replies.set(`POST /sculpts/${id(1)}/restore`, {})
    page.bench.replies.set('GET /sculpts', shelf)
    await press(at, 'Restore')
    expect(at.text()).not.toContain('is in the trash')
    expect(names(at)).toEqual(['Sculpt 1', 'Sculpt 2'])
  })
  it('begins a piece with a sculpt in it, or says why it could not', async () => {
    told(made(1))
    const at = await open()
    await at.find('.card-sculpt').trigger('click')
    await press(at, 'New piece from it')
    expect(at.find('[role=alert]').exists()).toBe(true)
    page.bench.replies.set('POST /pieces', { id: PIECE, version: 1, createdAt: '2026-11-01', name: 'Sculpt 1' })
    page.bench.replies.set(`POST /pieces/${PIECE}/arrange`, { created: [id(5)] })
    await press(at, 'New piece from it')
    expect(sent(`POST /pieces/${PIECE}/arrange`)).toEqual([
      { create: [{ name: 'Sculpt 1', from: null, sculpt: id(1), operations: [] }] },
    ])
    expect(page.router.currentRoute.value.path).toBe(`/pieces/${PIECE}/import`)
  })
  it('takes files in, says of each that was refused why, and shows a conflict with the newer version', async () => {
    told(made(1))
    page.bench.replies.set('GET /sculpts/intakes', [
      {
        id: id(8),
        fileName: 'cut.stl',
        status: 'refused',
        problem: { code: 'x', message: 'The file ends early.' },
        passedOver: [],
      },
    ])
    const at = await open()
    expect(at.findAll('[role=alert]').map((a) => a.text())).toEqual(['The file ends early. Dismiss'])
    await useSculpts().drop([new File(['x'], 'a b.stl')])
    await settle()
    expect(page.bench.sent.at(-1)!.call).toBe('POST /sculpts/files?name=a%20b.stl')
    expect(useSculpts().problem).not.toBeNull()
  })
})
