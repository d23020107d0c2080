import {
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

/** A tern at rest on a mooring post, 60 mm tall: folded wings with layered feathers, forked tail, rope round the post. */
export function tern(): Shape {
  const body = union(
    5,
    ellipsoid([0, -1, 36], [7.4, 11.5, 7.2]),
    ellipsoid([0, -7, 38.5], [6.2, 7, 6.6]),
    limb([0, 4, 36], [0, 15, 37.5], 6, 2.6),
    limb([0, -9, 42], [0, -10.5, 48], 5, 4.4),
  )
  const skull = union(2.2, ellipsoid([0, -11.5, 50.5], [4.6, 5.6, 4.5]), limb([0, -12, 50], [0, -15.5, 49.5], 3.6, 2))
  const beak = union(
    0.5,
    strand(
      [
        [0, -15.5, 50],
        [0, -20.5, 49.4],
        [0, -25.4, 47.8],
      ],
      [1.7, 1.15, 0.4],
    ),
    strand(
      [
        [0, -15.5, 48.7],
        [0, -20, 48.2],
        [0, -24.6, 47.3],
      ],
      [1.4, 0.9, 0.35],
    ),
  )
  const eye = mirrored(carve(0.15, sphere([3.7, -13.4, 51.2], 1.15), sphere([5, -14, 51.5], 0.5)))
  const eyeRing = mirrored((x, y, z) => Math.hypot(Math.hypot(y + 13.4, z - 51.2) - 1.35, x - 3.85) - 0.35)
  const plumage = relief(
    union(2.5, body, skull),
    (x, y, z) => {
      // Breast feathers: overlapping scales that grow toward the tail.
      const s = 1.9,
        row = Math.floor(y / s),
        v = y / s - row
      const a = Math.atan2(x, z - 37) * 7 + (row & 1) * 0.5,
        u = a - Math.floor(a) - 0.5
      const scale = v - 1.6 * u * u
      return y < -9.5
        ? 0.12 * noise(x * 1.2, y * 0.8, z * 1.2)
        : 0.26 * Math.max(0, scale) * Math.min(1, (y + 9.5) / 4) + 0.06 * noise(x, y, z)
    },
    0.35,
  )

  // A wing: a bent shell along the flank, long feathers running back and crossing over the tail.
  const feather = (i: number): Shape => {
    const t = i / 6
    return strand(
      [
        [8.1 - 0.3 * i, -5 + 1.7 * i, 39.2 - 1.5 * (1 - t) + 1.1 * t],
        [7.9 - 0.5 * i, 7 + 2.2 * i, 37 + 1.6 * t],
        [3.4 - 0.45 * i, 17 + 3.4 * i, 38.2 + 1.5 * t],
      ],
      [1.15, 1.45, 0.5],
    )
  }
  const flank = ellipsoid([6, 0.5, 38.6], [2.9, 10.8, 5.6])
  const coverts = relief(
    flank,
    (_x, y, z) => {
      const row = Math.floor((y + z * 0.35) / 2.3),
        v = (y + z * 0.35) / 2.3 - row
      const a = z / 2 + (row & 1) * 0.5,
        u = a - Math.floor(a) - 0.5
      return 0.42 * Math.max(0, v - 1.9 * u * u)
    },
    0.45,
  )
  const wing = mirrored(union(0.5, coverts, union(0.12, ...Array.from({ length: 6 }, (_, i) => feather(i)))))
  const tail = mirrored(
    union(
      0.3,
      strand(
        [
          [1.4, 12, 36],
          [2.6, 22, 35.2],
          [4.2, 31, 33.6],
        ],
        [1.9, 1.4, 0.5],
      ),
      strand(
        [
          [0.6, 12, 36.4],
          [1, 22, 35.8],
          [1.2, 26, 35],
        ],
        [1.9, 1.5, 0.6],
      ),
    ),
  )
  const legs = mirrored(
    union(
      0.4,
      limb([2.6, -1.5, 31], [2.8, -2.6, 24.6], 1.9, 1.05),
      ...[-0.5, 0, 0.5].map((a) =>
        strand(
          [
            [2.8, -2.6, 24.6],
            [2.8 + Math.sin(a) * 4, -2.6 - Math.cos(a) * 4, 24.4],
          ],
          [1, 0.7],
        ),
      ),
      limb([2.8, -2.6, 24.6], [2.9, -0.6, 24.3], 0.9, 0.6),
    ),
  )
  const grain = (x: number, y: number, z: number): number => {
    const a = Math.atan2(y, x)
    return (
      0.3 * noise(Math.cos(a) * 7, Math.sin(a) * 7, z * 0.09) +
      0.18 * Math.sin(a * 23 + 2 * noise(x * 0.3, y * 0.3, z * 0.1))
    )
  }
  const post = relief(
    turned([
      [0, 2.5],
      [8.6, 2.5],
      [8.2, 18],
      [8.6, 21.6],
      [7.9, 23.2],
      [0, 23.8],
    ]),
    (x, y, z) => (z > 23 ? 0.25 * Math.sin(Math.hypot(x - 1, y + 0.6) * 3.4) : grain(x, y, z)),
    0.5,
  )
  const ropes = relief(
    union(
      0.2,
      ...[11, 13.5, 16].map(
        (h): Shape =>
          (x, y, z) =>
            Math.hypot(Math.hypot(x, y) - 8.9, z - h - 0.5 * Math.sin(Math.atan2(y, x))) - 1.3,
      ),
    ),
    (x, y, z) => 0.22 * Math.sin(Math.atan2(y, x) * 26 + z * 2.4),
    0.25,
  )
  const bolt = intersect(0.3, sphere([0, -8.4, 6.6], 1.7), (_x, y) => -y - 9.2)
  const ground = relief(
    turned([
      [0, 0],
      [15, 0],
      [15, 1.6],
      [13.6, 3.1],
      [0, 3.6],
    ]),
    (x, y, z) => (z > 2 ? 0.7 * noise(x * 0.32, y * 0.32, 1) + 0.3 * noise(x, y, 5) : 0),
    1,
  )
  return union(
    0.5,
    within(
      [0, 3, 40],
      34,
      union(
        0.6,
        plumage,
        within([0, -20, 49], 8, beak, 1),
        within([0, -13.4, 51], 6, union(0.1, eye, eyeRing), 1),
        wing,
        tail,
      ),
    ),
    within([0, -3, 27], 10, legs),
    within([0, 0, 12], 18, union(0.4, post, ropes, bolt)),
    within([0, 0, 1], 18, ground),
  )
}
