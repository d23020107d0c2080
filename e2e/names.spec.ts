import { expect, test } from './workshop'
import { call } from './page'

const HEBREW = 'לוטרה על הסלע 🦦 (2)'
const MARKUP = '<img src=x onerror="document.title=1"> & “quotes” {n} %s'

test('names and notes in any script, with emoji, markup, from right to left, and too long', async ({ page }) => {
  await page.goto('/pieces')
  const name = page.getByLabel('Name of a new piece')
  await test.step('too long, or none, is said beside the field and nothing is lost', async () => {
    await page.getByRole('button', { name: 'New piece' }).click()
    await expect(page.getByText('Give the piece a name.')).toBeVisible()
    const long = 'Drache 龍 '.repeat(30)
    await name.fill(long)
    await page.getByRole('button', { name: 'New piece' }).click()
    await expect(page.getByText(`At most 120 characters; there are ${[...long.trim()].length}.`)).toBeVisible()
    await expect(name).toHaveValue(long)
    await expect(name).toHaveAttribute('aria-invalid', 'true')
    expect(await call<unknown[]>('GET', '/pieces?limit=200')).not.toContainEqual(
      expect.objectContaining({ name: expect.stringContaining('Drache') }),
    )
  })
  for (const given of [HEBREW, MARKUP, '👩‍🎨'.repeat(24)])
    await test.step(`${given.slice(0, 12)} is shown as it was typed`, async () => {
      await page.goto('/pieces')
      await name.fill(given)
      await page.getByRole('button', { name: 'New piece' }).click()
      await expect(page).toHaveURL(/\/import$/)
      await page.goto('/pieces')
      await expect(page.getByRole('link', { name: given, exact: true })).toBeVisible()
      expect(await page.title()).not.toBe('1')
    })
  await test.step('a name that runs the other way begins on the right', async () => {
    await name.fill(HEBREW)
    expect(await name.evaluate((e) => getComputedStyle(e).direction)).toBe('rtl')
    await name.fill('Otter')
    expect(await name.evaluate((e) => getComputedStyle(e).direction)).toBe('ltr')
  })
  await test.step('a note keeps its lines and its letters', async () => {
    await page.getByRole('link', { name: HEBREW, exact: true }).first().click()
    const id = /pieces\/([^/]+)/.exec(page.url())![1]!
    await page.goto(`/pieces/${id}/plan`)
    const note = `${HEBREW}\n${MARKUP}\nثلاث طبقات`
    await page.getByLabel('Log entry').fill(note)
    await page.getByRole('button', { name: 'Add entry' }).click()
    await expect(page.getByText('ثلاث طبقات')).toBeVisible()
    expect(await call<{ text: string }[]>('GET', `/pieces/${id}/log`)).toMatchObject([{ text: note }])
  })
})
