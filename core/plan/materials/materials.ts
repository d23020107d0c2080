import type { Caution } from './cautions'
import type { Setting } from './drying'
import { message, type Message } from '../../words/message'

const MIN = 60,
  H = 3600

/** What a bench material can do. Times at 20 °C and 50 % relative humidity (craft.md, Materials); a workshop edits them. */
export interface BenchMaterial {
  id: string
  name: Message
  use: 'filler' | 'adhesive'
  /** mm that it fills: from, to */
  gap: readonly [number, number]
  /** mm that sets through at once; null where depth does not matter */
  deepest: number | null
  /** s from mixed, or opened, to too late; null: until it is lit */
  working: number | null
  /** s until it can be sanded, or let go */
  next: number
  /** s until it is as hard as it gets */
  cure: number
  setting: Setting
  /** mixed from two parts, a batch at a time */
  mixed: boolean
  /** s of work per mm of seam: to lay it in, and to level it afterwards */
  layIn: number
  level: number
  /** N/mm² in peel that it is trusted with; 0 of fillers */
  strength: number
  caution: Caution
}

type Filler = Omit<BenchMaterial, 'use' | 'strength'>
const filler = (f: Filler): BenchMaterial => ({ ...f, use: 'filler', strength: 0 })
type Adhesive = Omit<BenchMaterial, 'use' | 'deepest' | 'layIn' | 'level'>
const adhesive = (a: Adhesive): BenchMaterial => ({ ...a, use: 'adhesive', deepest: null, layIn: 0, level: 0 })

export const FILLERS: readonly BenchMaterial[] = [
  filler({
    id: 'resin',
    name: message('supplies.resin'),
    gap: [0, 0.4],
    deepest: 1,
    working: null,
    next: 30,
    cure: 5 * MIN,
    setting: 'none',
    mixed: false,
    layIn: 1,
    level: 1.6,
    caution: 'resin',
  }),
  filler({
    id: 'uvPutty',
    name: message('supplies.uvPutty'),
    gap: [0.3, 3],
    deepest: 2,
    working: null,
    next: 60,
    cure: 5 * MIN,
    setting: 'none',
    mixed: false,
    layIn: 2.2,
    level: 1.6,
    caution: 'resin',
  }),
  filler({
    id: 'solvent',
    name: message('supplies.solvent'),
    gap: [0, 0.5],
    deepest: 0.5,
    working: 3 * MIN,
    next: 2 * H,
    cure: 12 * H,
    setting: 'evaporation',
    mixed: false,
    layIn: 1,
    level: 0.9,
    caution: 'fumes',
  }),
  filler({
    id: 'polyester',
    name: message('supplies.polyester'),
    gap: [0.3, 5],
    deepest: null,
    working: 4 * MIN,
    next: 30 * MIN,
    cure: 2 * H,
    setting: 'reaction',
    mixed: true,
    layIn: 1.8,
    level: 1.3,
    caution: 'polyester',
  }),
  filler({
    id: 'epoxyPutty',
    name: message('supplies.epoxyPutty'),
    gap: [0.5, 50],
    deepest: null,
    working: 90 * MIN,
    next: 8 * H,
    cure: 24 * H,
    setting: 'reaction',
    mixed: true,
    layIn: 6,
    level: 0.7,
    caution: 'putty',
  }),
  filler({
    id: 'water',
    name: message('supplies.water'),
    gap: [0.1, 1],
    deepest: 1,
    working: 10 * MIN,
    next: 1 * H,
    cure: 12 * H,
    setting: 'evaporation',
    mixed: false,
    layIn: 1.4,
    level: 0.6,
    caution: 'dust',
  }),
]

export const ADHESIVES: readonly BenchMaterial[] = [
  adhesive({
    id: 'caThin',
    name: message('supplies.caThin'),
    gap: [0, 0.1],
    working: 5,
    next: 1 * MIN,
    cure: 12 * H,
    setting: 'none',
    mixed: false,
    strength: 0.6,
    caution: 'glue',
  }),
  adhesive({
    id: 'caGel',
    name: message('supplies.caGel'),
    gap: [0, 0.3],
    working: 20,
    next: 3 * MIN,
    cure: 24 * H,
    setting: 'none',
    mixed: false,
    strength: 0.8,
    caution: 'glue',
  }),
  adhesive({
    id: 'epoxyFast',
    name: message('supplies.epoxyFast'),
    gap: [0, 2],
    working: 4 * MIN,
    next: 30 * MIN,
    cure: 12 * H,
    setting: 'reaction',
    mixed: true,
    strength: 2,
    caution: 'putty',
  }),
  adhesive({
    id: 'epoxySlow',
    name: message('supplies.epoxySlow'),
    gap: [0, 2],
    working: 30 * MIN,
    next: 6 * H,
    cure: 24 * H,
    setting: 'reaction',
    mixed: true,
    strength: 5,
    caution: 'putty',
  }),
  adhesive({
    id: 'contact',
    name: message('supplies.contact'),
    gap: [0, 0.2],
    working: 10 * MIN,
    next: 30 * MIN,
    cure: 24 * H,
    setting: 'evaporation',
    mixed: false,
    strength: 0.2,
    caution: 'solvent',
  }),
  adhesive({
    id: 'flexible',
    name: message('supplies.flexible'),
    gap: [0, 1],
    working: 5 * MIN,
    next: 2 * H,
    cure: 24 * H,
    setting: 'evaporation',
    mixed: false,
    strength: 0.4,
    caution: 'solvent',
  }),
]
