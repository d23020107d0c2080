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
