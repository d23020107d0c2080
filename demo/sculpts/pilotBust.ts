import {
  below,
  carve,
  ellipsoid,
  intersect,
  limb,
  mirrored,
  noise,
  relief,
  sphere,
  strand,
  turned,
  union,
  within,
  type Shape,
} from '../../core/volume/primitives'
import { head } from './head'

/** What the bust is put together from; also what a painter would keep apart. */
export interface PilotParts {
  skin: Shape
  hair: Shape
  cap: Shape
  coat: Shape
  socle: Shape
}

/** Bust of the invented harbour pilot of Brennhaven: knit cap, beard, heavy coat with a turned-up collar, socle. */
export function pilotBust({ skin, hair, cap, coat, socle }: PilotParts = pilotParts()): Shape {
  return union(1.2, union(0.8, skin, hair, cap), coat, socle)
}

export function pilotParts(): PilotParts {
  const beardMass = union(
    3.5,
    ellipsoid([0, -11, 92.5], [10.5, 8.6, 11]),
    mirrored(
      strand(
        [
          [14.2, -2.5, 107],
          [12.6, -7, 99],
          [7, -12, 92],
        ],
        [3, 4.2, 5],
      ),
    ),
  )
  const mouthGap = carve(1.6, beardMass, ellipsoid([0, -19.5, 100.6], [5.4, 4.5, 2.2]))
  // Locks: ridges that run down the beard and wave with height.
  const beard = relief(
    mouthGap,
    (x, y, z) => {
      const a = Math.atan2(x, -(y + 4)) * 9 + 1.1 * Math.sin(z * 0.42) + 1.6 * noise(x * 0.22, y * 0.22, z * 0.1)
      return 0.55 * Math.sin(a * 2) + 0.25 * Math.sin(a * 5.3 + z * 0.5)
    },
    0.8,
  )
  const moustache = relief(
    mirrored(
      strand(
        [
          [0.5, -20.4, 104.2],
          [3.6, -19.4, 103.4],
          [8.2, -15.4, 99.6],
        ],
        [1.5, 1.9, 0.9],
        1,
      ),
    ),
    (x, _y, z) => 0.28 * Math.sin(2.4 * (z + 0.9 * Math.abs(x))),
    0.3,
  )

  const capMass = intersect(1.5, ellipsoid([0, 3.6, 124], [19.4, 22.4, 19.5]), below([0, 0, 120.5], [0, 0.18, -0.98]))
  const ribs = (x: number, y: number, z: number): number => {
    const a = Math.atan2(x, y - 3.6)
    const fold = Math.max(0, (z - 132) / 12)
    return (0.34 - 0.1 * fold) * Math.cos(a * 36) + 0.5 * noise(x * 0.16, y * 0.16, z * 0.16)
  }
  const cap = union(
    1.2,
    relief(capMass, ribs, 0.9),
    relief(
      (x, y, z) => {
        // Rolled brim: an elliptic ring, tilted like the cap's edge.
        const r = Math.hypot(x / 19.2, (y - 3.2) / 22) - 1,
          h = z - 123 - 0.18 * y
        return Math.hypot(r * 20, h * 0.62) - 2.5
      },
      ribs,
      0.9,
    ),
  )

  const neck = limb([0, 2, 100], [0, 4, 78], 9.6, 11)
  const shoulders = union(
    9,
    ellipsoid([0, 4, 65], [33, 15.5, 13.5]),
    ellipsoid([0, -1, 55], [25, 17.5, 20]),
    mirrored(ellipsoid([26, 4, 58], [10, 11.5, 15])),
    mirrored(limb([8, 5, 80], [25, 4.5, 68], 6.5, 8)),
  )
  const folds = (x: number, y: number, z: number): number =>
    0.75 *
      Math.sin(0.32 * Math.abs(x) + 0.17 * z + 2.2 * noise(x * 0.06, y * 0.06, z * 0.05)) *
      Math.min(1, Math.abs(x) / 14) +
    0.45 * noise(x * 0.13, y * 0.13, z * 0.09)
  const coat = relief(shoulders, folds, 1.3)
  const collarRing = (x: number, y: number, z: number): number => {
    const r = Math.hypot(x, (y - 3.2) * 0.95),
      lean = 15.2 + (z - 80) * 0.2 + 0.5 * Math.sin(Math.atan2(x, y) * 3)
    return Math.max(Math.abs(r - lean) - 1.5, Math.abs(z - 80.5 - 0.1 * y) - 8.5) * 0.9
  }
  const collar = carve(1.2, collarRing, (x, y, z) => Math.max(Math.abs(x) - 3.2 - Math.max(0, z - 72) * 0.34, y + 6))
  const lapels = mirrored(
    carve(
      0.6,
      union(1, (x, y, z) => {
        const edge = 4 + (82 - z) * 0.42
        return (
          Math.max(
            Math.abs(shoulders(x, y, z) - 0.4) - 1.1,
            x - edge - 4.5,
            3.2 - x - (z - 60) * 0.06,
            z - 79,
            54 - z,
            y,
          ) * 0.8
        )
      }),
      strand(
        [
          [16, -14, 70],
          [9.5, -18, 68.5],
        ],
        [0.7, 0.5],
      ),
    ),
  )
  const placket = (x: number, y: number, z: number): number =>
    Math.max(Math.abs(shoulders(x, y, z) - 0.2) - 0.8, Math.abs(x - 1.2) - 2.2, z - 62, y) * 0.8
  const buttons = [
    [9.5, 50],
    [-7, 50],
  ].map(([x, z]) => {
    const y = -17.4
    return carve(0.3, ellipsoid([x!, y, z!], [2.1, 1.3, 2.1]), ellipsoid([x!, y - 1.9, z!], [1.3, 1.1, 1.3]))
  })
  const scarf = relief(
    union(
      2,
      strand(
        [
          [-9, -6, 84],
          [-4, -11.5, 80],
          [3, -12.5, 78.5],
          [10, -6, 83],
        ],
        [3.2, 3.5, 3.4, 3],
        2,
      ),
      strand(
        [
          [1, -13, 79],
          [2.8, -16.5, 71],
          [1.8, -17.6, 63],
        ],
        [2.8, 2.9, 3.3],
        2,
      ),
    ),
    (x, y, z) => 0.32 * Math.sin(2.1 * (x * 0.8 + z * 0.25)) + 0.25 * noise(x * 0.4, y * 0.4, z * 0.4),
    0.6,
  )

  // The body ends in a curve, as busts do, and stands on the socle by a short waist.
  const torso = intersect(2.2, union(1.1, coat, collar, lapels, placket, ...buttons), (x, y, z) => {
    const bowl = Math.hypot(x / 33, (y - 3) / 24)
    return (46 - 10 * Math.max(0, 1 - bowl * bowl * 0.9) + 4 * Math.max(0, bowl - 1) - z) * 0.8
  })
  const socle = turned([
    [0, 0],
    [31, 0],
    [31, 3.4],
    [29.6, 4.2],
    [28.6, 5.6],
    [28.8, 7],
    [27.4, 8.2],
    [23, 9.6],
    [18.6, 12.6],
    [16.6, 17],
    [16.2, 21],
    [17.4, 24.6],
    [20.2, 27],
    [21.6, 27.4],
    [22, 28.6],
    [21.6, 29.8],
    [19.4, 30.4],
    [18.4, 32],
    [15, 34.4],
    [12.4, 38],
    [12, 44],
    [0, 44],
  ])
  // Hair below the cap: a shell over the back of the skull, combed down in locks.
  const hair = relief(
    intersect(
      2,
      union(3, ellipsoid([0, 4.6, 116.5], [17.6, 20.4, 18]), ellipsoid([0, 12, 104], [12.5, 8.5, 9])),
      below([0, 4, 106], [0, -0.82, 0.1]),
    ),
    (x, y, z) => {
      const a = Math.atan2(x, y - 2) * 13 + 0.8 * Math.sin(z * 0.5) + 1.5 * noise(x * 0.2, y * 0.2, z * 0.12)
      return 0.5 * Math.sin(a * 1.5) + 0.22 * Math.sin(a * 4.1)
    },
    0.8,
  )
  return {
    skin: union(0.8, head(), within([0, 3, 89], 18, neck)),
    hair: union(
      0.8,
      within([0, -19, 102], 11, moustache),
      within([0, -8, 96], 24, beard),
      within([0, 8, 112], 26, hair),
    ),
    cap: within([0, 4, 128], 27, union(0.8, cap)),
    coat: union(1.4, within([0, 2, 66], 42, torso), within([0, -11, 74], 19, scarf)),
    socle: within([0, 0, 22], 46, union(1.5, socle, sphere([0, 2, 42], 13))),
  }
}
