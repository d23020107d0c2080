import type { Vector3 } from './vectors'

/** Points that keep a distance from each other: one is taken only where none has been taken nearer than that. */
export class SpacedPoints {
  readonly points: Vector3[] = []
  private readonly cells = new Map<string, Vector3[]>()
  /** @param spacing mm, more than 0 */
  constructor(private readonly spacing: number) {}

  /** Takes the point unless another is too near; says whether it was taken. */
  add(x: number, y: number, z: number): boolean {
    const { spacing, cells } = this
    const [i, j, k] = [x, y, z].map((v) => Math.floor(v / spacing)) as [number, number, number]
    for (let a = -1; a <= 1; a++)
      for (let b = -1; b <= 1; b++)
        for (let c = -1; c <= 1; c++)
          for (const p of cells.get(`${i + a},${j + b},${k + c}`) ?? [])
            if (Math.hypot(p[0] - x, p[1] - y, p[2] - z) < spacing) return false
    const key = `${i},${j},${k}`,
      taken: Vector3 = [x, y, z]
    const list = cells.get(key)
    if (list) list.push(taken)
    else cells.set(key, [taken])
    this.points.push(taken)
    return true
  }
}
