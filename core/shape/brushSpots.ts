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
  private readonly cells = new Map<string, Vector3[]>()
  constructor(private readonly spacing: number) {}

  /** Sets a dab, at full strength as far as the spacing, unless another is nearer than that. */
  add(x: number, y: number, z: number): void {
    const { spacing, cells } = this
    const [i, j, k] = [x, y, z].map((v) => Math.floor(v / spacing)) as [number, number, number]
    for (let a = -1; a <= 1; a++)
      for (let b = -1; b <= 1; b++)
        for (let c = -1; c <= 1; c++)
          for (const p of cells.get(`${i + a},${j + b},${k + c}`) ?? [])
            if (Math.hypot(p[0] - x, p[1] - y, p[2] - z) < spacing) return
    const key = `${i},${j},${k}`
    const list = cells.get(key)
    if (list) list.push([x, y, z])
    else cells.set(key, [[x, y, z]])
    this.dabs.push({ point: [x, y, z], radius: 2 * spacing })
  }
}
