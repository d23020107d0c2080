import type { Mesh } from '../../core/mesh/mesh'
import type { Painted } from '../../core/paint/coats/coating'
import type { Guide, Marker, Stroke } from './annotations'
import { STILL, type Motion } from './motion'
import type { Picked } from './scene'

export type Point = [number, number, number]
export type Quaternion = [number, number, number, number]
/** A picture behind the sculpt, px; the matrix is a CSS one from its pixels to the turntable's, null lets it fill it. */
export interface Backdrop {
  url: string
  size: [number, number]
  opacity: number
  matrix: [number, number, number, number, number, number] | null
}

/** What stands on the turntable and what a hand does there. It is never changed, only replaced. */
export interface SceneDescription {
  /** full mesh whose display copy is shown; null leaves the disc empty, undefined what stands there as it is */
  readonly mesh: string | null | undefined
  /** faces from this one on are supports */
  readonly bodyFaces: number | undefined
  readonly markers: readonly Marker[]
  /** linear colours per vertex of the display mesh */
  readonly colours: Float32Array | null
  /** with the colours: roughness and metalness per vertex, where paint is shown as it shines */
  readonly sheen: Float32Array | null
  readonly glow: Float32Array | null
  /** the same sculpt again beside itself, painted otherwise, each with what stands under it */
  readonly beside: readonly ({ name: string } & Painted)[]
  /** thin lines on the skin */
  readonly guides: readonly Guide[]
  /** a place in the open that can be taken hold of and moved */
  readonly target: Point | null
  /** where the light stands, degrees to the sculpt's own left and up; null: it rides with the viewer */
  readonly lamp: { turn: number; lift: number } | null
  /** where the display mesh' vertices are while a pose is tried; null where they came */
  readonly positions: Float32Array | null
  readonly quaternion: Quaternion | null
  /** what a press on the sculpt does: nothing, one pick, a brush stroke, tilting it by hand */
  readonly mode: 'look' | 'pick' | 'brush' | 'tilt' | 'move'
  /** full meshes of other parts that stand beside the one at work, as they are placed */
  readonly companions: readonly string[]
  /** how the part at work is moved while a hand holds it, and the companions that go with it */
  readonly motion: Motion
  readonly along: readonly string[]
  /** a cutting plane to be shown: a point on it and its unit normal */
  readonly plane: { readonly point: Point; readonly normal: Point } | null
  /** a line drawn over the sculpt, rounded unless it is sharp; fewer than two points are none */
  readonly line: Stroke
  readonly backdrop: Backdrop | null
  /** what is in the part, drawn as a clear body in its frame */
  readonly liquid: Mesh | null
  /** the half toward the viewer is removed */
  readonly cutOpen: boolean
  readonly hint: string
  /** the turntable is wanted in a stage that else fills the middle itself */
  readonly stands: boolean
  readonly onPick: ((p: Picked) => void) | null
  readonly onTilt: ((q: Quaternion) => void) | null
  readonly onMove: ((by: Motion, ended: boolean) => void) | null
  readonly onTarget: ((at: Point, ended: boolean) => void) | null
  /** whether a press takes hold of something on the skin, to be slid along it */
  readonly onGrab: ((p: Picked) => boolean) | null
  readonly onSlide: ((p: Picked, ended: boolean) => void) | null
}
/** What a stage, or one of its panels, says of the scene; of all else it says nothing. */
export type SceneLayer = Partial<SceneDescription>

export const EMPTY_SCENE: SceneDescription = {
  mesh: undefined,
  bodyFaces: undefined,
  markers: [],
  colours: null,
  sheen: null,
  glow: null,
  beside: [],
  guides: [],
  target: null,
  lamp: null,
  positions: null,
  quaternion: null,
  mode: 'look',
  companions: [],
  motion: STILL,
  along: [],
  plane: null,
  line: { points: [], closed: false },
  backdrop: null,
  liquid: null,
  cutOpen: false,
  hint: '',
  stands: false,
  onPick: null,
  onTilt: null,
  onMove: null,
  onTarget: null,
  onGrab: null,
  onSlide: null,
}

/** One scene of layers, the lowest first: where two speak of the same, the upper one counts. */
export function composed(layers: readonly (SceneLayer | null)[]): SceneDescription {
  const out: Record<string, unknown> = { ...EMPTY_SCENE }
  for (const layer of layers)
    for (const [key, value] of Object.entries(layer ?? {})) if (value !== undefined) out[key] = value
  return out as unknown as SceneDescription
}
