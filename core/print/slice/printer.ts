import type { Compensation } from './compensation'

/** A resin printer as the workshop owns it. Lengths mm, times s. */
export interface Printer {
  name: string
  pixelsX: number
  pixelsY: number
  /** mm per pixel; panels need not have square pixels */
  pitchX: number
  pitchY: number
  /** build height, mm */
  height: number
  layerHeight: number
  /** how long the lift, the return and the rest before light take, s per layer */
  liftTime: number
  retractTime: number
  restTime: number
  /** the first layers, exposed longer so that they hold to the plate */
  bottomLayers: number
  /** how hard its film pulls over what the resin's figure says, 1 when not given: slick films pull less, worn ones more */
  filmPull?: number
  /** what it does to what is drawn; none when it was never calibrated */
  compensation?: Compensation
}

/** A resin as it stands on the shelf. */
export interface Resin {
  name: string
  /** g/ml */
  density: number
  /** money per litre */
  pricePerLitre: number
  exposure: number
  bottomExposure: number
  /** separation pressure of resin and film, Pa (methods.md 5: 12 kPa) */
  peelPressure: number
  /** tensile strength of a green, necked tip, Pa (methods.md 5: 15 MPa × 0.3) */
  greenStrength: number
  clear: boolean
}

/** Separation pressure of that resin on that printer's film, Pa. */
export const peelOn = (p: Pick<Printer, 'filmPull'>, r: Pick<Resin, 'peelPressure'>): number =>
  r.peelPressure * (p.filmPull ?? 1)

export const plateSize = (p: Printer): [number, number] => [p.pixelsX * p.pitchX, p.pixelsY * p.pitchY]

/** Film of resin that stays on the surface, ml per mm² (0.1 ml/100 cm²), and loss in the vat, ml (methods.md 6). */
export const FILM_ML_PER_MM2 = 0.1 / 10_000
export const VAT_LOSS_ML = 2

/** Seconds for a print of that many layers. */
export function printSeconds(printer: Printer, resin: Resin, layers: number): number {
  const bottom = Math.min(printer.bottomLayers, layers)
  return (
    layers * (printer.liftTime + printer.retractTime + printer.restTime) +
    bottom * resin.bottomExposure +
    (layers - bottom) * resin.exposure
  )
}

/** Resin used, ml: solid volume and film on the surface, plus what stays in the vat. */
export const resinUse = (volumeMm3: number, areaMm2: number): number =>
  Math.max(0, volumeMm3) / 1000 + areaMm2 * FILM_ML_PER_MM2 + VAT_LOSS_ML
