import { fixed, scaleBar, svgPage, svgText } from '../../formats/svg'
import { planeHull } from '../../mesh/planeHull'
import type { StencilPiece, Stencils } from './stencil'
import { fixed as decimals } from '../../words/format'
import { METRIC, type Manner } from '../../words/manner'
import { message, type Message } from '../../words/message'
import { say } from '../../words/say'

/** One page of stencils: what both SVG and PDF are made from. mm, y down. */
export interface StencilPage {
  width: number
  height: number
  outlines: { points: Float64Array; own: Uint8Array }[]
  /** which way is up on the piece: from, to */
  arrows: [number, number, number, number][]
  texts: { x: number; y: number; size: number; text: string }[]
  /** left end and baseline of the bar that proves the scale */
  bar: { x: number; y: number; length: number; says: string }
}

const A4 = { width: 210, height: 297 }
const MARGIN = 10,
  HEAD = 10,
  FOOT = 12,
  GAP = 6,
  LABEL = 5
/** mm on paper of the bar */
const BAR = 100

/**
 * Stencils laid out on A4 at true size, each as it takes least height, with its number, area, edge and stretch, an
 * arrow for up, and a bar to prove the printer's scale. A piece larger than the paper gets a sheet of its own size.
 */
export function stencilPages(title: string, { pieces, crumbs }: Stencils, manner: Manner = METRIC): StencilPage[] {
  const pages: StencilPage[] = []
  let page: StencilPage | null = null,
    x = 0,
    y = 0,
    row = 0
  const open = (width: number, height: number): StencilPage => {
    const p: StencilPage = {
      width,
      height,
      outlines: [],
      arrows: [],
      texts: [{ x: MARGIN, y: MARGIN + 3, size: 3.6, text: title }],
      bar: {
        x: MARGIN,
        y: height - MARGIN,
        length: BAR,
        says: say(message('painting.stencil.measureThisBar', { bar: BAR }), manner),
      },
    }
    pages.push(p)
    x = MARGIN
    y = MARGIN + HEAD
    row = 0
    return p
  }
  pieces.forEach((piece, i) => {
    const { points, up, width, height } = laidDown(piece)
    const tall = height + LABEL
    if (!page || x + width > page.width - MARGIN) {
      x = MARGIN
      y += row + GAP
      row = 0
    }
    if (!page || y + tall > page.height - MARGIN - FOOT || x + width > page.width - MARGIN)
      page = open(Math.max(A4.width, width + 2 * MARGIN), Math.max(A4.height, tall + 2 * MARGIN + HEAD + FOOT))
    const moved = points.map((v, k) => v + (k % 2 === 0 ? x : y + LABEL))
    page.outlines.push({ points: moved, own: piece.own })
    const [cx, cy] = middleOf(moved)
    page.arrows.push([cx - 4 * up[0], cy - 4 * up[1], cx + 4 * up[0], cy + 4 * up[1]])
    page.texts.push({ x, y: y + 3, size: 2.6, text: say(told(piece, i + 1), manner) })
    x += Math.max(width, 46) + GAP
    row = Math.max(row, tall)
  })
  page = pages.at(-1) ?? open(A4.width, A4.height)
  if (crumbs.count > 0)
    page.texts.push({
      x: MARGIN,
      y: page.height - MARGIN - 5,
      size: 2.6,
      text: say(message('painting.stencil.specks', { count: crumbs.count, area: decimals(crumbs.area, 0) }), manner),
    })
  return pages
}

/** What a piece is, in one line. */
const told = (p: StencilPiece, nth: number): Message =>
  message('painting.stencil.piece', {
    nth,
    area: decimals(p.area.skin / 100, 1),
    edge: decimals(p.edge.skin, 0),
    stretch: decimals(100 * p.stretch, 1),
    darts: p.darts,
    overlaps: p.overlaps,
  })

/** Turned to least height (one side of its hull level), y down, its box at the origin. */
function laidDown(piece: StencilPiece): {
  points: Float64Array
  up: [number, number]
  width: number
  height: number
} {
  const hull = planeHull(
    Array.from({ length: piece.outline.length / 2 }, (_, i): [number, number] => [
      piece.outline[2 * i]!,
      piece.outline[2 * i + 1]!,
    ]),
  )
  let best: { c: number; s: number; width: number; height: number } | null = null
  hull.forEach(([ax, ay], i) => {
    const [bx, by] = hull[(i + 1) % hull.length]!
    const l = Math.hypot(bx - ax, by - ay)
    if (l < 1e-9) return
    const c = (bx - ax) / l,
      s = (by - ay) / l
    const us = hull.map(([x, y]) => c * x + s * y),
      vs = hull.map(([x, y]) => c * y - s * x)
    const width = Math.max(...us) - Math.min(...us),
      height = Math.max(...vs) - Math.min(...vs)
    if (!best || height < best.height) best = { c, s, width, height }
  })
  const { c, s } = best ?? { c: 1, s: 0 }
  const n = piece.outline.length / 2
  const points = new Float64Array(2 * n)
  let x0 = Infinity,
    y0 = Infinity,
    x1 = -Infinity,
    y1 = -Infinity
  for (let i = 0; i < n; i++) {
    const x = piece.outline[2 * i]!,
      y = piece.outline[2 * i + 1]!
    points[2 * i] = c * x + s * y
    points[2 * i + 1] = -(c * y - s * x)
    x0 = Math.min(x0, points[2 * i]!)
    x1 = Math.max(x1, points[2 * i]!)
    y0 = Math.min(y0, points[2 * i + 1]!)
    y1 = Math.max(y1, points[2 * i + 1]!)
  }
  for (let i = 0; i < n; i++) {
    points[2 * i]! -= x0
    points[2 * i + 1]! -= y0
  }
  const [u, v] = piece.up
  return { points, up: [c * u + s * v, -(c * v - s * u)], width: x1 - x0, height: y1 - y0 }
}

/** Centre of area of an outline. */
function middleOf(points: Float64Array): [number, number] {
  let a = 0,
    x = 0,
    y = 0
  for (let i = 0; i < points.length; i += 2) {
    const j = (i + 2) % points.length
    const w = points[i]! * points[j + 1]! - points[j]! * points[i + 1]!
    a += w
    x += w * (points[i]! + points[j]!)
    y += w * (points[i + 1]! + points[j + 1]!)
  }
  return a === 0 ? [points[0]!, points[1]!] : [x / (3 * a), y / (3 * a)]
}

/** Runs of an outline of one sort: the region's own edge, or what was opened. */
export function runsOf(points: Float64Array, own: Uint8Array): { own: boolean; points: number[] }[] {
  const n = own.length
  const out: { own: boolean; points: number[] }[] = []
  const at = (i: number): [number, number] => [points[2 * (i % n)]!, points[2 * (i % n) + 1]!]
  for (let i = 0; i < n; i++) {
    const last = out.at(-1)
    if (last && last.own === (own[i] === 1)) last.points.push(...at(i + 1))
    else out.push({ own: own[i] === 1, points: [...at(i), ...at(i + 1)] })
  }
  return out
}

export function stencilSvg(page: StencilPage): string {
  const out: string[] = []
  for (const { points, own } of page.outlines) {
    const path: string[] = []
    for (let i = 0; i < points.length; i += 2) path.push(`${fixed(points[i]!)} ${fixed(points[i + 1]!)}`)
    // The whole outline is what a cutter follows; opened edges are dashed over it in white.
    out.push(`<path class="cut" d="M${path.join('L')}Z" fill="none" stroke="#000" stroke-width="0.2"/>`)
    for (const run of runsOf(points, own)) {
      if (run.own) continue
      const line: string[] = []
      for (let i = 0; i < run.points.length; i += 2) line.push(`${fixed(run.points[i]!)} ${fixed(run.points[i + 1]!)}`)
      out.push(
        `<path class="opened" d="M${line.join('L')}" fill="none" stroke="#fff" stroke-width="0.24" stroke-dasharray="0.8 0.8"/>`,
      )
    }
  }
  for (const [ax, ay, bx, by] of page.arrows) {
    const [dx, dy] = [(bx - ax) / 8, (by - ay) / 8]
    out.push(
      `<path d="M${fixed(ax)} ${fixed(ay)}L${fixed(bx)} ${fixed(by)}M${fixed(bx - 2 * dx - dy)} ${fixed(by - 2 * dy + dx)}L${fixed(bx)} ${fixed(by)}L${fixed(bx - 2 * dx + dy)} ${fixed(by - 2 * dy - dx)}" fill="none" stroke="#777" stroke-width="0.3"/>`,
    )
  }
  for (const t of page.texts) out.push(svgText(t.x, t.y, t.text, t.size))
  out.push(scaleBar(page.bar.x, page.bar.y, page.bar.length, page.bar.says))
  return svgPage(page.width, page.height, out)
}
