import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const web = new URL('..', import.meta.url)
const pages = readdirSync(web, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.vue'))
  .map((file) => [file, readFileSync(new URL(file, web), 'utf8')] as const)

/** The library's button is of type `button` unless told: a form without one that sends it is dead to the mouse. */
describe('a form', () => {
  const forms = pages.flatMap(([file, text]) => [...text.matchAll(/<form[\s\S]*?<\/form>/g)].map((m) => [file, m[0]]))
  it('is on several pages', () => {
    expect(forms.length).toBeGreaterThan(5)
  })
  it.each(forms)('is sent by a button of its own: %s', (_, form) => {
    expect(form).toMatch(/<BButton[^>]*\stype="submit"/)
  })
})
