import { deltaE00, type Triple } from '../optics/colour'
import { chromaOf, hueOf } from '../optics/hue'
import { solveRecipe, type StockPaint } from '../recipes/recipe'
import type { Technique } from '../../defaults/paint'
import { threeTones } from '../recipes/tones'
import type { ToneSchool } from '../../defaults/paint'
import type { Optics } from '../optics/film'
import { fixed } from '../../words/format'
import { message, type Message } from '../../words/message'

export type Shading = 'washes' | 'glazes' | 'airbrush' | 'powders'
/** Which colour a coat is laid in, from the one that the region is to have. */
export type Tone = 'shadow' | 'deep' | 'base' | 'light' | 'red' | 'cool' | 'under' | 'metal' | 'glint'

export interface LibraryCoat {
  technique: Technique
  tone: Tone
  /** µm dry */
  film: number
  tool?: 'brush' | 'airbrush'
  pigment?: number
  from?: { turn: number; lift: number; spread: number }
  coverage?: number
  grain?: number
}
export interface LibraryStack {
  id: string
  name: Message
  /** whose way of shading it is; null where all do it so */
  school: Shading | null
  /** what it asks of the hand, in a sentence */
  says: Message
  coats: readonly LibraryCoat[]
}

/** Stacks as the schools lay them. Films and shares are starting values; each is a field of the coat once it is laid out. */
export const LIBRARY: readonly LibraryStack[] = [
  {
    id: 'washes',
    name: message('painting.stack.washes.name'),
    school: 'washes',
    says: message('painting.stack.washes.about'),
    coats: [
      { technique: 'base', tone: 'base', film: 40 },
      { technique: 'wash', tone: 'deep', film: 26, pigment: 0.5 },
      { technique: 'dry brush', tone: 'light', film: 14 },
    ],
  },
  {
    id: 'glazes',
    name: message('painting.stack.glazes.name'),
    school: 'glazes',
    says: message('painting.stack.glazes.about'),
    coats: [
      { technique: 'base', tone: 'shadow', film: 40 },
      { technique: 'layer', tone: 'base', film: 30 },
      { technique: 'layer', tone: 'light', film: 14, pigment: 0.7 },
      { technique: 'glaze', tone: 'base', film: 10, pigment: 0.2 },
    ],
  },
  {
    id: 'airbrush',
    name: message('painting.stack.airbrush.name'),
    school: 'airbrush',
    says: message('painting.stack.airbrush.about'),
    coats: [
      { technique: 'base', tone: 'shadow', film: 40, tool: 'airbrush' },
      { technique: 'airbrush', tone: 'base', film: 36, tool: 'airbrush', from: { turn: 0, lift: 35, spread: 40 } },
      { technique: 'airbrush', tone: 'light', film: 18, tool: 'airbrush', from: { turn: 0, lift: 80, spread: 14 } },
    ],
  },
  {
    id: 'powders',
    name: message('painting.stack.powders.name'),
    school: 'powders',
    says: message('painting.stack.powders.about'),
    coats: [
      { technique: 'base', tone: 'base', film: 40 },
      { technique: 'powder', tone: 'deep', film: 14, pigment: 0.6, coverage: 0.8 },
      { technique: 'dry brush', tone: 'light', film: 8 },
    ],
  },
  {
    id: 'skin',
    name: message('painting.stack.skin.name'),
    school: null,
    says: message('painting.stack.skin.about'),
    coats: [
      { technique: 'base', tone: 'base', film: 40 },
      { technique: 'wash', tone: 'shadow', film: 18, pigment: 0.35 },
      { technique: 'glaze', tone: 'red', film: 8, pigment: 0.15 },
      { technique: 'glaze', tone: 'cool', film: 6, pigment: 0.1 },
      { technique: 'layer', tone: 'light', film: 14, pigment: 0.6 },
      { technique: 'glaze', tone: 'base', film: 8, pigment: 0.2 },
    ],
  },
  {
    id: 'metal',
    name: message('painting.stack.metal.name'),
    school: null,
    says: message('painting.stack.metal.about'),
    coats: [
      { technique: 'base', tone: 'under', film: 36 },
      { technique: 'metallic', tone: 'metal', film: 30 },
      { technique: 'wash', tone: 'under', film: 18, pigment: 0.4 },
      { technique: 'dry brush', tone: 'glint', film: 10 },
    ],
  },
  {
    id: 'worn',
    name: message('painting.stack.worn.name'),
    school: null,
    says: message('painting.stack.worn.about'),
    coats: [
      { technique: 'base', tone: 'base', film: 40 },
      { technique: 'chips', tone: 'light', film: 24, coverage: 0.5, grain: 1.6 },
      { technique: 'chips', tone: 'deep', film: 24, coverage: 0.3, grain: 0.9 },
      { technique: 'powder', tone: 'shadow', film: 10, pigment: 0.5, coverage: 0.5 },
    ],
  },
]

export interface LaidOut extends LibraryCoat {
  lab: Triple
  /** one paint, or a mix: drops by paint */
  drops: { paint: string; drops: number }[]
  /** CIEDE2000 of the mix to the tone */
  error: number
}
/** Differences beyond this are named: anybody sees them side by side. */
const SEEN = 5

/** Over a wash that goes over everything the lights are painted again, in the base's colour. */
function relit(coats: readonly LibraryCoat[]): LibraryCoat[] {
  if (!coats.some((c) => c.tone === 'base')) return [...coats]
  const at = coats.findIndex((c) => c.technique === 'wash')
  return at < 0
    ? [...coats]
    : [...coats.slice(0, at + 1), { technique: 'layer', tone: 'base', film: 20 }, ...coats.slice(at + 1)]
}

/**
 * A stack of the library in the paints of the stock, for the colour that a region is to have.
 *
 * @param target CIELAB
 * @param rules how hues turn, and whether a wash goes over everything
 * @param optics by paint id, where they are known already
 */
export function coatsOfStack(
  stack: LibraryStack,
  target: Triple,
  stock: readonly StockPaint[],
  { tones: school, washScope }: { tones: ToneSchool; washScope: 'needed' | 'all' },
  optics?: ReadonlyMap<string, Optics>,
): { coats: LaidOut[]; notes: Message[] } {
  const { shadow, light } = threeTones(target, school)
  const gold = chromaOf(target) > 12 && hueOf(target) > 40 && hueOf(target) < 110
  const tones: Record<Exclude<Tone, 'metal' | 'glint'>, Triple> = {
    shadow,
    light,
    base: target,
    deep: [Math.max(4, shadow[0] - 12), shadow[1] * 0.9, shadow[2] * 0.9],
    red: [target[0] - 6, target[1] + 18, target[2] + 2],
    cool: [target[0] - 6, target[1] - 4, target[2] - 16],
    under: gold ? [22, 12, 16] : [12, 0, -1],
  }
  const notes: Message[] = []
  const metals = stock.filter((p) => p.kind === 'metallic')
  const metalFor = (tone: 'metal' | 'glint'): LaidOut['drops'] => {
    const goal: Triple = tone === 'metal' ? target : [Math.min(98, target[0] + 14), target[1], target[2]]
    const best = [...metals].sort((a, b) => deltaE00(a.lab, goal) - deltaE00(b.lab, goal))[0]
    return best ? [{ paint: best.id, drops: 1 }] : []
  }
  const known = new Map<Tone, { drops: LaidOut['drops']; error: number }>()
  const coats = (washScope === 'all' ? relit(stack.coats) : stack.coats).map((c): LaidOut => {
    const lab = c.tone === 'metal' || c.tone === 'glint' ? target : tones[c.tone]
    let found = known.get(c.tone)
    if (!found) {
      if (c.tone === 'metal' || c.tone === 'glint') found = { drops: metalFor(c.tone), error: 0 }
      else {
        const [best] = solveRecipe(lab, stock, optics).recipes
        found = best
          ? { drops: best.drops.map((d) => ({ paint: d.paint, drops: d.drops })), error: best.error }
          : { drops: [], error: Infinity }
        if (best && best.error > SEEN)
          notes.push(message('painting.note.tone', { tone: c.tone, error: fixed(best.error, 1) }))
      }
      known.set(c.tone, found)
    }
    return { ...c, lab, ...found }
  })
  if (stack.coats.some((c) => c.tone === 'metal') && metals.length === 0) notes.push(message('painting.note.noMetal'))
  if (coats.every((c) => c.drops.length === 0)) notes.push(message('painting.note.noPaint'))
  return { coats, notes }
}
