import type { Printer, Resin } from './printer'
import { layerName, type SliceReport } from './slice'

/** The manifest.json of a layer archive; docs/formats.md describes every field. */
export function manifest(printer: Printer, resin: Resin, s: SliceReport): object {
  return {
    format: 'undercut-layers',
    version: 1,
    printer: {
      name: printer.name,
      pixels: [printer.pixelsX, printer.pixelsY],
      pitch: [printer.pitchX, printer.pitchY],
      height: printer.height,
      ...(printer.compensation ? { compensation: printer.compensation } : {}),
    },
    layerHeight: s.layerHeight,
    layers: s.layers,
    bottomLayers: Math.min(printer.bottomLayers, s.layers),
    exposure: resin.exposure,
    bottomExposure: resin.bottomExposure,
    motion: { lift: printer.liftTime, retract: printer.retractTime, rest: printer.restTime },
    resin: { name: resin.name, density: resin.density, millilitres: round(s.resinMl, 3), cost: round(s.resinCost, 2) },
    seconds: Math.round(s.seconds),
    files: Array.from({ length: s.layers }, (_, i) => ({
      file: layerName(i),
      area: round(s.areas[i]!, 4),
      peel: round(s.peel[i]!, 5),
    })),
    islands: s.islands,
    cups: s.cups,
  }
}
const round = (v: number, digits: number): number => Number(v.toFixed(digits))
