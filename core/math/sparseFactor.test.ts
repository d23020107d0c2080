import fc from 'fast-check'
import { expect, test } from 'vitest'
import { Factor } from './sparseFactor'
import { multiply, type Sparse } from './sparse'

/** Laplacian of a random graph, held at some of its rows. */
function sample(n: number, pairs: readonly [number, number, number][], hold: number): Sparse {
  const rows = Array.from({ length: n }, () => new Map<number, number>())
  const diagonal = new Float64Array(n)
  for (let i = 0; i < n; i++) diagonal[i] = i % 7 === 0 ? hold : 1e-3
  for (const [a, b, w] of pairs) {
    const [i, j] = [a % n, b % n]
    if (i === j) continue
    rows[i]!.set(j, (rows[i]!.get(j) ?? 0) - w)
    rows[j]!.set(i, (rows[j]!.get(i) ?? 0) - w)
    diagonal[i]! += w
    diagonal[j]! += w
  }
  const starts = new Uint32Array(n + 1)
  rows.forEach((r, i) => {
    starts[i + 1] = starts[i]! + r.size
  })
  return {
    diagonal,
    starts,
    columns: Uint32Array.from(rows.flatMap((r) => [...r.keys()])),
    values: Float64Array.from(rows.flatMap((r) => [...r.values()])),
  }
}

test('solves what it factored, connected or in pieces', () => {
  const pair = fc.tuple(fc.nat(300), fc.nat(300), fc.double({ min: 0.01, max: 5, noNaN: true }))
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 140 }), fc.array(pair, { maxLength: 400 }), (n, pairs) => {
      const a = sample(n, pairs, 1)
      const want = Float64Array.from({ length: n }, (_, i) => Math.sin(3 * i))
      const b = new Float64Array(n)
      multiply(a, want, b)
      const x = new Float64Array(n)
      const f = new Factor(a)
      f.solve(b, x)
      f.solve(b, x)
      for (let i = 0; i < n; i++) expect(x[i]).toBeCloseTo(want[i]!, 6)
    }),
    { seed: 11, numRuns: 60 },
  )
})

test('a piece that nothing holds keeps the place it had', () => {
  // Two rows joined to each other alone: only their difference is known.
  const a = sample(2, [[0, 1, 2]], 0)
  a.diagonal.fill(2)
  const x = Float64Array.from([10, 10])
  new Factor(a).solve(Float64Array.from([2, -2]), x)
  expect(x[0]! - x[1]!).toBeCloseTo(1, 6)
  expect((x[0]! + x[1]!) / 2).toBeCloseTo(10, 6)
})
