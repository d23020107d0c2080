import { expect, test } from './workshop'
import { writeStl } from '../core/formats/stl'
import { measure } from '../core/mesh/measure'
import { transformed } from '../core/mesh/transform'
import { acceptedAsSolid } from '../core/shape/solid'
import { skittle } from './bodies'
import { plainPng } from './png'
import { accessible, call, file, idle, middleOf, pressUntil, stage, type } from './page'
import { detail, kinds, meshOf, piece, partMesh, settled } from './parts'

test('a sculpt in the library: found again, not for sale, a later edition under the same operations', async ({
  page,
}) => {
  await page.goto('/sculpts')
  const name = page.getByLabel('Sculpt files for the library')
  // Wider than the skittle of the other tests: the library keeps each body once, under the name it first came by.
  const ninepin = transformed(skittle(), [1.1, 0, 0, 0, 1.1, 0, 0, 0, 1], [0, 0, 0])
  await name.setInputFiles([file('ninepin.stl', writeStl(ninepin)), file('torn.stl', writeStl(ninepin).slice(0, 3000))])
  await expect(page.getByText('torn.stl:')).toBeVisible()
  await page.getByRole('button', { name: 'Dismiss' }).click()
  await page.getByRole('button', { name: /^ninepin/ }).click()
  const tags = page.getByLabel('Tags, separated by commas')
  await tags.fill('Game, wood, game')
  // Word of something else comes while one types: the library is read again, and what was typed stays.
  const reread = page.waitForResponse((r) => r.url().endsWith('/api/sculpts'))
  const other = await call<{ id: string }>('POST', '/pieces', { name: 'Elsewhere' })
  await reread
  await call('DELETE', `/pieces/${other.id}`)
  await expect(tags).toHaveValue('Game, wood, game')
  await tags.press('Enter')
  await expect(page.getByRole('button', { name: 'wood', exact: true })).toBeVisible()
  await page.getByLabel('Prints of it').selectOption('no')
  const larger = transformed(ninepin, [1.5, 0, 0, 0, 1.5, 0, 0, 0, 1.5], [0, 0, 0])
  await name.setInputFiles([file('ninepin-2.stl', writeStl(larger))])
  await expect(page.getByRole('button', { name: /^ninepin-2/ })).toBeVisible()
  await page.getByLabel('Find a sculpt').fill('wood')
  await expect(page.locator('.card-sculpt')).toHaveCount(1)
  await accessible(page)
  await page.getByRole('button', { name: 'New piece from it' }).click()
  await expect(page.getByRole('heading', { name: 'ninepin' }).first()).toBeVisible()
  const id = page.url().split('/').at(-2)!
  await stage(page, 'Brief')
  await page.getByLabel('Purpose').selectOption('sell')
  await stage(page, 'Import')
  await expect(page.locator('[data-finding=licence]')).toContainText('may not be sold')

  await page.goto('/sculpts')
  await page.getByRole('button', { name: /^ninepin-2/ }).click()
  await page.getByLabel('This is the next edition of').selectOption({ label: 'ninepin' })
  await expect(page.getByText('1: ninepin.stl')).toBeVisible()
  await page.goto(`/pieces/${id}/import`)
  await page.getByRole('button', { name: 'Use the newest edition' }).click()
  await expect(page.locator('[data-finding=edition]')).toHaveCount(0)
  const height = async (): Promise<number> => measure(await meshOf((await detail(id)).partList[0]!.sculptMesh)).size[2]
  expect(await height()).toBeCloseTo(90, 3)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(height).toBeCloseTo(60, 3)
})

test('a base with a nameplate under a face that looks aside, a channel for a light, a bay with its lid', async ({
  page,
}) => {
  const id = await piece(page, 'Skittle with a light', 'skittle.stl', writeStl(skittle()))
  await stage(page, 'Combine')
  await idle(page)
  await page.getByText('Add a base').click()
  await page.getByRole('button', { name: 'Slab', exact: true }).click()
  await type(page.getByLabel('Width', { exact: true }), '44')
  await type(page.getByLabel('Depth', { exact: true }), '44')
  await page.getByRole('button', { name: 'Add base' }).click()
  await expect.poll(async () => (await detail(id)).partList.length).toBe(2)
  await idle(page)

  await test.step('letters that do not fit are answered with what fits; then they stand out', async () => {
    await page.getByText('Nameplate on Slab').click()
    await page.getByLabel('Text').fill('NINE')
    await type(page.getByLabel('Height of capitals'), '30')
    await page.getByRole('button', { name: 'Add nameplate' }).click()
    await expect(page.getByRole('alert')).toContainText('reaches beyond the side')
    await type(page.getByLabel('Height of capitals'), '5')
    await page.getByRole('button', { name: 'Add nameplate' }).click()
    await expect.poll(() => kinds(id, 1)).toBe('base,nameplate,place')
    await expect(page.getByText('thinnest stroke')).toBeVisible()
    expect(await acceptedAsSolid(await partMesh(id, 1))).toBe(true)
  })
  await test.step('the plate is turned to where the face looks', async () => {
    await page.locator('.parts').getByRole('button', { name: 'skittle', exact: true }).click()
    await idle(page)
    await page.getByText('Where it looks').click()
    await page.getByRole('button', { name: 'Choose the face' }).click()
    const { x, y } = await middleOf(page)
    // Seen from 19° to the right, its right side looks well past the plate.
    await pressUntil(page, x + 26, y + 5, () =>
      expect(page.locator('[data-finding=plate-aside]')).toBeVisible({ timeout: 6000 }),
    )
    await page.getByRole('button', { name: 'Turn the nameplate to the face' }).click()
    await expect(page.locator('[data-finding=plate-aside]')).toHaveCount(0)
    const plate = (await detail(id)).partList[1]!.steps.find((s) => s.op.kind === 'nameplate')!
    expect(Math.abs(plate.op.around!)).toBeGreaterThan(12)
    await idle(page)
    await accessible(page)
  })
  await test.step('a wire goes from under the base to its head, bored through both in one step', async () => {
    await page.getByText('A light inside').click()
    await page.getByRole('button', { name: 'Choose where the light goes' }).click()
    const { x, y } = await middleOf(page)
    const middle = page.getByRole('button', { name: 'From the middle of Slab' })
    await pressUntil(page, x, y - 150, () => expect(middle).toBeVisible({ timeout: 4000 }))
    await middle.click()
    const wall = page.locator('dt:has-text("thinnest wall left") + dd')
    await expect(wall).toBeVisible()
    expect(parseFloat(await wall.innerText())).toBeGreaterThan(1)
    await page.getByRole('button', { name: 'Bore through all parts' }).click()
    await expect.poll(() => kinds(id, 0)).toBe('channel')
    await expect.poll(() => kinds(id, 1)).toBe('base,nameplate,place,channel')
    await idle(page)
    const body = await partMesh(id, 0)
    expect(await acceptedAsSolid(body)).toBe(true)
    expect(measure(skittle()).volume - measure(body).volume).toBeGreaterThan(200)
  })
  await test.step('a bay that would break out is refused; a smaller one gets a lid that fits into it', async () => {
    await type(page.getByLabel('Width inside'), '60')
    await page.getByRole('button', { name: 'Bay with a lid' }).click()
    await expect(page.getByRole('alert')).toContainText('The bay would leave')
    await type(page.getByLabel('Width inside'), '22')
    await type(page.getByLabel('Depth inside'), '22')
    await type(page.getByLabel('Height inside'), '4')
    await page.getByRole('button', { name: 'Bay with a lid' }).click()
    await expect.poll(async () => (await detail(id)).partList.length).toBe(3)
    await idle(page)
    await expect(page.locator('[data-finding^=overlap]')).toHaveCount(0)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(async () => (await detail(id)).partList.length).toBe(2)
  })
  await test.step('moved as a group, what was bored stays where it was bored', async () => {
    const centres = async (): Promise<number[]> =>
      Promise.all(
        (await settled(id)).partList.slice(0, 2).map(async (p) => measure(await meshOf(p.meshHash)).centre[0]),
      )
    const before = await centres()
    const along = page.getByRole('button', { name: 'Move together with Slab' })
    await along.click()
    await expect(along).toHaveAttribute('aria-pressed', 'true')
    await type(page.getByLabel('Right of the middle'), '20')
    await expect
      .poll(async () => (await detail(id)).partList[1]!.steps.find((s) => s.op.kind === 'place')!.op.shift![0])
      .toBe(20)
    await idle(page)
    const after = await centres()
    for (const [k, c] of after.entries()) expect(c - before[k]!).toBeCloseTo(20, 1)
    const body = await partMesh(id, 0)
    expect(measure(skittle()).volume - measure(body).volume).toBeGreaterThan(200)
  })
})

test('thickened by the brush, measured along the body; posed within limits, a held end, against a picture', async ({
  page,
}) => {
  const id = await piece(page, 'Skittle at size', 'skittle.stl', writeStl(skittle()))
  await stage(page, 'Scale')
  await idle(page)
  const { x, y } = await middleOf(page)
  await test.step('the brush adds where it went', async () => {
    await page.getByText('Thicken places').click()
    await type(page.getByLabel('By', { exact: true }), '0.5')
    await page.getByRole('button', { name: 'Brush', exact: true }).click()
    const grow = page.getByRole('button', { name: 'Thicken', exact: true })
    await pressUntil(page, x, y, () => expect(grow).toBeVisible({ timeout: 4000 }))
    await grow.click()
    await expect.poll(() => kinds(id, 0)).toBe('thicken')
    await idle(page)
    const mesh = await partMesh(id, 0)
    expect(await acceptedAsSolid(mesh)).toBe(true)
    expect(measure(mesh).volume).toBeGreaterThan(measure(skittle()).volume + 5)
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect.poll(() => kinds(id, 0)).toBe('')
    await idle(page)
  })
  await test.step('stature is the chain of landmarks, and the table follows it', async () => {
    await page.getByText('Stature, measured along the body').click()
    await page.getByRole('button', { name: 'Measure along the body' }).click()
    for (const [i, [dy, next]] of (
      [
        [170, 'knee'],
        [60, 'hip'],
        [-20, 'neck'],
        [-110, 'crown'],
        [-185, ''],
      ] as const
    ).entries())
      await pressUntil(page, x, y + dy, async () => {
        if (next) await expect(page.locator('.hint')).toContainText(next, { timeout: 4000 })
        else await expect(page.getByText('mm along the body')).toBeVisible({ timeout: 4000 })
        expect(i).toBeLessThan(5)
      })
    await page.getByText('Compare sizes').click()
    await expect(page.getByRole('row', { name: /^stature/ })).toContainText('438')
    await expect(page.getByRole('row', { name: /^detail kept/ })).toContainText('%')
    await page.getByRole('button', { name: 'Show thickness' }).click()
    await expect(page.getByRole('img', { name: /^Thickness/ })).toBeVisible()
    await accessible(page)
  })
  await test.step('a held end stays; a joint named as a neck stops at its limit', async () => {
    await stage(page, 'Pose')
    await idle(page)
    await page.getByRole('button', { name: 'Landmarks of a figure' }).click()
    const joints = page.locator('.joint')
    for (const [i, dy] of [130, 20, -80, -150].entries())
      await expect(async () => {
        await idle(page)
        if ((await joints.count()) === i) await page.mouse.click(x, y + dy)
        await expect(joints).toHaveCount(i + 1, { timeout: 8000 })
      }).toPass({ timeout: 360_000 })
    await page.getByRole('button', { name: 'Done adding' }).click()
    await page.getByRole('button', { name: /^neck/ }).click()
    await type(page.getByLabel('Forward').first(), '170')
    // 65° between the limbs is what a neck can; the field says what came of it.
    await expect.poll(async () => parseFloat(await page.getByLabel('Forward').first().inputValue())).toBeLessThan(75)
    await expect(page.getByText(/until it tips over|as it stands now/)).toBeVisible()
    await page.getByText('Saved poses').click()
    await page.getByLabel('Name of this pose').fill('bow')
    await page.getByRole('button', { name: 'Save pose' }).click()
    const forward = page.getByLabel('Forward').first()
    const turned = async (): Promise<number> => parseFloat(await forward.inputValue())
    const bow = await turned()
    await type(forward, '0')
    await page.getByRole('button', { name: /^bow/ }).click()
    await expect.poll(turned).toBeCloseTo(bow, 0)
    await page.getByRole('button', { name: /^crown/ }).click()
    await page.getByLabel('crown stays in place').check()
    await page.getByRole('button', { name: /^pelvis/ }).click()
    await type(forward, '12')
    // The joints between the turned one and the held end have given way.
    await page.getByRole('button', { name: /^neck/ }).click()
    await expect.poll(async () => Math.abs((await turned()) - bow)).toBeGreaterThan(1)
  })
  await test.step('four places in a picture turn the view to it; a file that is none is answered', async () => {
    await page.getByText('Against a picture').click()
    const input = page.getByLabel('Reference picture')
    await input.setInputFiles([{ name: 'words.png', mimeType: 'image/png', buffer: Buffer.from('no picture') }])
    await expect(page.getByText('words.png is not a picture')).toBeVisible()
    await input.setInputFiles([{ name: 'grey.png', mimeType: 'image/png', buffer: plainPng(200, 300) }])
    const shot = page.getByAltText('The reference picture')
    await expect(shot).toBeVisible()
    for (const [i, [dx, dy]] of (
      [
        [0, 150],
        [30, 90],
        [-22, 20],
        [8, -120],
      ] as const
    ).entries()) {
      await page.getByRole('button', { name: `Click place ${i + 1}` }).click()
      await pressUntil(page, x + dx, y + dy, () =>
        expect(page.locator('.hint')).toContainText('small picture', { timeout: 4000 }),
      )
      await shot.click({ position: { x: 100 + dx, y: 150 + dy * 0.6 } })
    }
    await expect(page.getByText(/Matched. The mean error/)).toBeVisible()
    await accessible(page)
  })
})
