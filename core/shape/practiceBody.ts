import type { Mesh } from '../mesh/mesh'
import { extractSurface, projectOnto } from '../volume/extract'
import { sampleField } from '../volume/field'
import { box, carve, intersect, limb, sphere, union, type Shape } from '../volume/primitives'
import { FunctionDistance } from '../volume/source'

/** mm */
const SIZE = { width: 96, depth: 44, base: 4 }

/**
 * What one learns to paint on: a plate with five fields. From its left: half a ball for blends, folds of cloth for light
 * and shade, ribs for dry brushing, grooves for washes, and two eyeballs under lids.
 */
function practiceShape(): Shape {
  const plate = box([0, 0, SIZE.base / 2], [SIZE.width / 2, SIZE.depth / 2, SIZE.base / 2], 1.2)
  const top = SIZE.base
  const ball = sphere([-36, 6, top - 1], 10)
  const bead = sphere([-36, -14, top + 1], 4)
  // Folds: rolls that run together, deep between.
  const folds = union(
    1.6,
    ...[-21, -16, -11.5, -8].map((x, i) =>
      limb([x, -16 + i, top - 0.4], [x + 3 - i, 16, top + 0.4 * i], 2.4 - 0.2 * i),
    ),
  )
  // Ribs of 0.4 to 1.6 mm: what a dry brush has to catch.
  const ribs = union(
    0,
    ...Array.from({ length: 9 }, (_, i) =>
      box([1.6 + 1.9 * i - 1, 0, top + 0.3], [0.25 + 0.07 * i, 15, 0.4 + 0.1 * i], 0.15),
    ),
  )
  // Wavy grooves, each wider and deeper than the one before, in a raised field.
  const grooves: Shape = (x, y, z) => {
    let least = Infinity
    for (let k = 0; k < 4; k++)
      least = Math.min(least, Math.hypot(x - 22 - 3 * k - 0.5 * Math.sin(y / 2), z - (top + 2)) - 0.4 - 0.22 * k)
    return least
  }
  const field = carve(0.1, box([26.5, 0, top + 0.8], [6.5, 15, 1.2], 0.4), grooves)
  const eyes = [8, -8].flatMap((y) => {
    const c = [41, y, top] as const
    return [
      sphere(c, 4.2),
      limb([41 - 4.4, y + 2.6, top + 1.2], [41 + 4.4, y + 2.6, top + 1.2], 1.1),
      limb([41 - 4.2, y - 3, top + 0.9], [41 + 4.2, y - 3, top + 0.9], 0.9),
    ]
  })
  // Nothing hangs below the plate.
  return intersect(0, union(0.3, plate, ball, bead, folds, ribs, field, ...eyes), (_x, _y, z) => -z)
}

/** The practice body as one closed solid that lies flat; about 100 × 44 × 13 mm. */
export function practiceBody(voxel = 0.4): Mesh {
  const source = new FunctionDistance(practiceShape(), 1.6)
  const mesh = extractSurface(
    sampleField(
      source,
      {
        min: [-SIZE.width / 2 - 1, -SIZE.depth / 2 - 1, -1],
        max: [SIZE.width / 2 + 1, SIZE.depth / 2 + 1, SIZE.base + 11],
      },
      voxel,
      0,
    ),
  )
  projectOnto(mesh, source, 0, voxel)
  return mesh
}
