/** A binary heap of whole numbers, least key first: for searches that meet many places and finish few. */
export class MinHeap {
  private keys = new Float64Array(1024)
  private items = new Int32Array(1024)
  size = 0

  push(item: number, key: number): void {
    if (this.size === this.items.length) {
      const keys = new Float64Array(this.size * 2),
        items = new Int32Array(this.size * 2)
      keys.set(this.keys)
      items.set(this.items)
      this.keys = keys
      this.items = items
    }
    const { keys, items } = this
    let i = this.size++
    while (i > 0) {
      const up = (i - 1) >> 1
      if (keys[up]! <= key) break
      keys[i] = keys[up]!
      items[i] = items[up]!
      i = up
    }
    keys[i] = key
    items[i] = item
  }

  /** The item of least key; the heap must not be empty. */
  pop(): number {
    const { keys, items } = this
    const top = items[0]!
    const key = keys[--this.size]!,
      item = items[this.size]!
    let i = 0
    for (;;) {
      let c = 2 * i + 1
      if (c >= this.size) break
      if (c + 1 < this.size && keys[c + 1]! < keys[c]!) c++
      if (keys[c]! >= key) break
      keys[i] = keys[c]!
      items[i] = items[c]!
      i = c
    }
    keys[i] = key
    items[i] = item
    return top
  }
}
