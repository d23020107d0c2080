/** Drawings in mm, to be printed at true size. */
export const fixed = (v: number): string => String(Number(v.toFixed(3)))
export const escaped = (t: string): string =>
  t.replace(/[<>&]/g, (c) => ({ '<': '&lt;', '>': '&gt;', '&': '&amp;' })[c]!)
export const svgText = (x: number, y: number, t: string, size = 2.8): string =>
  `<text x="${fixed(x)}" y="${fixed(y)}" font-size="${fixed(size)}" font-family="sans-serif">${escaped(t)}</text>`
/** A bar `length` mm long on paper, with what it stands for. */
export const scaleBar = (x: number, y: number, length: number, says: string): string =>
  `<path class="bar" d="M${fixed(x)} ${fixed(y)}h${fixed(length)}m0 -1.5v3m${fixed(-length)} -3v3" stroke="#000" stroke-width="0.2" fill="none"/>` +
  svgText(x + length + 2, y + 1, says)
export const svgPage = (width: number, height: number, parts: readonly string[]): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${fixed(width)}mm" height="${fixed(height)}mm" viewBox="0 0 ${fixed(width)} ${fixed(height)}">${parts.join('')}</svg>`
