import type { PaintRecord, PrinterRecord, ResinRecord } from '../contract/stock'

/** The made-up workshop "Kielwerk" in the made-up harbour town of Brennhaven. Nothing here exists. */
export const PRINTERS: PrinterRecord[] = [
  { name: 'Gannet (large)', pixelsX: 8520, pixelsY: 5760, pitchX: 0.028, pitchY: 0.028, height: 260, layerHeight: 0.05, liftTime: 3.4, retractTime: 2.6, restTime: 1, bottomLayers: 5 },
  { name: 'Plover (fine)', pixelsX: 7680, pixelsY: 4320, pitchX: 0.0175, pitchY: 0.0175, height: 165, layerHeight: 0.04, liftTime: 2.8, retractTime: 2.2, restTime: 0.8, bottomLayers: 4 },
]
export const RESINS: ResinRecord[] = [
  { name: 'Slate grey, tough', density: 1.12, pricePerLitre: 39, exposure: 2.4, bottomExposure: 26, peelPressure: 12_000, greenStrength: 4.5e6, clear: false },
  { name: 'Glass clear', density: 1.1, pricePerLitre: 52, exposure: 2.9, bottomExposure: 30, peelPressure: 13_500, greenStrength: 3.9e6, clear: true },
]
const p = (name: string, hex: string, opacity: number, kind: PaintRecord['kind'] = 'acrylic', level = 17): PaintRecord => ({ name, hex, opacity, kind, level })
export const PAINTS: PaintRecord[] = [
  p('Chalk', '#f3f1ea', 0.86), p('Soot', '#1b1a1c', 0.95), p('Tide grey', '#7d858a', 0.84), p('Storm slate', '#46525c', 0.88),
  p('Rust red', '#9a3324', 0.78), p('Signal red', '#c02528', 0.62), p('Buoy orange', '#dd6a22', 0.58), p('Lamp yellow', '#e7b416', 0.48),
  p('Oilskin ochre', '#c08a2d', 0.7), p('Kelp green', '#3d5a38', 0.82), p('Bottle green', '#1f4a3c', 0.76), p('Harbour blue', '#274a78', 0.74),
  p('Deep water', '#16284a', 0.82), p('Ice blue', '#a9c6d2', 0.76), p('Plank brown', '#6b4a30', 0.84), p('Tarred oak', '#3a2820', 0.92),
  p('Rope', '#b79b6c', 0.76), p('Sand', '#d6bd8d', 0.74), p('Fair skin', '#e3b195', 0.72), p('Weathered skin', '#b9785a', 0.76),
  p('Cheek', '#b8544a', 0.6), p('Ivory beard', '#d9d2c0', 0.8), p('Heather', '#6d4a68', 0.7), p('Wool navy', '#23304a', 0.86),
  p('Red ink', '#9c1f2b', 0.22, 'ink'), p('Blue ink', '#1d3f86', 0.22, 'ink'), p('Brown wash', '#4a2c18', 0.18, 'wash'), p('Black wash', '#1c1c20', 0.2, 'wash'),
  p('Brass', '#b08d3e', 0.8, 'metallic'), p('Old iron', '#5d5f63', 0.85, 'metallic'), p('Matt varnish', '#ffffff', 0.02, 'varnish', 60), p('Gloss varnish', '#ffffff', 0.02, 'varnish', 30),
]
