import { expect, test, server } from './workshop'
import { writeStl } from '../core/formats/stl'
import { concatenate } from '../core/mesh/mesh'
import { measure } from '../core/mesh/measure'
import { identity3 } from '../core/math/vectors'
import { transformed } from '../core/mesh/transform'
import { boxBody, sphereBody } from '../core/testBodies'
import { accessible, call, file, idle, stage, type } from './page'
import { detail, meshOf, piece, settled } from './parts'

/** A post, and beside it a ball that begins in mid air: the island that somebody forgot. */
const forgotten = concatenate([boxBody(8, 8, 14), transformed(sphereBody(3, 3), identity3, [14, 4, 9])])
const PRINTER = { name: 'Tiny', pixelsX: 700, pixelsY: 500, pitchX: 0.08, pitchY: 0.08, height: 60, layerHeight: 0.1 }
interface Run {
  reprintOf: string | null
  plates: {
    archive: string
    state: string
    outcomes: { result: string }[]
    weighed: number | null
    cleaned: Record<string, string>
  }[]
}

test('from plates to a print that fails, why, one change, clean up, and the reprint that succeeds', async ({
  page,
}) => {
  const { id: printerId } = await call<{ id: string }>('POST', '/stock/printer', PRINTER)
  const bottles = [
    { lot: 'T-1', ml: 50, opened: '2026-01-10' },
    { lot: 'T-2', ml: 500 },
  ]
  const { id: resinId } = await call<{ id: string }>('POST', '/stock/resin', { name: 'Tiny resin', bottles })
  const id = await piece(page, 'Forgotten island', 'forgotten.stl', writeStl(forgotten))
  const { version } = await call<{ version: number }>('GET', `/pieces/${id}`)
  await call('PATCH', `/pieces/${id}`, { version, printerId, resinId })
  const part = (await detail(id)).partList[0]! as unknown as { id: string; version: number }
  await call('PUT', `/parts/${part.id}/operations`, {
    version: part.version,
    operations: [
      { kind: 'orient', quaternion: [0, 0, 0, 1] },
      { kind: 'support', automatic: false, lift: 0 },
    ],
  })
  await settled(id)
  const runs = (): Promise<Run[]> => call('GET', `/pieces/${id}/runs`)

  await test.step('the plate is sliced, set up, sent to the machine and printed to its end', async () => {
    await page.reload()
    await stage(page, 'Print')
    await page.getByLabel(/^Lot of/).fill('T-1')
    await page.getByRole('button', { name: 'Slice and prepare' }).click({ timeout: 360_000 })
    // The forgotten island is marked on the profile before anything is sent.
    await expect(page.locator('svg.profile .island')).toHaveCount(1, { timeout: 360_000 })
    await accessible(page)
    await page.getByRole('button', { name: 'Send to Tiny and start' }).click()
    await expect(page.locator('[data-plate-word]')).toHaveText('result not entered', { timeout: 360_000 })
  })
  await test.step('it is looked over: what is missing is marked where it fell, blamed, weighed, and one change made', async () => {
    await page.getByRole('button', { name: 'Enter result' }).first().click()
    await page.getByRole('button', { name: 'Ask Tiny what is on the plate' }).click()
    await expect(page.locator('[data-mark="missing"]')).toHaveCount(1)
    await expect(page.getByRole('button', { name: 'failed', pressed: true })).toBeVisible()
    await page.locator('[data-mark="missing"] button').first().click()
    await expect(page.locator('[data-cause]').first()).toHaveAttribute('data-cause', 'island')
    await page.getByRole('button', { name: 'Change it' }).click()
    await expect(page.getByText('A medium support is added there')).toBeVisible()
    await page.getByRole('button', { name: 'Read Pan' }).click()
    await page.getByRole('button', { name: 'Save result' }).click()
    await expect(page.getByText('Saved. The print statistics include it.')).toBeVisible()
    await accessible(page)
    const [plate] = (await runs())[0]!.plates
    expect(plate!.outcomes).toMatchObject([{ result: 'failed' }])
    // The post alone, to the scale's noise.
    expect(Math.abs(plate!.weighed! - (8 * 8 * 14 * 1.12) / 1000)).toBeLessThan(0.06)
    const shelf = await call<{ id: string; data: { bottles: { ml: number }[] } }[]>('GET', '/stock')
    const left = shelf.find((s) => s.id === resinId)!.data.bottles.map((b) => b.ml)
    expect(left[0]).toBeLessThan(49)
    expect(left[1]).toBe(500)
  })
  await test.step('what broke off becomes a part of its own, cut on the sound side', async () => {
    await page.getByRole('button', { name: 'Print only this piece again' }).click()
    await expect(page.getByText('is now a part')).toBeVisible({ timeout: 360_000 })
    const [, lost] = (await settled(id)).partList
    const { volume } = measure(await meshOf(lost!.meshHash))
    // The ball alone, whole: the post beside it is left out, as nothing of it holds to the ball.
    expect(volume / measure(sphereBody(3, 3)).volume).toBeCloseTo(1, 1)
    await call('POST', `/pieces/${id}/arrange`, { remove: [lost!.id] })
  })
  await test.step('it is cleaned by the steps that it needs, the station at work, the bath a little fuller', async () => {
    await stage(page, 'Clean and cure')
    await page.getByLabel('Done: Let it drain over the vat').check()
    await page.getByRole('button', { name: /in Tub$/ }).click()
    await expect(page.getByText('Tub is finished.')).toBeVisible({ timeout: 180_000 })
    await page.getByLabel('Done: Wash in the first, dirty bath').check()
    await expect(page.locator('[data-bath="first"]')).toContainText('more prints like this')
    await accessible(page)
    const { baths } = await call<{ baths: { first: { resin: number } } }>('GET', '/workshop')
    expect(baths.first.resin).toBeGreaterThan(0)
  })
  await test.step('only what failed is printed again, and now it succeeds', async () => {
    await stage(page, 'Print')
    await page.getByRole('button', { name: 'See why' }).click()
    await page.getByRole('button', { name: 'Print the failed part again' }).click()
    await settled(id)
    await idle(page)
    await page.getByRole('button', { name: 'Plate is removed' }).click()
    await page.getByRole('button', { name: 'Slice and prepare' }).click({ timeout: 360_000 })
    await page.getByRole('button', { name: 'Send to Tiny and start' }).click({ timeout: 360_000 })
    await expect(page.locator('[data-plate-word]').first()).toHaveText('result not entered', { timeout: 360_000 })
    await page.getByRole('button', { name: 'Enter result' }).first().click()
    await page.getByRole('button', { name: 'Ask Tiny what is on the plate' }).click()
    await expect(page.getByRole('button', { name: 'good', pressed: true })).toBeVisible()
    await page.getByRole('button', { name: 'Save result' }).click()
    await expect(page.getByText('Saved. The print statistics include it.')).toBeVisible()
    const [second, first] = await runs()
    expect(second!.reprintOf).not.toBeNull()
    expect([second, first].map((r) => r!.plates[0]!.outcomes[0]!.result)).toEqual(['good', 'failed'])
  })
  await test.step('its layers are looked into as though they came from elsewhere, down to the pixel', async () => {
    const archive = (await runs())[1]!.plates[0]!.archive
    const zip = await (await fetch(`${server()}/api/blobs/${archive}`)).arrayBuffer()
    await page.getByRole('link', { name: 'Layers' }).click()
    await page.getByLabel('Layer archive').setInputFiles([file('elsewhere.zip', new Uint8Array(zip))])
    const picture = page.getByRole('img', { name: /^Layer \d+$/ })
    await expect.poll(() => picture.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(700)
    await expect(page.locator('.finding.problem')).toHaveCount(1)
    await page.getByRole('button', { name: 'Pixel by pixel' }).click()
    await expect(picture).toHaveCSS('width', '700px')
    await accessible(page)
    await page.getByLabel('Layer archive').setInputFiles([file('broken.zip', new Uint8Array(zip).slice(0, 900))])
    await expect(page.getByRole('alert')).toContainText(/damaged|no ZIP|not a ZIP|archive/i)
  })
  await test.step('the record counts both, and offers the motion that layers really took', async () => {
    await page.getByRole('link', { name: 'Stock' }).click()
    const row = page.getByRole('row', { name: /^Tiny resin 1 of 2/ })
    await expect(row).toBeVisible()
    await page.getByRole('button', { name: /Calculate with/ }).click()
    await expect(page.getByText('as calculated')).toBeVisible()
    await accessible(page)
  })
  await test.step('a printer and a resin of one’s own are added, and their figures set right', async () => {
    await page.getByRole('button', { name: 'Add a printer' }).click()
    await type(page.locator('[data-figures]').getByLabel(/^Name of/), 'Attic printer')
    await type(page.locator('[data-figures="Attic printer"]').getByLabel('Pixel width'), '34.4')
    await expect(page.getByRole('row', { name: /^Attic printer/ })).toContainText('34.4')
    await type(page.getByLabel('Print height, at most'), '-3')
    await expect(page.getByText('Between 2 and 2000 mm.')).toBeVisible()
    await page.getByRole('button', { name: 'Delete Attic printer' }).click()
    await expect(page.getByRole('row', { name: /^Attic printer/ })).toHaveCount(0)
    await page.getByRole('button', { name: 'Figures of Tiny resin' }).click()
    await type(page.getByLabel('Peel pressure on a usual film'), '14')
    await expect(page.getByRole('row', { name: /^Tiny resin/ }).last()).toContainText('14.0')
    await accessible(page)
  })
})
