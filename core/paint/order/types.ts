import type { Said } from '../../words/say'

/** One coat of one region, as far as the order of painting goes. */
export interface OrderCoat {
  id: string
  region: number
  /** what is sprayed, brushed or wiped */
  name: Said
  /** key of the paint or mix: the same key needs no cleaning in between, and its overspray does no harm on itself */
  paint: string
  spray: boolean
  /** s at the bench, masks and cleaning not counted */
  handsOn: number
  /** CIELAB lightness at which the coat ends */
  lightness: number
  /** coats to hide; more than two is a poorly covering colour */
  hides: number
  /** washes, dry brushing, powders: what gets beyond its edge */
  messy: boolean
  metallic: boolean
  varnish: 'matt' | 'satin' | 'gloss' | null
}

export interface OrderRegion {
  id: number
  name: string
  /** mm² */
  area: number
  /** takes glue later: no paint may come on it */
  glueFace?: boolean
  /** cast clear: no primer, inks only */
  clear?: boolean
}

export interface OrderScheme {
  regions: OrderRegion[]
  /** edges that two regions share, mm; each pair once */
  borders: { a: number; b: number; mm: number }[]
  /** of each region first to last, as its stack says */
  coats: OrderCoat[]
}

/** Why one coat comes before another; the first two cannot be broken. */
export const RULES = [
  'stack',
  'clear',
  'sprayFirst',
  'lightFirst',
  'darkFirst',
  'messyFirst',
  'mattBeforeMetal',
  'accentsLast',
] as const
export type Rule = (typeof RULES)[number]
export interface Precedes {
  /** numbers of coats */
  first: number
  then: number
  rule: Rule
}

export interface MaskEdge {
  /** the region that is covered, against the one that is sprayed */
  covered: number
  against: number
  mm: number
}
export interface OrderStep {
  coat: number
  /** put on for it; what stays from the step before is not put on again */
  masks: MaskEdge[]
  /** s */
  masking: number
  cleaning: number
  /** s, expected */
  risk: number
}
export interface OrderCost {
  handsOn: number
  masking: number
  cleaning: number
  risk: number
  total: number
  /** mm of tape */
  tape: number
}
