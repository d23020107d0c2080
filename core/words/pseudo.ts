import type { IntlMessageFormat } from 'intl-messageformat'

type Elements = ReturnType<IntlMessageFormat['getAst']>
type Element = Elements[number]

const PLAIN = 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ'
const ACCENTED = [...'åƀçđéƒĝĥîĵķĺɱñöþǫŕšţûṽŵẋýžÅƁÇĐÉƑĜĤÎĴĶĹṀÑÖÞǪŔŠŢÛṼŴẊÝŽ']
const accent = (text: string): string => [...text].map((letter) => ACCENTED[PLAIN.indexOf(letter)] ?? letter).join('')
/** About half as long again, as German or Finnish would be, in words that can break. */
const padding = (text: string): string => {
  const letters = text.replace(/[^A-Za-z]/g, '').length
  return letters < 3
    ? ''
    : ' ~' +
        'one two three four five six seven '
          .repeat(9)
          .slice(0, Math.ceil(letters / 2) - 1)
          .trim()
}

/** A message whose words are accented and padded, while its values, and the cases that it chooses by, stay as they are. */
export const accented = (elements: Elements): Elements => {
  const made = elements.map(accentedElement)
  const words = elements.map((e) => (e.type === 0 ? e.value : '')).join(' ')
  return words.trim() === '' ? made : [...made, { type: 0, value: padding(words) } as Element]
}
function accentedElement(e: Element): Element {
  if (e.type === 0) return { ...e, value: accent(e.value) }
  if ('options' in e)
    return {
      ...e,
      options: Object.fromEntries(
        Object.entries(e.options).map(([key, option]) => [
          key,
          { ...option, value: option.value.map(accentedElement) },
        ]),
      ),
    } as Element
  return e
}
