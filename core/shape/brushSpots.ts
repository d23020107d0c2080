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
/**
 * The same brush, asked very often: a place is held only against the dabs that reach into its cell, so that a long rim costs
 * no more than a short one.
 */
export class BrushField {
  private readonly cells = new Map<string, BrushSpot[]>()
  private readonly side: number

  constructor(dabs: readonly BrushSpot[]) {
    this.side = Math.max(...dabs.map((d) => d.radius)) / 2
    for (const d of dabs) {
      const [i, j, k] = [0, 1, 2].map((a) => [this.cell(d.point[a]! - d.radius), this.cell(d.point[a]! + d.radius)])
      for (let a = i![0]!; a <= i![1]!; a++)
        for (let b = j![0]!; b <= j![1]!; b++)
          for (let c = k![0]!; c <= k![1]!; c++) {
            const key = `${a},${b},${c}`,
              list = this.cells.get(key)
            if (list) list.push(d)
            else this.cells.set(key, [d])
          }
    }
  }
  private cell(v: number): number {
    return Math.floor(v / this.side)
  }
  /** Strength there, as `brushAt` has it. */
  at(x: number, y: number, z: number): number {
    const near = this.cells.get(`${this.cell(x)},${this.cell(y)},${this.cell(z)}`)
    return near ? brushAt(near, x, y, z) : 0
  }
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
