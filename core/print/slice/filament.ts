/** How a filament printer lays a base down. Lengths mm, flow mm³/s. */
export interface FilamentWay {
  /** lines round the outside, and layers of skin above and below */
  shells: number
  line: number
  layerHeight: number
  /** share of the inside that is filled */
  infill: number
  /** what the hot end melts, steadily */
  flow: number
  /** time over that of laying plastic alone: travel, corners, first layers */
  overhead: number
  /** s a layer for lift and wipe */
  layerPause: number
  /** g/cm³ */
  density: number
}
export const filamentDefaults: FilamentWay = {
  shells: 3,
  line: 0.45,
  layerHeight: 0.2,
  infill: 0.15,
  flow: 6,
  overhead: 1.3,
  layerPause: 1.5,
  density: 1.24,
}
export interface FilamentEstimate {
  /** mm³ of plastic: shells, and infill of what they enclose */
  plastic: number
  /** g */
  mass: number
  seconds: number
  layers: number
}

/**
 * A simple estimate of a body printed in filament: shells as a skin of their thickness on all its surface, no thicker than the
 * body has volume for, and infill in the rest. A thin body is all shell.
 *
 * @param body mm³, mm², mm
 */
export function filamentEstimate(
  body: { volume: number; area: number; height: number },
  way: FilamentWay = filamentDefaults,
): FilamentEstimate {
  const thick = way.shells * way.line
  // An inward offset of a convex body loses less than area × thickness; half the volume over area is where a plate is all shell.
  const shell = Math.min(body.volume, body.area * thick * (1 - Math.min(0.5, (thick * body.area) / (6 * body.volume))))
  const plastic = shell + (body.volume - shell) * way.infill
  const layers = Math.ceil(body.height / way.layerHeight - 1e-9)
  return {
    plastic,
    mass: (plastic / 1000) * way.density,
    seconds: (plastic / way.flow) * way.overhead + layers * way.layerPause,
    layers,
  }
}
