/**
 * Which of some choices no other beats in every respect (Pareto front). Choices that are equal in all are kept once.
 *
 * @param costs one list of costs a choice, less is better
 * @returns indices, in the order given
 */
export function paretoFront(costs: readonly (readonly number[])[]): number[] {
  // By rising sum nothing later can beat what came before.
  const order = costs.map((c, i) => ({ i, sum: c.reduce((a, b) => a + b, 0) })).sort((a, b) => a.sum - b.sum)
  const front: number[] = []
  for (const { i } of order) if (!front.some((j) => costs[j]!.every((c, k) => c <= costs[i]![k]!))) front.push(i)
  return front.sort((a, b) => a - b)
}
