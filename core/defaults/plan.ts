/** What a plan takes where a workshop has no rule or figure of its own; see craft.md. */

/**
 * Questions on which practitioners differ (craft.md, Schools). A workshop picks its house rule, a piece may
 * differ; each choice changes the plan.
 */
export const SCHOOLS = {
  strip: {
    question: 'Supports are removed',
    choices: { beforeWash: 'before the wash', afterWash: 'after the wash', afterCure: 'after the cure' },
  },
  sanding: { question: 'Sanding', choices: { wet: 'wet', dry: 'dry' } },
  undercoat: {
    question: 'Undercoat',
    choices: {
      grey: 'grey',
      white: 'white',
      black: 'black',
      zenithal: 'black, then white from above',
      tinted: 'tinted to a colour',
    },
  },
  gluing: {
    question: 'Gluing',
    choices: {
      seamBySeam: 'seam by seam, as measured',
      assembleFirst: 'assemble all, then paint',
      subAssemblies: 'paint in sub-assemblies',
    },
  },
  joints: {
    question: 'Joints',
    choices: { pinAll: 'pin all', pinLoaded: 'pin loaded joints', glueOnly: 'glue only' },
  },
  shading: {
    question: 'Shading',
    choices: {
      washes: 'washes and dry brush',
      glazes: 'layering and glazing',
      airbrush: 'airbrush gradients',
      powders: 'powders',
    },
  },
  washScope: {
    question: 'Washes',
    choices: { needed: 'only where needed', all: 'over everything, then the lights again' },
  },
  tones: {
    question: 'Light and shade',
    choices: { warmLight: 'warm light, cool shade', coolLight: 'cool light, warm shade', sameHue: 'one hue' },
  },
  muting: {
    question: 'Colours are muted',
    choices: { complement: 'by the complement', earth: 'by an earth colour', black: 'by black or grey' },
  },
  lights: {
    question: 'Light parts',
    choices: { lightFirst: 'light to dark', darkFirst: 'dark to light' },
  },
  finalCoat: {
    question: 'Final coat',
    choices: {
      oneMatt: 'one matt coat, then gloss accents',
      byRegion: 'each region its own finish',
      bareMetal: 'each its own, none on metallics',
    },
  },
} as const
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
