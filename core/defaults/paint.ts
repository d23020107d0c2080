/** What paints, coats and painters are called, and what is taken of them where nobody has said or measured otherwise. */

export const TECHNIQUES = [
  'base',
  'airbrush',
  'wash',
  'glaze',
  'layer',
  'dry brush',
  'stipple',
  'chips',
  'powder',
  'metallic',
  'clear ink',
  'varnish',
] as const
export type Technique = (typeof TECHNIQUES)[number]

export const PAINT_KINDS = [
  'acrylic',
  'ink',
  'wash',
  'metallic',
  'fluorescent',
  'oil',
  'enamel',
  'powder',
  'varnish',
] as const
export type PaintKind = (typeof PAINT_KINDS)[number]

export const PRIMERS = ['grey', 'white', 'black', 'zenithal'] as const
/** One of the usual ones, or primer tinted to a colour of its own, which names it. */
export type Undercoat = (typeof PRIMERS)[number] | `#${string}`
/** The same as one chooses between them, before a colour is chosen. */
export const UNDERCOATS = [...PRIMERS, 'tinted'] as const
export type UndercoatChoice = (typeof UNDERCOATS)[number]
/** What a tinted primer is tinted to before somebody chooses: earth, between light and shade. */
export const TINT = '#8c6f58'

export const TONE_SCHOOLS = ['warmLight', 'coolLight', 'sameHue'] as const
export type ToneSchool = (typeof TONE_SCHOOLS)[number]

export const MUTING = ['complement', 'earth', 'black'] as const
export type Muting = (typeof MUTING)[number]

/** How a hand follows the sculpt, each 0 to 1: what is judgement in a preview, and every painter's own. */
export interface Hand {
  /** share of a wash's film that stays on open skin */
  washOpen: number
  /** share of a layer's film on flat skin, and how much less of it gets into the deepest hollow */
  layerFlat: number
  layerHollow: number
  /** how much less a dry brush leaves on a ridge that lies in a hollow */
  dryBrushHollow: number
  /** how many chips a flat gets of those that an edge gets */
  chipsFlat: number
  /** share of powder on open skin, and how much more in the deepest hollow, and where no wind or finger comes */
  powderOpen: number
  powderHollow: number
  powderSheltered: number
}

/** Where nothing else is said; judgement. */
export const HAND: Hand = {
  washOpen: 0.05,
  layerFlat: 0.2,
  layerHollow: 0.6,
  dryBrushHollow: 0.8,
  chipsFlat: 0.125,
  powderOpen: 0.1,
  powderHollow: 0.6,
  powderSheltered: 0.5,
}

export interface OrderCosts {
  /** s to put tape on 1 mm of edge and take it off, and for each region that is covered besides */
  tape: number
  cover: number
  /** s to clean up and fill another colour, by airbrush and by brush */
  cleanSpray: number
  cleanBrush: number
  /** chance that a mask lifts or bleeds on what it lies on, which then is painted again */
  lifts: number
  /** chance that a light coat beside a dark one that is there already has to be laid again */
  ghosts: number
}
export const ORDER_COSTS: OrderCosts = {
  tape: 1.2,
  cover: 45,
  cleanSpray: 180,
  cleanBrush: 45,
  lifts: 0.03,
  ghosts: 0.08,
}

/** Radii of iris and pupil, of the eyeball's. */
export interface EyeShares {
  iris: number
  pupil: number
}

/** Of an eyeball's radius: the iris, and the pupil by middling light; of a grown person. */
export const GROWN: EyeShares = { iris: 0.49, pupil: 0.19 }

export const LID_NAMES = ['awake', 'calm', 'weary', 'wide', 'as sculpted'] as const
