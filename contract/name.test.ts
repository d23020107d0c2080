import fc from 'fast-check'
import { expect, it } from 'vitest'
import { newPiece } from './pieces'
import { nameOf } from './name'

it('a name in any script may have its number of characters, the spaces around it apart, and is never cut', () => {
  const name = nameOf(12, 'forms.giveItAName')
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme-composite', maxLength: 20 }), (text) => {
      const read = name.safeParse(text)
      const length = [...text.trim()].length
      expect(read.success).toBe(length > 0 && length <= 12)
      if (read.success) expect(read.data).toBe(text.trim())
    }),
  )
})
it('what may not be a name is refused as such, and what only looks strange is one', () => {
  for (const bad of [null, 7, {}, '', '   ', '\n\t']) expect(newPiece.safeParse({ name: bad }).success).toBe(false)
  for (const good of ['Robert’); DROP TABLE piece;--', '<b>x</b>', '{n}', '%s', 'שלום', '𝕏'.repeat(120), '0', 'null'])
    expect(newPiece.parse({ name: good }).name).toBe(good)
})
