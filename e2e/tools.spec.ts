import { readFileSync } from 'node:fs'
import { expect, server, test, type Page } from './workshop'
import { readSculpt } from '../core/formats/readSculpt'
import { writeStl } from '../core/formats/stl'
import { bounds, boxSize } from '../core/mesh/mesh'
import { measure } from '../core/mesh/measure'
import { boxBody } from '../core/testBodies'
import { acceptedAsSolid } from '../core/shape/solid'
import { call, idle, pressUntil } from './page'
import { say } from '../core/words/say'

interface Detail {
  partList: { id: string; version: number; steps: { op: { kind: string; quaternion?: number[] } }[] }[]
}
const NARROW = {
  name: 'Narrow printer',
  pixelsX: 1600,
  pixelsY: 900,
  pitchX: 0.05,
  pitchY: 0.05,
  height: 90,
  layerHeight: 0.1,
}
/** A piece with a plank in it, longer than the plate is deep. */
async function plank(name: string, printerId: string): Promise<string> {
  const { id } = await call<{ id: string }>('POST', '/pieces', { name, printerId })
  await call('POST', `/pieces/${id}/files?name=plank.stl`, writeStl(boxBody(20, 70, 12)))
  await expect.poll(async () => (await call<Detail>('GET', `/pieces/${id}`)).partList.length).toBe(1)
  return id
}
const turned = async (id: string): Promise<number[] | undefined> =>
  (await call<Detail>('GET', `/pieces/${id}`)).partList[0]!.steps.find((s) => s.op.kind === 'orient')?.op.quaternion

test('stood up by hand: face down, tipped by drag, a quarter turn where it only fits sideways', async ({ page }) => {
  const printer = await call<{ id: string }>('POST', '/stock/printer', NARROW)
  const id = await plank('Plank', printer.id)
  await page.goto(`/pieces/${id}/orient`)
  await expect(page.getByText('preparing the view')).toHaveCount(0)
  await idle(page)

  await page.getByRole('button', { name: 'Tilt by hand' }).click()
  const canvas = (await page.locator('canvas').boundingBox())!
  const x = canvas.x + canvas.width / 2,
    y = canvas.y + canvas.height / 2
  await expect(async () => {
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.move(x + 60, y + 40, { steps: 8 })
    await page.mouse.up()
    await expect(page.locator('.figure-sm', { hasText: '°' })).not.toHaveText('0°', { timeout: 2000 })
  }).toPass({ timeout: 360_000 })
  await page.getByRole('button', { name: 'Apply orientation' }).click()
  await expect.poll(async () => Math.hypot(...((await turned(id)) ?? [0]).slice(0, 2))).toBeGreaterThan(0.05)
  const tipped = await turned(id)

  await page.getByRole('button', { name: 'Put a face down' }).click()
  const stand = page.getByRole('button', { name: 'Apply orientation' })
  await pressUntil(page, x, y, () => expect(stand).toBeEnabled({ timeout: 2000 }))
  await stand.click()
  await expect.poll(async () => (await turned(id))?.join()).not.toBe(tipped!.join())

  // Flat on its largest face the plank is 70 mm deep: too deep for this plate, not too wide.
  const part = (await call<Detail>('GET', `/pieces/${id}`)).partList[0]!
  // The page has to know of it before it is asked for a turn: else that is a change of what somebody else has changed.
  const known = page.waitForResponse(
    async (r) =>
      r.url().endsWith(`/api/pieces/${id}`) &&
      ((await r.json()) as { partList: { version: number }[] }).partList[0]!.version > part.version,
  )
  await call('PUT', `/parts/${part.id}/operations`, {
    version: part.version,
    operations: [{ kind: 'orient', quaternion: [0, 0, 0, 1] }],
  })
  await known
  const finding = page.locator('[data-finding^=does-not-fit]')
  await expect(finding).toBeVisible()
  await finding.getByRole('button', { name: /[Qq]uarter turn|[Tt]urn it by 90/ }).click()
  await expect(finding).toHaveCount(0)
  const stood = await turned(id)
  expect(Math.abs(stood![2]!)).toBeCloseTo(Math.SQRT1_2, 3)
})

test('bodies come down in every format as the same solid', async ({ page }) => {
  const { id: printer } = await call<{ id: string }>('POST', '/stock/printer', NARROW)
  const id = await plank('Plank to export', printer)
  await page.goto(`/pieces/${id}/plates`)
  for (const format of ['STL', 'OBJ', 'PLY', '3MF', 'GLB']) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: format, exact: true }).click(),
    ])
    expect(download.suggestedFilename()).toBe(`plank-to-export.${format.toLowerCase()}`)
    const bytes = new Uint8Array(readFileSync(await download.path()))
    const back = readSculpt(download.suggestedFilename(), bytes)
    if (!back.ok) throw new Error(say(back.problem.message))
    const { mesh } = back.value[0]!
    expect(boxSize(bounds(mesh)).map((s) => Math.round(s * 1000) / 1000)).toEqual([20, 70, 12])
    expect(measure(mesh).volume).toBeCloseTo(20 * 70 * 12, 2)
    expect(await acceptedAsSolid(mesh)).toBe(true)
  }
  // As it lies it stands out of the plate; that is said, and nothing comes down.
  await page.getByRole('button', { name: 'Layers as SVG' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'out of Narrow printer: it is too deep' })).toBeVisible()
  // Turned, its layers come as outlines: every one, with the plank's rectangle in it.
  const part = (await call<Detail>('GET', `/pieces/${id}`)).partList[0]!
  await call('PUT', `/parts/${part.id}/operations`, {
    version: part.version,
    operations: [{ kind: 'orient', quaternion: [0, 0, Math.SQRT1_2, Math.SQRT1_2] }],
  })
  await expect(page.getByText('The part has no orientation yet')).toHaveCount(0)
  // It is on a plate: the page has the turned body, and not the one that stood out.
  await expect(page.getByRole('button', { name: 'Slice', exact: true })).toBeVisible({ timeout: 360_000 })
  await idle(page)
  const [outlines] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Layers as SVG' }).click(),
  ])
  expect(outlines.suggestedFilename()).toBe('plank-to-export-layers.svg')
  const svg = readFileSync(await outlines.path(), 'utf8')
  expect(svg.match(/<g id="layer-\d+"/g)).toHaveLength(120)
  expect(svg.match(/<path /g)).toHaveLength(120)
  const [stack] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Layers as 3MF' }).click(),
  ])
  const withSlices = readSculpt('stack.3mf', new Uint8Array(readFileSync(await stack.path())))
  expect(withSlices.ok && measure(withSlices.value[0]!.mesh).volume).toBeCloseTo(20 * 70 * 12, 2)
})

test('two tabs: the slower one is shown the newer version, and a change appears in the other by itself', async ({
  page,
  context,
}) => {
  const { id: printer } = (await call<{ id: string; kind: string }[]>('GET', '/stock')).find(
    (s) => s.kind === 'printer',
  )!
  const id = await plank('Plank of two', printer)
  const other = await context.newPage()
  await page.goto(`/pieces/${id}/scale`)
  await other.goto(`/pieces/${id}/scale`)
  const height = (p: Page): ReturnType<Page['getByLabel']> => p.getByLabel('Height', { exact: true })
  await height(page).fill('24')
  await height(page).press('Enter')
  await page.getByRole('button', { name: 'Scale', exact: true }).click()
  await expect(other.getByRole('navigation', { name: 'Stages' })).toContainText('24 mm tall')

  // A tab that the news does not reach, as after a broken connection.
  await other.close()
  const deaf = await context.newPage()
  await deaf.route('**/api/events', (r) => r.abort())
  await deaf.goto(`/pieces/${id}/scale`)
  await expect(deaf.getByRole('navigation', { name: 'Stages' })).toContainText('24 mm tall')
  await expect(height(deaf)).toHaveValue(/24/)
  await height(page).fill('36')
  await height(page).press('Enter')
  await page.getByRole('button', { name: 'Scale', exact: true }).click()
  await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('36 mm tall')
  await height(deaf).fill('48')
  await height(deaf).press('Enter')
  await deaf.getByRole('button', { name: 'Scale', exact: true }).click()
  await expect(deaf.getByRole('alert').filter({ hasText: 'newer version is shown now' })).toBeVisible()
  await expect(deaf.getByRole('navigation', { name: 'Stages' })).toContainText('36 mm tall')
})

test('the page comes compressed where that is taken, and as it is where not', async () => {
  const html = await (await fetch(server())).text()
  const [script] = /\/assets\/index-[^"]+\.js/.exec(html)!
  const sent = async (encoding: string): Promise<{ as: string | null; text: string }> => {
    const reply = await fetch(`${server()}${script}`, { headers: { 'accept-encoding': encoding } })
    return { as: reply.headers.get('content-encoding'), text: await reply.text() }
  }
  const [small, plain] = [await sent('br'), await sent('identity')]
  expect([small.as, plain.as]).toEqual(['br', null])
  expect(small.text).toBe(plain.text)
})
