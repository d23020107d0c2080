import { GREEN_STRENGTH, PEEL_PRESSURE } from '../../defaults/print'
import { STARTER_PRINTERS, type StarterPrinter } from '../../defaults/stock'
import { message, type Message } from '../../words/message'
import { supply } from './supplies'

type Finish = 'matt' | 'metal'
/** Colour where it hides, contrast ratio of one brushed coat. */
const colour = (key: ColourKey, hex: string, opacity: number, finish: Finish = 'matt') => ({
  name: message(`names.starter.colours.${key}`),
  hex,
  opacity,
  kind: finish === 'metal' ? ('metallic' as const) : ('acrylic' as const),
  finish,
})
type ColourKey =
  | ('white' | 'ivory' | 'lightGrey' | 'grey' | 'darkGrey' | 'black' | 'lemon' | 'yellow' | 'orange' | 'red')
  | ('darkRed' | 'pink' | 'purple' | 'lightBlue' | 'blue' | 'darkBlue' | 'turquoise' | 'lightGreen' | 'green')
  | ('olive' | 'ochre' | 'brown' | 'darkBrown' | 'silver')
const PAINTS = [
  colour('white', '#f4f4f2', 0.84),
  colour('ivory', '#ece3c8', 0.78),
  colour('lightGrey', '#b9bcbd', 0.82),
  colour('grey', '#808587', 0.85),
  colour('darkGrey', '#4a4e51', 0.9),
  colour('black', '#1a1a1b', 0.95),
  colour('lemon', '#f0de3c', 0.42),
  colour('yellow', '#eeb21f', 0.48),
  colour('orange', '#de6c1f', 0.56),
  colour('red', '#bd2426', 0.62),
  colour('darkRed', '#6e1b20', 0.8),
  colour('pink', '#dd8fa0', 0.66),
  colour('purple', '#5c2f6e', 0.72),
  colour('lightBlue', '#7fb2d2', 0.7),
  colour('blue', '#1f5fa8', 0.7),
  colour('darkBlue', '#1c2c4f', 0.88),
  colour('turquoise', '#1c8a8a', 0.66),
  colour('lightGreen', '#8fb955', 0.6),
  colour('green', '#2b6f3a', 0.74),
  colour('olive', '#5a5a33', 0.86),
  colour('ochre', '#b98a45', 0.78),
  colour('brown', '#6b4229', 0.86),
  colour('darkBrown', '#3a281f', 0.92),
  colour('silver', '#a9adb1', 0.9, 'metal'),
] as const

/** What it serves as, its name being that of the supply, and how much a usual pack holds. */
const MATERIALS = [
  { serves: 'primer:grey', amount: 400 },
  { serves: 'primer:white', amount: 400 },
  { serves: 'primer:black', amount: 400 },
  { serves: 'primer:filler', amount: 400 },
  { serves: 'varnish:matt', amount: 60 },
  { serves: 'varnish:satin', amount: 60 },
  { serves: 'varnish:gloss', amount: 60 },
  { serves: 'filler:uvPutty', amount: 20 },
  { serves: 'filler:solvent', amount: 20 },
  { serves: 'grit:320', amount: 10 },
  { serves: 'grit:400', amount: 10 },
  { serves: 'grit:600', amount: 10 },
  { serves: 'grit:1000', amount: 10 },
  { serves: 'wire:1', amount: 1000 },
  { serves: 'wire:2', amount: 1000 },
] as const

interface StarterItem {
  kind: 'printer' | 'resin' | 'paint' | 'material'
  name: Message
  /** the fields of the stock record besides its name */
  data: Readonly<Record<string, unknown>>
}
/**
 * What a workshop may start with, so that sizes, times and costs can be estimated on the first day: usual sizes of printers,
 * a usual resin, basic colours and the usual materials. Every figure is a rule of thumb, marked as such until somebody sets
 * his own; none is of a product.
 */
export function starterStock(size: StarterPrinter): StarterItem[] {
  const { pitch, ...screen } = STARTER_PRINTERS[size]
  const starting = true
  return [
    {
      kind: 'printer',
      name: message('names.starter.printer', { size }),
      data: { ...screen, pitchX: pitch, pitchY: pitch, layerHeight: 0.05, starting },
    },
    {
      kind: 'resin',
      name: message('names.starter.resin'),
      data: {
        ...{ density: 1.12, pricePerLitre: 38, exposure: 2.4, bottomExposure: 26, level: 1000 },
        ...{ peelPressure: PEEL_PRESSURE, greenStrength: GREEN_STRENGTH, starting },
      },
    },
    ...PAINTS.map(({ name, ...data }): StarterItem => ({ kind: 'paint', name, data: { ...data, starting } })),
    ...MATERIALS.map(({ serves, amount }): StarterItem => {
      const { name, unit } = supply(serves)!
      return { kind: 'material', name, data: { serves: [serves], unit, lots: [{ amount }], starting } }
    }),
  ]
}
