import {
  below,
  box,
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

/**
 * The lantern keeper: a figure 170 mm tall in a long oilskin coat and sou'wester, lantern raised in the left
 * hand, a coil of rope in the right, on a cobbled round base.
 */
export function lanternKeeper(): Shape {
  // The head is the workshop's own, at a statue's size: about one seventh and a half of the stature.
  const k = 0.5
  const h = head()
  const placedHead: Shape = (x, y, z) => {
    const c = Math.cos(0.35),
      s = Math.sin(0.35)
    const px = x,
      py = y + 1.5,
      pz = z - 150
    return k * h((px * c + py * s) / k, (-px * s + py * c) / k, pz / k + 112)
  }
  const beard = relief(
    union(1.5, ellipsoid([1.6, -6.2, 140.5], [4.6, 4.4, 5.6]), ellipsoid([1.3, -4.4, 144.5], [5.8, 4.4, 4.5])),
    (x, y, z) => 0.28 * Math.sin(Math.atan2(x - 1.5, -(y + 1)) * 16 + 1.2 * Math.sin(z * 0.8)),
    0.3,
  )
  const hat = union(
    0.8,
    ellipsoid([0, -0.6, 156], [9.6, 11.2, 8.4]),
    relief(
      (x, y, z) => {
        // Brim: a drooping disc, longer behind.
        const r = Math.hypot(x, (y - 2.4) * 0.86),
          droop = 155 - 0.16 * r - 0.004 * r * r - (y > 0 ? 0.11 * y : 0)
        return Math.max(Math.abs(z - droop) - 0.75, r - 14.2) * 0.85
      },
      (x, y) => 0.35 * noise(x * 0.15, y * 0.15, 3),
      0.4,
    ),
  )
  const seam = mirrored(
    strand(
      [
        [0, -11.6, 156],
        [0, -8, 162.6],
        [0, 0, 164.9],
        [0, 7, 162.6],
      ],
      [0.35, 0.35, 0.35, 0.35],
    ),
  )

  // Coat: shoulders to hem, the skirt widening and swinging back to the right.
  const skirtFold = (x: number, y: number, z: number): number => {
    const a = Math.atan2(x - 1, y),
      depth = Math.max(0, Math.min(1, (96 - z) / 60))
    return (
      depth *
        (1.5 * Math.sin(a * 7 + 0.04 * z + 0.8 * noise(x * 0.05, y * 0.05, z * 0.03)) +
          0.5 * Math.sin(a * 15 - 0.03 * z)) +
      0.5 * noise(x * 0.12, y * 0.12, z * 0.08)
    )
  }
  const skirt = intersect(
    1.5,
    union(6, limb([0, 1, 92], [1.5, 3, 34], 13, 23)),
    below([0, 0, 33], [-0.06, 0.04, -0.998]),
  )
  const torso = union(
    6,
    ellipsoid([0, 1, 122], [16.5, 10.5, 17]),
    ellipsoid([0, 1.5, 104], [14, 10.5, 16]),
    limb([-15, 1.5, 129], [15, 1.5, 131.5], 6.6),
  )
  const cloth = relief(union(5, torso, skirt), skirtFold, 2)
  const hollowHem = carve(1, cloth, limb([0, 2, 48], [1.5, 4, 24], 9, 18))
  const opening = carve(
    0.8,
    hollowHem,
    (x, y, z) =>
      Math.max(Math.abs(x - 1.5 - (80 - z) * 0.035) - 0.7 - Math.max(0, 78 - z) * 0.075, y + 3, z - 84) * 0.9,
  )
  const cape = relief(
    intersect(
      1,
      union(4, ellipsoid([0, 2, 124], [22.5, 14.5, 19]), limb([-14, 2, 128], [14, 2, 130], 9)),
      below([0, 0, 116.5], [0, 0.12, -0.99]),
    ),
    (x, y, z) =>
      0.9 * Math.sin(Math.atan2(x, y) * 9 + z * 0.05) * Math.max(0, (131 - z) / 15) +
      0.35 * noise(x * 0.14, y * 0.14, z * 0.14),
    1.3,
  )
  const belt = (x: number, y: number, z: number): number =>
    Math.max(Math.abs(torso(x, y, z) - 0.5) - 1.1, Math.abs(z - 97) - 2.3) * 0.9
  const buckle = carve(0.3, box([1, -9.9, 97], [3.4, 1.1, 3.1], 0.7), box([1, -10.8, 97], [2.1, 1, 1.8], 0.3))
  const buttons = [88, 105.5, 112].map((z) => ellipsoid([4.6, -10.2 - (z > 100 ? 0.8 : 0), z], [1.5, 1, 1.5]))
  const collar = relief(
    (x, y, z) => {
      const r = Math.hypot(x, (y - 0.8) * 0.95),
        lean = 8.8 + (z - 138) * 0.25
      return Math.max(Math.abs(r - lean) - 1.1, Math.abs(z - 138.5 - 0.1 * y) - 4.2, -y - 7 + 0.4 * Math.abs(x)) * 0.9
    },
    (x, y, z) => 0.3 * noise(x * 0.3, y * 0.3, z * 0.3),
    0.3,
  )

  const sleeve = (points: [number, number, number][], radii: number[], phase: number): Shape =>
    relief(
      strand(points, radii, 2),
      (x, y, z) =>
        0.6 * Math.sin(0.9 * (z + 0.6 * x) + phase + 1.5 * noise(x * 0.15, y * 0.15, z * 0.15)) * 0.7 +
        0.3 * noise(x * 0.3, y * 0.3, z * 0.3),
      0.9,
    )
  // Left arm (at +x) holds the lantern up; right arm hangs with the rope.
  const left = sleeve(
    [
      [17, 1, 130],
      [27, -4, 117],
      [31, -17, 127],
    ],
    [6.4, 5.8, 5.6],
    0,
  )
  const right = sleeve(
    [
      [-17, 1, 129],
      [-24.5, 2, 109],
      [-23, -7, 93],
    ],
    [6.4, 5.8, 5.4],
    2,
  )
  const cuffs = union(
    0.4,
    limb([30.4, -15, 125.6], [31.2, -17.8, 127.8], 6.1),
    limb([-23.2, -6, 94.5], [-22.9, -7.8, 91.5], 6),
  )
  const hand = (c: [number, number, number], dir: number): Shape =>
    union(
      0.9,
      ellipsoid(c, [3.4, 3.2, 3.6]),
      ...[-1.8, -0.6, 0.6, 1.8].map((o) =>
        strand(
          [
            [c[0] + dir * 2.2, c[1] - 1.4, c[2] + o * 1.35],
            [c[0] + dir * 0.4, c[1] - 4.1, c[2] + o * 1.25],
            [c[0] - dir * 2, c[1] - 2.7, c[2] + o * 1.2],
          ],
          [1.1, 1.05, 0.95],
          0.3,
        ),
      ),
      strand(
        [
          [c[0] - dir * 1.4, c[1] - 0.6, c[2] + 2.6],
          [c[0] - dir * 2.6, c[1] - 2.9, c[2] + 2.2],
        ],
        [1.2, 1],
      ),
    )
  const leftHand = hand([31.6, -20.4, 129.6], 1),
    rightHand = hand([-22.8, -9.4, 88.4], -1)

  const L = [31.6, -24.2] as const
  const lantern = union(
    0.5,
    within([L[0], L[1], 131], 6, (x, y, z) => Math.hypot(Math.hypot(x - L[0], z - 131.5) - 4.2, y - L[1]) - 0.7),
    turned(
      [
        [0, 127],
        [1.6, 127],
        [2, 125.6],
        [5, 123.4],
        [6.8, 121.8],
        [6.8, 120.8],
        [5.2, 120.6],
        [5.2, 105.4],
        [6.8, 105.2],
        [6.8, 103],
        [5.6, 101.6],
        [0, 101.6],
      ],
      L[0],
      L[1],
    ),
  )
  const panes = Array.from({ length: 6 }, (_, i) => {
    const a = (i * Math.PI) / 3 + 0.3
    return ellipsoid([L[0] + Math.cos(a) * 5.6, L[1] + Math.sin(a) * 5.6, 113], [2, 2, 6.2])
  })
  const lamp = union(0.3, carve(0.5, lantern, ...panes), ellipsoid([L[0], L[1], 111.4], [1.7, 1.7, 4.4]))
  const ropeRing = (cz: number, r: number, lean: number): Shape =>
    relief(
      (x, y, z) => {
        const px = x + 23.4,
          py = y + 11 + lean * (z - cz),
          pz = z - cz
        return (Math.hypot(Math.hypot(px, pz * 0.78) - r, py) - 1.15) * 0.8
      },
      (x, y, z) => 0.22 * Math.sin(Math.atan2(z - cz, x + 23.4) * 40 + 3 * (y + 11)),
      0.25,
    )
  const rope = union(0.2, ropeRing(80, 9.4, 0.12), ropeRing(79.4, 10, -0.1), ropeRing(80.5, 8.8, 0))

  const boots = union(
    0.6,
    relief(
      union(2.5, limb([-8, 0, 44], [-9.5, 0, 14], 6.4, 5.4), limb([-9.5, -0.5, 11.5], [-12, -12, 10.2], 4.9, 4.3)),
      (x, y, z) => 0.3 * noise(x * 0.3, y * 0.3, z * 0.4),
      0.4,
    ),
    relief(
      union(2.5, limb([9, 2, 44], [10.5, 6, 14], 6.4, 5.4), limb([10.5, 5.5, 11.5], [14.5, -5.5, 10.2], 4.9, 4.3)),
      (x, y, z) => 0.3 * noise(x * 0.3, y * 0.3, z * 0.4),
      0.4,
    ),
    intersect(
      0.4,
      union(1, limb([-9.4, 0, 8.5], [-12.2, -12.4, 8.5], 5.4, 4.8), limb([10.4, 6, 8.5], [14.7, -5.9, 8.5], 5.4, 4.8)),
      box([0, 0, 7.6], [40, 40, 1.5]),
    ),
  )
  const base = relief(
    turned([
      [0, 0],
      [34, 0],
      [34, 3.2],
      [32.6, 4.4],
      [32, 6.6],
      [0, 6.6],
    ]),
    (x, y, z) => {
      if (z < 5.4) return 0
      // Cobbles in rings: rounded stones parted by joints.
      const r = Math.hypot(x, y),
        ring = Math.floor(r / 6.4),
        a = Math.atan2(y, x) + ring * 0.37
      const stones = Math.max(4, Math.round((2 * Math.PI * (ring + 0.5) * 6.4) / 8))
      const u = (r / 6.4 - ring - 0.5) * 2,
        v = (((((a / (2 * Math.PI)) * stones) % 1) + 1) % 1) * 2 - 1
      return 0.9 * (1 - Math.max(u * u * u * u, v * v * v * v)) - 0.5 + 0.2 * noise(x * 0.5, y * 0.5, ring)
    },
    1,
  )
  return union(
    0.8,
    within(
      [0, 0, 150],
      20,
      union(0.5, placedHead, within([1.5, -5, 142], 9, beard, 1), within([0, 0, 157], 20, union(0.3, hat, seam))),
    ),
    within([0, 2, 84], 62, union(0.9, opening, cape, belt, buckle, ...buttons, collar)),
    within([0, -6, 112], 46, union(0.8, left, right, cuffs)),
    within([31.6, -20, 129], 9, leftHand),
    within([-22.8, -9.4, 88], 9, rightHand),
    within([31.6, -24.2, 117], 19, lamp),
    within([-23, -11, 80], 14, rope),
    within([0, 0, 26], 30, boots),
    within([0, 0, 3], 36, base),
    within([0, 0, 140], 8, sphere([0, 0.5, 141], 6)),
  )
}
