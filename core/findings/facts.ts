import type { BalanceReport } from '../fit/balance'
import type { RegionAccess } from '../fit/access'
import type { FitReport } from '../fit/gap'
import type { ThinnessAt } from '../fit/thinness'
import type { Health } from '../mesh/health'
import type { OrderPlan } from '../paint/order/plan'
import type { OrderScheme } from '../paint/order/types'
import type { RecipeAnswer } from '../paint/recipes/recipe'
import type { Bath } from '../plan/facts/cleanUp'
import type { PieceRisk } from '../plan/scheduling/lateness'
import type { Vector3 } from '../math/vectors'
import type { Learned } from '../plan/facts/flaws'
import type { PoseReport } from '../pose/quality'
import type { Mishap } from '../print/hanging/hanging'
import type { TrapReport } from '../print/resin/trapped'
import type { Printer } from '../print/slice/printer'
import type { Presupported } from '../print/support/presupported'
import type { SupportReport } from '../print/support/support'
import type { Cup, Island } from '../raster/layerGraph'
import type { Floor } from '../scan/floor'
import type { ReconstructReport } from '../scan/reconstruct'
import type { HollowReport } from '../shape/hollow'
import type { Bottle } from '../stock/lots'

type Size = readonly [number, number, number]

/** What hangs on a joint. */
export interface JointLoad {
  key: string
  /** of the part that hangs on it, and of the one that holds it */
  hangs: string
  holds: string
  /** g and mm of all that hangs on the joint */
  mass: number
  centre: Vector3
  /** mm and mm² of the joint's face */
  joint: Vector3
  area: number
}

/** How far a plate has come, as far as it can need a hand. */
export interface PlateAtWork {
  id: string
  name: string
  state: 'planned' | 'sending' | 'printing' | 'ended' | 'judged'
  problem: string | null
  layer: number
  layers: number
  /** what the printer says it does, and why it stands still */
  doing: string
  why: string | null
  /** min for which it has not answered; null while it does */
  silent: number | null
  /** ml in the vat, and what is still to be printed needs */
  vat: number | null
  needed: number
  failed: number
  /** whether what failed is being printed again */
  reprinted: boolean
}

/** The schedule of all pieces, and what may go wrong with it. */
export interface ScheduleFacts {
  pieces: readonly { id: string; name: string; due: number | null; finish: number | null }[]
  risks: Readonly<Record<string, PieceRisk>>
  /** titles of steps that no hour holds, and of those whose hand-made order was dropped */
  impossible: readonly string[]
  broken: readonly string[]
  /** ms at which it is; how a moment is written */
  now: number
  day: (ms: number) => string
  /** the next stretch in which one can spray, ms; null: the forecast has none; undefined: there is no forecast, or nothing to spray */
  spray: { from: number; to: number } | null | undefined
  /** steps the record rests on */
  logged: number
}

/** Everything that rules ask for, by name. Lengths in mm, volumes in mm³ unless a name says ml. */
export interface Facts {
  sculptTerms: { name: string; maySell: 'yes' | 'ask' | 'no'; purpose: 'keep' | 'sell' | 'commission' }
  sculptEdition: { name: string; edition: number; newest: number }
  /** supports that came with the file; null: looked for, and there are none */
  fileSupports: Presupported | null
  /** of a sculpt that has faces */
  health: Health
  /** of a sculpt that has points alone: how many, and the flat that was scanned along; null: there is none */
  cloudPoints: number
  floor: Floor | null
  reconstruction: { report: ReconstructReport; area: number }
  /** in any orientation; at the factor that is looked at */
  size: Size
  thinness: ThinnessAt
  printer: Printer
  hollow: { report: HollowReport; voxel: number; holes: number }
  drainage: TrapReport
  /** as it stands on the plate, supports included */
  orientedSize: Size
  /** layers at `step`: what begins in mid air, what closes against the film */
  layers: { islands: readonly Island[]; cups: readonly Cup[]; step: number; supported: boolean }
  supports: SupportReport
  resinStock: { name: string; bottles: readonly Bottle[]; today: string }
  /** ml; `level` null: nobody has said what is on the shelf; `plate` mm of film */
  resinNeed: { needed: number; level: number | null; plate: readonly [number, number] }
  /** layers made elsewhere */
  archive: { islands: readonly Island[]; cups: readonly Cup[]; step: number; mishaps: readonly Mishap[] }
  platesAtWork: readonly PlateAtWork[]
  /** resin in the baths, and what this wash carries into each, ml */
  baths: { baths: { first: Bath; second: Bath }; carryOver: { first: number; second: number } }
  openFlaws: { open: readonly { point: readonly [number, number, number] }[]; pass: number }
  flawCauses: readonly Learned[]
  /** degrees round the upright from the front of the table; `plate` null where there is no nameplate */
  facing: { face: number; at: [number, number, number]; front: number; plate: number | null }
  joints: readonly JointLoad[]
  pairs: readonly { a: string; b: string; key: string; fit: FitReport }[]
  balance: { report: BalanceReport; wish: number }
  pose: PoseReport
  targets: readonly { region: string; target: string; answer: RecipeAnswer }[]
  regions: { painted: boolean; list: readonly { name: string; area: number; coats: number }[] }
  /** share of the skin that is newer than its regions */
  newSkin: number
  /** `chosen`: somebody has chosen an order */
  paintOrder: { scheme: OrderScheme; plan: OrderPlan; inks: ReadonlySet<string>; chosen: boolean }
  reach: ReadonlyMap<number, RegionAccess>
  /** ms, and an ISO day in the zone */
  schedule: {
    steps: readonly { title: string; waiting: number; doneAt: string | null }[]
    finish: number
    deadline: string | null
    zone: string | undefined
  }
  /** why nothing may be sprayed today; null: it may */
  sprayRefused: string | null
  unplaced: { steps: number; anyHours: boolean }
  workshopSchedule: ScheduleFacts
}

export type FactName = keyof Facts
/**
 * What is known of a fact. `none`: it does not concern this piece. `missing`: something has to be given or done first, and
 * `what` says so. `measuring`: it is being computed. `failed`: it cannot be had, and why.
 */
export type Fact<T> =
  | { state: 'known'; value: T }
  | { state: 'none' }
  | { state: 'missing'; what: string }
  | { state: 'measuring' }
  | { state: 'failed'; sentence: string }

export const known = <T>(value: T): Fact<T> => ({ state: 'known', value })
export const NONE: Fact<never> = { state: 'none' }
export const MEASURING: Fact<never> = { state: 'measuring' }
export const missing = (what: string): Fact<never> => ({ state: 'missing', what })
export const failed = (sentence: string): Fact<never> => ({ state: 'failed', sentence })
/** What follows from a fact; what is not known stays as little known. */
export const mapped = <T, U>(f: Fact<T>, to: (value: T) => U): Fact<U> => (f.state === 'known' ? known(to(f.value)) : f)
