/** What amounts of materials are counted in. */
export const STOCK_UNITS = ['ml', 'g', 'mm', 'sheets', 'pieces'] as const
export type StockUnit = (typeof STOCK_UNITS)[number]

/** Usual sizes of resin printers, mm and pixels: what one may start with, none of a product. */
export const STARTER_PRINTERS = {
  small: { pixelsX: 3200, pixelsY: 2000, pitch: 0.04, height: 160 },
  medium: { pixelsX: 3840, pixelsY: 2400, pitch: 0.05, height: 200 },
  large: { pixelsX: 4800, pixelsY: 2700, pitch: 0.06, height: 350 },
} as const
export type StarterPrinter = keyof typeof STARTER_PRINTERS
export const STARTER_SIZES = Object.keys(STARTER_PRINTERS) as StarterPrinter[]

/** mm of a printer's plate and its height. */
export const starterSpace = (size: StarterPrinter): [number, number, number] => {
  const { pixelsX, pixelsY, pitch, height } = STARTER_PRINTERS[size]
  return [pixelsX * pitch, pixelsY * pitch, height]
}
