import vocabulary from '../words/en/vocabulary.json' with { type: 'json' }

/** What a plan takes where a workshop has no rule or figure of its own; see craft.md. */

/**
 * Questions on which practitioners differ (craft.md, Schools). A workshop picks its house rule, a piece may
 * differ; each choice changes the plan.
 */
export const SCHOOLS = vocabulary.school
export type School = keyof typeof SCHOOLS
export type Schools = { [S in School]: keyof (typeof SCHOOLS)[S]['choices'] }

export const schoolDefaults: Schools = {
  strip: 'afterWash',
  sanding: 'wet',
  undercoat: 'grey',
  gluing: 'seamBySeam',
  joints: 'pinLoaded',
  shading: 'washes',
  washScope: 'needed',
  tones: 'warmLight',
  muting: 'complement',
  lights: 'lightFirst',
  finalCoat: 'byRegion',
}

export const EFFECT_KINDS = ['earth', 'rust', 'dust', 'grass', 'snow', 'water', 'blood'] as const
export type EffectKind = (typeof EFFECT_KINDS)[number]

/** How a try went, by one's own eye. */
export const WENT = ['well', 'partly', 'not yet'] as const

/** Exercises of core/plan/facts/practice. */
export const EXERCISE_IDS = ['blend', 'folds', 'dryBrush', 'wash', 'eyes', 'gloss'] as const
export type ExerciseId = (typeof EXERCISE_IDS)[number]

/** Rules that decide what a scheme offers; a plan follows them once its coats and their order are taken. */
export const OF_SCHEMES: readonly School[] = ['washScope', 'tones', 'muting', 'lights']
export type FinishLevel = 'shelf' | 'display' | 'exhibition'
