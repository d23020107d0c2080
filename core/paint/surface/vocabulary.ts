/** What regions of a figure are called at the bench, each with the stack of the library that is mostly laid on it. */
export const REGION_WORDS: readonly { name: string; stack: string | null }[] = [
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
]

/** The stack that suits what a region is called; null where nothing is known of it. */
export function stackForName(name: string): string | null {
  const words = name.toLowerCase()
  const found = REGION_WORDS.filter(
    (w) =>
      w.stack &&
      w.name
        .toLowerCase()
        .split(' and ')
        .some((x) => words.includes(x)),
  )
  // The longest word says most: a leather cap is leather.
  return found.sort((a, b) => b.name.length - a.name.length)[0]?.stack ?? null
}
