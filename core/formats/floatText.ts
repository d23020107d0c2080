/** Shortest of eight or nine digits that reads back to the same Float32. */
export function floatText(x: number): string {
  const short = x.toPrecision(8)
  return String(Number(Math.fround(Number(short)) === x ? short : x.toPrecision(9)))
}
