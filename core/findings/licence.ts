import type { Finding } from './finding'
import { rule } from './rule'
import { message } from '../words/message'

/** Whether prints of a sculpt may leave the workshop for money. */
export function licence(
  name: string,
  maySell: 'yes' | 'ask' | 'no',
  purpose: 'keep' | 'sell' | 'commission',
): Finding<never>[] {
  if (purpose === 'keep' || maySell === 'yes') return []
  return [
    {
      id: 'licence',
      level: maySell === 'no' ? 'problem' : 'warning',
      value: maySell === 'no' ? message('findings.licence.notForSale') : message('findings.licence.askFirst'),
      unit: '',
      sentence:
        maySell === 'no'
          ? message('findings.licence.notForSaleHere', { purpose, name })
          : message('findings.licence.notRecorded', { purpose, name }),
      places: [],
      how: message('findings.licence.theLicenceInTheLibrary'),
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
      value: newest,
      unit: message('findings.licence.isTheNewestEdition'),
      sentence: message('findings.licence.thisPartIsMadeFrom', { edition, name }),
      places: [],
      how: message('findings.licence.editionsOfTheSculptIn'),
      fixes: [
        {
          act: 'newestEdition',
          label: message('findings.licence.useTheNewestEdition'),
          effect: message('findings.licence.withTheSameOperationsUndo'),
        },
      ],
    },
  ]
}

export const mayBeSold = rule({
  title: message('findings.licence.printsOfTheSculptMay'),
  stages: ['import'],
  inputs: ['sculptTerms'],
  find: ({ sculptTerms: { name, maySell, purpose } }) => licence(name, maySell, purpose),
})
export const newestEdition = rule({
  title: message('findings.licence.theSculptIsItsNewest'),
  stages: ['import'],
  inputs: ['sculptEdition'],
  find: ({ sculptEdition: { name, edition, newest } }) => laterEdition(name, edition, newest),
})
