import { fixed, scaleBar, svgPage, svgText } from '../../formats/svg'
import { depthMap, seen, type DepthMap } from '../../mesh/depthMap'
import { faceNormals } from '../../mesh/measure'
import { bounds, type Mesh } from '../../mesh/mesh'
import type { Vector3 } from '../../math/vectors'
import { fixed as decimals } from '../../words/format'
import { METRIC, type Manner } from '../../words/manner'
import { message, type Message } from '../../words/message'
import { say } from '../../words/say'

/** A line to be drawn on every view in which it is seen. */
export interface SheetLine {
  /** mm, 3 per point */
  points: Float32Array
  closed: boolean
  colour: string
  /** mm on paper */
  width: number
  dashed: boolean
}
export interface SheetView {
  name: Message
  /** unit, toward the viewer; level */
  toward: Vector3
}
export const FOUR_SIDES: readonly SheetView[] = [
  { name: message('painting.view.front'), toward: [0, -1, 0] },
  { name: message('painting.view.left'), toward: [1, 0, 0] },
  { name: message('painting.view.back'), toward: [0, 1, 0] },
  { name: message('painting.view.right'), toward: [-1, 0, 0] },
]

/** A4 lying, mm */
const PAGE = { width: 297, height: 210, margin: 10, head: 14, foot: 14 }
/** Scales that a ruler goes with. */
const SCALES = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8, 10, 15, 20, 30, 40, 50]

/**
 * Views of a sculpt as a drawing: its outlines, and lines on its skin where they are not hidden, on one page with a bar
 * to prove the scale. SVG in mm.
 *
 * @param key what the lines mean
 */
export function viewSheet(
  mesh: Mesh,
  lines: readonly SheetLine[],
  views: readonly SheetView[],
  title: string,
  key: readonly { colour: string; dashed: boolean; says: Message }[],
  manner: Manner = METRIC,
): { svg: string; scale: number } {
  const { min, max } = bounds(mesh)
  const pitch = Math.max(0.15, Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]) / 1200)
  const drawn = views.map((v) => ({ ...v, ...seenFrom(mesh, lines, v.toward, pitch) }))
  const wide = drawn.reduce((s, d) => s + d.width, 0),
    high = Math.max(...drawn.map((d) => d.height))
  const gap = 6
  const room = {
    width: PAGE.width - 2 * PAGE.margin - gap * (views.length - 1),
    height: PAGE.height - 2 * PAGE.margin - PAGE.head - PAGE.foot,
  }
  const least = Math.max(wide / room.width, high / room.height)
  const scale = SCALES.find((s) => s >= least) ?? least
  const out: string[] = [svgText(PAGE.margin, PAGE.margin + 4, title, 4.2)]
  let x = PAGE.margin + (room.width - wide / scale) / 2
  const foot = PAGE.margin + PAGE.head + room.height
  for (const d of drawn) {
    const place = (a: number, b: number): string =>
      `${fixed(x + (a - d.left) / scale)} ${fixed(foot - (b - d.low) / scale)}`
    for (const s of d.strokes) {
      const path = s.runs.map((r) => `M${r.map(([a, b]) => place(a, b)).join('L')}`).join('')
      if (path)
        out.push(
          `<path d="${path}" fill="none" stroke="${s.colour}" stroke-width="${s.width}" stroke-linejoin="round"${s.dashed ? ' stroke-dasharray="1.4 1"' : ''}/>`,
        )
    }
    out.push(svgText(x, foot + 5, say(d.name, manner)))
    x += d.width / scale + gap
  }
  const base = PAGE.height - PAGE.margin
  const bar = 50 / scale >= 20 ? 50 : 100
  out.push(
    scaleBar(
      PAGE.margin,
      base,
      bar / scale,
      say(message('painting.view.scale', { bar, scale: SCALES.includes(scale) ? scale : decimals(scale, 1) }), manner),
    ),
  )
  let k = PAGE.width / 2 - 40
  for (const item of key) {
    const says = say(item.says, manner)
    out.push(
      `<path d="M${k} ${base - 0.5}h8" stroke="${item.colour}" stroke-width="0.5"${item.dashed ? ' stroke-dasharray="1.4 1"' : ''}/>`,
      svgText(k + 10, base + 0.5, says),
    )
    k += 14 + says.length * 1.7
  }
  return { svg: svgPage(PAGE.width, PAGE.height, out), scale }
}

interface Strokes {
  runs: [number, number][][]
  colour: string
  width: number
  dashed: boolean
}

function seenFrom(
  mesh: Mesh,
  lines: readonly SheetLine[],
  toward: Vector3,
  pitch: number,
): { left: number; low: number; width: number; height: number; strokes: Strokes[] } {
  const map = depthMap(mesh, toward, pitch)
  // Level views: across is to the viewer's right, up is up.
  const across = [-toward[1], toward[0], 0] as const
  const flat = (x: number, y: number, z: number): [number, number] => [across[0] * x + across[1] * y, z]
  const strokes: Strokes[] = [
    { runs: outlines(mesh, toward, map, flat), colour: '#222', width: 0.25, dashed: false },
    ...lines.map(({ points, closed, ...look }) => ({ ...look, runs: visible(points, closed, map, flat) })),
  ]
  const p = mesh.positions
  let left = Infinity,
    right = -Infinity,
    low = Infinity,
    high = -Infinity
  for (let i = 0; i < p.length; i += 3) {
    const [a, b] = flat(p[i]!, p[i + 1]!, p[i + 2]!)
    left = Math.min(left, a)
    right = Math.max(right, a)
    low = Math.min(low, b)
    high = Math.max(high, b)
  }
  return { left, low, width: right - left, height: high - low, strokes }
}

/** Edges between a face that is turned to the viewer and one that is not, where nothing lies before them. */
function outlines(
  mesh: Mesh,
  toward: Vector3,
  map: DepthMap,
  flat: (x: number, y: number, z: number) => [number, number],
): [number, number][][] {
  const { positions: p, triangles: t } = mesh
  const { normals } = faceNormals(mesh)
  const n = p.length / 3
  const facing = new Map<number, boolean>()
  const out: [number, number][][] = []
  for (let f = 0; f < t.length; f += 3) {
    const front = normals[f]! * toward[0] + normals[f + 1]! * toward[1] + normals[f + 2]! * toward[2] > 0
    for (let k = 0; k < 3; k++) {
      const a = t[f + k]!,
        b = t[f + ((k + 1) % 3)]!
      const key = a < b ? a * n + b : b * n + a
      const other = facing.get(key)
      if (other === undefined) {
        facing.set(key, front)
        continue
      }
      if (other === front) continue
      const at = (v: number): [number, number, number] => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!]
      const [x, y, z] = at(a).map((c, i) => (c + at(b)[i]!) / 2) as [number, number, number]
      if (seen(map, x, y, z, 4 * map.pitch) > 0.25) out.push([flat(...at(a)), flat(...at(b))])
    }
  }
  return out
}

function visible(
  points: Float32Array,
  closed: boolean,
  map: DepthMap,
  flat: (x: number, y: number, z: number) => [number, number],
): [number, number][][] {
  const runs: [number, number][][] = []
  let run: [number, number][] = []
  const n = points.length / 3
  for (let k = 0; k < (closed ? n + 1 : n); k++) {
    const i = 3 * (k % n)
    const on = seen(map, points[i]!, points[i + 1]!, points[i + 2]!, 3 * map.pitch) > 0.5
    if (on) run.push(flat(points[i]!, points[i + 1]!, points[i + 2]!))
    if ((!on || k === (closed ? n : n - 1)) && run.length > 0) {
      if (run.length > 1) runs.push(run)
      run = []
    }
  }
  return runs
}
