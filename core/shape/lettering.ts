import { bad, good, type Answer } from '../answer'
import sans from './letters/sans.json' with { type: 'json' }
import serif from './letters/serif.json' with { type: 'json' }
import { message } from '../words/message'

interface Face {
  em: number
  capHeight: number
  glyphs: Record<string, { advance: number; contours: number[][] }>
}
const FACES: Record<'sans' | 'serif', Face> = { sans, serif }

export interface Lettering {
  /** lines are parted by line breaks */
  text: string
  face: 'sans' | 'serif'
  /** mm, of a capital */
  letter: number
  /** share of the em that is added between letters */
  spacing: number
}
export interface Lettered {
  /** closed outlines, 2 per corner, mm, x to the right and y up, the block's middle at the origin; holes run the other way */
  contours: Float64Array[]
  width: number
  height: number
}

/** Base line to base line, share of the em. */
const LEADING = 1.2

/** The outlines of a text set in a shipped face, each line centred. */
export function lettered({ text, face, letter, spacing }: Lettering): Answer<Lettered> {
  const { em, capHeight, glyphs } = FACES[face]
  const lines = text.split('\n').map((l) => [...l.normalize('NFC')])
  const missing = [...new Set(lines.flat().filter((c) => !(c in glyphs)))]
  if (missing.length > 0)
    return bad(
      'letter-missing',
      message('problems.lettering.theFaceHasNoWrite', { face, missing: missing.map((c) => `“${c}”`).join(', ') }),
    )
  if (lines.every((l) => l.every((c) => c === ' ')))
    return bad('no-text', message('problems.lettering.thereIsNothingToLetter'))
  const k = letter / capHeight
  const widthOf = (line: readonly string[]): number =>
    line.reduce((w, c) => w + glyphs[c]!.advance, 0) + Math.max(0, line.length - 1) * spacing * em
  const height = letter + (lines.length - 1) * LEADING * em * k
  const contours: Float64Array[] = []
  for (const [row, line] of lines.entries()) {
    let x = -widthOf(line) / 2
    const y = height / 2 - letter - row * LEADING * em * k
    for (const c of line) {
      for (const outline of glyphs[c]!.contours)
        contours.push(Float64Array.from(outline, (v, i) => (i % 2 === 0 ? (v + x) * k : v * k + y)))
      x += glyphs[c]!.advance + spacing * em
    }
  }
  return good({ contours, width: Math.max(...lines.map(widthOf)) * k, height })
}
