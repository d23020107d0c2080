import { PDFDocument, rgb, StandardFonts, type PDFPage } from 'pdf-lib'
import { runsOf, type StencilPage } from './pages'

/** Points of a PDF in a mm. */
const PT = 72 / 25.4
const BLACK = rgb(0, 0, 0),
  GREY = rgb(0.45, 0.45, 0.45)

/** Stencil pages as a PDF at true size; own edges are drawn full, opened ones dashed. */
export async function stencilPdf(pages: readonly StencilPage[], title: string): Promise<Uint8Array> {
  const doc = await PDFDocument.create()
  doc.setTitle(title)
  doc.setCreator('Undercut')
  const font = await doc.embedFont(StandardFonts.Helvetica)
  for (const p of pages) {
    const page = doc.addPage([p.width * PT, p.height * PT])
    for (const { points, own } of p.outlines)
      for (const run of runsOf(points, own)) polyline(page, p.height, run.points, run.own)
    for (const [ax, ay, bx, by] of p.arrows) {
      const [dx, dy] = [(bx - ax) / 8, (by - ay) / 8]
      for (const end of [
        [ax, ay],
        [bx - 2 * dx - dy, by - 2 * dy + dx],
        [bx - 2 * dx + dy, by - 2 * dy - dx],
      ] as const)
        stroke(page, p.height, end[0], end[1], bx, by, 0.3, GREY)
    }
    const { bar } = p
    stroke(page, p.height, bar.x, bar.y, bar.x + bar.length, bar.y, 0.2, BLACK)
    for (const x of [bar.x, bar.x + bar.length]) stroke(page, p.height, x, bar.y - 1.5, x, bar.y + 1.5, 0.2, BLACK)
    for (const t of [...p.texts, { x: bar.x + bar.length + 2, y: bar.y + 1, size: 2.8, text: bar.says }])
      page.drawText(printable(t.text), { x: t.x * PT, y: (p.height - t.y) * PT, size: t.size * PT, font })
  }
  // Plain objects: any reader, however old, finds its pages.
  return doc.save({ useObjectStreams: false })
}

/** The standard fonts of PDF know Latin letters alone. */
const printable = (s: string): string =>
  s.replace(/[^\x20-\x7e\xa0-\xff]/g, (c) => ({ '“': '"', '”': '"', '’': "'", '–': '-' })[c] ?? '?')

function polyline(page: PDFPage, height: number, points: readonly number[], full: boolean): void {
  // An SVG path is drawn from its own origin, with y down.
  const path: string[] = []
  for (let i = 0; i < points.length; i += 2)
    path.push(`${(points[i]! * PT).toFixed(3)} ${(points[i + 1]! * PT).toFixed(3)}`)
  page.drawSvgPath(`M${path.join('L')}`, {
    x: 0,
    y: height * PT,
    borderColor: BLACK,
    borderWidth: 0.2 * PT,
    ...(full ? {} : { borderDashArray: [0.8 * PT, 0.8 * PT] }),
  })
}
function stroke(
  page: PDFPage,
  height: number,
  ax: number,
  ay: number,
  bx: number,
  by: number,
  width: number,
  color: ReturnType<typeof rgb>,
): void {
  page.drawLine({
    start: { x: ax * PT, y: (height - ay) * PT },
    end: { x: bx * PT, y: (height - by) * PT },
    thickness: width * PT,
    color,
  })
}
