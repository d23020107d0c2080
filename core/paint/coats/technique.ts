import { type Technique } from '../../defaults/paint'
import type { Hand } from '../../defaults/paint'
import { DENSEST, speckleAt } from './speckle'
import { message, type Message } from '../../words/message'

/** Ways of laying a coat. */
/** What is known of one place of the skin; maps 0 to 1. */
export interface Place {
  spray: number
  recess: number
  ridge: number
  exposure: number
  /** mm */
  x: number
  y: number
  z: number
}
/** How a coat is laid; `grain` in mm, `coverage` 0 to 1, both for what lies in spots or in hollows. */
export interface Laying {
  technique: Technique
  tool: 'brush' | 'airbrush'
  grain: number
  coverage: number
  seed: number
  hand: Hand
}

/**
 * What a technique's share is read from, and what in it is judgement. `maps` are measured on the sculpt; the numbers by
 * which a hand follows them (`hand`) are not, and each hand has its own.
 */
export const READ: Record<
  Technique,
  { maps: readonly (keyof Omit<Place, 'x' | 'y' | 'z'>)[]; judged: Message | null; hand: readonly (keyof Hand)[] }
> = {
  base: { maps: [], judged: null, hand: [] },
  airbrush: { maps: ['spray'], judged: null, hand: [] },
  wash: { maps: ['recess'], judged: message('painting.judged.wash'), hand: ['washOpen'] },
  glaze: { maps: [], judged: null, hand: [] },
  layer: {
    maps: ['ridge', 'recess'],
    judged: message('painting.judged.layer'),
    hand: ['layerFlat', 'layerHollow'],
  },
  'dry brush': {
    maps: ['ridge', 'recess'],
    judged: message('painting.judged.dryBrush'),
    hand: ['dryBrushHollow'],
  },
  stipple: { maps: [], judged: message('painting.judged.stipple'), hand: [] },
  chips: {
    maps: ['ridge', 'exposure'],
    judged: message('painting.judged.chips'),
    hand: ['chipsFlat'],
  },
  powder: {
    maps: ['recess', 'exposure'],
    judged: message('painting.judged.powder'),
    hand: ['powderOpen', 'powderHollow', 'powderSheltered'],
  },
  metallic: { maps: [], judged: message('painting.judged.metallic'), hand: [] },
  'clear ink': { maps: [], judged: null, hand: [] },
  varnish: { maps: [], judged: message('painting.judged.varnish'), hand: [] },
}

/** Whether it lies where the spray lands: an airbrush that lays light and shade, and none that covers. */
export const followsSpray = ({ technique, tool }: Pick<Laying, 'technique' | 'tool'>): boolean =>
  technique === 'airbrush' || (tool === 'airbrush' && (technique === 'layer' || technique === 'glaze'))
/** What its share is read from as it is laid: a sprayed layer goes by the spray and by no hand. */
export const readOf = (c: Pick<Laying, 'technique' | 'tool'>): (typeof READ)[Technique] =>
  followsSpray(c) ? READ.airbrush : READ[c.technique]

const clip = (v: number): number => (v < 0 ? 0 : v > 1 ? 1 : v)

/**
 * Share of a coat's full film that lies at a place, 0 to 1 (methods.md 12): a wash pools by recess, a dry brush touches
 * ridges, what is sprayed follows the spray light, dots and chips lie in spots, the rest evenly.
 *
 * @param spacing mm between the places at which it is asked: spots finer than that are told as their mean
 */
export function shareAt(c: Laying, at: Place, spacing = 0): number {
  const { recess, ridge } = at,
    { hand } = c
  if (followsSpray(c)) return at.spray
  switch (c.technique) {
    case 'base':
    case 'airbrush':
    case 'metallic':
    case 'clear ink':
    case 'glaze':
      return 1
    case 'layer':
      return clip(hand.layerFlat + (1 - hand.layerFlat) * ridge - hand.layerHollow * recess)
    case 'wash':
      return hand.washOpen + (1 - hand.washOpen) * recess
    case 'dry brush':
      return ridge * (1 - hand.dryBrushHollow * recess)
    case 'stipple':
      return spots(c, at, c.coverage, spacing)
    case 'chips':
      // Coverage is what a bare edge in the open loses.
      return spots(c, at, c.coverage * (hand.chipsFlat + (1 - hand.chipsFlat) * ridge) * at.exposure, spacing)
    case 'powder':
      return c.coverage * clip(hand.powderOpen + hand.powderHollow * recess + hand.powderSheltered * (1 - at.exposure))
    case 'varnish':
      return 0
  }
}

function spots(c: Laying, at: Place, coverage: number, spacing: number): number {
  const cover = Math.min(DENSEST, coverage)
  // Twice the spacing is the finest that can be told apart (Nyquist 1928); below it the skin shows the mean.
  return c.grain < 2 * spacing ? cover : speckleAt(c, at.x, at.y, at.z, cover)
}

/** Whether it lies in spots: its share is then of the skin that is covered, and not of a film that thins out. */
export const inSpots = (t: Technique): boolean => t === 'stipple' || t === 'chips'

/** Whether its share is the same all over. */
export const isEven = (c: Pick<Laying, 'technique' | 'tool'>): boolean =>
  readOf(c).maps.length === 0 && !inSpots(c.technique)
