/** Sets that are joined and never parted; each is known by its least member (path halving, Tarjan and van Leeuwen 1984). */
export class UnionFind {
  private readonly parent: number[] = []

  /** A new set of one; its number, counted from 0. */
  add(): number {
    this.parent.push(this.parent.length)
    return this.parent.length - 1
  }

  root(a: number): number {
    const p = this.parent
    while (p[a] !== a) {
      p[a] = p[p[a]!]!
      a = p[a]!
    }
    return a
  }

  /** Joins the sets of two; which root stays and which is gone, or null when they are one already. */
  join(a: number, b: number): { keep: number; gone: number } | null {
    const r = this.root(a),
      s = this.root(b)
    if (r === s) return null
    const keep = Math.min(r, s),
      gone = Math.max(r, s)
    this.parent[gone] = keep
    return { keep, gone }
  }
}
