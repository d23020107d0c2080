import { readFile } from 'node:fs/promises'
import { expect, test, type Page } from './workshop'
import { writeStl } from '../core/formats/stl'
import { refine } from '../core/mesh/refine'
import { boxBody, sphereBody } from '../core/testBodies'
import { accessible, call, idle, leaf, middleOf, stage, steady } from './page'
import { piece } from './parts'
import { paintedPng } from './png'

interface Kept {
  version: number
  regions: { id: number; name: string }[]
  coats: {
    id: string
    technique: string
    regionId: number
    paintId: string | null
    mix: unknown[]
    from: object | null
  }[]
  variants: { name: string; coats: unknown[] }[]
  maps: { areas: Record<string, number>; borders: { mm: number; masks: Record<string, number> | null }[] }[]
}
const kept = (id: string): Promise<Kept> => call('GET', `/pieces/${id}/scheme`)
const PAINTS: [string, string, string][] = [
  ['Gull white', '#f3f1ea', 'acrylic'],
  ['Gull black', '#1b1a1c', 'acrylic'],
  ['Gull red', '#b02a26', 'acrylic'],
  ['Gull ochre', '#c39a3a', 'acrylic'],
  ['Gull steel', '#9a9da0', 'metallic'],
]
async function paints(): Promise<void> {
  const there = await call<{ kind: string; data: { name: string } }[]>('GET', '/stock')
  for (const [name, hex, kind] of PAINTS)
    if (!there.some((i) => i.data.name === name))
      await call('POST', '/stock/paint', {
        name,
        hex,
        opacity: 0.85,
        kind,
        finish: kind === 'metallic' ? 'metal' : 'matt',
      })
}
const open = (page: Page, what: string): Promise<void> => page.locator('.fold-title').filter({ hasText: what }).click()
async function download(page: Page, button: string | RegExp): Promise<Buffer> {
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: button }).click()])
  return readFile(await file.path())
}
/** Area and length of a closed outline of an SVG path, in its own units. */
function measured(d: string): { area: number; length: number } {
  const p = (d.match(/-?\d+(\.\d+)?/g) ?? []).map(Number)
  let area = 0,
    length = 0
  for (let i = 0; i < p.length; i += 2) {
    const j = (i + 2) % p.length
    area += (p[i]! * p[j + 1]! - p[j]! * p[i + 1]!) / 2
    length += Math.hypot(p[j]! - p[i]!, p[j + 1]! - p[i + 1]!)
  }
  return { area: Math.abs(area), length }
}

test('a region filled up to creases, a stack proposed and compared, its masks downloaded and measured', async ({
  page,
}) => {
  await paints()
  const id = await piece(page, 'Filled cube', 'cube.stl', writeStl(refine(boxBody(30, 30, 30), 1.2, 100_000)))
  await stage(page, 'Paint scheme')
  await idle(page)
  const area = async (region: number): Promise<number> => (await kept(id)).maps[0]?.areas[region] ?? 0

  await test.step('one press takes a side of the cube, and can be taken back', async () => {
    await page.getByRole('button', { name: 'Add region' }).click()
    await page.getByRole('button', { name: 'Fill to crease' }).click()
    await expect(page.getByText(/Click or drag to fill/)).toBeVisible({ timeout: 180_000 })
    const reach = page.getByLabel('How far a click fills')
    // Six pieces are the six sides: the reach just short of fewer.
    await reach.fill('9')
    const { x, y } = await middleOf(page)
    await page.mouse.click(x, y)
    await expect.poll(() => area(1)).toBeGreaterThan(800)
    expect(await area(1)).toBeLessThan(1000)
    await open(page, 'Move its edge')
    await page.getByRole('button', { name: 'Undo this change' }).click()
    await expect.poll(() => area(1)).toBe(0)
    await page.mouse.click(x, y)
    await expect.poll(() => area(1)).toBeGreaterThan(800)
    await page.getByRole('button', { name: 'Done filling' }).click()
  })
  await test.step('a stack by a school; what was there is put aside, and stands beside it', async () => {
    await open(page, 'Stacks')
    await page.getByRole('button', { name: 'Add these coats' }).click()
    await expect(page.getByText('Give the region a colour first')).toBeVisible()
    await page.getByLabel('Target colour').fill('#8a4a38')
    await page.getByLabel('Target colour').dispatchEvent('change')
    await page.getByLabel('Stack', { exact: true }).selectOption('washes')
    await page.getByRole('button', { name: 'Add these coats' }).click()
    const laid = async (): Promise<string[]> =>
      (await kept(id)).coats.filter((c) => c.regionId === 1).map((c) => c.technique)
    await expect.poll(laid).toEqual(['base', 'wash', 'dry brush'])
    for (const c of (await kept(id)).coats) expect(c.paintId !== null || c.mix.length > 0).toBe(true)
    await page.getByLabel('Stack', { exact: true }).selectOption('airbrush')
    await page.getByRole('button', { name: 'Add these coats' }).click()
    await expect.poll(laid).toEqual(['base', 'airbrush', 'airbrush'])
    expect((await kept(id)).coats.at(-1)!.from).toEqual({ turn: 0, lift: 80, spread: 14 })
    await expect.poll(async () => (await kept(id)).variants.map((v) => v.name)).toEqual(['base, wash, dry brush'])
    await page.getByLabel(/Show them beside it/).check()
    await expect(page.locator('.turntable').getByText('imported')).toBeVisible({ timeout: 180_000 })
    await expect(page.locator('.turntable').getByText('base, wash, dry brush')).toBeVisible()
    await page.getByLabel(/Show them beside it/).uncheck()
    // The first ones are mixes for the colour; the stack's own is the last.
    await page.getByRole('button', { name: 'Use', exact: true }).last().click()
    await expect.poll(laid).toEqual(['base', 'wash', 'dry brush'])
    await page.getByLabel('Name of this stack').fill('Harbour red')
    await page.getByRole('button', { name: 'Keep in the library' }).click()
    await expect
      .poll(async () => (await call<{ stacks: { name: string }[] }>('GET', '/workshop')).stacks.map((s) => s.name))
      .toContain('Harbour red')
  })
  await test.step('coat by coat: four pictures, and the turntable shows the one that is pressed', async () => {
    await open(page, 'Coat by coat')
    const pictures = page.getByRole('button', { name: /^Show it/ })
    await expect(pictures).toHaveCount(4, { timeout: 180_000 })
    const shown = (): Promise<string> => page.locator('canvas').evaluate((c: HTMLCanvasElement) => c.toDataURL())
    const whole = await shown()
    await pictures.first().click()
    await expect(page.getByText('shown before the first')).toBeVisible()
    await expect.poll(shown).not.toBe(whole)
    await pictures.last().click()
    await expect(page.getByText('shown before the first')).toHaveCount(0)
  })
  await test.step('light that stands still, and where light and shade go', async () => {
    await leaf(page, 'Light')
    await page.getByLabel('Fixed, as in a display case').check()
    await page.getByLabel('Lamp', { exact: true }).selectOption({ label: 'bulb, 2700 K' })
    await expect(page.getByText('from 25° to its right, 60° up, 2700 K')).toBeVisible()
    await open(page, 'Light and shade')
    const svg = (await download(page, /Sheet of four views/)).toString()
    expect(svg).toContain('highlight within')
    expect(svg).toContain('width="297mm" height="210mm"')
    await accessible(page)
  })
  await test.step('masks: as large on paper as on the sculpt', async () => {
    await leaf(page, 'Masks')
    await open(page, 'Flat masks')
    await page.getByRole('button', { name: /^Flatten “Region 2”/ }).click()
    const svg = (await download(page, 'SVG, true size')).toString()
    const { area: paper, length } = measured(/class="cut" d="([^"]*)"/.exec(svg)![1]!)
    const now = await kept(id)
    expect(Math.abs(paper / now.maps[0]!.areas['1']! - 1)).toBeLessThan(0.02)
    expect(Math.abs(length / now.maps[0]!.borders[0]!.mm - 1)).toBeLessThan(0.02)
    expect(svg).toContain('width="210mm" height="297mm" viewBox="0 0 210 297"')
    const pdf = await download(page, 'PDF, true size')
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
    // Straight sides: what masks them is tape.
    const masks = now.maps[0]!.borders[0]!.masks!
    expect(masks.tape).toBeGreaterThan(masks.liquid!)
  })
  await test.step('a circle set on the side, cut out at true size, and made a region', async () => {
    await open(page, 'Add a circle, letters or a mark')
    await page.getByRole('button', { name: 'Choose the place' }).click()
    const { x, y } = await middleOf(page)
    await page.mouse.click(x, y)
    await expect(page.getByText(/A flat mask on it is stretched by 0\.\d %/)).toBeVisible({ timeout: 180_000 })
    const svg = (await download(page, 'Mask as SVG, true size')).toString()
    expect(Math.abs(measured(/class="cut" d="([^"]*)"/.exec(svg)![1]!).area / (Math.PI * 25) - 1)).toBeLessThan(0.01)
    await page.getByRole('button', { name: 'Make it a region' }).click()
    // On the sculpt it is as large as its copy's vertices can show.
    await expect.poll(() => area(2)).toBeGreaterThan(55)
    expect(await area(2)).toBeLessThan(105)
    await expect(page.getByRole('button', { name: 'circle', exact: true })).toBeVisible()
  })
  await test.step('bench mode shows the region before and after', async () => {
    const { steps } = await call<{ steps: { key: string }[] }>('GET', `/pieces/${id}/plan`)
    const step = steps.find((s) => s.key.startsWith('coat-'))!
    await page.goto(`/pieces/${id}/bench?step=${encodeURIComponent(step.key)}`)
    await expect(page.getByAltText('The region before this coat')).toBeVisible({ timeout: 180_000 })
    await expect(page.getByAltText('The region after this coat')).toBeVisible()
    await accessible(page)
  })
})

test('spots and sheen: dots keep to their share, metal under matt varnish is dull', async ({ page }) => {
  await paints()
  const id = await piece(page, 'Chipped ball', 'ball.stl', writeStl(sphereBody(20, 5)))
  await stage(page, 'Paint scheme')
  await idle(page)
  const stock = new Map(
    (await call<{ id: string; data: { name: string } }[]>('GET', '/stock')).map((i) => [i.data.name, i.id]),
  )
  const put = async (coats: object[]): Promise<void> => {
    const now = await kept(id)
    await call('PUT', `/pieces/${id}/scheme`, {
      ...now,
      coats: coats.map((c, i) => ({ id: `c${i}`, regionId: 0, film: 200, ...c })),
    })
    await page.reload()
    await idle(page)
  }
  /** On the ball: the share of red pixels, how warm it is on the whole, and how bright its brightest spot is. */
  const seen = (): Promise<{ red: number; warm: number; bright: number }> =>
    page.evaluate(() => {
      const c = document.querySelector('canvas'),
        t = document.createElement('canvas')
      if (!c) return { red: 0, warm: Infinity, bright: 0 }
      const r = Math.round(c.height / 7)
      t.width = t.height = 2 * r
      const g = t.getContext('2d')!
      g.drawImage(c, c.width / 2 - r, c.height / 2 - r, 2 * r, 2 * r, 0, 0, 2 * r, 2 * r)
      const d = g.getImageData(0, 0, 2 * r, 2 * r).data
      let red = 0,
        bright = 0,
        reds = 0,
        blues = 0
      for (let i = 0; i < d.length; i += 4) {
        if (d[i]! > 1.5 * d[i + 2]!) red++
        reds += d[i]!
        blues += d[i + 2]!
        bright = Math.max(bright, (d[i]! + d[i + 1]! + d[i + 2]!) / 3)
      }
      return { red: red / (4 * r * r), warm: reds / blues, bright }
    })
  const base = { technique: 'base', paintId: stock.get('Gull red') },
    white = (coverage: number): object => ({
      technique: 'stipple',
      paintId: stock.get('Gull white'),
      coverage,
      grain: 3.5,
    })
  // White dots that the mesh can show, on red: the red that is left follows what was asked, as far as the dots seen
  // here stand for all of them. Bare clay has next to none.
  const red = async (): Promise<number> => (await seen()).red
  await put([base, white(0.25)])
  await expect.poll(red, { timeout: 180_000 }).toBeGreaterThan(0.5)
  expect(await red()).toBeLessThan(0.85)
  await put([base, white(0.75)])
  await expect.poll(red, { timeout: 180_000 }).toBeGreaterThan(0.11)
  expect(await red()).toBeLessThan(0.42)
  const metal = { technique: 'metallic', paintId: stock.get('Gull steel') }
  const varnish = await call<{ id: string }>('POST', '/stock/paint', {
    name: 'Gull matt',
    hex: '#ffffff',
    opacity: 0.02,
    kind: 'varnish',
  })
  /** Steel is grey, clay and red are warm. */
  const warm = async (): Promise<number> => (await seen()).warm
  await put([metal])
  await expect.poll(warm, { timeout: 180_000 }).toBeLessThan(1.13)
  const { bright } = await seen()
  await put([metal, { technique: 'varnish', paintId: varnish.id, film: 10 }])
  await expect.poll(warm, { timeout: 180_000 }).toBeLessThan(1.13)
  expect((await seen()).bright).toBeLessThan(bright - 12)
})

test('painted after a picture, with ground built up: the colour is read, and the plan has its layers', async ({
  page,
}) => {
  const id = await piece(page, 'After a picture', 'ball.stl', writeStl(sphereBody(20, 4)))
  await stage(page, 'Paint scheme')
  await idle(page)
  await open(page, 'Reference pictures')
  // Left half rust red, right half sea green.
  const half = paintedPng(80, 60, (x) => (x < 40 ? [168, 72, 48] : [60, 130, 120]))
  const input = page.getByLabel('Reference pictures')
  await input.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('none') })
  await expect(page.getByRole('main').getByRole('alert')).toContainText('notes.png is no picture')
  await input.setInputFiles({ name: 'two colours.png', mimeType: 'image/png', buffer: half })
  const sample = page.getByRole('button', { name: /^Read the colour of picture 1/ })
  const box = (await sample.boundingBox())!
  await sample.click({ position: { x: 0.8 * box.width, y: 0.5 * box.height } })
  const region = async (): Promise<{ target: string | null; references: { x: number; hex: string }[] }> =>
    (await call<{ regions: never[] }>('GET', `/pieces/${id}/scheme`)).regions[0]!
  await expect.poll(async () => (await region()).target).toBe('#3c8278')
  expect((await region()).references[0]!.x).toBeCloseTo(0.8, 1)
  await page.getByRole('button', { name: 'Show behind the sculpt' }).click()
  await expect(page.locator('.turntable img.backdrop')).toBeVisible()
  // Four places on the ball as they lie in the picture: seen from the front, they meet.
  const { x, y } = await middleOf(page)
  for (const [u, v] of [
    [-1, -1],
    [1, -1],
    [-1, 1],
    [1, 1],
  ] as const) {
    await page.getByRole('button', { name: /^Click place \d on the sculpt/ }).click()
    await page.mouse.click(x + 70 * u, y + 70 * v)
    await expect(page.getByText('Now click the same place in the picture above')).toBeVisible()
    await sample.click({ position: { x: (0.5 + 0.2 * u) * box.width, y: (0.5 + 0.2 * v * (4 / 3)) * box.height } })
  }
  await expect(page.getByText(/^To see the sculpt from where the picture was taken: Matched/)).toBeVisible()
  await expect(page.locator('.turntable img.backdrop.matched')).toBeVisible()
  // Its places are no colours: what was read before stays.
  expect((await region()).target).toBe('#3c8278')
  await page.getByRole('button', { name: 'Show behind the sculpt' }).click()

  await leaf(page, 'Eyes and ground')
  await open(page, 'Ground, snow, water, rust')
  await page.getByLabel('Effect').selectOption({ label: 'Water' })
  await page.getByRole('button', { name: 'Apply to “Whole piece”' }).click()
  await page.getByLabel('Water: thickness in mm').fill('5')
  await page.getByLabel('Water: thickness in mm').press('Enter')
  await page.getByLabel('Water: share of the region in percent').fill('20')
  await page.getByLabel('Water: share of the region in percent').press('Enter')
  await expect(page.getByText('2 layers')).toBeVisible()
  const layers = async (): Promise<string[]> =>
    (await call<{ steps: { title: string }[] }>('GET', `/pieces/${id}/plan`)).steps
      .map((s) => s.title)
      .filter((t) => t.startsWith('Water'))
  await expect.poll(layers).toEqual(['Water on Whole piece, layer 1 of 2', 'Water on Whole piece, layer 2 of 2'])
  await accessible(page)
})

test('practice: a body to print, and a try written down', async ({ page }) => {
  await page.goto('/guide')
  await page.getByRole('link', { name: 'practice page' }).click()
  await page.getByRole('button', { name: /^A pair of eyes/ }).click()
  await expect(page.getByText('Both look at one point')).toBeVisible()
  await accessible(page)
  const stl = await download(page, 'Practice body (STL)')
  // A binary STL: its count of faces is what its length says.
  expect(stl.length).toBe(84 + 50 * stl.readUInt32LE(80))
  expect(stl.readUInt32LE(80)).toBeGreaterThan(20_000)
  await page.getByLabel('well', { exact: true }).check()
  await page.getByLabel('Result').fill('Thin ring, brush of 0.3.')
  await page.getByLabel('Photo of the attempt').setInputFiles({
    name: 'eyes.png',
    mimeType: 'image/png',
    buffer: paintedPng(20, 20, () => [200, 190, 180]),
  })
  await page.getByRole('button', { name: 'Save attempt' }).click()
  await expect(page.getByAltText('The attempt')).toBeVisible()
  await expect(page.getByText('Thin ring, brush of 0.3.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^A pair of eyes/ })).toContainText('1 attempt, last well')
})

test('regions go along when a limb is bent: as large as before, on the same skin', async ({ page }) => {
  const id = await piece(page, 'Bent limb', 'limb.stl', writeStl(refine(boxBody(16, 16, 90, -8, -8), 1.5, 100_000)))
  await stage(page, 'Paint scheme')
  await idle(page)
  interface Map {
    meshHash: string
    areas: Record<string, number>
  }
  const map = async (): Promise<Map | undefined> => (await call<{ maps: Map[] }>('GET', `/pieces/${id}/scheme`)).maps[0]
  const { x, y } = await middleOf(page)
  await page.getByRole('button', { name: 'Add region' }).click()
  await page.getByRole('button', { name: 'Brush', exact: true }).click()
  await page.getByLabel('Brush radius in mm').fill('20')
  // The upper end of the limb, round to its sides.
  await page.mouse.click(x, y - 150)
  const brushed = async (): Promise<number> => (await map())?.areas['1'] ?? 0
  await expect.poll(brushed).toBeGreaterThan(200)
  // A stroke may be kept in two halves.
  await steady(brushed)
  const before = (await map())!
  const [part] = (await call<{ partList: { id: string; version: number }[] }>('GET', `/pieces/${id}`)).partList
  const joint = (name: string, parent: number, z: number, by = 0): object => ({
    name,
    parent,
    position: [0, 0, z],
    turn: [0, Math.sin(by / 2), 0, Math.cos(by / 2)],
  })
  await call('PUT', `/parts/${part!.id}/operations`, {
    version: part!.version,
    operations: [
      {
        kind: 'pose',
        joints: [joint('foot', -1, 0), joint('knee', 0, 45, (110 * Math.PI) / 180), joint('end', 1, 90)],
      },
    ],
  })
  await page.reload()
  await idle(page)
  await expect(page.getByRole('alert')).toHaveCount(0)
  // A dab of a third region somewhere on the skin: what is kept now is where all of them lie on the bent limb.
  await page.getByRole('button', { name: 'Add region' }).click()
  await page.getByRole('button', { name: 'Brush', exact: true }).click()
  await page.getByLabel('Brush radius in mm').fill('1')
  await expect(async () => {
    for (const up of [-100, -50, 0, 50, 100]) await page.mouse.click(x, y + up)
    expect((await map())!.meshHash).not.toBe(before.meshHash)
  }).toPass({ timeout: 360_000 })
  const after = (await map())!
  expect(Math.abs((after.areas['1'] ?? 0) / before.areas['1']! - 1)).toBeLessThan(0.12)
})
