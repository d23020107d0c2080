import { bad, good, type Answer } from '../answer'
import { message } from '../words/message'

/** Steps in which a curve is drawn. */
const STEPS = 16
/** Corners of all outlines together; a drawing with more is no mark but a picture. */
const MAX_POINTS = 20_000

/**
 * Closed outlines of the paths of an SVG drawing, y up: moves, lines and Bézier curves; open ones are closed. What is
 * stroked, lettered or placed by transforms is not read, and said so.
 *
 * @returns 2 numbers per corner, in the drawing's own units
 */
export function svgOutlines(text: string): Answer<Float64Array[]> {
  if (!/<svg[\s>]/i.test(text)) return bad('svg-none', message('problems.svgPath.thisIsNoSvgDrawing'))
  if (/\stransform\s*=/i.test(text)) return bad('svg-transform', message('problems.svgPath.theDrawingMovesItsPaths'))
  const out: Float64Array[] = []
  let corners = 0
  for (const m of text.matchAll(/<path\b[^>]*?\sd\s*=\s*(?:"([^"]*)"|'([^']*)')/gi)) {
    const read = outlinesOf(m[1] ?? m[2] ?? '')
    if (!read.ok) return read
    out.push(...read.value)
    corners += read.value.reduce((s, o) => s + o.length / 2, 0)
    if (corners > MAX_POINTS)
      return bad('svg-large', message('problems.svgPath.theDrawingHasMoreThan', { max_points: MAX_POINTS }))
  }
  if (out.length === 0) return bad('svg-empty', message('problems.svgPath.theDrawingHasNoClosed'))
  return good(out)
}

function outlinesOf(d: string): Answer<Float64Array[]> {
  const tokens = d.match(/[a-zA-Z]|[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?/g) ?? []
  const out: Float64Array[] = []
  let line: number[] = [],
    x = 0,
    y = 0,
    // The last control point, which a smooth curve mirrors.
    cx = 0,
    cy = 0,
    was = '',
    i = 0
  const end = (): void => {
    if (line.length >= 6) out.push(new Float64Array(line))
    line = []
  }
  const to = (px: number, py: number): void => {
    x = px
    y = py
    line.push(px, -py)
  }
  const curve = (points: readonly [number, number][]): void => {
    const all: [number, number][] = [[x, y], ...points]
    for (let s = 1; s <= STEPS; s++) {
      // De Casteljau.
      let level = all
      const t = s / STEPS
      while (level.length > 1)
        level = level
          .slice(1)
          .map((p, k): [number, number] => [
            level[k]![0] + t * (p[0] - level[k]![0]),
            level[k]![1] + t * (p[1] - level[k]![1]),
          ])
      line.push(level[0]![0], -level[0]![1])
    }
    ;[cx, cy] = points.at(-2)!
    ;[x, y] = points.at(-1)!
  }
  const NEEDS: Record<string, number> = { M: 2, L: 2, H: 1, V: 1, C: 6, S: 4, Q: 4, T: 2, Z: 0 }
  let command = ''
  while (i < tokens.length) {
    if (/[a-zA-Z]/.test(tokens[i]!)) command = tokens[i++]!
    const kind = command.toUpperCase(),
      relative = command !== kind,
      count = NEEDS[kind]
    if (count === undefined) return bad('svg-command', message('problems.svgPath.theDrawingHasAPath', { command }))
    if (kind === 'Z') {
      end()
      was = 'Z'
      // A lone number after a closing belongs to nothing.
      if (i < tokens.length && !/[a-zA-Z]/.test(tokens[i]!))
        return bad('svg-broken', message('problems.svgPath.aPathOfTheDrawing'))
      continue
    }
    const v = tokens.slice(i, i + count).map(Number)
    if (v.length < count || v.some((n) => !Number.isFinite(n)))
      return bad('svg-broken', message('problems.svgPath.aPathOfTheDrawing'))
    i += count
    const [ox, oy] = relative ? [x, y] : [0, 0]
    const at = (k: number): [number, number] => [ox + v[k]!, oy + v[k + 1]!]
    const mirrored = (of: string): [number, number] => (of.includes(was) ? [2 * x - cx, 2 * y - cy] : [x, y])
    if (kind === 'M') {
      end()
      to(...at(0))
      // Further pairs are lines.
      command = relative ? 'l' : 'L'
    } else if (kind === 'L') to(...at(0))
    else if (kind === 'H') to(ox + v[0]!, y)
    else if (kind === 'V') to(x, oy + v[0]!)
    else if (kind === 'C') curve([at(0), at(2), at(4)])
    else if (kind === 'S') curve([mirrored('CS'), at(0), at(2)])
    else if (kind === 'Q') curve([at(0), at(2)])
    else curve([mirrored('QT'), at(0)])
    was = kind
  }
  end()
  return good(out)
}
