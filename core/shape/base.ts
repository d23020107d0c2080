import { bad, good, silent, type Answer, type Report } from '../answer'
import type { Mesh } from '../mesh/mesh'
import { extractSurface, projectOnto } from '../volume/extract'
import { sampleField } from '../volume/field'
import { noise, type Shape } from '../volume/primitives'
import { FunctionDistance } from '../volume/source'
import { ellipse, loft, roundedRectangle, type Outline } from './loft'
import { message } from '../words/message'

export interface BaseOptions {
  outline: 'round' | 'rounded'
  /** mm across the front and from front to back */
  width: number
  depth: number
  height: number
  /** mm; of the rounded outline's corners */
  corner: number
  /** how the side runs: straight with a small bevel, in steps, or turned to a profile */
  side: 'plain' | 'stepped' | 'turned'
  /** number of steps of a stepped plinth */
  steps: number
  /** turned: from the foot up, share of half the width and share of the height */
  profile: readonly (readonly [number, number])[]
  top: 'plain' | 'cobbles' | 'planks' | 'rock'
  /** mm that the top's texture stands out at most */
  relief: number
  /** same number, same stones */
  seed: number
}

const CORNERS = 128
const BEVEL = 0.6

/**
 * A base of the given outline and side, standing on z = 0 with its middle at the origin. Textured tops are meshed from
 * a distance volume at a third of a millimetre or coarser.
 */
export function base(o: BaseOptions, report: Report = silent): Answer<Mesh> {
  const rings = profileOf(o)
  for (let i = 1; i < rings.length; i++)
    if (rings[i]![1] < rings[i - 1]![1]) return bad('profile-falls', message('problems.base.theProfileOfATurned'))
  const body = loft(rings.map(([share, z]) => ({ outline: outlineOf(o, share), height: z })))
  if (o.top === 'plain' || o.relief <= 0) return good(body)
  return good(textured(o, rings, report))
}

/** Share of the outline and height, from the foot up. */
function profileOf({ side, height: h, width, depth, steps, profile }: BaseOptions): [number, number][] {
  const least = Math.min(width, depth) / 2
  const bevel = Math.min(BEVEL, h / 4, least / 4)
  const inset = 1 - bevel / least
  if (side === 'turned' && profile.length >= 2) {
    const points = profile.map(([r, z]): [number, number] => [Math.max(0.02, r), z * h])
    if (points[0]![1] > 0) points.unshift([points[0]![0], 0])
    return points
  }
  if (side === 'stepped') {
    const out: [number, number][] = []
    for (let s = 0; s < steps; s++) {
      const share = 1 - (0.35 * s) / Math.max(1, steps)
      out.push([share, (h * s) / steps], [share, (h * (s + 1)) / steps])
    }
    return out
  }
  return [
    [1, 0],
    [1, h - bevel],
    [inset, h],
  ]
}

function outlineOf(o: BaseOptions, share: number): Outline {
  const a = (o.width / 2) * share,
    b = (o.depth / 2) * share
  return o.outline === 'round' ? ellipse(a, b, CORNERS) : roundedRectangle(a, b, o.corner * share, CORNERS)
}

/** The body under a relief that grows from nothing at the rim of the top. */
function textured(o: BaseOptions, rings: readonly [number, number][], report: Report): Mesh {
  const voxel = Math.max(0.33, Math.max(o.width, o.depth) / 360)
  const relief = RELIEFS[o.top as keyof typeof RELIEFS](o)
  const side = sideDistance(o, rings)
  const shape: Shape = (x, y, z) => {
    const edge = Math.max(side(x, y, Math.min(z, o.height)), -z)
    // Deep below and high above the top its texture cannot matter.
    const over = 0.6 * (z - o.height)
    if (over < edge) return edge
    if (over > 0.6 * o.relief + 0.5) return Math.max(edge, over - 0.6 * o.relief)
    // Only over the top face, fading to the rim, so that the side keeps its line.
    const fade = Math.min(1, Math.max(0, -side(x, y, o.height) / (2 * o.relief)))
    const top = z - o.height - (fade > 0 ? fade * o.relief * relief(x, y) : 0)
    return Math.max(edge, top * 0.6)
  }
  const source = new FunctionDistance(shape, 2.2, 0.02)
  const a = o.width / 2,
    b = o.depth / 2
  const mesh = extractSurface(
    sampleField(source, { min: [-a, -b, 0], max: [a, b, o.height + o.relief] }, voxel, 0, (f) => report(f * 0.8)),
  )
  projectOnto(mesh, source, 0, voxel, (f) => report(0.8 + f * 0.2))
  return mesh
}

/** Distance to the side at height z: that to the outline scaled by the profile there. Exact for straight sides. */
function sideDistance(o: BaseOptions, rings: readonly [number, number][]): Shape {
  const shareAt = (z: number): number => {
    let share = rings[0]![0]
    for (let i = 1; i < rings.length; i++) {
      const [s0, z0] = rings[i - 1]!,
        [s1, z1] = rings[i]!
      if (z <= z0) break
      share = z >= z1 ? s1 : s0 + ((s1 - s0) * (z - z0)) / (z1 - z0 || 1)
    }
    return share
  }
  return (x, y, z) => {
    const share = shareAt(z)
    const a = (o.width / 2) * share,
      b = (o.depth / 2) * share
    if (o.outline === 'round') {
      const k = Math.hypot(x / a, y / b)
      return (k - 1) * Math.min(a, b)
    }
    const r = Math.min(o.corner * share, a, b)
    const dx = Math.abs(x) - a + r,
      dy = Math.abs(y) - b + r
    return Math.hypot(Math.max(dx, 0), Math.max(dy, 0)) + Math.min(Math.max(dx, dy), 0) - r
  }
}

/** Height of the texture over the top, 0 to 1. */
const RELIEFS = {
  cobbles:
    ({ seed }: BaseOptions) =>
    (x: number, y: number): number => {
      // Rounded stones of 5 mm: distance to the border between the nearest two of jittered lattice points.
      const s = 5
      let first = Infinity,
        second = Infinity
      const i = Math.floor(x / s),
        j = Math.floor(y / s)
      for (let dj = -1; dj <= 1; dj++)
        for (let di = -1; di <= 1; di++) {
          const u = i + di,
            v = j + dj
          const px = (u + 0.5 + (v & 1 ? 0.25 : -0.25) + 0.28 * noise(u * 3.7, v * 5.3, seed + 0.5)) * s,
            py = (v + 0.5 + 0.28 * noise(u * 4.1, v * 2.9, seed + 9.5)) * s
          const d = Math.hypot(x - px, y - py)
          if (d < first) {
            second = first
            first = d
          } else second = Math.min(second, d)
        }
      const gap = Math.min(1, (second - first) / 2.2)
      return gap * (2 - gap) * (0.85 + 0.15 * noise(x, y, seed))
    },
  planks:
    ({ seed }: BaseOptions) =>
    (x: number, y: number): number => {
      const w = 8
      const row = Math.floor(x / w)
      const inRow = x / w - row
      const gap = Math.min(1, (Math.min(inRow, 1 - inRow) * w) / 0.8)
      const grain = 0.12 * noise(x * 1.6, y * 0.09 + row * 7, seed) + 0.06 * noise(x * 4, y * 0.2, seed + 3)
      return gap * (0.75 + 0.12 * noise(row * 3.1, 0, seed + 5) + grain)
    },
  rock:
    ({ seed }: BaseOptions) =>
    (x: number, y: number): number => {
      let h = 0
      for (const [size, share] of [
        [22, 0.5],
        [9, 0.28],
        [3.5, 0.14],
        [1.6, 0.08],
      ] as const)
        h += share * (1 - Math.abs(noise(x / size, y / size, seed + size)))
      return h
    },
} satisfies Record<string, (o: BaseOptions) => (x: number, y: number) => number>
