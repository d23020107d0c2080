import type { Vector3 } from '../math/vectors'
import type { Said } from '../words/say'

type Place = [number, number, number]

/** What can be done about a finding, with all that is needed to do it. Every stage that shows the finding does each of its acts. */
export type FixAct =
  // the imported mesh
  | { act: 'repair' }
  | { act: 'newestEdition' }
  | { act: 'makeSurface' }
  /** all below the plane through `point`, `normal` pointing up from it, is cut off */
  | { act: 'cutFloor'; point: Place; normal: Place; scatter: number }
  // size; the factor is of the size at which it was measured
  | { act: 'scale'; factor: number }
  /** the skin grows outward by that many mm round each place */
  | { act: 'thicken'; places: readonly Vector3[]; by: number }
  // parts together; pairs and joints by their keys
  | { act: 'relieve'; pair: string }
  | { act: 'union'; pair: string }
  | { act: 'pin'; joint: string }
  | { act: 'turnNameplate' }
  | { act: 'turnBase' }
  | { act: 'widenBase' }
  // hollow
  | { act: 'proposeHoles' }
  | { act: 'holeAt'; place: Place }
  | { act: 'leaveSolid' }
  // orient and support
  | { act: 'support'; closer: boolean }
  | { act: 'reorient' }
  | { act: 'quarterTurn' }
  | { act: 'leaveSupported' }
  | { act: 'ventCup'; place: Place }
  // printers and baths
  | { act: 'refill'; plate: string }
  | { act: 'resume'; plate: string }
  | { act: 'judge'; plate: string }
  | { act: 'freshBath'; bath: 'first' | 'second' }
  // paint
  | { act: 'cheapestOrder' }
  | { act: 'brushRegion'; region: number }
  // calendar
  | { act: 'showDeciding'; piece: string }

export type Act = FixAct['act']
type Offers<Words> = { [A in Act]: Extract<FixAct, { act: A }> & { label: Words; effect: Words } }
/** The acts of the given names, as they are offered: what the button says, and what a press brings about. */
export type Fix<A extends Act = Act> = Offers<Said>[A]
/** The same in words. */
export type SpokenFix<A extends Act = Act> = Offers<string>[A]
