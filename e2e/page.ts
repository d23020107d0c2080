import { AxeBuilder } from '@axe-core/playwright'
import { expect, type Locator, type Page, server } from './workshop'

/** Speaks to the server beside the page: what the page shows is held against it. */
export async function call<T>(method: string, path: string, body?: object | Uint8Array): Promise<T> {
  const raw = body instanceof Uint8Array
  const r = await fetch(`${server()}/api${path}`, {
    method,
    headers: { 'content-type': raw ? 'application/octet-stream' : 'application/json' },
    body: raw ? Buffer.from(body) : body && JSON.stringify(body),
  })
  const text = await r.text()
  if (!r.ok) throw new Error(text)
  // What has nothing to say answers with nothing.
  return (text === '' ? undefined : JSON.parse(text)) as T
}

export const file = (name: string, bytes: Uint8Array | string): { name: string; mimeType: string; buffer: Buffer } => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(bytes),
})

export async function accessible(page: Page): Promise<void> {
  // A button that is half way from one colour to another has the contrast of neither.
  await page.emulateMedia({ reducedMotion: 'reduce' })
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).analyze()
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join('; ')}`)).toEqual([])
}

/** A leaf of the scheme's panel. */
export const leaf = (page: Page, name: string): Promise<void> => page.getByRole('tab', { name }).click()

export async function stage(page: Page, name: string): Promise<void> {
  const link = page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: new RegExp(`^${name}`) })
  const to = await link.getAttribute('href')
  await link.click()
  // A stage's code is fetched first: who reads the page or loads it again before that has the stage before.
  await page.waitForURL((url) => url.pathname === to)
}

export async function type(field: Locator, text: string): Promise<void> {
  await field.fill(text)
  await field.press('Enter')
}

/** Nothing is being computed, and what the stage wants shown stands on the turntable. */
export async function idle(page: Page): Promise<void> {
  await expect(page.locator('.job-strip')).toHaveCount(0, { timeout: 900_000 })
  const turntable = page.locator('.turntable')
  if ((await turntable.count()) > 0) await expect(turntable).toHaveAttribute('aria-busy', 'false', { timeout: 360_000 })
}

export const middleOf = async (page: Page): Promise<{ x: number; y: number }> => {
  const b = (await page.locator('canvas').boundingBox())!
  return { x: b.x + b.width / 2, y: b.y + b.height / 2 }
}

/** Presses on the sculpt until the page has taken it as meant: the press must do no harm when repeated. */
export const pressUntil = (page: Page, x: number, y: number, taken: () => Promise<void>): Promise<void> =>
  expect(async () => {
    await idle(page)
    await page.mouse.click(x, y)
    await taken()
  }).toPass({ timeout: 360_000 })

/** A figure of the server's once it is no longer being changed. */
export async function steady(read: () => Promise<number>): Promise<number> {
  let last = NaN,
    times = 0
  await expect
    .poll(
      async () => {
        const now = await read()
        times = now === last ? times + 1 : 0
        last = now
        return times
      },
      { intervals: [400] },
    )
    .toBeGreaterThanOrEqual(3)
  return last
}
