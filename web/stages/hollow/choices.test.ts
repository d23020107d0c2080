// @vitest-environment happy-dom
import { afterEach, beforeEach, expect, it } from 'vitest'
import { coreChoices } from '../../../core/fit/coreChoices'
import { loadDefaults } from '../../../core/fit/wallLoad'
import { concatenate, reversed } from '../../../core/mesh/mesh'
import { boxBody } from '../../../core/testBodies'
import { OWN, settled } from '../../stores/fakeServer'
import { usePiece } from '../../stores/piece'
import { control, press, shop, StageBench } from '../stageTesting'

let page: StageBench
const [POST, ROOM] = [boxBody(30, 30, 80), boxBody(24, 24, 34, 3, 3, 43)]
const COMPARED = coreChoices(POST, concatenate([POST, reversed(ROOM)]), 1.6, { ...loadDefaults, wall: 3 })
beforeEach(() => {
  page = new StageBench()
  page.bench.replies.set('GET /workshop', shop())
  page.bench.trials.set('hollow', OWN.hollow!)
  page.bench.checks.set('coreChoices', COMPARED)
})
afterEach(() => page.end())
const open = () => page.on(() => import('./ChoicesPanel.vue'), { wall: 3, voxel: 0.5, opening: 1 })
type Panel = Awaited<ReturnType<typeof open>>
const row = (at: Panel, name: string): string[] =>
  at
    .findAll('tbody tr')
    .find((r) => r.find('th').exists() && r.find('th').text() === name)!
    .findAll('td')
    .map((c) => c.text())

it('has no price and no print time without a resin and a printer, and says for what the weights are', async () => {
  const at = await open()
  expect(row(at, 'mass')).toEqual(
    [COMPARED.solid, COMPARED.hollow, COMPARED.filled].map((c) => `${c.mass.toFixed(0)} g`),
  )
  expect(row(at, 'price')).toEqual(['–', '–', '–'])
  expect(row(at, 'print time')).toEqual(['–', '–', '–'])
  expect(at.text()).toContain('No resin is chosen. Masses are for 1.12 g/ml; price and print time are not known.')
})
it('prices the resin that is chosen, and says that a print time needs a printer', async () => {
  page.stocked()
  const printers = page.bench.stock.splice(0, 1)
  const at = await open()
  // 72 ml, a film on 114 cm² and 2 ml in the vat, at 40 a litre: what Scale says of it too.
  expect(row(at, 'price')[0]).toMatch(/2\.96/)
  expect(row(at, 'print time')[0]).toBe('–')
  expect(at.text()).toContain('No printer is chosen, so the print time is not known.')
  expect(printers).toHaveLength(1)
})
it('says that a part falls over, where its weight is beside its foot, and no angle', async () => {
  page.bench.checks.set('coreChoices', {
    ...COMPARED,
    solid: { ...COMPARED.solid, tip: -6.7 },
    hollow: { ...COMPARED.hollow, tip: null },
    filled: { ...COMPARED.filled, tip: 12.4 },
  })
  expect(row(await open(), 'tips at')).toEqual(['tips over', 'nothing to stand on', '12°'])
})
it('compares nothing of a part that is inside out, or that takes no cavity, and says why', async () => {
  page.bench.checks.set('coreChoices', { ...COMPARED, solid: { ...COMPARED.solid, resin: -72_000 } })
  let at = await open()
  expect(at.text()).toContain('inside out')
  expect(at.find('table').exists()).toBe(false)
  page.end()
  page = new StageBench()
  page.bench.trials.set('hollow', {})
  page.bench.failing.set('hollow', 'The wall leaves no cavity.')
  at = await open()
  expect(at.text()).toContain('Solid and hollow are not compared. The wall leaves no cavity.')
})
it('is chosen by a click: hollow as it is set, solid without its holes', async () => {
  const at = await open()
  await press(at, 'Choose Hollow')
  expect(page.bench.operations).toMatchObject([{ kind: 'hollow', wall: 3, voxel: 0.5, opening: 1 }])
  await usePiece().apply({ kind: 'drill', holes: [{ point: [0, 0, 0], direction: [0, 0, 1], diameter: 3 }] } as never)
  await press(at, 'Choose Solid')
  expect(page.bench.operations).toEqual([])
})
it('asks again for another casting resin', async () => {
  const at = await open()
  const asked = () =>
    page.bench.sent
      .filter((s) => s.call === 'POST /checks')
      .map((s) => (s.body as { check: { casting?: number } }).check.casting)
  await control(at, /^Casting resin/).setValue('1.1')
  await control(at, /^Casting resin/).trigger('change')
  await settled(60)
  expect(asked().at(-1)).toBe(1.1)
})
