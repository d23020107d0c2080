/** Discs as they are sold: diameter and thickness in mm, and N by which a pair in full contact holds, sintered NdFeB N42. */
const DISCS = [
  { diameter: 3, thickness: 2, pull: 2.5 },
  { diameter: 4, thickness: 3, pull: 5.5 },
  { diameter: 5, thickness: 3, pull: 8 },
  { diameter: 6, thickness: 3, pull: 11 },
  { diameter: 8, thickness: 3, pull: 17 },
  { diameter: 10, thickness: 3, pull: 23 },
  { diameter: 10, thickness: 5, pull: 36 },
  { diameter: 15, thickness: 5, pull: 60 },
] as const
/** Paint and the pockets' floors between two magnets take about this share of the pull. */
const LOST = 0.5
/** A joint that is taken apart by hand must hold its own weight with this to spare. */
const SAFETY = 2

export interface MagnetAdvice {
  diameter: number
  thickness: number
  /** N that the joint asks of it */
  asked: number
  /** false when the largest disc is too weak: pins instead */
  enough: boolean
}

/**
 * A pair of magnets in the middle of a joint against what bends it open: it opens about its rim, so the pull acts at half
 * its width.
 *
 * @param moment N·mm, by weight alone
 * @param across mm, width of the joint
 */
export function magnetFor(moment: number, across: number): MagnetAdvice {
  const asked = (SAFETY * moment) / Math.max(0.5, across / 2)
  const disc = DISCS.find((d) => d.pull * (1 - LOST) >= asked && d.diameter <= across * 0.7)
  const d = disc ?? DISCS.at(-1)!
  return { diameter: d.diameter, thickness: d.thickness, asked, enough: disc !== undefined }
}
