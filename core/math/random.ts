/** Even numbers in [0, 1) from a seed, the same on every machine (mulberry32). */
export function evenNumbers(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), a | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Normally distributed numbers, mean 0 and deviation 1 (Box and Muller 1958). */
export const normalNumbers =
  (even: () => number): (() => number) =>
  () =>
    Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even())
