/** A rigid motion of what is being moved, mm as seen: p ↦ turned p + shift. */
export interface Motion {
  quaternion: [number, number, number, number]
  shift: [number, number, number]
}
export const STILL: Motion = { quaternion: [0, 0, 0, 1], shift: [0, 0, 0] }
