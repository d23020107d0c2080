import { text } from '../../i18n'
import type { PrinterRecord, ResinRecord } from '../../../contract/stock'

/** A figure of something in stock, as it is typed: shown in its unit, kept in the record's. */
export interface Figure<K extends string = string> {
  key: K
  word: string
  unit: string
  step: number
  min: number
  max: number
  digits: number
  /** what is shown is the record's times this */
  times?: number
}

/** A printer, as its data sheet and a stopwatch have it. */
export const PRINTER_FIGURES: Figure<keyof PrinterRecord>[] = [
  { key: 'pixelsX', word: text('stock.figures.pixelsWidth'), unit: '', step: 1, min: 16, max: 40_000, digits: 0 },
  { key: 'pixelsY', word: text('stock.figures.pixelsDepth'), unit: '', step: 1, min: 16, max: 40_000, digits: 0 },
  {
    key: 'pitchX',
    word: text('stock.figures.pixelWidth'),
    unit: 'µm',
    step: 0.5,
    min: 5.1,
    max: 1000,
    digits: 2,
    times: 1000,
  },
  {
    key: 'pitchY',
    word: text('stock.figures.pixelDepth'),
    unit: 'µm',
    step: 0.5,
    min: 5.1,
    max: 1000,
    digits: 2,
    times: 1000,
  },
  { key: 'height', word: text('stock.figures.printHeightAtMost'), unit: 'mm', step: 5, min: 2, max: 2000, digits: 1 },
  {
    key: 'layerHeight',
    word: text('stock.figures.layerHeight'),
    unit: 'mm',
    step: 0.01,
    min: 0.01,
    max: 0.4,
    digits: 3,
  },
  { key: 'liftTime', word: text('stock.figures.lift'), unit: 's', step: 0.1, min: 0, max: 120, digits: 2 },
  { key: 'retractTime', word: text('stock.figures.return'), unit: 's', step: 0.1, min: 0, max: 120, digits: 2 },
  {
    key: 'restTime',
    word: text('stock.figures.restBeforeExposure'),
    unit: 's',
    step: 0.1,
    min: 0,
    max: 120,
    digits: 2,
  },
  {
    key: 'bottomLayers',
    word: text('stock.figures.numberOfFirstLayers'),
    unit: '',
    step: 1,
    min: 0,
    max: 100,
    digits: 0,
  },
  { key: 'filmPull', word: text('stock.figures.peelFactorOfThe'), unit: '×', step: 0.05, min: 0.1, max: 5, digits: 2 },
]

/** A resin. Its peel pressure is that on a usual film; a printer's own film may pull more or less. */
export const RESIN_FIGURES: Figure<keyof ResinRecord>[] = [
  { key: 'density', word: text('stock.figures.density'), unit: 'g/ml', step: 0.01, min: 0.51, max: 3, digits: 3 },
  {
    key: 'pricePerLitre',
    word: text('stock.figures.pricePerLitre'),
    unit: '',
    step: 1,
    min: 0,
    max: 100_000,
    digits: 2,
  },
  { key: 'exposure', word: text('stock.figures.exposure'), unit: 's', step: 0.1, min: 0.05, max: 600, digits: 2 },
  {
    key: 'bottomExposure',
    word: text('stock.figures.exposureOfFirstLayers'),
    unit: 's',
    step: 1,
    min: 0.05,
    max: 600,
    digits: 1,
  },
  {
    key: 'peelPressure',
    word: text('stock.figures.peelPressureOnA'),
    unit: 'kPa',
    step: 0.5,
    min: 0.1,
    max: 1000,
    digits: 2,
    times: 1e-3,
  },
  {
    key: 'greenStrength',
    word: text('stock.figures.greenStrengthOfA'),
    unit: 'MPa',
    step: 0.1,
    min: 0.1,
    max: 100,
    digits: 2,
    times: 1e-6,
  },
]
