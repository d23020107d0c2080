import { PIECE_STAGES } from '../core/stages'
import { writeStl } from '../core/formats/stl'
import { skittle } from './bodies'
import { call, idle } from './page'
import { expect, test, type Page } from './workshop'

/** What the workshop of the browser tests is called, and what nobody translates. */
const GIVEN =
  /Undercut|Test (printer|resin)|White|Red|Ochre|Blue|Dark wash|skittle|Pseudo piece|STL|OBJ|PLY|3MF|GLB|CSV|UTC|SVG|Whole piece|^[\d\s.,:×°%/+–−€-]*$/

/**
 * Controls, titles, labels, findings and steps of the plan without a letter of the locale that nobody speaks, and those whose
 * text is cut off. Days are written in English.
 */
const faults = (page: Page): Promise<{ plain: string[]; clipped: string[]; said: number }> =>
  page.evaluate(() => {
    const shown = [
      ...document.querySelectorAll<HTMLElement>(
        'button, a, h1, h2, h3, label, th, dt, legend, [role=tab], [role=alert], [placeholder], [title], .fold-title, .finding p, .finding span, .caution, .what, .phase',
      ),
    ].filter(
      (e) =>
        e.checkVisibility({ checkVisibilityCSS: true }) &&
        !e.closest('.guide, .day, .visually-hidden, .table-responsive'),
    )
    const own = (e: HTMLElement): string =>
      [...e.childNodes]
        .filter((n) => n.nodeType === 3)
        .map((n) => n.textContent)
        .join(' ')
        .trim()
    const texts = shown.flatMap((e) => [own(e), e.getAttribute('placeholder') ?? '', e.getAttribute('title') ?? ''])
    const clipped = shown.filter((e) => {
      const s = getComputedStyle(e)
      return s.overflow === 'hidden' && s.textOverflow !== 'ellipsis' && e.scrollWidth > e.clientWidth + 1
    })
    const outside = shown.filter((e) => {
      const b = e.getBoundingClientRect()
      return b.width > 0 && b.right > document.documentElement.clientWidth + 1
    })
    return {
      plain: texts.filter((t) => /[a-z]{3}/i.test(t) && !/[^\u0000-\u007f–—’“”…×°µ²³·−]/.test(t)),
      clipped: [...clipped, ...outside].map((e) => e.textContent.trim()),
      said: shown.filter((e) => e.matches('.finding p, .what')).length,
    }
  })

test('in a language that nobody speaks every control is spoken in it, and none is cut off', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('undercut.language', 'en-XA'))
  const piece = async (bytes: Uint8Array): Promise<string> => {
    const { id } = await call<{ id: string }>('POST', '/pieces', { name: 'Pseudo piece' })
    await call('POST', `/pieces/${id}/files?name=skittle.stl`, bytes)
    await expect
      .poll(async () => (await call<{ partList: unknown[] }>('GET', `/pieces/${id}`)).partList.length, {
        timeout: 180_000,
      })
      .toBe(1)
    return id
  }
  const sound = skittle()
  const id = await piece(writeStl(sound))
  const torn = await piece(writeStl({ ...sound, triangles: sound.triangles.slice(30) }))
  const places = [
    '/pieces',
    '/sculpts',
    '/layers',
    '/calendar',
    '/stock',
    '/stock/materials',
    '/stock/paints',
    '/stock/mixes',
    '/workshop',
  ]
  const found: string[] = []
  let said = 0
  for (const [width, height] of [
    [1280, 800],
    [1024, 768],
  ] as const) {
    await page.setViewportSize({ width, height })
    for (const path of [...places, ...PIECE_STAGES.map((s) => `/pieces/${id}/${s}`), `/pieces/${torn}/import`]) {
      await page.goto(path)
      await expect(page.locator('header.top')).toBeVisible()
      await idle(page)
      // What rules and the plan have to say is waited for where there must be something.
      if (path.endsWith('/plan')) await expect(page.locator('.what').first()).toBeVisible()
      if (path.includes(torn)) await expect(page.locator('.finding').first()).toBeVisible()
      const { plain, clipped, said: here } = await faults(page)
      said += here
      const at = path.replace(id, 'ID')
      found.push(...plain.filter((t) => !GIVEN.test(t)).map((t) => `${at}: not in the catalogue: ${t}`))
      found.push(...clipped.map((t) => `${at} at ${width}: cut off: ${t}`))
    }
  }
  expect([...new Set(found)]).toEqual([])
  // Rules and steps of the plan had something to say.
  expect(said).toBeGreaterThan(10)
})
