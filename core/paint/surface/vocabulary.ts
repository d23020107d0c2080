import { message, type Message } from '../../words/message'

/**
 * What regions of a figure are called at the bench, each with the stack of the library that mostly goes on it. The name is
 * the key of `vocabulary.region`.
 */
const REGION_WORDS = [
  { name: 'Skin', stack: 'skin' },
  { name: 'Face', stack: 'skin' },
  { name: 'Hands', stack: 'skin' },
  { name: 'Lips', stack: null },
  { name: 'Eyes', stack: null },
  { name: 'Teeth', stack: null },
  { name: 'Nails', stack: null },
  { name: 'Hair', stack: 'washes' },
  { name: 'Beard', stack: 'washes' },
  { name: 'Brows', stack: null },
  { name: 'Fur', stack: 'washes' },
  { name: 'Feathers', stack: 'washes' },
  { name: 'Scales', stack: 'washes' },
  { name: 'Horn and bone', stack: 'glazes' },
  { name: 'Coat', stack: null },
  { name: 'Shirt', stack: null },
  { name: 'Trousers', stack: null },
  { name: 'Cloak', stack: null },
  { name: 'Lining', stack: null },
  { name: 'Cap', stack: null },
  { name: 'Leather', stack: 'worn' },
  { name: 'Belt and straps', stack: 'worn' },
  { name: 'Boots', stack: 'worn' },
  { name: 'Armour', stack: 'metal' },
  { name: 'Blade', stack: 'metal' },
  { name: 'Steel', stack: 'metal' },
  { name: 'Gold trim', stack: 'metal' },
  { name: 'Buckles', stack: 'metal' },
  { name: 'Wood', stack: 'washes' },
  { name: 'Stone', stack: 'washes' },
  { name: 'Socle', stack: 'worn' },
  { name: 'Groundwork', stack: 'washes' },
  { name: 'Glass', stack: null },
  { name: 'Gem', stack: null },
  { name: 'Wound', stack: null },
  { name: 'Flame', stack: 'airbrush' },
] as const satisfies readonly { name: string; stack: string | null }[]

/** What a region may be called. */
export const regionNames = (): Message[] => REGION_WORDS.map(({ name }) => message(`vocabulary.region.${name}`))

/**
 * The stack that suits what a region is called, in English or in the language of the page; null where none is known.
 *
 * @param said gives the text of a message
 */
export function stackForName(name: string, said: (m: Message) => string): string | null {
  const words = name.toLowerCase()
  const found = REGION_WORDS.flatMap(({ name: word, stack }) => {
    const names = [...word.split(' and '), said(message(`vocabulary.region.${word}`))]
    return stack && names.some((x) => words.includes(x.toLowerCase())) ? [{ word, stack }] : []
  })
  // The longest word says most: a leather cap is leather.
  return found.sort((a, b) => b.word.length - a.word.length)[0]?.stack ?? null
}
