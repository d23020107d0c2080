import { inflateSync } from 'node:zlib'
import { describe, expect, it } from 'vitest'
import { weldIdentical } from '../../mesh/weld'
import { sheetBody } from '../../testBodies'
import { stencilPages, stencilSvg } from './pages'
import { stencilPdf } from './pdf'
import { stencils } from './stencil'

const R = 9,
  tube = weldIdentical(
    sheetBody(72, 60, (u, v) => [R * Math.cos(2 * Math.PI * (u % 1)), R * Math.sin(2 * Math.PI * (u % 1)), 45 * v]),
  )
const labels = Uint8Array.from({ length: tube.positions.length / 3 }, (_, v) => {
  const z = tube.positions[3 * v + 2]!
  return z > 8 && z < 20 ? 1 : 0
})
const found = await stencils(tube, labels, 1)
const [page] = stencilPages('Piece <a>', found)

const areaOf = (points: readonly number[]): number => {
  let sum = 0
  for (let i = 0; i < points.length; i += 2) {
    const j = (i + 2) % points.length
    sum += (points[i]! * points[j + 1]! - points[j]! * points[i + 1]!) / 2
  }
  return Math.abs(sum)
}

describe('stencils on paper', () => {
  it('measure on the SVG what they measure on the sculpt', () => {
    const svg = stencilSvg(page!)
    expect(svg).toContain('width="210mm" height="297mm" viewBox="0 0 210 297"')
    expect(svg).toContain('Piece &lt;a&gt;')
    const d = /class="cut" d="([^"]*)"/.exec(svg)![1]!
    const points = (d.match(/-?\d+(\.\d+)?/g) ?? []).map(Number)
    expect(Math.abs(areaOf(points) / found.pieces[0]!.area.skin - 1)).toBeLessThan(0.01)
    // A band is as long as the cylinder is round, lies level, and keeps to the paper.
    const xs = points.filter((_, i) => i % 2 === 0),
      ys = points.filter((_, i) => i % 2 === 1)
    expect(Math.abs(Math.max(...xs) - Math.min(...xs) - 2 * Math.PI * R)).toBeLessThan(0.6)
    expect(Math.min(...xs)).toBeGreaterThanOrEqual(9.9)
    expect(Math.max(...ys) - Math.min(...ys)).toBeLessThan(14)
    const arrow = page!.arrows[0]!
    expect(Math.abs(arrow[3] - arrow[1])).toBeGreaterThan(7.5)
  })
  it('are the same on the PDF, in points', async () => {
    const bytes = await stencilPdf([page!], 'Piece')
    const raw = Buffer.from(bytes).toString('latin1')
    expect(raw.startsWith('%PDF-')).toBe(true)
    const content = [...raw.matchAll(/stream\r?\n([\s\S]*?)endstream/g)]
      .map((m) => {
        try {
          return inflateSync(Buffer.from(m[1]!, 'latin1')).toString('latin1')
        } catch {
          return ''
        }
      })
      .find((s) => s.includes(' l\n') && s.includes(' m'))!
    const moves = [...content.matchAll(/(-?[\d.]+) (-?[\d.]+) [ml]\n/g)].map((m) => [Number(m[1]), Number(m[2])])
    const xs = moves.map((m) => m[0]! / (72 / 25.4))
    // The band is the widest thing but for the bar.
    expect(xs.some((x) => Math.abs(x - (10 + 2 * Math.PI * R)) < 0.6)).toBe(true)
    expect(raw).toMatch(/MediaBox \[ ?0 0 595\.27\d* 841\.88\d* ?\]/)
  })
  it('go to a sheet of their own when they are larger than the paper, and tell of specks', () => {
    const large = { ...found.pieces[0]!, outline: found.pieces[0]!.outline.map((v) => v * 5) }
    const pages = stencilPages('Large', { pieces: [large, found.pieces[0]!], crumbs: { count: 2, area: 7 } })
    expect(pages[0]!.width).toBeGreaterThan(5 * 2 * Math.PI * R)
    expect(pages.at(-1)!.texts.at(-1)!.text).toContain('2 specks of 7 mm²')
    for (const p of pages)
      for (const o of p.outlines)
        o.points.forEach((v, i) => {
          expect(v).toBeGreaterThanOrEqual(9.99)
          expect(v).toBeLessThanOrEqual((i % 2 === 0 ? p.width : p.height) - 9.99)
        })
  })
})
