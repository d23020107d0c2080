import meanings from './en/glossary.json' with { type: 'json' }

/** What a newcomer may not know: words of the craft and their meanings, in the order of the guide. */
export const glossary: Readonly<Record<string, string>> = meanings

/** A piece of a text: as it is, or a word of the glossary with its meaning. */
export type TextPiece = { text: string; meaning?: string }

/** Forms of a word, as "island" also for "Islands"; "recess, ridge" are two words with one meaning. */
const WORDS = Object.entries(glossary).flatMap(([words, meaning]) =>
  words.split(', ').map((word) => ({ word, meaning })),
)
const PATTERN = new RegExp(
  `(?<![\\p{L}-])(${WORDS.map(({ word }) => word)
    .sort((a, b) => b.length - a.length)
    .join('|')})(e?s)?(?![\\p{L}-])`,
  'giu',
)

/**
 * A text cut at the words of the glossary.
 *
 * @param known words that were explained before and need it no more; those that are explained now are added
 */
export function explained(text: string, known: Set<string> = new Set()): TextPiece[] {
  const pieces: TextPiece[] = []
  let from = 0
  for (const match of text.matchAll(PATTERN)) {
    const word = match[1]!.toLowerCase()
    const entry = WORDS.find((w) => w.word.toLowerCase() === word)!
    if (known.has(entry.meaning)) continue
    known.add(entry.meaning)
    if (match.index > from) pieces.push({ text: text.slice(from, match.index) })
    pieces.push({ text: match[0], meaning: entry.meaning })
    from = match.index + match[0].length
  }
  if (from < text.length) pieces.push({ text: text.slice(from) })
  return pieces
}
