import type { Silhouette } from './silhouette'

export interface NestItem {
  id: string
  silhouette: Silhouette
  /** how many of it; spares count */
  copies: number
  /** whether it may be turned about z */
  turn: boolean
  /** what is in the vat for it; one plate has one resin */
  resin: string
  /** copies kept where a hand put them */
  locks?: readonly Lock[]
}
export interface Lock {
  copy: number
  printer: string
  /** number of the plate on its printer, from 0 */
  plate: number
  /** mm of its origin from the plate's middle, radians */
  x: number
  y: number
  angle: number
}
export interface NestPrinter {
  id: string
  /** mm */
  width: number
  depth: number
  height: number
  /** s of a plate whose tallest part has that height, mm */
  seconds: (height: number) => number
}
export interface NestWish {
  /** mm between two parts, and to the plate's edge */
  margin: number
  /** directions that a part is tried in, evenly round */
  turns: number
  /** rounds of improvement */
  rounds: number
  /** least machine time in all, or everything done soonest with the printers side by side */
  aim: 'hours' | 'soonest'
}
export const nestDefaults: NestWish = { margin: 2, turns: 12, rounds: 40, aim: 'hours' }

export interface Placed {
  id: string
  /** which of its copies, from 0 */
  copy: number
  /** mm of its origin from the plate's middle, and radians it is turned counter-clockwise */
  x: number
  y: number
  angle: number
}
export interface NestedPlate {
  printer: string
  /** number of the plate on its printer, from 0 */
  number: number
  resin: string
  parts: Placed[]
  /** mm, of its tallest part */
  height: number
  seconds: number
  /** share of the plate that is covered */
  filled: number
}
export interface Nesting {
  plates: NestedPlate[]
  /** parts that no printer takes, and why */
  left: { id: string; why: 'tall' | 'wide' | 'taken' }[]
  /** s of machine time in all, and until the last printer is done */
  seconds: number
  finish: number
  /** times a vat is emptied for another resin */
  vatChanges: number
}
