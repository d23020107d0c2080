import { expect, test } from './workshop'
import { writePly } from '../core/formats/ply'
import { writeStl } from '../core/formats/stl'
import { fitOf } from '../core/fit/gap'
import { measure } from '../core/mesh/measure'
import { scan } from '../core/scan/scanner'
import { acceptedAsSolid } from '../core/shape/solid'
import { sphereBody } from '../core/testBodies'
import { skittle } from './bodies'
import { accessible, file, idle, middleOf, pressUntil, stage, type } from './page'
import { detail, kinds, meshOf, piece, partMesh, settled } from './parts'
import { say } from '../core/words/say'

test('a base under it, cut in two with keys, moved about, taken back: the halves fit and the whole stands', async ({
  page,
}) => {
  const id = await piece(page, 'Skittle in parts', 'skittle.stl', writeStl(skittle()))
  await stage(page, 'Combine')
  await idle(page)
  await expect(page.getByText('tips over at')).toBeVisible()
  await accessible(page)

  await test.step('a base goes under what stands there', async () => {
    await page.getByText('Add a base').click()
    await page.getByRole('button', { name: 'Stepped plinth' }).click()
    await page.getByRole('button', { name: 'Add base' }).click()
    await expect.poll(async () => (await detail(id)).partList.length).toBe(2)
    await expect(page.getByRole('row', { name: /skittle – Stepped plinth/ })).toContainText('–')
  })
  await test.step('the skittle is cut and keyed; both halves are solids that fit by the clearance', async () => {
    await page.getByRole('button', { name: 'skittle', exact: true }).click()
    await stage(page, 'Scale')
    await idle(page)
    await page.getByText('Cut skittle in two').click()
    await expect(page.locator('.proposal').first()).toContainText('2 parts fit the printer')
    await page.getByRole('button', { name: 'level', exact: true }).click()
    await type(page.getByLabel('Position along the axis'), '40')
    await page.getByRole('button', { name: 'Cut', exact: true }).click()
    await expect.poll(async () => (await detail(id)).partList.length, { timeout: 360_000 }).toBe(3)
    await expect.poll(async () => kinds(id, 2), { timeout: 360_000 }).toBe('cut,fix')
    await idle(page)
    const { partList } = await settled(id)
    const [lower, upper] = await Promise.all([meshOf(partList[0]!.meshHash), meshOf(partList[2]!.meshHash)])
    for (const m of [lower, upper]) expect(await acceptedAsSolid(m)).toBe(true)
    expect(measure(lower).box.max[2]).toBeGreaterThan(measure(upper).box.min[2])
    const fit = await fitOf(lower, upper)
    if (!fit.ok) throw new Error(say(fit.problem.message))
    expect(fit.value.overlap).toBeLessThan(0.01)
    expect(fit.value.p95).toBeGreaterThan(0.05)
    expect(fit.value.p95).toBeLessThan(0.13)
  })
  await test.step('a cut that misses is answered in words and changes nothing', async () => {
    await type(page.getByLabel('Position along the axis'), '0')
    await page.getByRole('button', { name: 'Cut', exact: true }).click()
    await expect(page.getByRole('alert')).toContainText('does not pass through this part')
    await page.getByRole('button', { name: 'Close' }).click()
    expect((await detail(id)).partList).toHaveLength(3)
  })
  await test.step('moved by hand it overlaps, which is a finding; undo puts it back', async () => {
    await stage(page, 'Combine')
    await idle(page)
    await page.getByRole('button', { name: 'skittle', exact: true }).click()
    await idle(page)
    await type(page.getByLabel('Foot above the table'), '-1')
    await expect(page.locator('[data-finding^=overlap]').first()).toBeVisible({ timeout: 360_000 })
    const carry = page.getByRole('button', { name: 'Move by hand' })
    await carry.click()
    const { x, y } = await middleOf(page)
    await idle(page)
    const shift = async (): Promise<number> =>
      (await detail(id)).partList[0]!.steps.find((s) => s.op.kind === 'place')?.op.shift?.[0] ?? 0
    await expect(async () => {
      await page.mouse.move(x, y + 60)
      await page.mouse.down()
      await page.mouse.move(x + 90, y + 60, { steps: 6 })
      await page.mouse.up()
      await expect.poll(shift, { timeout: 5000 }).toBeGreaterThan(1)
    }).toPass({ timeout: 360_000 })
    await idle(page)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(shift).toBe(0)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(async () => kinds(id, 0)).toBe('cut,fix')
    await expect(page.locator('[data-finding^=overlap]')).toHaveCount(0, { timeout: 360_000 })
  })
})

test('bent at a joint that is pressed onto it: the skin stays whole and the balance follows', async ({ page }) => {
  const id = await piece(page, 'Skittle that bows', 'skittle.stl', writeStl(skittle()))
  await stage(page, 'Combine')
  const tips = page.locator('dt:has-text("tips over at") + dd')
  await expect(tips).toContainText('°', { timeout: 180_000 })
  const upright = parseFloat((await tips.innerText()).replace('−', '-'))
  await stage(page, 'Pose')
  await idle(page)
  await page.getByRole('button', { name: 'Chain of joints' }).click()
  const { x, y } = await middleOf(page)
  const joints = page.getByRole('button', { name: /^(root|joint \d)/ })
  for (const [i, dy] of [130, -40, -150].entries()) {
    await expect(async () => {
      await idle(page)
      if ((await joints.count()) === i) await page.mouse.click(x, y + dy)
      await expect(joints).toHaveCount(i + 1, { timeout: 8000 })
    }).toPass({ timeout: 360_000 })
  }
  await page.getByRole('button', { name: 'Done adding' }).click()
  await page.getByRole('button', { name: /^joint 1/ }).click()
  await accessible(page)
  await type(page.getByLabel('Forward').first(), '40')
  await page.getByRole('button', { name: 'Apply pose' }).click()
  await expect(page.getByText('faces turned over')).toBeVisible({ timeout: 360_000 })
  await expect(page.locator('dt:has-text("faces turned over") + dd').first()).toHaveText('0')
  await expect.poll(async () => kinds(id, 0)).toBe('pose')
  await idle(page)
  const { partList } = await settled(id)
  const mesh = await meshOf(partList[0]!.meshHash)
  expect(await acceptedAsSolid(mesh)).toBe(true)
  const before = measure(skittle())
  expect(Math.abs(measure(mesh).volume / before.volume - 1)).toBeLessThan(0.02)
  // Forward is toward the viewer: its head leans out over the front of its foot.
  expect(measure(mesh).centre[1]).toBeLessThan(before.centre[1] - 0.5)
  await stage(page, 'Combine')
  await expect
    .poll(async () => parseFloat((await tips.innerText()).replace('−', '-')), { timeout: 180_000 })
    .toBeLessThan(upright - 1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect
    .poll(async () => parseFloat((await tips.innerText()).replace('−', '-')), { timeout: 180_000 })
    .toBe(upright)
})

test('a scan becomes a closed surface of true size; a file that is none is answered in words', async ({ page }) => {
  const ball = sphereBody(25, 5)
  const { cloud, unitsPerMm } = scan(ball, {
    stations: [0, 72, 144, 216, 288].flatMap((azimuth) => [
      { azimuth, elevation: 20 },
      { azimuth, elevation: 65 },
    ]),
    across: 110,
    noise: 0.001,
    dropouts: 0.1,
    floor: true,
    seed: 11,
  })
  const id = await piece(page, 'Ball, scanned', 'ball.ply', writePly(cloud))
  await page.getByLabel('Sculpt files').setInputFiles([file('cut.ply', writePly(cloud).slice(0, 5000))])
  await expect(page.getByText('cut.ply: The PLY header announces')).toBeVisible()
  await page.getByRole('button', { name: 'Dismiss' }).click()
  await expect(page.locator('[data-finding=floor]')).toBeVisible()
  await page.getByRole('button', { name: 'Cut off the floor' }).click()
  await expect(page.locator('[data-finding=floor]')).toHaveCount(0, { timeout: 180_000 })
  await idle(page)
  await page.getByRole('button', { name: 'Make a surface' }).first().click()
  await expect(page.getByText('noise averaged out')).toBeVisible({ timeout: 360_000 })
  await idle(page)
  await accessible(page)

  await page.getByRole('button', { name: 'Choose two places' }).click()
  const { x, y } = await middleOf(page)
  await pressUntil(page, x, y - 30, () =>
    expect(page.getByText('Click the second place')).toBeVisible({ timeout: 5000 }),
  )
  await page.mouse.click(x, y + 60)
  const apart = page.locator('.figure-sm', { hasText: /\d/ })
  await expect(apart).toBeVisible()
  // The true distance of the two is what the page measured, by the units that only the scanner knew.
  await type(page.getByLabel('True distance'), String(Number(await apart.innerText()) / unitsPerMm))
  await page.getByRole('button', { name: 'Calibrate', exact: true }).click()
  await expect.poll(async () => kinds(id, 0)).toBe('trim,surface,calibrate')
  await idle(page)
  const mesh = await partMesh(id, 0)
  expect(await acceptedAsSolid(mesh)).toBe(true)
  const radius = (measure(mesh).size[0] + measure(mesh).size[1]) / 4
  expect(Math.abs(radius - 25)).toBeLessThan(1)
})
