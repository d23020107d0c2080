import { expect, test, type Page, server } from './workshop'
import { pictureHead } from '../core/formats/pictureHead'
import { writeStl } from '../core/formats/stl'
import { boxBody } from '../core/testBodies'
import { accessible, call, type } from './page'
import { piece } from './parts'
import { plainPng } from './png'

interface Step {
  key: string
  title: string
  doneAt: string | null
  begunAt: string | null
  took: number | null
  start: number | null
}
interface Entry {
  stepKey: string | null
  text: string
  photo: string | null
  at: string
}
const steps = async (id: string): Promise<Step[]> => (await call<{ steps: Step[] }>('GET', `/pieces/${id}/plan`)).steps
const log = (id: string): Promise<Entry[]> => call('GET', `/pieces/${id}/log`)
const planned = async (id: string): Promise<void> => {
  await expect
    .poll(async () => (await call<{ pending: string[] }>('GET', `/pieces/${id}/plan?measure=1`)).pending.length, {
      timeout: 180_000,
    })
    .toBe(0)
}
const big = (page: Page, name: string): ReturnType<Page['getByRole']> =>
  page.locator('footer').getByRole('button', { name, exact: true })
// Clocks that other tests left running would ring in here, each at its own time.
test.beforeEach(async () => {
  const { timers } = await call<{ timers: { id: string }[] }>('GET', '/timers')
  for (const t of timers) await call('DELETE', `/timers/${t.id}`)
})

test('bench mode: a piece from the plate to done, over several days, with one big button', async ({ page }) => {
  const id = await piece(page, 'Worked through', 'block.stl', writeStl(boxBody(20, 20, 20)))
  await planned(id)
  const all = await steps(id)
  // Days that have been: the page's clock stands where the work is done.
  const DAY = 86_400_000
  // Long enough ago that the last wait is over too: a clock that ran out later would ring in what comes after.
  const first = Date.now() - (all.length + 4) * DAY
  await page.clock.install({ time: first })
  await page.goto(`/pieces/${id}/bench`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(all[0]!.title)
  await accessible(page)
  let time = first
  const until = async (ms: number): Promise<void> => page.clock.setFixedTime((time = Math.max(time + 1000, ms)))
  /** The one button by its key, whatever it says: first that a clock ran out, then what is asked of it. */
  const press = (word: string, then: () => Promise<void>): Promise<void> =>
    expect(async () => {
      await until(0)
      // Once all is done there is no button any more.
      const button = page.locator('footer .main')
      const says = (await button.textContent({ timeout: 1000 }).catch(() => ''))?.trim()
      if (says === 'Dismiss' || says === word) await page.keyboard.press('Space')
      await then()
    }).toPass({ intervals: [400], timeout: 180_000 })
  const work = async (minutes: number): Promise<void> => {
    const title = (await page.getByRole('heading', { level: 1 }).textContent())!
    await press('Start', () => expect(big(page, 'Mark as done')).toBeVisible({ timeout: 2000 }))
    // A second press at once is a slip, and does nothing.
    await page.keyboard.press('Space')
    await until(time + minutes * 60_000)
    await press('Mark as done', () => expect(page.getByText(`Done: ${title}`)).toBeVisible({ timeout: 2000 }))
  }
  for (let day = 0; day < all.length; day++) {
    await until(first + day * DAY)
    await work(20)
    if (day > 0) continue
    await page.getByRole('button', { name: 'Mark as not done' }).click()
    await expect.poll(async () => (await steps(id))[0]).toMatchObject({ doneAt: null, begunAt: null })
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(all[0]!.title)
    await work(15)
  }
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('All done.')
  const done = await steps(id)
  expect(done.every((s) => s.doneAt !== null)).toBe(true)
  done.forEach((s, i) => expect(Math.abs(s.took! / 60 - (i === 0 ? 15 : 20))).toBeLessThan(1))
  // Each on its own day, in order.
  done.forEach((s, i) => expect(Math.floor((new Date(s.doneAt!).getTime() - first) / DAY)).toBe(i))
  const { timers } = await call<{ timers: { id: string; until: string }[] }>('GET', '/timers')
  for (const t of timers) {
    expect(new Date(t.until).getTime()).toBeLessThan(Date.now())
    await call('PUT', `/timers/${t.id}/heard`)
  }
})

test('bench mode without the net: ticks, notes and photos are kept, and arrive once, in order', async ({
  page,
  context,
}) => {
  const id = await piece(page, 'Without the net', 'block.stl', writeStl(boxBody(20, 20, 20)))
  await planned(id)
  const [one, two] = (await steps(id)) as [Step, Step]
  await page.goto(`/pieces/${id}/bench`)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(one.title)
  await context.setOffline(true)
  await big(page, 'Start').click()
  await expect(page.getByText('1 kept on this device')).toBeVisible()
  await page.waitForTimeout(800)
  await big(page, 'Mark as done').click()
  // The next step stands there, though nobody was told.
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(two.title)
  await big(page, 'Note').click()
  await page.getByRole('textbox', { name: 'Note' }).fill('The bath smells.')
  await page.getByRole('button', { name: 'Save' }).click()
  await page.getByLabel('Photo', { exact: true }).setInputFiles({
    name: 'bath.png',
    mimeType: 'image/png',
    buffer: plainPng(40, 30),
  })
  await expect(page.getByText('4 kept on this device')).toBeVisible()
  expect((await steps(id))[0]!.doneAt).toBeNull()
  // The page is closed and opened again meanwhile: what is kept is kept.
  await context.setOffline(false)
  await page.reload()
  await expect.poll(async () => (await log(id)).length, { timeout: 30_000 }).toBe(2)
  await expect(page.getByText('kept here')).toHaveCount(0)
  const [first] = await steps(id)
  expect(first!.doneAt).not.toBeNull()
  expect(first!.took).toBeLessThan(60)
  const [photo, note] = (await log(id)) as [Entry, Entry]
  expect(note).toMatchObject({ text: 'The bath smells.', stepKey: two.key })
  expect(photo.photo).not.toBeNull()
  await page.waitForTimeout(5000)
  expect(await log(id)).toHaveLength(2)

  await test.step('a problem is written down in two presses, and the step stays open', async () => {
    await big(page, 'Problem').click()
    await accessible(page)
    await page.getByRole('button', { name: 'Does not fit' }).click()
    await expect(page.getByText('The step stays open')).toBeVisible()
    expect((await log(id))[0]!.text).toBe('Problem: Does not fit')
    expect((await steps(id)).find((s) => s.key === two.key)!.doneAt).toBeNull()
  })
  await test.step('a photo of eighty megapixels is made smaller; what is no picture is refused in words', async () => {
    const input = page.getByLabel('Photo', { exact: true })
    await input.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') })
    await expect(page.getByRole('alert')).toContainText('notes.png is no picture that can be shown')
    expect(await log(id)).toHaveLength(3)
    await input.setInputFiles({ name: 'whole bench.png', mimeType: 'image/png', buffer: plainPng(10_240, 7824, 1) })
    await expect.poll(async () => (await log(id)).length, { timeout: 180_000 }).toBe(4)
    const { photo: hash } = (await log(id))[0]!
    const bytes = new Uint8Array(await (await fetch(`${server()}/api/blobs/${hash}`)).arrayBuffer())
    expect(pictureHead(bytes)).toEqual({ type: 'jpeg', width: 3000, height: 2292 })
  })
})

test('calendar: pieces side by side, a step pulled to another day, done in one go, and what fits in half an hour', async ({
  page,
}) => {
  // What other tests left lies aside.
  for (const p of await call<{ id: string; version: number }[]>('GET', '/pieces'))
    await call('PATCH', `/pieces/${p.id}`, { version: p.version, resting: true })
  // Bench hours from tomorrow on: within them what comes first would begin now, and now goes on.
  const shop = await call<{ version: number }>('GET', '/workshop')
  const tomorrow = new Date().getDay() + 1
  await call('PUT', '/workshop', {
    ...shop,
    benchHours: [0, 1, 2, 3, 4, 5].map((k) => ({ weekday: (tomorrow + k) % 7, from: 9 * 60, to: 17 * 60 })),
  })
  const ids = [
    await piece(page, 'Early', 'one.stl', writeStl(boxBody(20, 20, 20))),
    await piece(page, 'Late', 'two.stl', writeStl(boxBody(30, 20, 20))),
  ]
  for (const id of ids) await planned(id)
  await page.goto('/calendar')
  const days = page.getByRole('list', { name: 'Days' })
  const block = (name: RegExp): ReturnType<Page['getByRole']> => days.getByRole('button', { name }).first()
  const working = { has: page.getByRole('button', { name: 'Put on hold' }) }
  const letters = page.getByRole('list', { name: 'Pieces' }).getByRole('listitem').filter(working)
  await expect(letters).toHaveCount(2)
  const [a, b] = await letters.locator('.letter').allTextContents()
  await expect(block(new RegExp(`^${a}: Wash`))).toBeVisible()
  await expect(page.locator('[data-finding^="late"]')).toHaveCount(0)
  await accessible(page)

  await test.step('pulled a day on, put back; then kept', async () => {
    const wash = async (): Promise<Step> => (await steps(ids[0]!)).find((s) => s.key === 'wash')!
    const was = (await wash()).start!
    const pull = async (): Promise<void> => {
      const from = (await block(new RegExp(`^${a}: Wash`)).boundingBox())!
      const rows = days.getByRole('listitem').filter({ has: page.locator('.strip') })
      const to = (await rows.nth(4).locator('.strip').boundingBox())!
      await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
      await page.mouse.down()
      await page.mouse.move(to.x + 30, to.y + 10, { steps: 6 })
      await page.mouse.up()
    }
    await pull()
    const trial = page.getByRole('status', { name: 'What moves' })
    await expect(trial).toContainText('Early is done')
    await trial.getByRole('button', { name: 'Cancel' }).click()
    await expect(trial).toHaveCount(0)
    expect((await wash()).start).toBe(was)
    await pull()
    await trial.getByRole('button', { name: 'Keep' }).click()
    await expect(trial).toHaveCount(0)
    await expect.poll(async () => (await wash()).start! - was).toBeGreaterThan(2 * 86_400_000)
    await block(new RegExp(`^${a}: Wash`)).click()
    const panel = page.getByRole('region', { name: 'Step', exact: true })
    await expect(panel.getByLabel('Start at')).not.toHaveValue('')
    await panel.getByLabel('Work, minutes').fill('-5')
    await panel.getByLabel('Work, minutes').press('Enter')
    await expect(panel.getByText('Between 0 and 10000 min.')).toBeVisible()
    await panel.getByRole('button', { name: 'Follow the plan' }).click()
    await expect.poll(async () => (await wash()).start).toBe(was)
  })
  await test.step('in one go, and apart again', async () => {
    const together = page.getByRole('region', { name: 'Done together' })
    await together.getByText(/^Wash/).locator('..').getByRole('button', { name: 'Do together' }).click()
    await expect(block(new RegExp(`^${a}${b}: Wash`))).toBeVisible()
    await together.getByRole('button', { name: 'Do separately' }).click()
    await expect(block(new RegExp(`^${a}: Wash`))).toBeVisible()
  })
  await test.step('what fits, and a better schedule looked for', async () => {
    const spare = page.getByRole('region', { name: 'What fits now' })
    await type(spare.getByLabel('I have'), '30')
    await expect(spare.getByRole('listitem').first()).toContainText('Print on')
    await expect(spare.getByRole('link', { name: 'Open bench mode' }).first()).toHaveAttribute(
      'href',
      /bench\?step=print/,
    )
    await type(spare.getByLabel('I have'), '5')
    await expect(spare.getByText('Nothing that can start now')).toBeVisible()
    await page.getByRole('button', { name: 'Optimise schedule' }).click()
    await expect(page.getByRole('button', { name: 'Optimise schedule' })).toBeEnabled({ timeout: 20_000 })
    await letters.first().getByRole('button', { name: 'Put on hold' }).click()
    await expect(letters).toHaveCount(1)
  })
})

test('materials: taken in as a list, counted down by a step, bought when they run low', async ({ page }) => {
  const id = await piece(page, 'Primed', 'block.stl', writeStl(boxBody(20, 20, 20)))
  await planned(id)
  await page.goto('/stock/materials')
  const list = page.getByLabel('CSV list of materials')
  await list.setInputFiles({
    name: 'bad.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,unit,amount\nGrey,ml,much'),
  })
  await expect(page.getByRole('alert').filter({ hasText: 'Line 2: “much” is no amount' })).toBeVisible()
  const rows = 'name,serves as,unit,amount,reorder at\nShag grey,"primer, grey",ml,3 fl oz,88.5\nLoose,,g,1 lb,'
  await list.setInputFiles({ name: 'good.csv', mimeType: 'text/csv', buffer: Buffer.from(rows) })
  await expect(page.getByText('good.csv: 2 new, 0 changed.')).toBeVisible()
  const left = page.getByRole('row', { name: /Shag grey/ })
  await expect(left).toContainText('88.7 ml')
  await expect(page.getByRole('row', { name: /Loose/ })).toContainText('454 g')
  await accessible(page)
  await call('PUT', `/pieces/${id}/ticks`, { stepKey: 'prime-1', doneAt: new Date().toISOString() })
  await expect(left).toContainText('low')
  await expect(page.locator('[data-buy="primer:grey"]')).toContainText('low')
  await left.getByRole('button', { name: 'Open' }).click()
  const panel = page.getByRole('region', { name: 'Material' })
  await panel.getByLabel('Left of lot 1').fill('0.5 l')
  await panel.getByLabel('Left of lot 1').press('Enter')
  await expect(left).toContainText('500 ml')
  await panel.getByLabel('Left of lot 1').fill('2 ft')
  await panel.getByLabel('Left of lot 1').press('Enter')
  await expect(panel.getByRole('alert')).toContainText('counted in ml, and “2 ft” is not')
  await expect(page.locator('[data-buy="primer:grey"]')).toHaveCount(0)
  await panel.getByRole('button', { name: 'Delete material' }).click()
  await expect(page.getByRole('row', { name: /Shag grey/ })).toHaveCount(0)
})
