import {
  carve,
  ellipsoid,
  limb,
  mirrored,
  sphere,
  strand,
  union,
  within,
  type Shape,
} from '../../core/volume/primitives'

/** A weathered man's head facing −y: about 45 mm from chin to crown, centred near (0, 0, 112). */
export function head(): Shape {
  const mass = union(
    6,
    ellipsoid([0, 3, 121], [17, 20.5, 19]),
    ellipsoid([0, -3.5, 107], [13, 14.5, 17]),
    mirrored(limb([11.5, 1, 101], [4.5, -12.5, 95.5], 4.2, 4)),
    mirrored(ellipsoid([9.2, -12, 108.5], [4.6, 4.2, 4.2])),
    ellipsoid([0, -13.2, 102], [6.6, 5.2, 6.5]),
  )
  const brow = mirrored(
    strand(
      [
        [1.8, -18.2, 118.6],
        [6.5, -17.6, 119.8],
        [11.6, -13.4, 118],
      ],
      [1.9, 2.2, 1.7],
    ),
  )
  const nose = union(
    1.6,
    strand(
      [
        [0, -17.4, 118],
        [0, -20.2, 112.5],
        [0, -22.9, 107.6],
      ],
      [1.5, 1.9, 2.6],
    ),
    mirrored(sphere([2.8, -19.4, 106.9], 1.95)),
  )
  const face = union(2.4, mass, brow, nose)
  const sockets = carve(2.6, face, mirrored(ellipsoid([6.6, -18.8, 113.6], [5, 4.2, 3.5])))
  const nostrils = carve(0.8, sockets, mirrored(ellipsoid([1.7, -21.2, 105], [1, 1.4, 1.3])))
  const eyes = mirrored(carve(0.2, sphere([6.4, -13.1, 113.6], 4.2), ellipsoid([6.2, -17.6, 113.6], [0.75, 0.9, 0.75])))
  const lids = mirrored(
    union(
      0.5,
      strand(
        [
          [2.5, -16.5, 113.2],
          [4.4, -17.5, 115.9],
          [7.6, -17.4, 116.1],
          [10.8, -14.5, 113.4],
        ],
        [0.6, 0.8, 0.85, 0.6],
      ),
      strand(
        [
          [2.5, -16.5, 113.1],
          [4.9, -17, 111.1],
          [7.8, -16.8, 111],
          [10.7, -14.5, 113.2],
        ],
        [0.5, 0.65, 0.65, 0.5],
      ),
    ),
  )
  const lips = union(
    0.3,
    strand(
      [
        [-5, -16.2, 101.1],
        [-1.5, -18.7, 102],
        [0, -18.8, 101.6],
        [1.5, -18.7, 102],
        [5, -16.2, 101.1],
      ],
      [0.5, 1, 0.9, 1, 0.5],
      0.4,
    ),
    strand(
      [
        [-4.4, -16.4, 100.2],
        [0, -18.5, 99.2],
        [4.4, -16.4, 100.2],
      ],
      [0.6, 1.3, 0.6],
      0.6,
    ),
  )
  const ears = mirrored(
    carve(
      0.8,
      union(1, ellipsoid([17.4, 2.5, 111], [2.2, 4.4, 6.6]), ellipsoid([16.4, 1.4, 105.8], [1.7, 2.2, 2.6])),
      ellipsoid([19.4, 1.2, 112], [1.5, 2.4, 4.2]),
    ),
  )
  const furrows = carve(
    0.7,
    union(0.35, nostrils, within([0, -14, 113.6], 12, union(0.35, eyes, lids), 1)),
    mirrored(
      strand(
        [
          [4, -19.2, 106.4],
          [6.8, -17, 102.6],
        ],
        [0.35, 0.45],
      ),
    ),
    strand(
      [
        [-4.5, -18.3, 123.4],
        [0, -18.9, 123.8],
        [4.5, -18.3, 123.4],
      ],
      [0.3, 0.4, 0.3],
    ),
  )
  return within(
    [0, 0, 112],
    30,
    union(0.5, furrows, within([0, -17, 100.5], 6, lips, 1), within([0, 2, 111], 21, ears, 1)),
  )
}
