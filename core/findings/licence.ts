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
          ? `This piece is ${use}, and prints of ${name} may not be sold. Choose another sculpt, or agree with its maker.`
          : `This piece is ${use}; whether prints of ${name} may be sold is not recorded yet. Enter it in the library.`,
      places: [],
      how: 'The licence in the library, compared with the purpose in the brief.',
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
          label: 'Use the newest edition',
          effect: 'with the same operations; undo restores this edition',
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
