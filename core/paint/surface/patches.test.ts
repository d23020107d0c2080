import { describe, expect, it } from 'vitest'
import { refine } from '../../mesh/refine'
import { concatenate } from '../../mesh/mesh'
import { boxBody, sphereBody } from '../../testBodies'
import { creasePatches, patchTree, piecesAt, proposed } from './patches'
import { stackForName } from './vocabulary'

describe('patches that end in creases', () => {
  const cube = refine(boxBody(30, 30, 30), 1.5, 60_000)
  const tree = patchTree(creasePatches(cube, 300))
  /** side of the cube that a vertex lies on, or −1 on its edges */
  const side = (v: number): number => {
    const at = [0, 1, 2].flatMap((k) => {
      const x = cube.positions[3 * v + k]!
      return x < 0.01 ? [2 * k] : x > 29.99 ? [2 * k + 1] : []
    })
    return at.length === 1 ? at[0]! : -1
  }
  it('cover the skin, and find the six sides of a cube again', () => {
    expect(tree.sizes.reduce((a, b) => a + b)).toBe(cube.positions.length / 3)
    const six = proposed(tree, 6)
    const by = Array.from({ length: 6 }, () => new Float64Array(6))
    six.forEach((p, v) => {
      if (side(v) >= 0) by[p]![side(v)]!++
    })
    const whole = by.flatMap((r) => [...r]).reduce((a, b) => a + b)
    expect(by.reduce((s, r) => s + Math.max(...r), 0) / whole).toBeGreaterThan(0.97)
    // Every side has a piece of its own.
    expect(new Set(by.map((r) => r.indexOf(Math.max(...r)))).size).toBe(6)
  })
  it('become fewer by joining whole: coarse pieces are made of finer ones', () => {
    let before = piecesAt(tree, tree.count)
    for (const n of [200, 80, 20, 6, 2, 1]) {
      const now = piecesAt(tree, n)
      expect(new Set(now).size).toBe(n)
      const to = new Map<number, number>()
      before.forEach((p, i) => {
        if (to.has(p)) expect(to.get(p)).toBe(now[i])
        to.set(p, now[i]!)
      })
      before = now
    }
  })
  it('never join what does not touch', () => {
    const two = patchTree(creasePatches(concatenate([sphereBody(5, 3), sphereBody(5, 3, [30, 0, 0])]), 40))
    expect(new Set(piecesAt(two, 1)).size).toBe(2)
  })
  it('know a craft word in a name', () => {
    const stack = (name: string): string | null =>
      stackForName(name, ({ id }) => (id === 'vocabulary.region.Hands' ? 'Hände' : ''.padEnd(99, '-')))
    expect(stack('Left hands')).toBe('skin')
    expect(stack('Linke Hände')).toBe('skin')
    expect(stack('Leather cap')).toBe('worn')
    expect(stack('Blade, upper side')).toBe('metal')
    expect(stack('Region 4')).toBe(null)
  })
})
