import { fixed, scaleBar, svgText } from '../../formats/svg'
import type { Outlines } from './emblem'
import { METRIC, type Manner } from '../../words/manner'
import { message } from '../../words/message'
import { say } from '../../words/say'

const MARGIN = 10,
  BAR = 50

/** A mark at true size, to be cut out of tape: its outlines, and a bar to prove the printer's scale. */
export function emblemSvg(
  mark: Outlines,
  name: string,
  manner: Manner = METRIC,
): { width: number; height: number; parts: string[] } {
  let x0 = Infinity,
    x1 = -Infinity,
    y0 = Infinity,
    y1 = -Infinity
  for (const o of mark)
    for (let i = 0; i < o.length; i += 2) {
      x0 = Math.min(x0, o[i]!)
      x1 = Math.max(x1, o[i]!)
      y0 = Math.min(y0, -o[i + 1]!)
      y1 = Math.max(y1, -o[i + 1]!)
    }
  const width = Math.max(x1 - x0, 2 * BAR) + 2 * MARGIN,
    height = y1 - y0 + 2 * MARGIN + 16
  const d = mark
    .map((o) => {
      const at: string[] = []
      for (let i = 0; i < o.length; i += 2)
        at.push(`${fixed(MARGIN + o[i]! - x0)} ${fixed(MARGIN + 6 - o[i + 1]! - y0)}`)
      return `M${at.join('L')}Z`
    })
    .join('')
  return {
    width,
    height,
    parts: [
      svgText(MARGIN, MARGIN, name, 3.4),
      `<path class="cut" d="${d}" fill="none" stroke="#000" stroke-width="0.2"/>`,
      scaleBar(MARGIN, height - 6, BAR, say(message('painting.stencil.printAtFullSize', { bar: BAR }), manner)),
    ],
  }
}
