import { DENSEST, speckleAt } from './speckle'

/** Ways of laying a coat. */
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
}

/**
 * What a technique's share is read from, and what in it is judgement. `maps` are measured on the sculpt; the numbers by
 * which a hand follows them are not, and each hand has its own.
 */
export const READ: Record<Technique, { maps: (keyof Omit<Place, 'x' | 'y' | 'z'>)[]; judged: string | null }> = {
  base: { maps: [], judged: null },
  airbrush: { maps: ['spray'], judged: null },
  wash: { maps: ['recess'], judged: 'a film of a twentieth is left on the open skin' },
  glaze: { maps: [], judged: null },
  layer: { maps: ['ridge', 'recess'], judged: 'the brush lays most on what stands out and misses the hollows' },
  'dry brush': { maps: ['ridge', 'recess'], judged: 'a nearly empty brush leaves paint on ridges alone' },
  stipple: { maps: [], judged: 'where each dot falls' },
  chips: { maps: ['ridge', 'exposure'], judged: 'edges in the open wear first, and where each chip lies' },
  powder: { maps: ['recess', 'exposure'], judged: 'powder stays where nothing wipes it off' },
  metallic: { maps: [], judged: 'flakes lie flat, so their shine is drawn, not reckoned' },
  'clear ink': { maps: [], judged: null },
  varnish: { maps: [], judged: 'its sheen alone is shown' },
}

const clip = (v: number): number => (v < 0 ? 0 : v > 1 ? 1 : v)

/**
 * Share of a coat's full film that lies at a place, 0 to 1 (methods.md 12): a wash pools by recess, a dry brush touches
 * ridges, what is sprayed follows the spray light, dots and chips lie in spots, the rest evenly.
 *
 * @param spacing mm between the places at which it is asked: spots finer than that are told as their mean
 */
export function shareAt(c: Laying, at: Place, spacing = 0): number {
  const { recess, ridge } = at
  switch (c.technique) {
    case 'base':
    case 'metallic':
    case 'clear ink':
    case 'glaze':
      return c.tool === 'airbrush' && c.technique === 'glaze' ? at.spray : 1
    case 'airbrush':
      return at.spray
    case 'layer':
      return c.tool === 'airbrush' ? at.spray : clip(0.2 + 0.8 * ridge - 0.6 * recess)
    case 'wash':
      return 0.05 + 0.95 * recess
    case 'dry brush':
      return ridge * (1 - 0.8 * recess)
    case 'stipple':
      return spots(c, at, c.coverage, spacing)
    case 'chips':
      // Coverage is what a bare edge in the open loses; a flat loses an eighth of that.
      return spots(c, at, c.coverage * clip(0.125 + 0.875 * ridge) * at.exposure, spacing)
    case 'powder':
      return c.coverage * clip(0.1 + 0.6 * recess + 0.5 * (1 - at.exposure))
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
  READ[c.technique].maps.length === 0 && !inSpots(c.technique) && !(c.technique === 'glaze' && c.tool === 'airbrush')
