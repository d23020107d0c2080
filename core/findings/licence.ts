import type { Finding } from './finding'
import { rule } from './rule'

/** Whether prints of a sculpt may leave the workshop for money. */
export function licence(
  name: string,
  maySell: 'yes' | 'ask' | 'no',
  purpose: 'keep' | 'sell' | 'commission',
): Finding<never>[] {
  if (purpose === 'keep' || maySell === 'yes') return []
  const use = purpose === 'sell' ? 'to be sold' : 'a commission'
  return [
    {
      id: 'licence',
      level: maySell === 'no' ? 'problem' : 'warning',
      value: maySell === 'no' ? 'Not for sale' : 'Ask first',
      unit: '',
      sentence:
        maySell === 'no'
          ? `This piece is ${use}, and prints of ${name} may not be sold. Take another sculpt, or come to terms with its maker.`
          : `This piece is ${use}; nobody has noted yet whether prints of ${name} may be sold. Note it in the library.`,
      places: [],
      how: 'What the library says of the sculpt, against what the brief says the piece is for.',
      fixes: [],
    },
  ]
}

/** A later edition of the sculpt that a part is made from. */
export function laterEdition(name: string, edition: number, newest: number): Finding<'newestEdition'>[] {
  if (newest <= edition) return []
  return [
    {
      id: 'edition',
      level: 'note',
      value: String(newest),
      unit: 'is the newest edition',
      sentence: `This part is made from edition ${edition} of ${name}.`,
      places: [],
      how: 'Editions of the sculpt in the library.',
      fixes: [
        {
          act: 'newestEdition',
          label: 'Take the newest',
          effect: 'under the same operations; undo brings this one back',
        },
      ],
    },
  ]
}

export const mayBeSold = rule({
  title: 'prints of the sculpt may leave the workshop as the brief says',
  stages: ['import'],
  inputs: ['sculptTerms'],
  find: ({ sculptTerms: { name, maySell, purpose } }) => licence(name, maySell, purpose),
})
export const newestEdition = rule({
  title: 'the sculpt is its newest edition',
  stages: ['import'],
  inputs: ['sculptEdition'],
  find: ({ sculptEdition: { name, edition, newest } }) => laterEdition(name, edition, newest),
})
