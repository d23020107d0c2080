import type { Mesh } from '../core/mesh/mesh'
import { tube } from '../core/shape/cylinder'

/** Radius by height of the skittle, mm; straight pieces between, so every section is a regular polygon of known size. */
const PROFILE: [number, number][] = [
  [0, 12],
  [4, 12],
  [8, 10],
  [26, 15],
  [40, 9],
  [46, 8],
  [52, 10],
  [60, 6],
]
export const SIDES = 40
/** mm between rings at most: faces as broad as they are long are not split so often to be painted on. */
const RING = 3

/** A skittle: not a demo sculpt, and simple enough to know everything about. */
export function skittle(): Mesh {
  const rings = PROFILE.flatMap(([z, r], i) => {
    const [below, at] = PROFILE[i - 1] ?? [z, r]
    const n = Math.max(1, Math.ceil((z - below) / RING))
    return Array.from({ length: n }, (_, k) => {
      const t = (k + 1) / n
      return [below + t * (z - below), at + t * (r - at)] as const
    })
  })
  return tube(
    rings.map(([z]) => [0, 0, z] as const),
    rings.map(([, r]) => r),
    SIDES,
  )
}

/** Area of its section at height z, mm². */
export function skittleSection(z: number): number {
  const i = PROFILE.findIndex(([h]) => h >= z)
  const [z0, r0] = PROFILE[Math.max(0, i - 1)]!,
    [z1, r1] = PROFILE[Math.max(1, i)]!
  const r = r0 + ((r1 - r0) * (z - z0)) / (z1 - z0)
  return (SIDES / 2) * r * r * Math.sin((2 * Math.PI) / SIDES)
}
