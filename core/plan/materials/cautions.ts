import { message } from '../../words/message'

/** Short warnings at the step (craft.md, Cautions). Each defers to the product's own sheet and to local rules. */
export const CAUTIONS = {
  resin: message('steps.cautions.nitrileGlovesEyeProtectionFresh'),
  solvent: message('steps.cautions.flammableVapourNoFlameOr'),
  uv: message('steps.cautions.shieldEyesAndSkinFrom'),
  dust: message('steps.cautions.particulateRespiratorAndEyeProtection'),
  spray: message('steps.cautions.organicVapourRespiratorAndExtraction'),
  putty: message('steps.cautions.glovesTwoPartPuttiesAnd'),
  fumes: message('steps.cautions.openWindowOrExtractionSolvent'),
  polyester: message('steps.cautions.organicVapourRespiratorAndExtraction2'),
  casting: message('steps.cautions.glovesAndFreshAirCasting'),
  glue: message('steps.cautions.eyeProtectionBondsSkinIn'),
  blade: message('steps.cautions.clampThePartAndCut'),
  mist: message('steps.cautions.extractionOrAMaskAgainst'),
} as const
export type Caution = keyof typeof CAUTIONS
