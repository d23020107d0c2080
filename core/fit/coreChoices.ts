import { part, silent, type Report } from '../answer'
import { measure } from '../mesh/measure'
import { bounds, reversed, splitFaces, type Mesh } from '../mesh/mesh'
import { sectionArea, Sections } from '../mesh/sections'
import { balance, type Weight } from './balance'
import { wallLoad, type LoadCase, type WallLoad } from './wallLoad'

export interface CoreChoice {
  /** mm³ of printing resin that it is made of, and mm² of skin on which a film stays */
  resin: number
  area: number
  /** mm³ of casting resin */
  casting: number
  /** g of both */
  mass: number
  /** mm over the foot */
  centre: number
  /** degrees it may be tipped on its own foot before it goes over; null when it has none to stand on */
  tip: number | null
  /** MPa of bending where it is worst, and how high over the foot that is, mm */
  stress: number
  height: number
  /** mm², largest section of the body as it stands: what a layer peels */
  section: number
}
export interface CoreChoices {
  solid: CoreChoice
  hollow: CoreChoice
  filled: CoreChoice
  load: WallLoad
}

/** Heights at which the section is measured. */
const LAYERS = 80

/**
 * Solid, hollow, and hollow then cast full, side by side: what each takes, weighs, bears and lets tip.
 *
 * @param hollowed the same body with its cavities: its own faces first, then theirs
 * @param casting g/ml
 */
export function coreChoices(
  mesh: Mesh,
  hollowed: Mesh,
  casting: number,
  load: LoadCase,
  report: Report = silent,
): CoreChoices {
  const cavity = reversed(splitFaces(hollowed, mesh.triangles.length / 3)[1])
  const worst = wallLoad(mesh, load, part(report, 0, 0.6))
  const foot = bounds(mesh).min[2]
  const choice = (
    printed: Mesh,
    cast: Mesh | null,
    bend: { stress: number; height: number },
    section: number,
  ): CoreChoice => {
    const weights: Weight[] = [{ mesh: printed, density: load.density, infill: 1 }]
    if (cast) weights.push({ mesh: cast, density: casting, infill: 1 })
    const stands = balance(weights, 0)
    const parts = weights.map((w) => ({ ...measure(w.mesh), density: w.density }))
    const mass = parts.reduce((s, p) => s + (p.volume / 1000) * p.density, 0)
    return {
      resin: parts[0]!.volume,
      area: parts[0]!.area,
      casting: parts[1]?.volume ?? 0,
      mass,
      centre: parts.reduce((s, p) => s + (p.volume / 1000) * p.density * p.centre[2], 0) / mass - foot,
      tip: stands.ok ? stands.value.weakest.angle : null,
      stress: bend.stress,
      height: bend.height,
      section,
    }
  }
  const [full, ring] = [mesh, hollowed].map((m, k) => largestSection(m, part(report, 0.6 + 0.2 * k, 0.8 + 0.2 * k)))
  return {
    solid: choice(mesh, null, worst.solid, full!),
    hollow: choice(hollowed, null, worst.planned, ring!),
    // A casting that bonds carries like the rest.
    filled: choice(hollowed, cavity, worst.solid, ring!),
    load: worst,
  }
}

function largestSection(mesh: Mesh, report: Report): number {
  const { min, max } = bounds(mesh)
  const cuts = new Sections(mesh)
  let most = 0
  for (let i = 0; i < LAYERS; i++) {
    report(i / LAYERS)
    const count = cuts.at(min[2] + ((i + 0.5) / LAYERS) * (max[2] - min[2]))
    most = Math.max(most, Math.abs(sectionArea(cuts.segments, count)))
  }
  return most
}
