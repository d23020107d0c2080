import type { EffectKind } from '../../defaults/plan'
import type { Sheen } from './coating'
import { opticsOf, type Optics } from '../optics/film'
import type { Technique } from '../../defaults/paint'

/** How an effect is drawn: as one more coat, by its colour, where it lies and how it shines. Its thickness is not. */
export interface EffectCoat {
  technique: Technique
  tool: 'brush' | 'airbrush'
  optics: Optics
  /** µm of paint that look like it */
  film: number
  sheen: Sheen
  /** mm */
  grain: number
  from: { turn: number; lift: number; spread: number } | null
}

interface Look extends Omit<EffectCoat, 'optics'> {
  hex: string
  opacity: number
}
const DABBED = { technique: 'stipple', tool: 'brush', from: null } as const
/** Judgement, all of it: colours are those of the usual stuff, places those where it is usually laid. */
const LOOKS: Record<EffectKind, Look> = {
  earth: { ...DABBED, hex: '#5b4a38', opacity: 0.95, film: 200, sheen: 'matt', grain: 3 },
  rust: { ...DABBED, technique: 'wash', hex: '#8a4a20', opacity: 0.5, film: 40, sheen: 'matt', grain: 1.5 },
  dust: { ...DABBED, technique: 'powder', hex: '#b7a688', opacity: 0.6, film: 14, sheen: 'matt', grain: 1.5 },
  grass: { ...DABBED, hex: '#6d7a3a', opacity: 0.9, film: 120, sheen: 'matt', grain: 1.5 },
  snow: {
    technique: 'airbrush',
    tool: 'airbrush',
    from: { turn: 0, lift: 89, spread: 30 },
    hex: '#f4f6f8',
    opacity: 0.9,
    film: 120,
    sheen: 'satin',
    grain: 1.5,
  },
  water: { ...DABBED, hex: '#8fa8a4', opacity: 0.12, film: 120, sheen: 'gloss', grain: 12 },
  blood: { ...DABBED, technique: 'wash', hex: '#7a1010', opacity: 0.45, film: 60, sheen: 'gloss', grain: 1.5 },
}

const known = new Map<EffectKind, EffectCoat>()
export function effectCoat(kind: EffectKind): EffectCoat {
  let c = known.get(kind)
  if (!c) {
    const { hex, opacity, ...rest } = LOOKS[kind]
    known.set(kind, (c = { ...rest, optics: opticsOf(hex, opacity) }))
  }
  return c
}
