import type { Check } from '../../contract/derivations'
import type { Scheme } from '../../contract/scheme'
import type { Hand } from '../../core/defaults/paint'
import type { Undercoat } from '../../core/defaults/paint'
import type { SchemeSent } from '../workers/paintedSkin'

/** What is felt of the surface: a brush of 1.2 mm, and light from above and a little in front, as a display case has it. */
export const SURFACE: Check = {
  kind: 'surfaceMaps',
  brush: 1.2,
  direction: [0.1, -0.34, 0.935],
}

/** Bytes of a blob as the floats that they are. */
export const asFloats = (bytes: Uint8Array): Float32Array =>
  new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4)

/** A scheme as the paint worker takes it: plain copies, for reactive ones cannot be sent. */
export const schemeSent = (scheme: Scheme, labels: Uint8Array, undercoat: Undercoat, hand: Hand): SchemeSent => ({
  labels,
  regions: regionsSent(scheme),
  coats: plainCoats(scheme.coats),
  effects: scheme.effects.map((e) => ({ ...e })),
  undercoat,
  hand: { ...hand },
})
export const regionsSent = (scheme: Scheme): SchemeSent['regions'] =>
  scheme.regions.map((r) => ({ id: r.id, clear: r.takes === 'light', behind: r.behind && { ...r.behind } }))
export const plainCoats = (coats: Scheme['coats']): Scheme['coats'] =>
  JSON.parse(JSON.stringify(coats)) as Scheme['coats']
