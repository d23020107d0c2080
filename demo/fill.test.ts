import { describe, expect, it } from 'vitest'
import { simplify } from '../core/mesh/simplify'
import { creasePatches, patchTree, piecesAt, proposed } from '../core/paint/surface/patches'
import { bustLabels } from './bustLabels'
import { build } from './sculpts/build'
import { pilotBust } from './sculpts/pilotBust'

/** How far a press of the tool can go, as pieces of the whole. */
const REACHES = [2400, 1200, 600, 300, 160, 80, 40, 20, 12, 8, 5]

describe('filling to creases on the bust', () => {
  it('has 95 % of the faces right against the generator’s own labels after two dozen presses over five regions', async () => {
    const bust = await simplify(
      await build(pilotBust(), { min: [-42, -34, -1], max: [42, 34, 150] }, 0.8),
      120_000,
      0.05,
    )
    const truth = bustLabels(bust, 1)
    const tree = patchTree(creasePatches(bust, 2400))
    const t = bust.triangles
    const right = (labels: ArrayLike<number>): number => {
      let ok = 0
      // A face is what most of its corners are.
      const face = (l: ArrayLike<number>, f: number): number =>
        l[t[f]!] === l[t[f + 1]!] || l[t[f]!] === l[t[f + 2]!] ? l[t[f]!]! : l[t[f + 1]!]!
      for (let f = 0; f < t.length; f += 3) if (face(labels, f) === face(truth, f)) ok++
      return ok / (t.length / 3)
    }
    // Somebody who sees where it is wrong presses where it helps most, as far as it goes, again and again.
    const inside = Array.from({ length: tree.count }, () => new Float64Array(5))
    tree.of.forEach((p, v) => inside[p]![truth[v]!]!++)
    const pieces = REACHES.flatMap((r) => {
      const by = new Map<number, number[]>()
      piecesAt(tree, r).forEach((piece, patch) => by.set(piece, [...(by.get(piece) ?? []), patch]))
      return [...by.values()]
    })
    const painted = new Int32Array(tree.count).fill(-1)
    for (let press = 0; press < 24; press++) {
      let best = { gain: 0, piece: [] as number[], label: 0 }
      for (const piece of pieces)
        for (let label = 0; label < 5; label++) {
          const gain = piece.reduce(
            (s, p) => s + inside[p]![label]! - (painted[p]! >= 0 ? inside[p]![painted[p]!]! : 0),
            0,
          )
          if (gain > best.gain) best = { gain, piece, label }
        }
      for (const p of best.piece) painted[p] = best.label
    }
    expect(right(Int32Array.from(tree.of, (p) => painted[p]!))).toBeGreaterThan(0.95)
    // What is proposed unasked is a beginning: each piece lies mostly in one region.
    const first = proposed(tree, 40)
    const most = Array.from({ length: 40 }, () => new Float64Array(5))
    first.forEach((p, v) => most[p]![truth[v]!]!++)
    expect(most.reduce((s, c) => s + Math.max(...c), 0) / truth.length).toBeGreaterThan(0.88)
  }, 120_000)
})
