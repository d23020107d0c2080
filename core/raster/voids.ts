import { UnionFind } from '../math/unionFind'
import { touch, type Intervals, type Labels } from './regions'

/**
 * Voids followed from layer to layer. A void is open when it reaches the edge of the picture in its layer, or joins an open
 * void of the layer before: the part hangs from the plate, so air comes from the layers already printed.
 */
export class Voids {
  private readonly sets = new UnionFind()
  private readonly open: boolean[] = []
  private before: Intervals | null = null

  /** @param joined told when a void that was followed turns out to be part of another */
  constructor(private readonly joined: (keep: number, gone: number) => void = () => undefined) {}

  /** Lasting numbers of one layer's voids, by their label; `root` gives what they have joined. */
  push(empty: Intervals, labels: Labels): number[] {
    const ids: number[] = []
    for (let c = 0; c < labels.count; c++) {
      this.open.push(labels.edge[c] === 1)
      ids.push(this.sets.add())
    }
    const { before } = this
    const own = new Uint32Array(empty.label.length)
    for (let i = 0; i < own.length; i++) own[i] = ids[empty.label[i]!]!
    // Labels stay those of this layer, which the caller may read; what the next layer joins is a copy by lasting number.
    const lasting: Intervals = { ...empty, label: own }
    // Row after row the same two meet; only the first time there is something to join.
    let a = -1,
      b = -1
    if (before)
      touch(lasting, before, [0, 0], (i, j) => {
        if (lasting.label[i] === a && before.label[j] === b) return
        a = lasting.label[i]!
        b = before.label[j]!
        this.join(a, b)
      })
    this.before = lasting
    return ids
  }

  root(a: number): number {
    return this.sets.root(a)
  }

  shut(id: number): boolean {
    return !this.open[this.root(id)]!
  }

  /** Lets air into a void and all that it has joined. */
  vent(id: number): void {
    this.open[this.root(id)] = true
  }

  private join(a: number, b: number): void {
    const joined = this.sets.join(a, b)
    if (!joined) return
    const { keep, gone } = joined
    this.open[keep] = this.open[keep]! || this.open[gone]!
    this.joined(keep, gone)
  }
}
