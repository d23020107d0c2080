/** What a change did to a region, in words. */
export function nearRegion(before: Uint8Array, after: Uint8Array, region: number): string {
  let was = 0,
    is = 0
  for (let v = 0; v < before.length; v++) {
    if (before[v] === region) was++
    if (after[v] === region) is++
  }
  if (was === 0) return 'The region lies nowhere yet: brush it on first.'
  if (is === 0) return 'Nothing is left of it. Take it back, or brush it on again.'
  return is === was
    ? 'Nothing changed: by so little no part of its edge moves.'
    : `${is > was ? '+' : '−'}${Math.abs(Math.round((100 * (is - was)) / was))} % of its skin.`
}
