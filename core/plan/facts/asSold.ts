import type { BenchMaterial } from '../materials/materials'

/** A product in stock as far as its label says how fast it is. */
export interface SoldProduct {
  /** what it stands for, as `use:material` */
  serves: readonly string[]
  /** minutes in which it can be worked, and until the next step; null where the label says nothing */
  working: number | null
  next: number | null
}

/** Materials with the times that the product in stock has, where it says so. */
export function asSold(
  list: readonly BenchMaterial[],
  use: BenchMaterial['use'],
  products: readonly SoldProduct[],
): BenchMaterial[] {
  return list.map((m) => {
    const own = products.find((s) => s.serves.includes(`${use}:${m.id}`) && (s.working !== null || s.next !== null))
    return own
      ? {
          ...m,
          working: own.working === null ? m.working : 60 * own.working,
          next: own.next === null ? m.next : 60 * own.next,
        }
      : m
  })
}
