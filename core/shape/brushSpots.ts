import { SpacedPoints } from '../math/spacedPoints'
import type { Vector3 } from '../math/vectors'

/** Places of a brush: full strength out to half the radius, none at it. */
export interface BrushSpot {
  point: Vector3
  /** mm */
  radius: number
}

/** Strength of the brush at a place, 0 to 1, smooth. */
export function brushAt(dabs: readonly BrushSpot[], x: number, y: number, z: number): number {
  let most = 0
  for (const { point: p, radius } of dabs) {
    const dx = x - p[0],
      dy = y - p[1],
      dz = z - p[2]
    const t = Math.min(1, Math.max(0, 2 * (1 - Math.sqrt(dx * dx + dy * dy + dz * dz) / radius)))
    most = Math.max(most, t * t * (3 - 2 * t))
  }
  return most
}
/** How fast a bump of that height can rise over the brush's fall-off, mm a mm: at most twice as steep as the mean. */
export const brushSlope = (dabs: readonly BrushSpot[], height: number): number =>
  (4 * height) / Math.min(...dabs.map((d) => d.radius))

/** Dabs that keep a distance from each other: a place is taken only where none has been taken near it. */
export class SpacedSpots {
  readonly dabs: BrushSpot[] = []
  private readonly taken: SpacedPoints
  constructor(private readonly spacing: number) {
    this.taken = new SpacedPoints(spacing)
  }

  /** Sets a dab, at full strength as far as the spacing, unless another is nearer than that. */
  add(x: number, y: number, z: number): void {
    if (this.taken.add(x, y, z)) this.dabs.push({ point: [x, y, z], radius: 2 * this.spacing })
  }
}
