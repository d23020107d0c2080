import { text } from '../../i18n'
import { inject, provide, reactive, type InjectionKey } from 'vue'
import type { Quaternion } from '../../viewport/sceneDescription'

/** What the hand does at the sculpt while it is stood up and supported. */
export type Tool =
  | 'none'
  | 'tilt'
  | 'face'
  | 'keepUp'
  | 'focal'
  | 'add'
  | 'remove'
  | 'clear'
  | 'regrade'
  | 'move'
  | 'drop'
  | 'bar'
  | 'more'
type Triple = [number, number, number]
export interface BrushSpot {
  point: Triple
  radius: number
}

/** The state that the panels of the Stand stage share: the tool in the hand, the way up that is tried. */
export interface Stand {
  tool: Tool
  /** rotation that is tried and not yet set */
  draft: Quaternion | null
  /** direction of the body that is to look up */
  keep: Triple | null
  /** dabs being brushed, and the brush's radius, mm */
  dabs: BrushSpot[]
  radius: number
  /** the tip that is being moved: where it is now */
  held: Triple | null
  /** where it is being pulled to */
  slid: Triple | null
}
const KEY: InjectionKey<Stand> = Symbol('stand')

export function provideStand(): Stand {
  const stand = reactive<Stand>({ tool: 'none', draft: null, keep: null, dabs: [], radius: 5, held: null, slid: null })
  provide(KEY, stand)
  return stand
}
export function useStand(): Stand {
  const stand = inject(KEY)
  if (!stand) throw new Error(text('orient.orientStage.thereIsNoOrient'))
  return stand
}
