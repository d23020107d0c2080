import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeStl } from '../core/formats/stl'
import { concatenate, keepFaces, type Mesh } from '../core/mesh/mesh'
import { boxBody } from '../core/testBodies'
import { skittle } from './bodies'
import { Truth } from './truth'
import { expect, start, test, type Page } from './workshop'

/** A sculpt as it comes: torn in two places, with a crumb that floats far beside it. */
function torn(): Mesh {
  const whole = skittle()
  const holes = keepFaces(
    whole,
    Uint8Array.from({ length: whole.triangles.length / 3 }, (_, f) =>
      (f > 300 && f < 306) || (f > 700 && f < 703) ? 0 : 1,
    ),
  )
  return concatenate([holes, boxBody(0.2, 0.2, 0.2, 45, 0, 20)])
}
async function drop(page: Page, to: string, files: [name: string, bytes: Uint8Array | string][]): Promise<void> {
  const data = await page.evaluateHandle(
    (list) => {
      const all = new DataTransfer()
      for (const [name, text] of list)
        all.items.add(new File([Uint8Array.from(atob(text), (c) => c.charCodeAt(0))], name))
      return all
    },
    files.map(([name, bytes]) => [name, Buffer.from(bytes).toString('base64')] as const),
  )
  for (const event of ['dragenter', 'dragover', 'drop']) await page.dispatchEvent(to, event, { dataTransfer: data })
}
/** Clicks that the artist makes, counted. */
class Hand {
  clicks = 0
  constructor(private readonly page: Page) {}
  async click(name: string | RegExp, role: 'button' | 'link' = 'button'): Promise<void> {
    this.clicks++
    await this.page
      .getByRole(role, { name, exact: typeof name === 'string' })
      .first()
      .click()
  }
  async next(stage: string): Promise<void> {
    await this.click(`Next: ${stage}`, 'link')
    await expect(this.page.locator('nav .stage.here .title')).toHaveText(stage)
  }
}

test('a new user, an empty workshop, a torn sculpt, no printer: every sentence on the way is true when it is shown', async ({
  page,
}) => {
  const folder = mkdtempSync(join(process.env.UNDERCUT_WORK ?? tmpdir(), 'walk-'))
  const { address, process: server } = await start(folder)
  const findings = page.getByRole('region', { name: 'Findings' })
  const list = page.getByRole('navigation', { name: 'Stages' })
  const hand = new Hand(page)
  try {
    await page.goto(`${address}/`)
    await expect(page.getByRole('heading', { level: 2 })).toHaveText([
      'Open a sculpt',
      'Set up my workshop',
      'Look at the demo workshop',
    ])
    // A letter is no sculpt: it is said, and no piece is made of it.
    await drop(page, 'main', [['letter.txt', 'Dear museum']])
    await expect(page.getByText('No sculpt among the files: letter.txt.')).toBeVisible()
    await hand.click('Dismiss')
    await drop(page, 'main', [
      ['torn.stl', writeStl(torn())],
      ['letter.txt', 'Dear museum'],
    ])
    await page.waitForURL(/\/pieces\/[^/]+\/import$/)
    const id = /pieces\/([^/]+)\//.exec(page.url())![1]!
    const truth = new Truth(page, address, id)
    await expect(page.getByText('One file is no sculpt and was left out.')).toBeVisible()
    await expect(findings.locator('[data-finding=holes]')).toBeVisible()
    await expect(findings.locator('[data-finding=crumbs]')).toBeVisible()
    // The crumb floats 30 mm beside it and does not count.
    await expect(page.getByText('30.0 × 30.0 × 60.0 mm')).toBeVisible()
    await hand.click('Repair')
    await expect(findings.getByText('No problems found')).toBeVisible()
    await hand.next('Combine')
    await hand.next('Pose')
    await hand.next('Scale')
    await expect(findings.getByText('it fits the printer – needs a printer')).toBeVisible()
    await page.getByLabel('Height', { exact: true }).fill('90')
    await page.getByLabel('Height', { exact: true }).press('Enter')
    await hand.click('Scale')
    await expect(list).toContainText('90 mm tall')
    await hand.next('Hollow')
    // A wall that leaves no cavity is refused, stays in nobody's way, and is removed with one click.
    await page.getByLabel('Wall', { exact: true }).fill('20')
    await page.getByLabel('Wall', { exact: true }).press('Enter')
    await hand.click('Hollow')
    await expect(page.getByText('Failed: hollowed, wall 20 mm.')).toBeVisible()
    await hand.next('Orient and support')
    await expect(page.getByText('Failed: hollowed, wall 20 mm.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Find the best' })).toBeDisabled()
    await expect(page.locator('.turntable')).toHaveAttribute('aria-busy', 'false')
    await hand.click('Generate supports')
    await expect(list).toContainText(/\d+ tips?/)
    await hand.click('Remove operation')
    await expect(page.getByText('Failed: hollowed')).toHaveCount(0)
    await expect(list).toContainText(/\d+ tips?/)
    await hand.next('Plates')
    await expect(page.getByText('needs a printer, set up under Stock').first()).toBeVisible()
    for (const stage of ['Print', 'Clean and cure', 'Fit and prime', 'Paint scheme', 'Plan']) await hand.next(stage)
    await expect(page.getByRole('heading', { name: 'Print it' })).toBeVisible()
    await expect(page.getByText('The date leaves out printing: no printer is chosen.')).toBeVisible()
    await expect(page.getByText('Painting is not planned yet')).toBeVisible()

    await test.step('with a stock to start with the same page knows more', async () => {
      await fetch(`${address}/api/stock/starter`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ printer: 'medium' }),
      })
      await expect(page.getByRole('heading', { name: 'Print on Printer, medium' })).toBeVisible()
      await expect(page.getByText('The date leaves out printing')).toHaveCount(0)
      await page.goto(`${address}/pieces/${id}/plates`)
      hand.clicks++
      await expect(page.getByText('Plates', { exact: true }).first()).toBeVisible()
    })
    await truth.end()
    expect(truth.lies).toEqual([])
    // A claim that was never made was never tested.
    expect([...truth.made.keys()].sort()).toEqual(
      expect.arrayContaining([
        'a printer is said to be missing only while there is none',
        'a stage is done in the list only once its result is there',
        'failed only what failed',
        'holes are listed where there are holes',
        'no problems at import only once it was measured and has none',
        'the height is that of the sculpt at its scale',
        'the next step of the plan is the first that is not done',
        'tips are as many as were generated',
      ]),
    )
    test.info().annotations.push({ type: 'clicks', description: String(hand.clicks) })
    expect(hand.clicks).toBeLessThanOrEqual(25)
  } finally {
    const ended = new Promise((r) => server.once('exit', r))
    server.kill('SIGINT')
    await ended
    rmSync(folder, { recursive: true, force: true })
  }
})
