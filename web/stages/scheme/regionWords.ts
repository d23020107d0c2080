import { text } from '../../i18n'
/** What a change did to a region, in words. */
export function nearRegion(before: Uint8Array, after: Uint8Array, region: number): string {
  let was = 0,
    is = 0
  for (let v = 0; v < before.length; v++) {
    if (before[v] === region) was++
    if (after[v] === region) is++
  }
  if (was === 0) return text('scheme.regionWords.theRegionIsEmpty')
  if (is === 0) return text('scheme.regionWords.nothingIsLeftOf')
  return is === was
    ? text('scheme.regionWords.nothingChangedTheDistance')
    : text('scheme.regionWords.isOfItsSurface', {
        is: is > was,
        abs: Math.abs(Math.round((100 * (is - was)) / was)),
      })
}
