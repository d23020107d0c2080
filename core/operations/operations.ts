import type { Measures } from '../mesh/measure'
import type { RepairOptions, RepairReport } from '../mesh/repair'
import type { PoseOptions } from '../pose/pose'
import type { PoseReport } from '../pose/quality'
import type { SupportOptions, SupportReport } from '../print/support/support'
import type { ReconstructOptions, ReconstructReport } from '../scan/reconstruct'
import type { Matrix3, Vector3 } from '../math/vectors'
import type { BaseOptions } from '../shape/base'
import type { BayOptions, BayReport, ChannelOptions, ChannelReport } from '../shape/channel'
import type { CutOptions, CutReport } from '../shape/cut'
import type { DrainHole, DrillReport } from '../shape/drill'
import type { Fixing, FixingReport } from '../shape/fixing'
import type { Dab } from '../shape/dabs'
import type { DrillGuideOptions, DrillGuideReport } from '../shape/drillGuide'
import type { PlugOptions, PlugReport } from '../shape/plug'
import type { HollowOptions, HollowReport } from '../shape/hollow'
import type { JoinOptions, JoinReport } from '../shape/join'
import type { NameplateOptions, NameplateReport } from '../shape/nameplate'
import type { Placement } from '../shape/place'
import type { ThickenOptions, ThickenReport } from '../shape/thicken'
import type { TrimOptions } from '../shape/trim'

/** Another body that an operation works with, as it was when the operation was made. */
export interface OtherBody {
  /** which part it was */
  part: string
  /** hash of its mesh */
  mesh: string
  /** how it has been turned, grown and moved since, with the body: see `carried` */
  matrix?: Matrix3
  shift?: Vector3
}

/**
 * The records a part's history is made of. `version` counts changes of the algorithm: with it a new result never
 * passes for an old one (see OPERATION_VERSION).
 */
export type Operation =
  | ({ kind: 'base' } & BaseOptions)
  | ({ kind: 'nameplate' } & NameplateOptions)
  | ({ kind: 'trim' } & TrimOptions)
  | ({ kind: 'surface' } & ReconstructOptions)
  | { kind: 'rebuild'; voxel: number }
  | ({ kind: 'repair' } & RepairOptions)
  | { kind: 'calibrate'; from: Vector3; to: Vector3; distance: number }
  | { kind: 'smooth'; passes: number; limit: number }
  | { kind: 'simplify'; faces: number }
  | ({ kind: 'pose' } & PoseOptions)
  | ({ kind: 'place' } & Placement)
  | { kind: 'scale'; factor: number; axes: Vector3; about: 'foot' | 'origin' }
  | ({ kind: 'thicken' } & ThickenOptions)
  | ({ kind: 'join'; others: readonly OtherBody[] } & JoinOptions)
  | ({ kind: 'cut' } & CutOptions)
  | { kind: 'fix'; fixings: readonly Fixing[] }
  | ({ kind: 'channel' } & ChannelOptions)
  | ({ kind: 'bay' } & BayOptions)
  | { kind: 'focal'; dabs: readonly Dab[] }
  | ({ kind: 'plug' } & PlugOptions)
  | ({ kind: 'guide' } & DrillGuideOptions)
  | ({ kind: 'hollow' } & HollowOptions)
  | { kind: 'drill'; holes: readonly DrainHole[] }
  | { kind: 'orient'; quaternion: readonly [number, number, number, number] }
  | ({ kind: 'support' } & SupportOptions)
export type OperationKind = Operation['kind']

/** Operations of which the measures say all. */
type Plain = 'base' | 'rebuild' | 'smooth' | 'simplify' | 'place' | 'scale'
export type OperationReport = { measures: Measures } & (
  | { [K in Plain]: { kind: K } }[Plain]
  | { kind: 'nameplate'; nameplate: NameplateReport }
  | { kind: 'trim'; removed: number }
  | { kind: 'surface'; surface: ReconstructReport }
  | { kind: 'repair'; repair: RepairReport }
  | { kind: 'calibrate'; factor: number }
  | { kind: 'pose'; pose: PoseReport }
  | { kind: 'thicken'; thicken: ThickenReport }
  | { kind: 'join'; join: JoinReport }
  | { kind: 'cut'; cut: CutReport }
  | { kind: 'fix'; fix: FixingReport }
  | { kind: 'channel'; channel: ChannelReport }
  | { kind: 'bay'; bay: BayReport }
  | { kind: 'focal' }
  | { kind: 'orient'; offset: Vector3 }
  | { kind: 'plug'; plug: PlugReport }
  | { kind: 'guide'; guide: DrillGuideReport }
  | { kind: 'hollow'; hollow: HollowReport }
  | { kind: 'drill'; drill: DrillReport }
  | { kind: 'support'; support: SupportReport }
)

/** Raised whenever an operation gives other bytes for the same input. */
export const OPERATION_VERSION: Record<OperationKind, number> = {
  base: 1,
  nameplate: 1,
  trim: 1,
  surface: 1,
  rebuild: 1,
  repair: 2,
  calibrate: 1,
  smooth: 1,
  simplify: 1,
  pose: 2,
  place: 1,
  scale: 2,
  thicken: 1,
  join: 1,
  cut: 1,
  fix: 1,
  channel: 1,
  bay: 1,
  focal: 1,
  plug: 1,
  guide: 1,
  hollow: 4,
  drill: 2,
  orient: 2,
  support: 7,
}

/**
 * The order in which a part's operations make sense; a new one is put in its place, not at the end. Those that may
 * stand several times in a list are `REPEATED`.
 */
export const OPERATION_ORDER: readonly OperationKind[] = [
  'base',
  'nameplate',
  'trim',
  'surface',
  'rebuild',
  'repair',
  'calibrate',
  'smooth',
  'simplify',
  'pose',
  'place',
  'scale',
  'thicken',
  'join',
  'cut',
  'fix',
  // The bay first: its walls are measured before a channel opens into it.
  'bay',
  'channel',
  // Changes no face: a note on the skin that goes along with it.
  'focal',
  'plug',
  'guide',
  'hollow',
  'drill',
  'orient',
  'support',
]
/** Whether a part only helps to make the piece: made from another part's body, it stands nowhere in it. */
export const isAid = (operations: readonly { kind: string }[]): boolean =>
  operations.some((o) => o.kind === 'plug' || o.kind === 'guide')
/** Place of a kind in that order. */
export const rankOf = (kind: OperationKind): number => OPERATION_ORDER.indexOf(kind)
export const REPEATED: readonly OperationKind[] = ['trim', 'thicken', 'join', 'cut', 'fix', 'channel', 'bay']

/** Meshes that an operation needs beside the one it changes, in the order in which it gets them. */
export const othersOf = (op: { kind: string; others?: readonly OtherBody[] }): string[] =>
  op.kind === 'join' ? (op.others ?? []).map((o) => o.mesh) : []
