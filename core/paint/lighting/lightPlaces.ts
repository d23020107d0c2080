import { contourLength, contours, type Contour } from '../../mesh/contours'
import { faceNormals } from '../../mesh/measure'
import type { Mesh } from '../../mesh/mesh'
import { FOUR_SIDES, viewSheet } from './viewSheet'
import { vertexNeighbours } from '../../mesh/smooth'
import { METRIC, type Manner } from '../../words/manner'
import { message, type Message } from '../../words/message'

/** Where a painter puts light and shade, from the darkest, and the share of the skin that lies below each border. */
export const ZONES = [
  { id: 'deep', name: message('painting.zone.deep'), upTo: 0.08 },
  { id: 'shade', name: message('painting.zone.shade'), upTo: 0.3 },
  { id: 'base', name: message('painting.zone.base'), upTo: 0.7 },
  { id: 'light', name: message('painting.zone.light'), upTo: 0.94 },
  { id: 'highlight', name: message('painting.zone.highlight'), upTo: 1 },
] as const
export type Zone = (typeof ZONES)[number]['id']

export interface LightPlaces {
  /** number in ZONES per vertex; 255 outside */
  zone: Uint8Array
  /** border above each zone but the last */
  borders: { zone: Zone; lines: Contour[] }[]
  /** mm² by zone */
  areas: number[]
}

/** Of the light at a place, how much comes straight from the lamp; the rest from all round, as far as it lies open. */
const STRAIGHT = 0.75
/** Rounds in which the light is evened out: nobody paints the border of every wrinkle. */
const EVENED = 12
/** mm: borders shorter than this are left out */
const SHORT = 3

/**
 * Where the light of a lamp falls on what is looked at, in five zones by share of its own area, so that a dark cloak has
 * its highlights too.
 *
 * @param straight light from the lamp per vertex, 0 to 1 (spray light with the lamp's own spread)
 * @param open exposure per vertex, 0 to 1
 * @param inside 1 per vertex that is looked at
 */
export function lightPlaces(
  mesh: Mesh,
  straight: ArrayLike<number>,
  open: ArrayLike<number>,
  inside: Uint8Array,
): LightPlaces {
  const n = inside.length,
    { triangles: t } = mesh
  const area = new Float64Array(n)
  const { areas: faces } = faceNormals(mesh)
  for (let i = 0; i < t.length; i++) area[t[i]!]! += faces[Math.floor(i / 3)]! / 3
  let light = Float32Array.from({ length: n }, (_, v) => STRAIGHT * straight[v]! + (1 - STRAIGHT) * open[v]!)
  const { starts, near } = vertexNeighbours(t, n)
  for (let round = 0; round < EVENED; round++) {
    const next = light.slice()
    for (let v = 0; v < n; v++) {
      const from = starts[v]!,
        to = starts[v + 1]!
      if (inside[v] !== 1 || to === from) continue
      let sum = light[v]!,
        count = 1
      for (let k = from; k < to; k++)
        if (inside[near[k]!] === 1) {
          sum += light[near[k]!]!
          count++
        }
      next[v] = sum / count
    }
    light = next
  }
  const order = [...inside.keys()].filter((v) => inside[v] === 1).sort((a, b) => light[a]! - light[b]!)
  const whole = order.reduce((s, v) => s + area[v]!, 0)
  const levels: number[] = []
  let below = 0
  for (const v of order) {
    while (levels.length < ZONES.length - 1 && below >= ZONES[levels.length]!.upTo * whole) levels.push(light[v]!)
    below += area[v]!
  }
  while (levels.length < ZONES.length - 1) levels.push(Infinity)
  const zone = new Uint8Array(n).fill(255),
    areas = ZONES.map(() => 0)
  for (const v of order) {
    const z = levels.filter((l) => light[v]! >= l).length
    zone[v] = z
    areas[z]! += area[v]!
  }
  const whole3 = Uint8Array.from({ length: t.length / 3 }, (_, f) =>
    inside[t[3 * f]!] === 1 && inside[t[3 * f + 1]!] === 1 && inside[t[3 * f + 2]!] === 1 ? 1 : 0,
  )
  const borders = levels.map((level, i) => ({
    zone: ZONES[i]!.id,
    lines: Number.isFinite(level) ? contours(mesh, light, level, whole3).filter((c) => contourLength(c) >= SHORT) : [],
  }))
  return { zone, borders, areas }
}

/** How each border is drawn: of light full, of shade dashed. */
export const BORDER_LOOK: Record<string, { colour: string; dashed: boolean; says: Message }> = {
  deep: { colour: '#3b2a6b', dashed: true, says: message('painting.border.deep') },
  shade: { colour: '#6a63b0', dashed: true, says: message('painting.border.shade') },
  base: { colour: '#c07c00', dashed: false, says: message('painting.border.base') },
  light: { colour: '#b3361f', dashed: false, says: message('painting.border.light') },
}

/** The borders on the sculpt's four sides, to be laid beside it. */
export function placesSheet(mesh: Mesh, places: LightPlaces, title: string, manner: Manner = METRIC): string {
  const lines = places.borders.flatMap(({ zone, lines: list }) =>
    list.map((l) => ({ ...l, ...BORDER_LOOK[zone]!, width: 0.3 })),
  )
  return viewSheet(mesh, lines, FOUR_SIDES, title, Object.values(BORDER_LOOK), manner).svg
}
