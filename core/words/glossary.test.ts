import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { explained, glossary } from './glossary'

describe('the glossary', () => {
  it('is the table of the guide, word for word', () => {
    const guide = readFileSync(join(import.meta.dirname, '..', '..', 'docs', 'guide.md'), 'utf8')
    const rows = [
      ...guide.slice(guide.indexOf('## Words of the craft')).matchAll(/^\| (?!Word|---)(.+?) \| (.+?) \|$/gm),
    ]
    expect(Object.fromEntries(rows.map(([, word, meaning]) => [word, meaning]))).toEqual(glossary)
  })
  it('explains a word once, in any form, and no part of another word', () => {
    const known = new Set<string>()
    const terms = (text: string): string[] => explained(text, known).flatMap((p) => (p.meaning ? [p.text] : []))
    expect(terms('Islands fall into the vat. One island is large.')).toEqual(['Islands'])
    expect(terms('The suction cup and its ridges')).toEqual(['suction cup', 'ridges'])
    expect(terms('An island again, a recess, a keyboard, multi-coat')).toEqual([])
  })
  it('changes nothing of the text', () => {
    const words = fc.constantFrom(...Object.keys(glossary), 'and', 'of 3.5 mm,', 'Brush', '“x”', 'Stützen')
    fc.assert(
      fc.property(fc.array(words), (list) => {
        const text = list.join(' ')
        expect(
          explained(text)
            .map((p) => p.text)
            .join(''),
        ).toBe(text)
      }),
    )
  })
})
