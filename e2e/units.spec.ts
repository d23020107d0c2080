import { boxBody } from '../core/testBodies'
import { writeStl } from '../core/formats/stl'
import { accessible, call, stage, type } from './page'
import { detail, kinds, piece, settled } from './parts'
import { expect, test } from './workshop'

const deadlineOf = async (id: string): Promise<string | null> =>
  (await call<{ deadline: string | null }>('GET', `/pieces/${id}`)).deadline

test('inches, days and hours of another region, typed and shown, in whatever unit', async ({ page }) => {
  await page.goto('/workshop')
  await page.getByLabel('Lengths').selectOption('in')
  await page.getByLabel('Numbers and dates as in').selectOption('US')
  await expect(
    page.getByText(/It writes 1,234\.5 and Nov|It writes 1,234\.5 and [A-Z][a-z]{2} \d+, \d{4}/),
  ).toBeVisible()
  const id = await piece(page, 'Two inches', 'block.stl', writeStl(boxBody(25.4, 25.4, 50.8)))

  await test.step('a day in the order of the region; what is none is said below it and not sent', async () => {
    await stage(page, 'Brief')
    const deadline = page.getByLabel('Deadline', { exact: true })
    await type(deadline, '24/12/2026')
    await expect(page.getByText('“24/12/2026” is no date. Write it as 11/30/2026.')).toBeVisible()
    await expect(deadline).toHaveValue('24/12/2026')
    await accessible(page)
    expect(await deadlineOf(id)).toBeNull()
    await type(deadline, 'Dec 24, 2026')
    await expect(deadline).toHaveValue('12/24/2026')
    await expect.poll(() => deadlineOf(id)).toBe('2026-12-24')
  })
  await test.step('a day from the calendar, whose weeks begin on Sunday here, by the keyboard alone', async () => {
    await page.getByRole('button', { name: 'Open the calendar: Deadline' }).focus()
    await page.keyboard.press('Enter')
    await expect(page.getByText('December 2026', { exact: true })).toBeVisible()
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Enter')
    await expect.poll(() => deadlineOf(id)).toBe('2026-12-25')
  })
  await test.step('a height in inches, and one typed in millimetres', async () => {
    await stage(page, 'Scale')
    const height = page.getByLabel('Height', { exact: true })
    await expect(height).toHaveValue(/^2(\.0+)?$/)
    await type(height, '4')
    await page.getByRole('button', { name: 'Scale', exact: true }).click()
    await settled(id)
    expect(await kinds(id, 0)).toContain('scale')
    const scaled = (await detail(id)).partList[0]!.steps[0]!.op as unknown as { factor: number }
    // The file has 50.8 mm in single precision.
    expect(scaled.factor).toBeCloseTo(2, 6)
    await type(height, '127 mm')
    await expect(height).toHaveValue(/^5(\.0+)?$/)
    await accessible(page)
  })
})
