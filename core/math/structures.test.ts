import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { coneDirections, sphereDirections } from './directions'
import { symmetricEigen } from './eigen'
import { MinHeap } from './heap'
import { paretoFront } from './pareto'
import { evenNumbers, normalNumbers } from './random'
import { multiply } from './sparse'
import { UnionFind } from './unionFind'
import { apply3, cross, determinant, dot, frame, fromQuaternion, minus, quaternionBetween, unit } from './vectors'

const real = fc.double({ min: -50, max: 50, noNaN: true })
const direction = fc
  .tuple(real, real, real)
  .filter((v) => Math.hypot(...v) > 1e-3)
  .map((v) => unit(v))

describe('the heap', () => {
  it('gives back by rising key whatever is pushed in between, and far more than it began with room for', () => {
    fc.assert(
      fc.property(fc.array(fc.option(fc.integer({ min: -1000, max: 1000 })), { maxLength: 400 }), (moves) => {
        const heap = new MinHeap(),
          left: number[] = []
        for (const key of moves)
          if (key !== null) {
            heap.push(key + 5000, key)
            left.push(key)
          } else if (left.length > 0) {
            left.sort((a, b) => a - b)
            expect(heap.pop()).toBe(left.shift()! + 5000)
          }
        expect(heap.size).toBe(left.length)
      }),
    )
    const heap = new MinHeap(),
      even = evenNumbers(7)
    const keys = Array.from({ length: 5000 }, even)
    keys.forEach((key, i) => heap.push(i, key))
    const out = keys.map(() => keys[heap.pop()]!)
    expect(out).toEqual([...keys].sort((a, b) => a - b))
  })
})

describe('sets that are joined', () => {
  it('are the connected components that a search finds, each known by its least member', () => {
    const edges = fc.array(fc.tuple(fc.nat(29), fc.nat(29)), { maxLength: 40 })
    fc.assert(
      fc.property(edges, (list) => {
        const sets = new UnionFind()
        for (let i = 0; i < 30; i++) expect(sets.add()).toBe(i)
        let count = 30
        for (const [a, b] of list) {
          const joined = sets.join(a, b)
          if (joined) {
            count--
            expect(joined.keep).toBeLessThan(joined.gone)
          }
        }
        const least = Array.from({ length: 30 }, (_, i) => i)
        for (let pass = 0; pass < 30; pass++)
          for (const [a, b] of list) least[a] = least[b] = Math.min(least[a]!, least[b]!)
        expect(least.map((_, i) => sets.root(i))).toEqual(least)
        expect(new Set(least).size).toBe(count)
      }),
    )
  })
})

describe('eigenvectors of a symmetric matrix', () => {
  it('are turned into multiples of themselves, are square to each other, and rise', () => {
    fc.assert(
      fc.property(fc.tuple(real, real, real, real, real, real), (m) => {
        const [xx, xy, xz, yy, yz, zz] = m
        const { values, vectors } = symmetricEigen(m)
        const size = Math.max(1, ...m.map(Math.abs))
        expect(values[0]).toBeLessThanOrEqual(values[1])
        expect(values[1]).toBeLessThanOrEqual(values[2])
        expect(Math.abs(values[0] + values[1] + values[2] - xx - yy - zz)).toBeLessThan(1e-10 * size)
        vectors.forEach((v, i) => {
          const turned = apply3([xx, xy, xz, xy, yy, yz, xz, yz, zz], v)
          expect(Math.hypot(...minus(turned, v.map((c) => c * values[i]!) as never))).toBeLessThan(1e-10 * size)
          vectors.forEach((w, j) => expect(Math.abs(dot(v, w) - (i === j ? 1 : 0))).toBeLessThan(1e-10))
        })
      }),
    )
  })
  it('are the axes of a matrix that has no others, however far apart its values are', () => {
    const { values } = symmetricEigen([1e12, 0, 0, 1e-12, 0, 3])
    expect(values).toEqual([1e-12, 3, 1e12])
  })
})

describe('directions', () => {
  it('over the sphere are unit, cancel out, and leave no cap without one', () => {
    for (const n of [1, 2, 64, 1000]) {
      const all = sphereDirections(n)
      for (const d of all) expect(Math.hypot(...d)).toBeCloseTo(1, 12)
      const sum = all.reduce((s, d) => [s[0] + d[0], s[1] + d[1], s[2] + d[2]] as const, [0, 0, 0] as const)
      if (n >= 64) expect(Math.hypot(...sum) / n).toBeLessThan(0.02)
    }
    const all = sphereDirections(1000)
    // A thousand caps of the sphere's area have a half angle of 3.6°; even spacing leaves none of twice that.
    fc.assert(
      fc.property(direction, (d) => {
        expect(Math.max(...all.map((e) => dot(d, e)))).toBeGreaterThan(Math.cos((7.2 * Math.PI) / 180))
      }),
    )
  })
  it('of a cone are its axis, half and whole angle away from it, and even about it', () => {
    fc.assert(
      fc.property(direction, fc.double({ min: 0.01, max: 1.5, noNaN: true }), (axis, angle) => {
        const all = coneDirections(axis, angle)
        const cosines = all.map((d) => dot(d, axis))
        expect(cosines[0]).toBeCloseTo(1, 9)
        for (const c of cosines.slice(1, 5)) expect(c).toBeCloseTo(Math.cos(angle / 2), 9)
        for (const c of cosines.slice(5)) expect(c).toBeCloseTo(Math.cos(angle), 9)
        for (const ring of [all.slice(1, 5), all.slice(5)]) {
          const mean = [0, 1, 2].map((k) => ring.reduce((s, d) => s + d[k]!, 0) / 4)
          expect(Math.hypot(...cross(mean as never, axis))).toBeLessThan(1e-9)
        }
      }),
    )
  })
  it('with two more make a right-handed frame', () => {
    fc.assert(
      fc.property(direction, (d) => {
        const [u, v] = frame(d)
        expect(determinant([...u, ...v, ...d])).toBeCloseTo(1, 9)
        for (const [a, b] of [[u, v] as const, [u, d] as const, [v, d] as const]) expect(dot(a, b)).toBeCloseTo(0, 9)
      }),
    )
  })
  it('are taken to each other by the rotation between them, the shortest there is', () => {
    fc.assert(
      fc.property(direction, direction, (a, b) => {
        const q = quaternionBetween(a, b)
        const m = fromQuaternion(q)
        expect(determinant(m)).toBeCloseTo(1, 9)
        expect(Math.hypot(...minus(apply3(m, a), b))).toBeLessThan(2e-3)
        const angle = 2 * Math.acos(Math.min(1, Math.abs(q[3])))
        expect(angle).toBeCloseTo(Math.acos(Math.max(-1, Math.min(1, dot(a, b)))), 2)
      }),
    )
  })
})

describe('the best of several choices', () => {
  it('are those that no other beats in every respect, as comparing all pairs finds', () => {
    const costs = fc.array(fc.tuple(fc.nat(6), fc.nat(6), fc.nat(6)), { maxLength: 25 })
    fc.assert(
      fc.property(costs, (list) => {
        const front = paretoFront(list)
        const beaten = (i: number): boolean =>
          list.some((c, j) => j !== i && c.every((v, k) => v <= list[i]![k]!) && c.some((v, k) => v < list[i]![k]!))
        const best = new Set(list.flatMap((c, i) => (beaten(i) ? [] : [JSON.stringify(c)])))
        expect(new Set(front.map((i) => JSON.stringify(list[i])))).toEqual(best)
        expect(front).toHaveLength(best.size)
        expect([...front].sort((a, b) => a - b)).toEqual(front)
      }),
    )
  })
})

describe('random numbers', () => {
  it('are the same for a seed, other for another, and as even and as normal as they say', () => {
    const draw = (seed: number, n: number): number[] => Array.from({ length: n }, evenNumbers(seed))
    expect(draw(1, 5)).toEqual(draw(1, 5))
    expect(draw(1, 5)).not.toEqual(draw(2, 5))
    // Twenty bins of a thousand each: chi-squared of 19 degrees of freedom is over 43.8 once in a thousand seeds.
    const bins = new Float64Array(20)
    for (const x of draw(3, 20_000)) bins[Math.floor(x * 20)]!++
    expect(bins.reduce((s, n) => s + (n - 1000) ** 2 / 1000, 0)).toBeLessThan(43.8)
    const normal = Array.from({ length: 20_000 }, normalNumbers(evenNumbers(4)))
    const mean = normal.reduce((a, b) => a + b) / normal.length
    const moment = (k: number): number => normal.reduce((s, x) => s + (x - mean) ** k, 0) / normal.length
    expect(Math.abs(mean)).toBeLessThan(0.03)
    expect(moment(2)).toBeCloseTo(1, 1)
    expect(moment(4) / moment(2) ** 2).toBeCloseTo(3, 0)
  })
})

describe('a sparse matrix', () => {
  it('times a vector is what the full matrix gives', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.option(real), { minLength: 6, maxLength: 6 }), { minLength: 6, maxLength: 6 }),
        (rows) => {
          const starts = [0],
            columns: number[] = [],
            values: number[] = []
          rows.forEach((row, i) => {
            row.forEach((v, j) => {
              if (v === null || i === j) return
              columns.push(j)
              values.push(v)
            })
            starts.push(columns.length)
          })
          const diagonal = rows.map((row, i) => row[i] ?? 1)
          const x = Float64Array.from([3, -1, 4, 1, -5, 9]),
            out = new Float64Array(6)
          multiply(
            {
              diagonal: new Float64Array(diagonal),
              starts: new Uint32Array(starts),
              columns: new Uint32Array(columns),
              values: new Float64Array(values),
            },
            x,
            out,
          )
          rows.forEach((row, i) => {
            const full = row.reduce<number>((s, v, j) => s + (i === j ? diagonal[i]! : (v ?? 0)) * x[j]!, 0)
            expect(out[i]).toBeCloseTo(full, 9)
          })
        },
      ),
    )
  })
})
