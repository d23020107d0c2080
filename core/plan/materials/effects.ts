import { type EffectKind } from '../../defaults/plan'
import type { Caution } from './cautions'
import type { Setting } from './drying'
import { message, type Message } from '../../words/message'
import type { Said } from '../../words/say'

interface EffectWay {
  name: Message
  /** what is used, and in which unit it is measured out */
  stuff: Message
  unit: 'ml' | 'g'
  /** of the unit for 1 cm² of skin covered wholly: fixed, or for each mm of thickness */
  perCm2: number
  perMm: boolean
  /** mm that one layer may be thick; what is thicker is laid in several */
  layer: number
  /** mm as it mostly is */
  usual: number
  /** s at 20 °C until the next layer or step */
  wait: number
  setting: Setting
  /** min of work for 1 dm², each layer */
  work: number
  cautions: readonly Caution[]
  why: Said
  /** before the varnish, which binds it, or after, which would dull it */
  when: 'before' | 'after'
}

/** Effects as they are mostly laid: starting values, judgement. A product’s own sheet goes before them. */
export const EFFECTS: Record<EffectKind, EffectWay> = {
  earth: {
    name: message('supplies.effect.earth.name'),
    stuff: message('supplies.effect.earth.stuff'),
    unit: 'ml',
    perCm2: 0.1,
    perMm: true,
    layer: 3,
    usual: 2,
    wait: 12 * 3600,
    setting: 'evaporation',
    work: 12,
    cautions: [],
    why: message('steps.effects.thickPasteCracksAsIt'),
    when: 'before',
  },
  rust: {
    name: message('supplies.effect.rust.name'),
    stuff: message('supplies.effect.rust.stuff'),
    unit: 'ml',
    perCm2: 0.012,
    perMm: false,
    layer: 1,
    usual: 0.1,
    wait: 12 * 3600,
    setting: 'evaporation',
    work: 15,
    cautions: ['solvent'],
    why: message('steps.effects.itRunsDownFromEdges'),
    when: 'before',
  },
  dust: {
    name: message('supplies.effect.dust.name'),
    stuff: message('supplies.effect.dust.stuff'),
    unit: 'g',
    perCm2: 0.004,
    perMm: false,
    layer: 1,
    usual: 0.1,
    wait: 1800,
    setting: 'evaporation',
    work: 8,
    cautions: ['dust'],
    why: message('steps.effects.itStaysWhereNothingWipes'),
    when: 'before',
  },
  grass: {
    name: message('supplies.effect.grass.name'),
    stuff: message('supplies.effect.grass.stuff'),
    unit: 'g',
    perCm2: 0.03,
    perMm: false,
    layer: 1,
    usual: 4,
    wait: 4 * 3600,
    setting: 'evaporation',
    work: 10,
    cautions: [],
    why: message('steps.effects.fibresArePulledUpWhile'),
    when: 'after',
  },
  snow: {
    name: message('supplies.effect.snow.name'),
    stuff: message('supplies.effect.snow.stuff'),
    unit: 'ml',
    perCm2: 0.1,
    perMm: true,
    layer: 2,
    usual: 2,
    wait: 8 * 3600,
    setting: 'evaporation',
    work: 8,
    cautions: [],
    why: message('steps.effects.itGoesOnWhatFaces'),
    when: 'after',
  },
  water: {
    name: message('supplies.effect.water.name'),
    stuff: message('supplies.effect.water.stuff'),
    unit: 'ml',
    perCm2: 0.1,
    perMm: true,
    layer: 3,
    usual: 3,
    wait: 24 * 3600,
    setting: 'reaction',
    work: 6,
    cautions: ['casting'],
    why: message('steps.effects.thickPoursHeatAndShrink'),
    when: 'after',
  },
  blood: {
    name: message('supplies.effect.blood.name'),
    stuff: message('supplies.effect.blood.stuff'),
    unit: 'ml',
    perCm2: 0.02,
    perMm: false,
    layer: 1,
    usual: 0.2,
    wait: 4 * 3600,
    setting: 'evaporation',
    work: 20,
    cautions: ['fumes'],
    why: message('steps.effects.itMustStayGlossyNo'),
    when: 'after',
  },
}

/** An effect on a region of the scheme. */
export interface EffectWish {
  id: string
  kind: EffectKind
  region: string
  /** mm² of the region, and the share of it that is covered */
  area: number
  coverage: number
  /** mm */
  thickness: number
}
export interface EffectPlan {
  layers: number
  /** of its unit, in all */
  amount: number
  /** s: by hand in all; of waiting after each layer at 20 °C */
  handsOn: number
  wait: number
}

/** What an effect takes: its stuff by area and thickness, in as many layers as it may be thick. */
export function effectPlan(e: Omit<EffectWish, 'id' | 'region'>): EffectPlan {
  const way = EFFECTS[e.kind]
  const covered = (e.area * e.coverage) / 100
  const layers = way.perMm ? Math.max(1, Math.ceil(e.thickness / way.layer - 1e-9)) : 1
  return {
    layers,
    amount: covered * way.perCm2 * (way.perMm ? e.thickness : 1),
    handsOn: layers * (180 + (way.work * 60 * covered) / 100),
    wait: way.wait,
  }
}
