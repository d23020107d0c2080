import type { Check } from '../../../contract/derivations'

/** What is felt of the surface: a brush of 1.2 mm, and light from above and a little in front, as a display case has it. */
export const SURFACE: Check = { kind: 'surfaceMaps', brush: 1.2, direction: [0.1, -0.34, 0.935] }

/** Bytes of a blob as the floats that they are. */
export const asFloats = (bytes: Uint8Array): Float32Array =>
  new Float32Array(bytes.buffer, bytes.byteOffset, bytes.byteLength / 4)
