import { bad, good, type Answer } from '../answer'
import { bounds, type Box, type Mesh } from '../mesh/mesh'
import { rayFirst } from '../mesh/ray'
import type { Vector3 } from '../math/vectors'
import { transformed } from '../mesh/transform'
import { treeOf, type Tree } from '../mesh/tree'
import { lettered, type Lettering } from './lettering'
import { loft, roundedRectangle } from './loft'
import { extruded, subtract, unite } from './solid'
import { fixed } from '../words/format'
import { message } from '../words/message'

export interface NameplateOptions extends Lettering {
  style: 'raised' | 'sunk'
  /** mm by which letters stand out of the plate's ground, or lie in it */
  relief: number
  /** degrees from the front, to the right of who looks at it */
  around: number
  /** mm of the plate's middle above the foot; null for where the side is flattest, and nearest to half way up */
  up: number | null
  /** mm; null for as large as the text with its margin */
  width: number | null
  height: number | null
  /** mm that the ground lies under the skin where this is lowest; 0 only flattens a round side */
  recess: number
}
export interface NameplateReport {
  /** mm */
  width: number
  height: number
  /** mm: the deepest that the ground lies under the skin */
  depth: number
  /** mm: thinnest strokes of the letters */
  stroke: number
  /** middle of the ground and the way it looks */
  centre: Vector3
  outward: Vector3
}

/** mm of body that must be left behind the ground. */
const LEAST_BEHIND = 1
/** mm by which letters reach into the body they stand on, so that no skin is left between. */
const OVERLAP = 0.05
const SAMPLES = 13

/** A flat ground let into the side of a body, all round it where `around` says, with letters on it or in it. */
export async function nameplate(
  mesh: Mesh,
  o: NameplateOptions,
): Promise<Answer<{ mesh: Mesh; report: NameplateReport }>> {
  const text = lettered(o)
  if (!text.ok) return text
  const margin = Math.max(0.8, 0.5 * o.letter)
  const width = o.width ?? text.value.width + 2 * margin,
    height = o.height ?? text.value.height + 2 * margin
  if (text.value.width > width || text.value.height > height) {
    const share = Math.min(width / text.value.width, height / text.value.height)
    return bad(
      'text-too-large',
      message('problems.nameplate.theTextIsMmAnd', {
        width: fixed(text.value.width, 1),
        height: fixed(text.value.height, 1),
        width2: fixed(width, 1),
        height2: fixed(height, 1),
        o: fixed(o.letter * share * 0.95, 1),
      }),
    )
  }
  const box = bounds(mesh)
  const a = (o.around * Math.PI) / 180
  const out: Vector3 = [Math.sin(a), -Math.cos(a), 0],
    right: Vector3 = [Math.cos(a), Math.sin(a), 0]
  const tree = treeOf(mesh)
  const tall = box.max[2] - box.min[2]
  const at0 = (up: number): Vector3 => [(box.min[0] + box.max[0]) / 2, (box.min[1] + box.max[1]) / 2, box.min[2] + up]
  const tried = (o.up === null ? heights(tall, height) : [o.up]).map((up) => ({
    middle: at0(up),
    ground: groundUnder(tree, box, at0(up), right, out, width, height, o),
    aside: Math.abs(up - tall / 2),
  }))
  const cost = (t: (typeof tried)[number]): number => (t.ground.ok ? t.ground.value.depth + 0.01 * t.aside : Infinity)
  const { middle, ground } = tried.reduce((a, b) => (cost(b) < cost(a) ? b : a))
  if (!ground.ok) return ground
  const { at, depth, reach } = ground.value
  // Local x along the plate, y up, z outward from the ground.
  const place = (x: number, y: number, z: number): [number, number, number] => [
    middle[0] + right[0] * x + out[0] * (at + z),
    middle[1] + right[1] * x + out[1] * (at + z),
    middle[2] + y,
  ]
  const pocket = loft(
    [0, reach - at + 1].map((h) => ({
      outline: roundedRectangle(width / 2, height / 2, Math.min(1.2, height / 6), 32),
      height: h,
    })),
    place,
  )
  const span = o.style === 'raised' ? [-OVERLAP, o.relief] : [-o.relief, reach - at + 1]
  const letters = await extruded(text.value.contours, span[0]!, span[1]!)
  const set = transformed(
    letters.mesh,
    [right[0], 0, out[0], right[1], 0, out[1], 0, 1, 0],
    place(0, 0, 0) as unknown as Vector3,
  )
  const cleared = depth > 1e-6 ? await subtract(mesh, [pocket]) : good(mesh)
  if (!cleared.ok) return cleared
  const made = o.style === 'raised' ? await unite([cleared.value, set]) : await subtract(cleared.value, [set])
  if (!made.ok) return made
  return good({
    mesh: made.value,
    report: { width, height, depth, stroke: letters.stroke, centre: place(0, 0, 0), outward: out },
  })
}

/** Middles of a plate of that height on a side of that one, half way up first. */
function heights(tall: number, height: number): number[] {
  const room = Math.max(0, tall - height)
  const up = Array.from({ length: 25 }, (_, i) => height / 2 + (room * i) / 24)
  return [tall / 2, ...up]
}

/** How far out the ground lies, so that none of the plate hangs in the air, and how far the skin stands out before it. */
function groundUnder(
  tree: Tree,
  box: Box,
  middle: Vector3,
  right: Vector3,
  out: Vector3,
  width: number,
  height: number,
  o: NameplateOptions,
): Answer<{ at: number; depth: number; reach: number }> {
  const far = Math.hypot(box.max[0] - box.min[0], box.max[1] - box.min[1]) + 10
  let nearest = -Infinity,
    farthest = Infinity
  for (let j = 0; j < SAMPLES; j++)
    for (let i = 0; i < SAMPLES; i++) {
      // A hair inside the rim, so that a plate as high as its base is one.
      const x = (i / (SAMPLES - 1) - 0.5) * width * 0.999,
        z = middle[2] + (j / (SAMPLES - 1) - 0.5) * height * 0.999
      const [px, py] = [0, 1].map((k) => middle[k]! + right[k]! * x + out[k]! * far) as [number, number]
      const hit = rayFirst(tree, px, py, z, -out[0], -out[1], 0)
      if (!hit)
        return bad(
          'plate-hangs-over',
          message('problems.nameplate.aPlateOfMmReaches', {
            width: fixed(width, 1),
            height: fixed(height, 1),
            z: z > middle[2],
            z2: z < middle[2],
          }),
        )
      const skin = far - hit.t
      nearest = Math.max(nearest, skin)
      farthest = Math.min(farthest, skin)
    }
  const at = farthest - o.recess
  const deepest = o.style === 'sunk' ? at - o.relief : at
  let least = Infinity
  for (let j = 0; j < SAMPLES; j++)
    for (let i = 0; i < SAMPLES; i++) {
      const x = (i / (SAMPLES - 1) - 0.5) * width,
        z = middle[2] + (j / (SAMPLES - 1) - 0.5) * height * 0.999
      const hit = rayFirst(
        tree,
        middle[0] + right[0] * x + out[0] * (deepest - 1e-4),
        middle[1] + right[1] * x + out[1] * (deepest - 1e-4),
        z,
        -out[0],
        -out[1],
        0,
      )
      least = Math.min(least, hit?.leaving ? hit.t : 0)
    }
  if (least < LEAST_BEHIND)
    return bad(
      'plate-too-deep',
      message('problems.nameplate.behindThePlateOnlyMm', { least: fixed(least, 1), least_behind: LEAST_BEHIND }),
    )
  return good({ at, depth: nearest - at, reach: nearest })
}
