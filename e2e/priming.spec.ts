import { expect, test } from './workshop'
import { writeStl } from '../core/formats/stl'
import { boxBody, sphereBody } from '../core/testBodies'
import { identity3 } from '../core/math/vectors'
import { transformed } from '../core/mesh/transform'
import { accessible, call, file, idle, middleOf, pressUntil, stage, type } from './page'
import { detail, piece, settled } from './parts'

interface Loop {
  closed: boolean
  passes: { pass: number; found: number; endedAt: string | null }[]
  flaws: { kind: string; size: number; state: string; point: number[]; photo: string | null; note: string }[]
}
const plan = (id: string): Promise<{ steps: { key: string; title: string }[]; pairs: unknown[] }> =>
  call('GET', `/pieces/${id}/plan`)
const PHOTO = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)

test('flaws: marked where they are, mended, looked for again, until a third pass finds nothing', async ({ page }) => {
  const id = await piece(page, 'Under primer', 'ball.stl', writeStl(sphereBody(20, 4)))
  const look = (): Promise<Loop> => call('GET', `/pieces/${id}/inspection`)
  const passes = page.locator('[data-passes]')
  await stage(page, 'Fit and prime')
  await expect(page.getByRole('button', { name: 'Start pass 1' })).toBeEnabled()
  await idle(page)
  const middle = await middleOf(page)
  const flaws = page.locator('[data-flaw]')
  /** Presses once: every press that is taken is a mark. */
  const mark = async (word: string, dx: number, dy: number): Promise<void> => {
    const before = await flaws.count()
    await page.getByRole('button', { name: word, exact: true }).click()
    await pressUntil(page, middle.x + dx, middle.y + dy, async () => {
      await expect(flaws).toHaveCount(before + 1, { timeout: 180_000 })
    })
    await page.getByRole('button', { name: word, exact: true }).click()
  }

  await test.step('the first pass: two flaws, one with its photo, both mended', async () => {
    await page.getByRole('button', { name: 'Start pass 1' }).click()
    await mark('pit', 0, 0)
    await mark('dust', 30, -20)
    await expect(page.getByText('2 found, 2 open')).toBeVisible()
    await accessible(page)
    const [pit, dust] = (await look()).flaws
    // Marked on the skin: on a ball of 20 mm.
    for (const f of [pit!, dust!])
      expect(Math.abs(Math.hypot(f.point[0]!, f.point[1]!, f.point[2]!) - 20)).toBeLessThan(0.5)
    // The newest lies open: it is dust. The other is opened, measured and photographed.
    await page.locator('[data-flaw="pit"] button').first().click()
    const card = page.locator('[data-flaw="pit"]')
    await expect(card.getByText('Solvent putty')).toBeVisible()
    await type(card.getByLabel('Size'), '3')
    await expect(card.getByText('UV putty in layers of 2 mm')).toBeVisible()
    await card
      .getByLabel(/^Photo of flaw/)
      .setInputFiles({ name: 'words.txt', mimeType: 'text/plain', buffer: Buffer.from('no') })
    await expect(card.getByRole('alert')).toContainText('photos are PNG, JPEG or WebP')
    await card.getByLabel(/^Photo of flaw/).setInputFiles({ name: 'pit.png', mimeType: 'image/png', buffer: PHOTO })
    await expect(card.getByRole('img', { name: 'Photo of the flaw' })).toBeVisible()
    await card.getByRole('button', { name: 'Mark as repaired' }).click()
    await page.locator('[data-flaw="dust"] button').first().click()
    await page.locator('[data-flaw="dust"]').getByRole('button', { name: 'Mark as repaired' }).click()
    await expect(page.getByText('2 found, 0 open')).toBeVisible()
    await page.getByRole('button', { name: 'Finish this pass' }).click()
    await expect(passes.getByRole('heading')).toHaveText('After pass 1')
  })
  await test.step('the second: one that may stay, but not without a word', async () => {
    await page.getByRole('button', { name: 'Start pass 2' }).click()
    await mark('scratch', -30, 20)
    const card = page.locator('[data-flaw="scratch"]')
    await card.getByRole('button', { name: 'Accept' }).click()
    await expect(card.getByRole('alert')).toContainText('Write why it may stay')
    await card.getByLabel('Note').fill('Under the base, nobody sees it.')
    // The press that leaves the field keeps what was typed in it first.
    await card.getByRole('button', { name: 'Accept' }).click()
    await expect(page.locator('[data-flaw="scratch"][data-state="accepted"]')).toBeVisible()
    expect((await look()).flaws.at(-1)!.note).toContain('nobody')
    await page.getByRole('button', { name: 'Finish this pass' }).click()
  })
  await test.step('the third finds nothing, and the loop is closed', async () => {
    await page.getByRole('button', { name: 'Start pass 3' }).click()
    await page.getByRole('button', { name: 'No flaws found: finish' }).click()
    await expect(passes.getByRole('heading')).toHaveText('Inspected')
    await expect(page.getByText('Inspected in 3 passes; no flaw is open.')).toBeVisible()
    const { closed, passes: all, flaws: marked } = await look()
    expect(closed).toBe(true)
    expect(all.map((p) => p.found)).toEqual([2, 1, 0])
    expect(marked.map((f) => f.state)).toEqual(['mended', 'mended', 'accepted'])
    expect(marked[0]).toMatchObject({ kind: 'pit', size: 3 })
    // The plan has as many passes as it took.
    await stage(page, 'Plan')
    await expect(page.getByRole('button', { name: /Inspect under raking light/ })).toHaveCount(3)
  })
})

test('plan: made from how two blocks meet; another school is weighed, left, and taken', async ({ page }) => {
  const id = await piece(page, 'Two blocks', 'block.stl', writeStl(boxBody(20, 20, 20)))
  await page
    .getByLabel('Sculpt files')
    .setInputFiles([file('cap.stl', writeStl(transformed(boxBody(20, 20, 10), identity3, [0, 0, 20.25])))])
  await expect.poll(async () => (await detail(id)).partList.length).toBe(2)
  await stage(page, 'Plan')
  const step = (name: RegExp): ReturnType<typeof page.getByRole> => page.getByRole('button', { name })
  await expect(step(/Glue block to cap: cyanoacrylate, gel/)).toBeVisible()
  await expect(page.getByText('the plan follows')).toHaveCount(0)
  await step(/Dry fit the pair/).click()
  await expect(page.getByText(/block and cap: 0.25 mm per side/)).toBeVisible()
  const sheet = page.getByRole('region', { name: 'Dry-fit sheet' })
  await sheet.getByRole('button', { name: 'too tight' }).click()
  await type(sheet.getByLabel('Too tight by'), '0.3')
  await expect(sheet.getByText('Widen the socket by 0.15 mm per side')).toBeVisible()
  await sheet.getByRole('button', { name: 'fits' }).click()
  await expect(sheet.getByText('1 of 1 tested')).toBeVisible()
  await expect(sheet.getByText('Widen the socket')).toHaveCount(0)
  await page.getByRole('checkbox', { name: /Dry fit the pair/ }).check()
  await page.getByText('Methods for this piece').click()
  await page.getByLabel('Gluing').selectOption('subAssemblies')
  const difference = page.locator('[data-difference]')
  await expect(difference.getByText(/Removed: .*the seam of block and cap/)).toBeVisible()
  await expect(difference.getByText('1 step that is done stays done.')).toBeVisible()
  await accessible(page)
  await difference.getByRole('button', { name: 'Cancel' }).click()
  await expect(difference).toHaveCount(0)
  await expect(step(/the seam of block and cap/)).toHaveCount(1)
  await page.getByLabel('Gluing').selectOption('subAssemblies')
  await difference.getByRole('button', { name: 'Apply' }).click()
  await expect(step(/the seam of block and cap/)).toHaveCount(0)
  await expect(page.getByRole('checkbox', { name: /Dry fit the pair/ })).toBeChecked()
  await test.step('a material that is not used here: what comes instead, and what it costs', async () => {
    const before = (await plan(id)).steps.find((s) => s.key.startsWith('glue:'))!
    await page.getByRole('checkbox', { name: 'cyanoacrylate, gel', exact: true }).uncheck()
    await expect(difference.getByText(/Added: |more|less/).first()).toBeVisible()
    await difference.getByRole('button', { name: 'Apply' }).click()
    await expect
      .poll(async () => (await plan(id)).steps.find((s) => s.key === before.key)!.title)
      .not.toBe(before.title)
  })
  await test.step('every joint pinned: a guide for the drill, as a body over each of the two', async () => {
    await page.getByLabel('Joints').selectOption('pinAll')
    await difference.getByRole('button', { name: 'Apply' }).click()
    await expect(step(/Drill and pin a joint/)).toBeVisible()
    await step(/Dry fit the pair/).click()
    await sheet.getByRole('button', { name: 'Drilling guide, 1.1 mm' }).click()
    await expect.poll(async () => (await detail(id)).partList.length).toBe(4)
    const { partList } = await settled(id)
    for (const p of partList.filter((x) => x.name.startsWith('Drilling guide'))) {
      const report = p.steps.at(-1)!.derivation!.report as { kind: string; guide: { volume: number; led: number } }
      expect(report).toMatchObject({ kind: 'guide', guide: { led: 5.5 } })
      expect(report.guide.volume).toBeGreaterThan(1000)
    }
    // What only helps to make the piece is no part of the plan.
    expect((await plan(id)).pairs).toHaveLength(1)
  })
})
