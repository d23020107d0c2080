/** Mean grain of coated abrasives, µm (FEPA P series, ISO 6344). */
export const GRAIN: Readonly<Record<number, number>> = {
  180: 82,
  240: 58.5,
  320: 46.2,
  400: 35,
  600: 25.8,
  800: 21.8,
  1000: 18.3,
  1500: 12.6,
  2000: 10.3,
}
const GRITS = Object.keys(GRAIN)
  .map(Number)
  .sort((a, b) => a - b)

/** What a surface is to look like, which says how far it is sanded. */
export type Surface = 'skin' | 'cloth' | 'armour' | 'clear'
const WORDS: readonly (readonly [Surface, RegExp])[] = [
  ['armour', /armou?r|metal|steel|iron|brass|gold|helmet|shield|blade|sword|buckle|button|lantern|lamp/i],
  [
    'cloth',
    /cloth|coat|cloak|cape|shirt|trouser|skirt|scarf|hood|wool|linen|leather|fur|hair|beard|feather|plumage|rope|wood|bark|stone|ground|base/i,
  ],
  ['clear', /clear|glass|lens|water|crystal/i],
]
/** What a region's name says of its surface; skin where it says nothing, which is sanded finest of what is painted. */
export const surfaceOf = (name: string): Surface => WORDS.find(([, words]) => words.test(name))?.[0] ?? 'skin'

/** Grit at which sanding stops (craft.md 10): cloth and fur keep their texture, clear parts are polished. */
const STOPS: Readonly<Record<Surface, Readonly<Record<'shelf' | 'display' | 'exhibition', number>>>> = {
  skin: { shelf: 400, display: 600, exhibition: 800 },
  cloth: { shelf: 240, display: 320, exhibition: 320 },
  armour: { shelf: 400, display: 600, exhibition: 800 },
  clear: { shelf: 800, display: 1500, exhibition: 2000 },
}
/** No grit is more than about twice the one before: the scratches of the one must go under the other. */
const LARGEST_STEP = 2

/**
 * Grits from what has to be levelled to the finish wanted. It starts with the finest whose grain is as large as the step, or
 * with the coarsest that there is, and goes on in as few steps as the rule of two allows.
 *
 * @param step µm to be levelled: cusps of layers, or what supports left
 */
export function ladder(step: number, surface: Surface, finish: 'shelf' | 'display' | 'exhibition'): number[] {
  const stop = STOPS[surface][finish]
  const first = [...GRITS].reverse().find((g) => GRAIN[g]! >= step) ?? GRITS[0]!
  const out = [Math.min(first, stop)]
  while (out.at(-1)! < stop) {
    const reach = GRITS.filter((g) => g > out.at(-1)! && g <= LARGEST_STEP * out.at(-1)!)
    out.push(Math.min(stop, reach.at(-1)!))
  }
  return out
}

/** µm that a hand takes off a square decimetre of cured resin in a minute, with grain of a given size; sharp paper, changed often. */
const rate = (grain: number): number => 0.12 * grain
/** s a square decimetre to take one grit's scratches out with the next */
const SMOOTHING = 75
/** s to change paper and look */
const CHANGE = 45
/** How much slower what is hard to reach goes. */
const TIGHT = 2.2

/**
 * s of work to sand an area down a ladder: the first grit takes the step off, each further one the scratches before it.
 *
 * @param area mm²
 * @param step µm
 * @param tight share of the area that lies in recesses
 * @param wet water keeps paper open but is slower to look through
 */
export function sandingTime(grits: readonly number[], area: number, step: number, tight: number, wet: boolean): number {
  const dm2 = area / 10_000
  const level = grits.length > 0 ? (60 * step * dm2) / rate(GRAIN[grits[0]!]!) : 0
  const smooth = SMOOTHING * dm2 * Math.max(0, grits.length - 1)
  return (level + smooth) * (1 + (TIGHT - 1) * tight) * (wet ? 1.15 : 1) + CHANGE * grits.length
}
