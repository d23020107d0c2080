/**
 * Writes the outlines of the shipped faces as plain polygons, so that lettering is computed without reading fonts. Run it
 * when a face changes: node bootstrap/letterforms.mjs
 */
import { readFileSync, writeFileSync } from 'node:fs'
import opentype from 'opentype.js'

const FACES = { sans: ['source-sans-3', 700], serif: ['source-serif-4', 600] }
/** Em units by which a chord may leave its curve: a hundredth of a millimetre in letters of 10 mm. */
const CHORD = 1
const TEXT =
  ' !"#&\'()*+,-./0123456789:;=?@ABCDEFGHIJKLMNOPQRSTUVWXYZ[]_abcdefghijklmnopqrstuvwxyz' +
  '£§©«°±·»¿¡ÀÁÂÃÄÅÆÇÈÉÊËÌÍÎÏÐÑÒÓÔÕÖ×ØÙÚÛÜÝÞßàáâãäåæçèéêëìíîïðñòóôõöøùúûüýþÿ–—‘’“”„…€' +
  'ĀāĂăĄąĆćČčĎďĐđĒēĖėĘęĚěĞğĢģĪīĮįİıĶķĹĺĻļĽľŁłŃńŅņŇňŌōŐőŒœŔŕŘřŚśŞşŠšŢţŤťŪūŮůŰűŲųŴŵŶŷŸŹźŻżŽž'

const steps = (a, b, c, d) => {
  // Bound on a cubic's departure from its chord by its second differences.
  const u = Math.hypot(a[0] - 2 * b[0] + c[0], a[1] - 2 * b[1] + c[1])
  const v = Math.hypot(b[0] - 2 * c[0] + d[0], b[1] - 2 * c[1] + d[1])
  return Math.max(1, Math.ceil(Math.sqrt((0.75 * Math.max(u, v)) / CHORD)))
}

function contours(path) {
  const out = []
  let now = [],
    at = [0, 0]
  const close = () => {
    const n = now.length
    if (n >= 4 && now[0] === now[n - 2] && now[1] === now[n - 1]) now.splice(n - 2)
    if (now.length >= 6) out.push(now)
    now = []
  }
  const put = (x, y) => {
    const p = [Math.round(x), Math.round(y)]
    const n = now.length
    if (n < 2 || now[n - 2] !== p[0] || now[n - 1] !== p[1]) now.push(...p)
  }
  for (const c of path.commands) {
    if (c.type === 'M') {
      close()
      put(c.x, c.y)
    } else if (c.type === 'L') put(c.x, c.y)
    else if (c.type === 'Z') close()
    else {
      const end = [c.x, c.y]
      const b = c.type === 'C' ? [c.x1, c.y1] : at.map((v, k) => v + (2 / 3) * ([c.x1, c.y1][k] - v))
      const d = c.type === 'C' ? [c.x2, c.y2] : end.map((v, k) => v + (2 / 3) * ([c.x1, c.y1][k] - v))
      const n = steps(at, b, d, end)
      for (let i = 1; i <= n; i++) {
        const t = i / n,
          s = 1 - t
        const mix = (k) => s * s * s * at[k] + 3 * s * s * t * b[k] + 3 * s * t * t * d[k] + t * t * t * end[k]
        put(mix(0), mix(1))
      }
    }
    if (c.type !== 'Z') at = [c.x, c.y]
  }
  close()
  return out
}

for (const [face, [family, weight]] of Object.entries(FACES)) {
  const fonts = ['latin', 'latin-ext'].map((subset) => {
    const file = new URL(
      `../node_modules/@fontsource/${family}/files/${family}-${subset}-${weight}-normal.woff`,
      import.meta.url,
    )
    const bytes = readFileSync(file)
    return opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength))
  })
  const em = fonts[0].unitsPerEm
  const glyphs = {}
  for (const char of TEXT) {
    const font = fonts.find((f) => f.charToGlyphIndex(char) > 0)
    if (!font) {
      console.error(`${face} has no ${char}`)
      continue
    }
    const glyph = font.charToGlyph(char)
    const path = glyph.getPath(0, 0, em)
    // Screens count downward; letters stand up.
    for (const c of path.commands) for (const k of ['y', 'y1', 'y2']) if (k in c) c[k] = -c[k]
    glyphs[char] = { advance: Math.round(glyph.advanceWidth), contours: contours(path) }
  }
  const capHeight = Math.max(...glyphs.H.contours.flat().filter((_, i) => i % 2 === 1))
  writeFileSync(
    new URL(`../core/shape/letters/${face}.json`, import.meta.url),
    `${JSON.stringify({ em, capHeight, glyphs })}\n`,
  )
}
