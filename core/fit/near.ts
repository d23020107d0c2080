import type { Box } from '../mesh/mesh'

/** mm within which two parts are looked at as a pair. */
export const JOINT_REACH = 3

/** Whether two boxes come within reach of each other: only then the parts in them may meet. */
export const boxesNear = (a: Box, b: Box, reach = JOINT_REACH): boolean =>
  [0, 1, 2].every((k) => a.min[k]! - reach < b.max[k]! && b.min[k]! - reach < a.max[k]!)
