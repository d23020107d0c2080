import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Mesh } from '../../core/mesh/mesh'
import type { Painted } from '../../core/paint/coats/coating'
import { STILL, type Motion } from './motion'
import type { Guide, Marker } from './annotations'
import type { Eyes } from './gaze'
import type { Picked } from './scene'

export type Quaternion = [number, number, number, number]

/** What the stage wants on the turntable. Stages write; the turntable, which outlives them, reads. */
export const useViewport = defineStore('viewport', () => {
  /** full mesh whose display copy is shown; null leaves the disc empty */
  const mesh = ref<string | null>(null)
  const bodyFaces = ref<number | undefined>(undefined)
  const markers = shallowRef<Marker[]>([])
  /** linear colours per vertex of the display mesh */
  const colours = shallowRef<Float32Array | null>(null)
  /** with the colours: roughness and metalness per vertex, where paint is shown as it shines */
  const sheen = shallowRef<Float32Array | null>(null)
  const glow = shallowRef<Float32Array | null>(null)
  /** the same sculpt again beside itself, painted otherwise, each with what stands under it */
  const beside = shallowRef<({ name: string } & Painted)[]>([])
  /** thin lines on the skin */
  const guides = shallowRef<Guide[]>([])
  /** a place in the open that can be taken hold of and moved */
  const target = shallowRef<[number, number, number] | null>(null)
  /** where the light stands, degrees to the sculpt's own left and up; null: it rides with the viewer */
  const lamp = ref<{ turn: number; lift: number } | null>(null)
  /** where the display mesh' vertices are while a pose is tried; null where they came */
  const positions = shallowRef<Float32Array | null>(null)
  const quaternion = ref<Quaternion | null>(null)
  /** what a press on the sculpt does: nothing, one pick, a brush stroke, tilting it by hand */
  const mode = ref<'look' | 'pick' | 'brush' | 'tilt' | 'carry'>('look')
  /** full meshes of other parts that stand beside the one at work, as they are placed */
  const companions = ref<string[]>([])
  /** how the part at work is moved while a hand holds it, and the companions that go with it */
  const motion = shallowRef<Motion>(STILL)
  const along = ref<string[]>([])
  /** a cutting plane to be shown: a point on it and its unit normal */
  const plane = shallowRef<{ point: [number, number, number]; normal: [number, number, number] } | null>(null)
  /** a line drawn over the sculpt, rounded unless it is sharp; fewer than two points are none */
  const line = shallowRef<{ points: [number, number, number][]; closed: boolean; sharp?: boolean }>({
    points: [],
    closed: false,
  })
  /** a picture behind the sculpt, px; the matrix is a CSS one from its pixels to the turntable's, null lets it fill it */
  const backdrop = shallowRef<{
    url: string
    size: [number, number]
    opacity: number
    matrix: [number, number, number, number, number, number] | null
  } | null>(null)
  /** what is in the part, drawn as a clear body in its frame */
  const liquid = shallowRef<Mesh | null>(null)
  /** the half toward the viewer is taken away */
  const cutOpen = ref(false)
  const hint = ref('')
  /** the turntable is wanted in a stage that else fills the middle itself */
  const stands = ref(false)
  const spot = shallowRef<[number, number, number] | null>(null)
  const shown = shallowRef<{ mesh: Mesh; hash: string; of: string; bodyFaces: number } | null>(null)
  /** the turntable's own eyes, while it stands */
  const eyes = shallowRef<Eyes | null>(null)
  const camera = (): ReturnType<Eyes['view']> | null => eyes.value?.view() ?? null
  const turnView = (azimuth: number, elevation: number): void => eyes.value?.lookFrom(azimuth, elevation)
  let onPick: ((p: Picked) => void) | null = null
  let onTilt: ((q: Quaternion) => void) | null = null
  let onCarry: ((by: Motion, ended: boolean) => void) | null = null
  let onTarget: ((at: [number, number, number], ended: boolean) => void) | null = null
  let onGrab: ((p: Picked) => boolean) | null = null,
    onSlide: ((p: Picked, ended: boolean) => void) | null = null

  function clear(): void {
    markers.value = []
    colours.value = null
    sheen.value = null
    glow.value = null
    lamp.value = null
    beside.value = []
    guides.value = []
    target.value = null
    positions.value = null
    quaternion.value = null
    mode.value = 'look'
    hint.value = ''
    bodyFaces.value = undefined
    companions.value = []
    motion.value = STILL
    along.value = []
    plane.value = null
    line.value = { points: [], closed: false }
    backdrop.value = null
    cutOpen.value = false
    liquid.value = null
    onPick = onTilt = onCarry = onGrab = onSlide = onTarget = null
  }
  const picking = (handler: (p: Picked) => void): void => {
    onPick = handler
  }
  const tilting = (handler: (q: Quaternion) => void): void => {
    onTilt = handler
  }
  const carrying = (handler: (by: Motion, ended: boolean) => void): void => {
    onCarry = handler
  }
  const aiming = (handler: (at: [number, number, number], ended: boolean) => void): void => {
    onTarget = handler
  }
  const aimed = (at: [number, number, number], ended: boolean): void => onTarget?.(at, ended)
  /** Something on the skin can be taken hold of and slid along it: whether a press takes it, and where it is then. */
  const sliding = (grab: (p: Picked) => boolean, slide: (p: Picked, ended: boolean) => void): void => {
    onGrab = grab
    onSlide = slide
  }
  const grabs = (p: Picked): boolean => onGrab?.(p) ?? false
  const slid = (p: Picked, ended: boolean): void => onSlide?.(p, ended)
  const carried = (by: Motion, ended: boolean): void => onCarry?.(by, ended)
  const picked = (p: Picked): void => onPick?.(p)
  const tilted = (q: Quaternion): void => onTilt?.(q)
  const show = (place: [number, number, number]): void => {
    spot.value = [...place]
  }
  return {
    mesh,
    bodyFaces,
    markers,
    colours,
    sheen,
    glow,
    lamp,
    beside,
    guides,
    target,
    positions,
    quaternion,
    mode,
    companions,
    motion,
    along,
    plane,
    line,
    backdrop,
    cutOpen,
    liquid,
    eyes,
    camera,
    turnView,
    hint,
    stands,
    spot,
    shown,
    clear,
    picking,
    tilting,
    carrying,
    sliding,
    aiming,
    aimed,
    grabs,
    slid,
    carried,
    picked,
    tilted,
    show,
  }
})
