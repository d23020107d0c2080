import { readFileSync } from 'node:fs'
import { expect, test, server } from './workshop'
import { unzipSync } from 'fflate'
import { readSculpt } from '../core/formats/readSculpt'
import { writeStl } from '../core/formats/stl'
import { bounds, keepFaces } from '../core/mesh/mesh'
import { shells } from '../core/mesh/topology'
import { acceptedAsSolid, sectionAreaOfSolid, unite } from '../core/shape/solid'
import { skittle, skittleSection } from './bodies'
import type { SupportReport } from '../core/print/support/support'
import { accessible, call, file, idle, middleOf, pressUntil, stage, type } from './page'
import { settled } from './parts'
import { say } from '../core/words/say'

const post = (path: string, body: object): Promise<{ id: string }> => call('POST', path, body)

test.beforeAll(async () => {
  // The first thing that is looked at is a workshop without a piece.
  for (const p of await call<{ id: string }[]>('GET', '/pieces')) await call('DELETE', `/pieces/${p.id}`)
})

test('a dropped sculpt goes all the way to layers, a plan and a painted preview', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Open a sculpt' })).toBeVisible()
  await accessible(page)
  await page.getByLabel('Name of a new piece').fill('Skittle')
  await page.getByRole('button', { name: 'New piece' }).click()

  await test.step('intake: bad files get a sentence each, the good one goes on', async () => {
    await page
      .getByLabel('Sculpt files')
      .setInputFiles([
        file('skittle.stl', writeStl(skittle())),
        file('cut.stl', writeStl(skittle()).slice(0, 500)),
        file('letter.stl', 'Dear museum'),
      ])
    await expect(page.getByText('cut.stl: The STL header announces')).toBeVisible()
    await expect(page.getByText('letter.stl: The file is text')).toBeVisible()
    await expect(page.getByText('No problems found')).toBeVisible()
    await expect(page.getByText('30.0 × 30.0 × 60.0 mm')).toBeVisible()
    const dismiss = page.getByRole('button', { name: 'Dismiss' })
    for (let left = await dismiss.count(); left > 0; left--) {
      await dismiss.first().click()
      await expect(dismiss).toHaveCount(left - 1)
    }
    await accessible(page)
  })
  await test.step('size: typed arithmetic, undo and redo', async () => {
    await stage(page, 'Scale')
    await type(page.getByLabel('Height', { exact: true }), '180/2')
    await page.getByRole('button', { name: 'Scale', exact: true }).click()
    await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('90 mm tall')
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('unchanged')
    await page.getByRole('button', { name: 'Redo' }).click()
    await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('90 mm tall')
  })
  await test.step('core: a wall, a shut cavity is a finding, two holes solve it', async () => {
    await stage(page, 'Hollow')
    // What solid, hollow and cast full would mean stands there before anything is chosen.
    const choices = page.getByRole('region', { name: 'Solid, hollow or cast full' })
    await expect(choices.getByRole('row', { name: /^resin/ })).toBeVisible({ timeout: 720_000 })
    const resin = (await choices.getByRole('row', { name: /^resin/ }).innerText()).match(/[\d.]+(?= ml)/g)!.map(Number)
    expect(resin[0]).toBeGreaterThan(resin[1]!)
    expect(resin[1]).toBe(resin[2])
    await type(page.getByLabel('Wall', { exact: true }), '2')
    await page.getByText('Cavity: empty').click()
    await type(page.getByLabel('Voxel', { exact: true }), '0.6')
    await page.getByRole('button', { name: 'Hollow', exact: true }).click()
    await expect(page.locator('[data-finding=cavity-holes]')).toContainText('2 more are needed')
    const wall = Number(/([\d.]+) mm/.exec(await page.getByText('Wall thickness, measured').innerText())![1])
    expect(wall).toBeGreaterThan(1.9)
    await page.getByRole('button', { name: 'Propose holes' }).click()
    await expect(page.getByRole('button', { name: 'Drill 2' })).toBeEnabled()
    await page.getByRole('button', { name: 'Place drain hole' }).click()
    await idle(page)
    const { x, y } = await middleOf(page)
    await pressUntil(page, x, y - 40, () =>
      expect(page.getByRole('button', { name: 'Remove hole 3' })).toBeVisible({ timeout: 10_000 }),
    )
    // Felt at once: what is behind it, and how far it is to an edge.
    await expect(page.getByText(/% hidden, wall [\d.]+ mm, [\d.]+ mm from an edge/)).toBeVisible()
    await expect(page.getByRole('button', { name: 'Drill 3' })).toBeEnabled()
    await page.getByRole('button', { name: 'Remove hole 3' }).click()
    await page.getByRole('button', { name: 'Done placing' }).click()
    await page.getByRole('button', { name: 'Drill 2' }).click()
    await expect(page.getByText('No problems found')).toBeVisible()
  })
  await test.step('orient: best orientation, supports, one set by hand', async () => {
    await stage(page, 'Orient and support')
    await page.getByRole('button', { name: 'Find the best' }).click()
    await expect(page.getByText(/orientations, none of them worse/)).toBeVisible({ timeout: 360_000 })
    await expect(page.getByText(/Compared with (standing upright|the next best)/)).toBeVisible()
    await page.getByRole('button', { name: 'back 5°' }).click()
    await page.getByRole('button', { name: 'Apply orientation' }).click()
    // The sheet closes when the orientation is stored, and what is below it moves up.
    await expect(page.getByRole('button', { name: 'Apply orientation' })).toHaveCount(0)
    await idle(page)
    await page.getByRole('button', { name: 'Generate supports' }).click()
    await expect(page.getByText(/tips, .* ml of support/)).toBeVisible({ timeout: 720_000 })
    await idle(page)
    await expect(page.locator('[data-finding=islands]')).toHaveCount(0)
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await idle(page)
    const { x, y } = await middleOf(page)
    await page.mouse.click(x, y)
    await expect(page.locator('dt:has-text("by hand") + dd')).toHaveText('1 edits')
    await idle(page)
    await page.getByRole('button', { name: 'Done adding' }).click()
    const id = /pieces\/([^/]+)/.exec(page.url())![1]!
    const byHand = async (): Promise<{ x: number; y: number; z: number }[]> => {
      const { steps } = (await settled(id)).partList[0]!
      const { support } = steps.at(-1)!.derivation!.report as { support: SupportReport }
      return support.tips
        .filter((t) => t.byHand)
        .map(({ point: [px, py, pz] }) => ({
          x: px - support.shift[0],
          y: py - support.shift[1],
          z: pz - support.shift[2],
        }))
    }
    const before = await byHand()
    expect(before).toHaveLength(1)
    // Closer tips everywhere, painted out in one place: what was set by hand stands where it stood.
    await page.getByRole('button', { name: 'No supports here' }).click()
    await idle(page)
    await page.mouse.click(x, y + 60)
    await page.getByRole('button', { name: /Generate again around \d+ places/ }).click()
    await idle(page)
    await type(page.getByLabel('Between tips'), '3')
    await page.getByRole('button', { name: 'Generate supports again', exact: true }).click()
    await idle(page)
    await expect(page.locator('dt:has-text("by hand") + dd')).toHaveText('1 edits')
    const after = await byHand()
    expect(after).toHaveLength(1)
    for (const k of ['x', 'y', 'z'] as const) expect(after[0]![k]).toBeCloseTo(before[0]![k], 3)
    await page.getByText('Peel force over the layers').click()
    await accessible(page)
  })
  await test.step('plates: layers, scrubbing, zip and bodies that hold what they say', async () => {
    await stage(page, 'Plates')
    await expect(page.getByRole('link', { name: 'Download layers' })).toBeVisible({ timeout: 720_000 })
    const slider = page.getByRole('slider', { name: 'Layer' })
    await slider.focus()
    await slider.press('ArrowRight')
    await expect.poll(() => page.locator('.layer img').evaluate((i: HTMLImageElement) => i.naturalWidth)).toBe(1600)
    const [layers] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Download layers' }).click(),
    ])
    const [body] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'STL', exact: true }).click(),
    ])
    const files = unzipSync(new Uint8Array(readFileSync(await layers.path())))
    const stl = readSculpt('body.stl', new Uint8Array(readFileSync(await body.path())))
    if (!stl.ok) throw new Error(say(stl.problem.message))
    const mesh = stl.value[0]!.mesh,
      top = bounds(mesh).max[2]
    const manifest = JSON.parse(new TextDecoder().decode(files['manifest.json'])) as {
      layers: number
      files: { area: number }[]
    }
    expect(Object.keys(files).filter((n) => n.endsWith('.png'))).toHaveLength(Math.ceil(top / 0.1 - 1e-6))
    expect(manifest.layers).toBe(Math.ceil(top / 0.1 - 1e-6))
    // The body and its supports are separate shells that overlap: their union, by the boolean library, is the truth.
    const { shellOf, count } = shells(mesh)
    const parts = Array.from({ length: count }, (_, s) =>
      keepFaces(
        mesh,
        Uint8Array.from(shellOf, (x) => (x === s ? 1 : 0)),
      ),
    )
    for (const p of parts) expect(await acceptedAsSolid(p)).toBe(true)
    const whole = await unite(parts)
    if (!whole.ok) throw new Error(say(whole.problem.message))
    const middle = Math.floor(manifest.layers / 2)
    const truth = await sectionAreaOfSolid(whole.value, (middle + 0.5) * 0.1)
    expect(Math.abs(manifest.files[middle]!.area / truth - 1)).toBeLessThan(0.01)
  })
  await test.step('scheme: coats over regions, coats to hide, a mix for a colour, the sculpt takes colour', async () => {
    await stage(page, 'Paint scheme')
    await page.getByRole('button', { name: '+ base' }).click()
    await page.getByRole('combobox', { name: 'Paint' }).selectOption({ label: 'Red' })
    await expect(page.getByText(/cover what is below|needed to cover/)).toBeVisible()
    await page.getByRole('button', { name: '+ wash' }).click()
    await page.getByRole('combobox', { name: 'Paint' }).nth(1).selectOption({ label: 'Dark wash' })
    await idle(page)
    const hue = async (): Promise<number> =>
      page.evaluate(() => {
        const c = document.querySelector('canvas')!,
          t = document.createElement('canvas')
        t.width = t.height = 9
        const g = t.getContext('2d')!
        g.drawImage(c, c.width / 2 - 4, c.height / 2 - 4, 9, 9, 0, 0, 9, 9)
        const p = g.getImageData(4, 4, 1, 1).data
        return p[0]! - p[2]!
      })
    await expect.poll(hue, { timeout: 180_000 }).toBeGreaterThan(60)
    await page.getByRole('button', { name: 'Add region' }).click()
    await page.getByRole('button', { name: '+ base' }).click()
    await page.getByRole('combobox', { name: 'Paint' }).selectOption({ label: 'Blue' })
    await page.getByRole('button', { name: 'Brush', exact: true }).click()
    const { x, y } = await middleOf(page)
    await page.mouse.move(x - 14, y)
    await page.mouse.down()
    await page.mouse.move(x + 14, y, { steps: 6 })
    await page.mouse.up()
    await expect.poll(hue, { timeout: 180_000 }).toBeLessThan(30)
    await page.getByRole('button', { name: 'Done brushing' }).click()
    await page.getByLabel('Target colour').evaluate((e: HTMLInputElement) => {
      e.value = '#00e0ff'
      e.dispatchEvent(new Event('change'))
    })
    await expect(page.getByText('cannot be mixed from the stock')).toBeVisible()
    await page.getByRole('button', { name: 'Use' }).first().click()
    await expect(page.getByText(/saving/)).toHaveCount(0)
    await page.reload()
    await expect(page.getByRole('button', { name: 'Region 2' })).toBeVisible()
  })
  await test.step('plan: steps with cautions, ticks, timers and a log entry with its photo', async () => {
    await stage(page, 'Plan')
    await expect(page.getByText('Wash in two baths and flush every cavity').first()).toBeVisible()
    await expect(page.getByText(/Nitrile gloves/)).toBeVisible()
    await page.getByLabel('Log entry').fill('Flushed twice, ran clear.')
    await page.getByLabel('Photo').setInputFiles({
      name: 'bath.png',
      mimeType: 'image/png',
      buffer: Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
        'base64',
      ),
    })
    await page.getByRole('button', { name: 'Add entry' }).click()
    await expect(page.getByText('Flushed twice, ran clear.')).toBeVisible()
    await expect(page.getByRole('img', { name: 'Photo of the step' })).toBeVisible()
    await page.getByRole('checkbox', { name: /Wash in two baths/ }).check()
    await expect(page.locator('.wait.running').first()).toHaveText(/\d+:\d\d/)
    await accessible(page)
    await page.getByRole('link', { name: 'Bench mode' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Remove the supports')
    await page.getByRole('button', { name: 'Start', exact: true }).click()
    // At once again, the same button would be a slip.
    await expect(page.getByRole('button', { name: 'Mark as done', exact: true })).toBeVisible()
    await page.waitForTimeout(800)
    await page.getByRole('button', { name: 'Mark as done', exact: true }).click()
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Cure')
  })
  expect(skittleSection(4)).toBeGreaterThan(skittleSection(46))
})

test('two tabs, an unknown piece, and the rest of the workshop', async ({ page }) => {
  const { id } = await post('/pieces', { name: 'Shared' })
  await page.goto(`/pieces/${id}/brief`)
  await page.getByLabel('For whom').fill('Museum')
  await page.getByLabel('For whom').press('Tab')
  await expect
    .poll(async () => ((await (await fetch(`${server()}/api/pieces/${id}`)).json()) as { client: string }).client)
    .toBe('Museum')
  await accessible(page)
  await page.goto('/pieces/00000000-0000-4000-8000-000000000000/import')
  await expect(page.getByText('does not exist any more')).toBeVisible()
  await page.goto('/stock')
  await expect(page.getByText('Test printer').first()).toBeVisible()
  await accessible(page)
  await page.goto('/workshop')
  await page.getByLabel('Temperature', { exact: true }).fill('8')
  await page.getByLabel('Temperature', { exact: true }).press('Enter')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Saved.')).toBeVisible()
  await accessible(page)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible()
})
