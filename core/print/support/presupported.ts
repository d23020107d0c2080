import { bounds, type Mesh } from '../../mesh/mesh'
import { sectionRaster } from '../../shape/section'
import { Sections } from '../../mesh/sections'

export interface Presupported {
  /** stems counted in the section where most are */
  stems: number
  /** mm over the lowest point, that section */
  height: number
  /** whether a raft or feet lie flat below them */
  raft: boolean
}

/** A stem's section: mm² at most, and how much of a circle round it it must fill. */
const MAX_AREA = 10,
  ROUND = 0.55
const LEAST_STEMS = 8
const LOOKS = 8
const CELLS = 480

/**
 * Whether a body carries supports already: a bundle of thin, round stems in the sections of its lower part, more of them
 * than of anything else (a sculpt seldom stands on eight needles). Null when not.
 */
export function presupported(mesh: Mesh): Presupported | null {
  const { min, max } = bounds(mesh)
  const tall = max[2] - min[2]
  const cuts = new Sections(mesh)
  let best: { stems: number; height: number } | null = null
  let lowest: { area: number; first: number } | null = null
  for (let i = 0; i < LOOKS; i++) {
    // From just over the plate to a third of the height.
    const h = Math.max(0.25, (tall / 3) * ((i + 0.5) / LOOKS) ** 1.5)
    const raster = sectionRaster(cuts.segments, cuts.at(min[2] + h), CELLS)
    if (!raster) continue
    const { regionOf, regions, cell, solid } = raster
    const cells = new Int32Array(regions)
    let area = 0
    for (let c = 0; c < solid.length; c++) {
      if (!solid[c]) continue
      area++
      cells[regionOf[c]!]!++
    }
    lowest ??= { area: area * cell * cell, first: regions }
    const thin = (r: number): boolean => cells[r]! >= 4 && cells[r]! * cell * cell <= MAX_AREA
    // Where most of what is cut is no stem by its size alone, how round it is need not be looked at.
    if (cells.filter((_, r) => thin(r)).length <= 0.6 * regions) continue
    const deepest = new Float64Array(regions),
      { distance } = raster
    for (let c = 0; c < solid.length; c++) {
      if (solid[c] && distance[c]! > deepest[regionOf[c]!]!) deepest[regionOf[c]!] = distance[c]!
    }
    let stems = 0
    for (let r = 0; r < regions; r++)
      // A round region's largest inner circle fills it.
      if (thin(r) && ((Math.PI * deepest[r]!) / cells[r]! > ROUND || cells[r]! < 16)) stems++
    if (stems > 0.6 * regions && stems > (best?.stems ?? 0)) best = { stems, height: h }
  }
  if (!best || best.stems < LEAST_STEMS) return null
  return { ...best, raft: lowest !== null && lowest.first < best.stems / 2 }
}
