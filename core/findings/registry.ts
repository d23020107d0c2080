import { archiveCups, archiveHolds, archiveIslands } from './archivedLayers'
import { cleanBaths } from './bathSaturated'
import { drainHoles, wallAsAsked } from './cavityHoles'
import { targetsReached } from './colourUnreached'
import { fitsSomehow, fitsStanding } from './doesNotFit'
import { regionsPainted } from './emptyRegion'
import { resinLasts } from './enoughResin'
import { facesFront } from './facesAway'
import { worthHollowing } from './hollowSaving'
import { noIsland } from './islands'
import { jointsBear } from './jointLoad'
import { mayBeSold, newestEdition } from './licence'
import { regionsStillFit } from './newSurface'
import { resinFresh } from './oldResin'
import { noFlawOpen, whatFlawsCameOf } from './openFlaws'
import { meshSound } from './openMesh'
import { noForbiddenCoat, orderKept } from './paintOrder'
import { partsFit } from './poorFit'
import { skinKept } from './posedSkin'
import { platesGoOn } from './printTrouble'
import type { Rule, Stage } from './rule'
import { hasSkin, noFloor, skinWasSeen } from './scanFacts'
import { keepsDeadline } from './scheduleRisk'
import { airToSpray } from './sprayRefused'
import { toolsReach } from './sprayReach'
import { noCup } from './suctionCup'
import { supportsHold } from './supportGaps'
import { fileWithoutSupports, noOwnSupports } from './supportedAlready'
import { scheduleHolds } from './schedule'
import { nothingTooThin } from './tooThin'
import { stands } from './topples'
import { resinDrains } from './trappedResin'
import { stepsPlaced } from './unplacedSteps'

/** Every rule, in the order in which a stage shows findings of one level. */
export const RULES = [
  mayBeSold,
  newestEdition,
  fileWithoutSupports,
  hasSkin,
  noFloor,
  skinWasSeen,
  meshSound,
  facesFront,
  jointsBear,
  partsFit,
  stands,
  skinKept,
  fitsSomehow,
  nothingTooThin,
  drainHoles,
  wallAsAsked,
  worthHollowing,
  resinDrains,
  noOwnSupports,
  fitsStanding,
  resinFresh,
  noIsland,
  supportsHold,
  noCup,
  resinLasts,
  platesGoOn,
  cleanBaths,
  noFlawOpen,
  whatFlawsCameOf,
  targetsReached,
  regionsPainted,
  regionsStillFit,
  noForbiddenCoat,
  toolsReach,
  orderKept,
  keepsDeadline,
  airToSpray,
  stepsPlaced,
  archiveIslands,
  archiveCups,
  archiveHolds,
  scheduleHolds,
] as const

type AnyRule = (typeof RULES)[number]
type AtStage<R, S extends Stage> = R extends Rule<infer T, infer K, infer A> ? (S extends T ? [K, A] : never) : never
/** Names of the facts that the rules of a stage ask for, and of the fixes that they may offer. */
export type InputsAt<S extends Stage> = AtStage<AnyRule, S>[0]
export type ActsAt<S extends Stage> = AtStage<AnyRule, S>[1]
